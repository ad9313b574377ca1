"""What the score asks of the fretting hand, moment by moment."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score import Finger, Note, Part, Technique
from clear_steps.core.score.ringing import Ringing, ringing_notes
from clear_steps.core.score.timing import BarTime


@dataclass(frozen=True, slots=True)
class Spot:
    """A string pressed (or touched) at a fret above the capo."""

    string: int
    fret: int


@dataclass(frozen=True, slots=True)
class Shape:
    """Spots to be pressed at once, and open strings that sound and may not lie under a barre."""

    spots: tuple[Spot, ...]  # by fret, then thickest string first
    open_strings: frozenset[int]
    pinned: tuple[tuple[int, Finger], ...] = ()  # (string, finger)


@dataclass(frozen=True, slots=True)
class Links:
    """How an event hangs on the one before, by string."""

    raised: tuple[int, ...] = ()  # hammer-on: a higher finger
    lowered: tuple[int, ...] = ()  # pull-off: a lower finger
    slid: tuple[int, ...] = ()  # the same finger
    kept: tuple[int, ...] = ()  # still held: the same finger on the same spot


@dataclass(frozen=True, slots=True)
class Demand:
    """One moment in which the fretting hand presses something."""

    bar: int
    event: int
    onset: Fraction
    seconds: float  # from the part's start, at the marked tempo
    shape: Shape
    links: Links


def is_fretted(note: Note) -> bool:
    """Whether the fretting hand presses or touches the string: no open, dead or tapped note."""
    return note.fret > 0 and not note.dead and Technique.TAP not in note.techniques


def demands_of(part: Part, times: Sequence[BarTime], ringing: Sequence[Sequence[Ringing]] | None = None) -> tuple[Demand, ...]:
    """Every moment at which the hand must press, in written order; `ringing` as `ringing_notes` gives it."""
    ringing = ringing_notes(part) if ringing is None else ringing
    demands: list[Demand] = []
    before: dict[int, Note] = {}
    for bar_index, bar in enumerate(part.bars):
        for index, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
            held = ringing[bar_index][index].notes
            notes = (*event.notes, *held) if held else event.notes
            ahead = _set_ahead(part, bar_index, index) if event.notes else ()
            spots = {Spot(note.string, note.fret) for note in notes if is_fretted(note)} | set(ahead)
            if spots:
                shape = Shape(
                    tuple(sorted(spots, key=lambda spot: (spot.fret, -spot.string))),
                    frozenset(note.string for note in notes if note.fret == 0 and not note.dead),
                    tuple((note.string, note.finger) for note in event.notes if note.finger and is_fretted(note)),
                )
                demands.append(Demand(bar_index, index, onset, times[bar_index].at(float(onset)), shape, _links(event.notes, held, before)))
            if event.notes:
                before = {note.string: note for note in notes}
    return tuple(demands)


def _set_ahead(part: Part, bar: int, event: int) -> tuple[Spot, ...]:
    """Fingers already down for the pull-offs that follow; one from a tap binds none."""
    bars = part.bars
    following = bars[bar].events[event + 1 : event + 2] or (bars[bar + 1].events[:1] if bar + 1 < len(bars) else ())
    pulled = [note for later in following for note in later.notes if Technique.PULL_OFF in note.techniques and is_fretted(note)]
    if not pulled:
        return ()
    sounding = {note.string: note for note in bars[bar].events[event].notes}
    return tuple(
        Spot(note.string, note.fret)
        for note in pulled
        if note.string in sounding and is_fretted(sounding[note.string]) and sounding[note.string].fret > note.fret
    )  # fmt: skip


_NO_LINKS = Links()


def _links(notes: tuple[Note, ...], held: tuple[Note, ...], before: dict[int, Note]) -> Links:
    if not held and not any(note.techniques or note.tied for note in notes):
        return _NO_LINKS

    def arriving(technique: Technique) -> tuple[int, ...]:
        return tuple(
            note.string for note in notes
            if technique in note.techniques and is_fretted(note) and note.string in before and is_fretted(before[note.string])
        )  # fmt: skip

    kept = tuple(note.string for note in (*held, *(note for note in notes if note.tied)) if is_fretted(note))
    return Links(arriving(Technique.HAMMER_ON), arriving(Technique.PULL_OFF), arriving(Technique.SLIDE), kept)
