"""A part as played by one hand at one tempo: what the measures look at."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.hand import SLIDE_SHARE, Demand, Grip, Neck, Spot, movement_seconds
from clear_steps.core.score import Bar, Event, Part, Technique
from clear_steps.core.score.timing import BarTime


@dataclass(frozen=True, slots=True)
class Move:
    """From the grip before to this one; distances along the neck in mm, times in seconds."""

    before: Grip
    distance_mm: float
    needed_seconds: float
    seconds: float
    reach_mm: float  # spread of the fingers of both grips, in the hand's own frame
    reach_frets: tuple[int, int]

    @property
    def load(self) -> float:
        """Time needed over time there is; over 1 it cannot be played at this tempo."""
        return self.needed_seconds / self.seconds


@dataclass(frozen=True, slots=True)
class Moment:
    """Notes struck together, with the hand's grip if it presses anything."""

    onset: Fraction
    seconds: float
    event: Event
    grip: Grip | None
    move: Move | None

    @property
    def strings(self) -> tuple[int, ...]:
        """Strings struck, thickest first as the eye reads a chord from the bass."""
        return tuple(note.string for note in reversed(self.event.struck))


@dataclass(frozen=True, slots=True)
class PlayedBar:
    """One written bar in time; `moments` are its events that strike something."""

    index: int
    number: int
    bar: Bar
    seconds: float
    beat_seconds: float
    span_mm: float
    moments: tuple[Moment, ...]


def played_bars(part: Part, times: Sequence[BarTime], demands: Sequence[Demand], grips: Sequence[Grip], span_mm: float) -> tuple[PlayedBar, ...]:
    """Put grips and times on the events; `grips` has one entry a demand."""
    neck = Neck(part.scale_length_mm, part.capo)
    gripped: dict[tuple[int, int], tuple[Grip, Move | None]] = {}
    before: tuple[Grip, float] | None = None
    for demand, grip in zip(demands, grips, strict=True):
        seconds = times[demand.bar].at(demand.onset)
        move = _move(before[0], grip, seconds - before[1], bool(demand.links.slid), neck) if before else None
        gripped[demand.bar, demand.event] = (grip, move)
        before = (grip, seconds)
    bars = []
    for index, (bar, time) in enumerate(zip(part.bars, times, strict=True)):
        moments = tuple(
            Moment(onset, time.at(onset), event, *gripped.get((index, number), (None, None)))
            for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True))
            if event.struck
        )
        beat_seconds = float(bar.metre.beat_quarters) * time.quarter_seconds
        bars.append(PlayedBar(index, part.bar_number(index), bar, time.seconds, beat_seconds, span_mm, moments))
    return tuple(bars)


def _move(before: Grip, grip: Grip, seconds: float, slid: bool, neck: Neck) -> Move:
    start, stop = neck.fret_mm(before.position), neck.fret_mm(grip.position)
    jumps = [abs(neck.fret_mm(fret) - neck.fret_mm(grip.finger_frets[finger])) for finger, fret in before.finger_frets.items() if finger in grip.finger_frets]
    distance = max(abs(stop - start), *jumps, 0.0)
    needed = movement_seconds(distance, neck.fret_width_mm(max(grip.position, 1)))
    low, high = min(_frets(before, start, neck)[0], _frets(grip, stop, neck)[0]), max(_frets(before, start, neck)[1], _frets(grip, stop, neck)[1])
    alone = len({*before.fingers, *grip.fingers}) == 1
    frets = [spot.fret for _, spot in (*before.presses, *grip.presses)]
    return Move(
        before, distance, needed * (SLIDE_SHARE if slid else 1), seconds,
        0.0 if alone else high[0] - low[0], (min(frets), max(frets)),
    )  # fmt: skip


def _frets(grip: Grip, position_mm: float, neck: Neck) -> tuple[tuple[float, int], tuple[float, int]]:
    """Nearest and farthest pressed place from the index finger's, as (mm, fret)."""
    places = [(neck.fret_mm(spot.fret) - position_mm, spot.fret) for spot in pressed_spots(grip)] or [(0.0, grip.position)]
    return min(places), max(places)


def pressed_spots(grip: Grip) -> tuple[Spot, ...]:
    """What the fingers press, the thumb left out."""
    return tuple(spot for finger, spot in grip.presses if finger != "T")


def techniques_in(event: Event) -> list[tuple[Technique, int]]:
    """Every technique of an event with its string; those of a whole event count once."""
    shared = [(technique, event.struck[0].string) for technique in sorted(event.techniques)] if event.struck else []
    own = [(technique, note.string) for note in event.notes for technique in sorted(event.techniques_of(note) - event.techniques)]
    return shared + own
