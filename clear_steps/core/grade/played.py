"""A part as played by one hand at one tempo: what the measures look at."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.hand import SLIDE_SHARE, Demand, Grip, Neck, movement_seconds
from clear_steps.core.score import UNPICKED, Bar, Event, Finger, Note, Part, Technique
from clear_steps.core.score.timing import BarTime


@dataclass(frozen=True, slots=True)
class Way:
    """From one grip to the next, whatever the time; distances along the neck in mm."""

    before: Grip
    distance_mm: float
    needed_seconds: float
    reach_mm: float  # from one note's finger to the next one's, in the hand's own frame
    reach_frets: tuple[int, int]
    jump: tuple[Finger, int, int] | None  # a finger that goes farther than the hand: from fret, to fret


@dataclass(frozen=True, slots=True)
class Move:
    """A way to go, and the seconds there are for it."""

    way: Way
    seconds: float

    @property
    def load(self) -> float:
        """Time needed over time there is; over 1 it cannot be played at this tempo."""
        return self.way.needed_seconds / self.seconds


@dataclass(frozen=True, slots=True)
class Sounding:
    """What the score alone says of notes struck together."""

    onset: Fraction
    onset_quarters: float
    event: Event
    struck: tuple[Note, ...]
    picked: bool  # the picking hand sounds at least one of them
    techniques: tuple[tuple[Technique, int], ...]  # each with its string; those of a whole event once


@dataclass(frozen=True, slots=True)
class Moment:
    """Notes struck together, with the hand's grip if it presses anything."""

    sounding: Sounding
    seconds: float
    grip: Grip | None
    move: Move | None

    @property
    def onset(self) -> Fraction:
        """From the bar's start, in quarters."""
        return self.sounding.onset

    @property
    def event(self) -> Event:
        """The event as written."""
        return self.sounding.event

    @property
    def strings(self) -> tuple[int, ...]:
        """Strings struck, thickest first as the eye reads a chord from the bass."""
        return tuple(note.string for note in reversed(self.sounding.struck))


@dataclass(frozen=True, slots=True)
class PlayedBar:
    """One written bar in time; `moments` are its events that strike something."""

    index: int
    number: int
    bar: Bar
    seconds: float
    beat_seconds: float
    beats: float
    span_mm: float
    moments: tuple[Moment, ...]

    @property
    def fingering_key(self) -> tuple[int, ...]:
        """Equal for two playings of the bar with the same grips, into it included (by identity)."""
        into = next((id(moment.move.way.before) for moment in self.moments if moment.move), 0)
        return (self.index, into, *(id(moment.grip) for moment in self.moments))


class Performance:
    """A part ready to be played with one fingering after another; what they share is done once."""

    def __init__(self, part: Part, demands: Sequence[Demand]) -> None:
        self._part, self._demands = part, demands
        self._neck = Neck(part.scale_length_mm, part.capo)
        self._onsets = [float(demand.onset) for demand in demands]
        self._soundings = [_soundings(bar) for bar in part.bars]
        self._beat_quarters = [float(bar.metre.beat_quarters) for bar in part.bars]
        self._beats = [float(bar.quarters / bar.metre.beat_quarters) for bar in part.bars]
        self._ways: dict[tuple[int, int, bool], Way] = {}  # by the grips' identity

    def bars(self, times: Sequence[BarTime], grips: Sequence[Grip], span_mm: float) -> tuple[PlayedBar, ...]:
        """Put grips and times on the events; `grips` has one entry a demand."""
        gripped: dict[tuple[int, int], tuple[Grip, Move | None]] = {}
        before: tuple[Grip, float] | None = None
        for demand, onset, grip in zip(self._demands, self._onsets, grips, strict=True):
            seconds = times[demand.bar].at(onset)
            move = self._move(before[0], grip, seconds - before[1], bool(demand.links.slid)) if before else None
            gripped[demand.bar, demand.event] = (grip, move)
            before = (grip, seconds)
        return tuple(self._bar(index, time, gripped, span_mm) for index, time in enumerate(times))

    def _bar(self, index: int, time: BarTime, gripped: dict[tuple[int, int], tuple[Grip, Move | None]], span_mm: float) -> PlayedBar:
        moments = tuple(
            Moment(sounding, time.at(sounding.onset_quarters), *gripped.get((index, number), (None, None))) for number, sounding in self._soundings[index]
        )
        bar, beat_seconds = self._part.bars[index], self._beat_quarters[index] * time.quarter_seconds
        return PlayedBar(index, self._part.bar_number(index), bar, time.seconds, beat_seconds, self._beats[index], span_mm, moments)

    def _move(self, before: Grip, grip: Grip, seconds: float, slid: bool) -> Move:
        key = (id(before), id(grip), slid)
        if key not in self._ways:
            self._ways[key] = _way(before, grip, slid, self._neck)
        return Move(self._ways[key], seconds)


def _soundings(bar: Bar) -> list[tuple[int, Sounding]]:
    found = []
    for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
        struck = event.struck
        if not struck:
            continue
        picked = not all(UNPICKED & event.techniques_of(note) for note in struck)
        found.append((number, Sounding(onset, float(onset), event, struck, picked, _techniques_in(event, struck))))
    return found


def _way(before: Grip, grip: Grip, slid: bool, neck: Neck) -> Way:
    start, stop = neck.fret_mm(before.position), neck.fret_mm(grip.position)
    now = grip.finger_frets
    jumps = [
        (abs(neck.fret_mm(fret) - neck.fret_mm(now[finger])), (finger, fret, now[finger])) for finger, fret in before.finger_frets.items() if finger in now
    ]
    farthest, jump = max(jumps, default=(0.0, None))
    distance = max(abs(stop - start), farthest)
    needed = movement_seconds(distance, neck.fret_width_mm(max(grip.position, 1)))
    places = [*_places_mm(before, start, neck), *_places_mm(grip, stop, neck)]
    frets = [spot.fret for _, spot in (*before.presses, *grip.presses)]
    line = len(before.presses) == len(grip.presses) == 1 and before.fingers != grip.fingers
    reach = max(places) - min(places) if line else 0.0
    return Way(before, distance, needed * (SLIDE_SHARE if slid else 1), reach, (min(frets), max(frets)), jump if farthest > abs(stop - start) else None)


def _places_mm(grip: Grip, position_mm: float, neck: Neck) -> list[float]:
    """Where the fingers press, from the index finger's place along the neck, the thumb left out."""
    return [neck.fret_mm(spot.fret) - position_mm for finger, spot in grip.presses if finger is not Finger.THUMB] or [0.0]


def _techniques_in(event: Event, struck: tuple[Note, ...]) -> tuple[tuple[Technique, int], ...]:
    shared = [(technique, struck[0].string) for technique in sorted(event.techniques)]
    own = [(technique, note.string) for note in event.notes for technique in sorted(event.techniques_of(note) - event.techniques)]
    return tuple(shared + own)
