"""What there is to say of a chunk, in no language yet."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import accumulate

from clear_steps.core.figures import As, At
from clear_steps.core.hand import Grip, is_fretted
from clear_steps.core.score import Event, Metre, Note, Part, PickingFinger, Stroke, Technique
from clear_steps.core.teach.chunks.chunk import Chunk, Struck

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
    """A note as it is said; `finger` is empty where none presses, `half_tones` of a bend."""

    string: int
    fret: int
    finger: str = ""
    dead: bool = False
    techniques: frozenset[Technique] = frozenset()
    half_tones: Fraction | None = None
    released: bool = False
    own: frozenset[str] = frozenset()  # techniques of the teacher's own naming

    @property
    def manner(self) -> tuple[object, ...]:
        """All but the string: what several notes of a chord may have in common."""
        return self.fret, self.finger, self.dead, self.techniques, self.half_tones, self.released, self.own


@dataclass(frozen=True, slots=True)
class MomentFact:
    """What is struck at once, the thickest string first; what stays down and what is stopped with it."""

    at: At
    notes: tuple[NoteFact, ...]
    chord: str = ""
    staying: tuple[str, ...] = ()  # fingers that hold what rings on
    stopped: tuple[int, ...] = ()  # strings
    stroke: Stroke | None = None
    picking: tuple[PickingFinger, ...] = ()


@dataclass(frozen=True, slots=True)
class LikeFact:
    """That a chunk is an earlier one again, moved `by` frets or strings, but for some moments; `elsewhere`:
    from another place in its bar, so that it is counted otherwise."""

    name: str
    how: As
    by: int
    but: tuple[MomentFact, ...] = ()
    elsewhere: bool = False


@dataclass(frozen=True, slots=True)
class ChunkFacts:
    """All there is to say of a chunk; `common`: techniques of every note; `counts`: for every bar its metre,
    and where in it something is struck, in quarters."""

    name: str
    number: int  # of the bar it begins in
    begins: Fraction  # quarters from where that bar's metre begins
    several_bars: bool
    moments: tuple[MomentFact, ...]
    common: frozenset[Technique]
    counts: tuple[tuple[Metre, tuple[Fraction, ...]], ...]
    like: LikeFact | None = None

    @property
    def rhythm(self) -> tuple[Fraction, ...]:
        """When every moment comes, in quarters after the first."""
        starts = accumulate((metre.quarters for metre, _ in self.counts), initial=Fraction(0))
        found = [
            start + onset for start, (_, onsets) in zip(starts, self.counts, strict=False) for onset in onsets
        ]
        return tuple(at - found[0] for at in found)


def facts_of(part: Part, chunk: Chunk, rows: Sequence[Struck], grips: Grips, name: str) -> ChunkFacts:
    """The facts of a chunk, nothing left to an earlier one."""
    moments = tuple(_moment(part, row, grips) for row in rows)
    notes = [note for moment in moments for note in moment.notes]
    common = frozenset.intersection(*(note.techniques for note in notes)) if len(moments) > 1 else frozenset()
    counts = tuple(
        (
            part.bars[index].metre,
            tuple(part.starts_at(index) + row.at.onset for row in rows if row.at.bar == index),
        )
        for index in range(chunk.first.bar, chunk.last.bar + 1)
    )
    first = chunk.first
    return ChunkFacts(
        name,
        part.bar_number(first.bar),
        part.starts_at(first.bar) + first.onset,
        chunk.first.bar != chunk.last.bar,
        moments,
        common,
        counts,
    )


def _moment(part: Part, row: Struck, grips: Grips) -> MomentFact:
    event = row.event
    grip = grips.get((row.at.bar, row.number))
    notes = sorted(event.struck, key=lambda note: -note.string)
    return MomentFact(
        row.at,
        tuple(_note(event, note, grip) for note in notes),
        event.chord,
        _staying(event, grip),
        tuple(sorted(event.stopped, reverse=True)),
        event.stroke,
        tuple(note.picking for note in notes if note.picking),
    )


def _note(event: Event, note: Note, grip: Grip | None) -> NoteFact:
    techniques = event.techniques_of(note)
    fretted = is_fretted(note) and Technique.TAP not in techniques
    return NoteFact(
        note.string,
        0 if note.dead else note.fret,
        str(grip.finger_on(note.string) or "") if grip and fretted else "",
        note.dead,
        techniques - _PLAIN,
        note.bend.half_tones if note.bend else None,
        bool(note.bend and note.bend.released),
        event.own_techniques,
    )


def _staying(event: Event, grip: Grip | None) -> tuple[str, ...]:
    """Fingers that hold a tied note under what is struck."""
    if not grip:
        return ()
    held = [note for note in event.notes if note.tied and is_fretted(note)]
    return tuple(dict.fromkeys(str(finger) for note in held if (finger := grip.finger_on(note.string))))


def moved(moment: MomentFact, how: As, by: int) -> MomentFact | None:
    """The moment moved along the neck or to other strings; None where that is no place. Open strings stay
    where they are when the hand moves."""
    if how is As.EQUAL:
        return moment
    notes = []
    for note in moment.notes:
        string = note.string + (by if how is As.STRINGS else 0)
        moves = how is As.MOVED and note.fret and not note.dead
        fret = note.fret + (by if moves else 0)
        if string < 1 or fret < 0:
            return None
        notes.append(replace(note, string=string, fret=fret))
    return replace(moment, notes=tuple(notes))
