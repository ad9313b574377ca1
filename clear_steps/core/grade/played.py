"""A part as played by one hand at one tempo: what the measures look at."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import accumulate

from clear_steps.core.hand import SLIDE_SHARE, Demand, Grip, Neck, movement_seconds
from clear_steps.core.score import UNPICKED, Bar, Event, Finger, Note, Part, Picking, Technique
from clear_steps.core.score.ringing import Ringing
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
    strings: tuple[int, ...]  # struck, thickest first as the eye reads a chord from the bass
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
        """Strings struck, thickest first."""
        return self.sounding.strings


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
    picking: Picking | None
    metre_changed: bool
    two_voices: bool  # the texture has a bass that rings under other voices
    moments: tuple[Moment, ...]


class Performance:
    """A part ready to be played with one fingering after another; what they share is done once."""

    def __init__(self, part: Part, demands: Sequence[Demand], ringing: Sequence[Sequence[Ringing]]) -> None:
        self._part, self.demands = part, demands
        self._neck = Neck(part.scale_length_mm, part.capo)
        self._onsets = [float(demand.onset) for demand in demands]
        self._soundings = [_soundings(bar) for bar in part.bars]
        self._beat_quarters = [float(bar.metre.beat_quarters) for bar in part.bars]
        self._beats = [float(bar.quarters / bar.metre.beat_quarters) for bar in part.bars]
        self._two_voices = [any(row.guessed for row in rows) for rows in ringing]
        self._spans = _spans(demands, len(part.bars))
        self._ways: dict[tuple[int, int, bool], Way] = {}  # by the grips' identity
        self._played: dict[tuple[object, ...], PlayedBar] = {}

    def bars(self, times: Sequence[BarTime], grips: Sequence[Grip], span_mm: float) -> tuple[PlayedBar, ...]:
        """Put grips and times on the events; `grips` has one entry a demand.

        A bar that is played with the same grips, the one into it included, is the same object.
        """
        held = tuple(map(id, grips))
        found = []
        for index in range(len(times)):
            first, last = self._spans[index]
            key = (index, id(times), span_mm, held[max(first - 1, 0) : last])
            if key not in self._played:
                self._played[key] = self._bar(index, times, grips, span_mm)
            found.append(self._played[key])
        return tuple(found)

    def _bar(self, index: int, times: Sequence[BarTime], grips: Sequence[Grip], span_mm: float) -> PlayedBar:
        time, (first, last) = times[index], self._spans[index]
        gripped: dict[int, tuple[Grip, Move | None]] = {}
        for at in range(first, last):
            move = self._move(grips[at - 1], grips[at], self._seconds(at, times) - self._seconds(at - 1, times), at) if at else None
            gripped[self.demands[at].event] = (grips[at], move)
        moments = tuple(Moment(sounding, time.at(sounding.onset_quarters), *gripped.get(number, (None, None))) for number, sounding in self._soundings[index])
        bar, beat_seconds = self._part.bars[index], self._beat_quarters[index] * time.quarter_seconds
        return PlayedBar(
            index,
            self._part.bar_number(index),
            bar,
            time.seconds,
            beat_seconds,
            self._beats[index],
            span_mm,
            self._part.picking,
            metre_changed=index > 0 and bar.metre != self._part.bars[index - 1].metre,
            two_voices=self._two_voices[index],
            moments=moments,
        )

    def _seconds(self, at: int, times: Sequence[BarTime]) -> float:
        return times[self.demands[at].bar].at(self._onsets[at])

    def _move(self, before: Grip, grip: Grip, seconds: float, at: int) -> Move:
        slid = bool(self.demands[at].links.slid)
        key = (id(before), id(grip), slid)
        if key not in self._ways:
            self._ways[key] = _way(before, grip, slid, self._neck)
        return Move(self._ways[key], seconds)


def _spans(demands: Sequence[Demand], bars: int) -> list[tuple[int, int]]:
    """Where each bar's demands begin and end; a bar without any begins where the next does."""
    counts = [0] * bars
    for demand in demands:
        counts[demand.bar] += 1
    stops = list(accumulate(counts))
    return [(stop - count, stop) for stop, count in zip(stops, counts, strict=True)]


def _soundings(bar: Bar) -> list[tuple[int, Sounding]]:
    found = []
    for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
        struck = event.struck
        if not struck:
            continue
        strings = tuple(note.string for note in reversed(struck))
        picked = not all(UNPICKED & event.techniques_of(note) for note in struck)
        found.append((number, Sounding(onset, float(onset), event, struck, strings, picked, _techniques_in(event, struck))))
    return found


def _way(before: Grip, grip: Grip, slid: bool, neck: Neck) -> Way:
    start, stop = neck.fret_mm(before.position), neck.fret_mm(grip.position)
    hand = abs(stop - start)
    farthest, reach = 0.0, 0.0
    jump: tuple[Finger, int, int] | None = None
    if len(before.presses) == len(grip.presses) == 1:
        (old, a), (new, b) = before.presses[0], grip.presses[0]
        apart = neck.fret_mm(b.fret) - neck.fret_mm(a.fret)
        if old is not new:
            reach = abs(apart - (stop - start))
        elif new is not Finger.THUMB:
            farthest, jump = abs(apart), (new, a.fret, b.fret)
        frets = (min(a.fret, b.fret), max(a.fret, b.fret))
    else:
        farthest, jump = _farthest_jump(before, grip, neck)
        every = [spot.fret for _, spot in (*before.presses, *grip.presses)]
        frets = (min(every), max(every))
    distance = max(hand, farthest)
    needed = movement_seconds(distance, neck.fret_width_mm(max(grip.position, 1))) * (SLIDE_SHARE if slid else 1)
    return Way(before, distance, needed, reach, frets, jump if farthest > hand else None)


def _farthest_jump(before: Grip, grip: Grip, neck: Neck) -> tuple[float, tuple[Finger, int, int] | None]:
    """The finger pressed both times that goes farthest along the neck: mm, and (finger, from fret, to fret)."""
    now = grip.finger_frets
    jumps = [
        (abs(neck.fret_mm(fret) - neck.fret_mm(now[finger])), (finger, fret, now[finger])) for finger, fret in before.finger_frets.items() if finger in now
    ]
    return max(jumps, default=(0.0, None))


def _techniques_in(event: Event, struck: tuple[Note, ...]) -> tuple[tuple[Technique, int], ...]:
    shared = [(technique, struck[0].string) for technique in sorted(event.techniques)]
    own = [(technique, note.string) for note in event.notes for technique in sorted(event.techniques_of(note) - event.techniques)]
    return tuple(shared + own)
