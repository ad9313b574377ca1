"""What there is to say of every moment of a part, in no language yet."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

from clear_steps.core.figures import As, At
from clear_steps.core.hand import Grip, is_fretted
from clear_steps.core.score import (
    Dynamic,
    Event,
    Metre,
    Note,
    Part,
    PickingFinger,
    Stroke,
    Technique,
)

Grips = Mapping[tuple[int, int], Grip]
"""The fingering, by bar and event."""

# Said by the bend itself.
_BENDS = frozenset(
    {
        Technique.BEND_QUARTER,
        Technique.BEND_HALF,
        Technique.BEND_WHOLE,
        Technique.BEND_ONE_AND_HALF,
        Technique.BEND_TWO,
        Technique.RELEASE,
    }
)
_PLAIN = frozenset({Technique.DEAD}) | _BENDS


@dataclass(frozen=True, slots=True)
class NoteFact:
    """A note as it is said. `finger` is empty where none presses, `pinned` where the teacher wrote it;
    `half_tones` of a bend; `own`: techniques of the teacher's own naming."""

    string: int
    fret: int
    finger: str = ""
    pinned: bool = False
    dead: bool = False
    techniques: frozenset[Technique] = frozenset()
    half_tones: Fraction | None = None
    released: bool = False
    own: frozenset[str] = frozenset()
    picking: PickingFinger | None = None
    optional: bool = False
    uncertain: bool = False

    @property
    def manner(self) -> tuple[object, ...]:
        """What is done to it, wherever it lies."""
        bent = self.half_tones, self.released
        return self.techniques, *bent, self.own, self.optional, self.uncertain


@dataclass(frozen=True, slots=True)
class MomentFact:
    """What is struck at once, the thickest string first; `held`: nothing is, something is done to what rings.

    `onset` in quarters from where the bar's metre begins, `at` as figures have it, `start` quarters from the
    part's first bar; `step` quarters to the next moment, `silent` those of them in which nothing sounds.
    """

    at: At
    onset: Fraction
    start: Fraction
    metre: Metre
    step: Fraction
    silent: Fraction
    notes: tuple[NoteFact, ...]
    held: bool = False
    staying: tuple[str, ...] = ()  # fingers that hold what rings on
    stopped: tuple[int, ...] = ()  # strings
    stroke: Stroke | None = None
    remark: str = ""
    dynamic: Dynamic | None = None
    dip: Fraction | None = None
    free: bool = False
    uncertain: bool = False  # its rhythm

    @property
    def beats(self) -> Fraction:
        """How many beats of its metre it takes until the next."""
        return self.step / self.metre.beat_quarters

    @property
    def off_beat(self) -> Fraction:
        """How far into its beat it comes, as a share of it."""
        return self.onset / self.metre.beat_quarters % 1

    @property
    def frets(self) -> dict[int, int]:
        """Frets by string of what sounds."""
        return {note.string: note.fret for note in self.notes if not note.dead}

    @property
    def is_dead(self) -> bool:
        """Whether nothing but dead strokes is struck."""
        return all(note.dead for note in self.notes)

    @property
    def strings(self) -> tuple[int, ...]:
        """All that is struck, the thickest first."""
        return tuple(note.string for note in self.notes)

    @property
    def more(self) -> tuple[object, ...]:
        """What is written of the moment beside its notes."""
        return self.stopped, self.remark, self.dynamic, self.dip, self.free, self.uncertain


@dataclass(frozen=True, slots=True)
class LikeFact:
    """That a chunk is an earlier one again, moved `by` frets or strings, but for some moments."""

    name: str
    how: As
    by: int
    but: tuple[MomentFact, ...] = ()


@dataclass(frozen=True, slots=True)
class _Row:
    at: At
    number: int
    start: Fraction
    event: Event

    @property
    def late(self) -> tuple[Note, ...]:
        """Notes that ring on and have something done to them."""
        return tuple(note for note in self.event.notes if note.tied and (note.bend or note.techniques))


def moment_facts(part: Part, grips: Grips) -> dict[tuple[int, int], MomentFact]:
    """By bar and event (indexes) every moment at which something is done, in the order written."""
    rows, silence = _rows(part)
    ends = sum((bar.quarters for bar in part.bars), Fraction(0))
    found = {}
    for row, after in pairwise([*rows, None]):
        assert row is not None
        step = (after.start if after else ends) - row.start
        silent = min(silence[row.at.bar, row.number], step)
        found[row.at.bar, row.number] = _moment(part, row, step, silent, grips)
    return found


def _rows(part: Part) -> tuple[list[_Row], dict[tuple[int, int], Fraction]]:
    """Every place where something is done, and the quarters of rest that follow it."""
    rows: list[_Row] = []
    silence: dict[tuple[int, int], Fraction] = {}
    start = Fraction(0)
    for index, bar in enumerate(part.bars):
        for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
            row = _Row(At(index, onset), number, start + onset, event)
            if event.struck or row.late or event.remark:
                rows.append(row)
                silence[index, number] = Fraction(0)
            elif rows and not event.notes:
                silence[rows[-1].at.bar, rows[-1].number] += event.quarters
        start += bar.quarters
    return rows, silence


def _moment(part: Part, row: _Row, step: Fraction, silent: Fraction, grips: Grips) -> MomentFact:
    event = row.event
    grip = grips.get((row.at.bar, row.number))
    own = event.struck or row.late  # neither where a remark stands over a rest
    return MomentFact(
        row.at,
        part.starts_at(row.at.bar) + row.at.onset,
        row.start,
        part.bars[row.at.bar].metre,
        step,
        silent,
        tuple(_note(event, note, grip) for note in sorted(own, key=lambda note: -note.string)),
        not event.struck,
        _staying(event, grip),
        tuple(sorted(event.stopped, reverse=True)),
        event.stroke,
        event.remark,
        event.dynamic,
        event.dip,
        event.free,
        event.uncertain,
    )


def _note(event: Event, note: Note, grip: Grip | None) -> NoteFact:
    techniques = event.techniques_of(note)
    fretted = is_fretted(note) and Technique.TAP not in techniques
    return NoteFact(
        note.string,
        0 if note.dead else note.fret,
        str(grip.finger_on(note.string) or "") if grip and fretted else "",
        note.finger is not None,
        note.dead,
        techniques - _PLAIN,
        note.bend.half_tones if note.bend else None,
        bool(note.bend and note.bend.released),
        event.own_techniques,
        note.picking,
        note.optional,
        note.uncertain,
    )


def _staying(event: Event, grip: Grip | None) -> tuple[str, ...]:
    """Fingers that hold a tied note under what is struck."""
    if not grip or not event.struck:
        return ()
    held = [note for note in event.notes if note.tied and is_fretted(note)]
    return tuple(dict.fromkeys(str(finger) for note in held if (finger := grip.finger_on(note.string))))
