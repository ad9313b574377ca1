"""A part as played by one hand at one tempo: what the measures look at."""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import inf
from typing import NamedTuple

from clear_steps.core.grade.handway import Way, way_between
from clear_steps.core.grade.heldfingers import Change, HeldFingers
from clear_steps.core.grade.pickinghand import PickingHands
from clear_steps.core.grade.runs import (
    FORGOTTEN_S,
    MOST_STOOD_S,
    Entering,
    TimedRun,
    entering_at,
    timed_run,
)
from clear_steps.core.grade.sounding import Sounding, soundings_of
from clear_steps.core.grade.spread import Spread, Spreads
from clear_steps.core.hand import (
    SLIDE_SHARE,
    BarDemands,
    Fingered,
    Grip,
    Neck,
    movement_seconds,
)
from clear_steps.core.score import Bar, Event, Part, Picking
from clear_steps.core.score.timing import BarTime
from clear_steps.core.score.tuning import bass_from
from clear_steps.core.score.words import bar_words, beat_words
from clear_steps.core.shapes.ringing import Texture

# A hand that has stood in its place looks ahead and leaves early, what it plays last let go short (from
# memory).
STOOD_SHARE = 0.4
_MOST_METRE_CHANGES = 3  # in a row that are counted


# Made in great numbers: a tuple is made several times faster than a dataclass.
class Move(NamedTuple):
    """A way to go, the seconds there are for it, and those that the hand stood in its place before."""

    way: Way
    seconds: float
    stood_seconds: float

    @property
    def load(self) -> float:
        """Time needed over time there is; over 1 it cannot be played at this tempo."""
        return self.way.needed_seconds / (self.seconds + STOOD_SHARE * min(self.stood_seconds, MOST_STOOD_S))


@dataclass(frozen=True, slots=True)
class TapMove:
    """From one tapped note to the next: the picking hand along the neck."""

    from_fret: int
    to_fret: int
    distance_mm: float
    needed_seconds: float
    seconds: float

    @property
    def load(self) -> float:
        """Time needed over time there is."""
        return self.needed_seconds / self.seconds


class Moment(NamedTuple):
    """Notes struck together, with the hand's grip if it presses anything."""

    sounding: Sounding
    seconds: float  # from the bar's start
    grip: Grip | None
    move: Move | None
    spread: Spread | None
    tap_move: TapMove | None
    change: Change
    since_set: float  # seconds since a shape was set, infinite where that is long ago
    over: bool  # a fretted note of another voice rings on under it

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
    quarter_seconds: float
    beats: float
    span_mm: float
    plucked: float  # how surely by fingers, 0 to 1
    picking: Picking | None  # as written
    metre_changes: int  # into this bar and those before it, without a pause
    starts_at: Fraction  # in its metre, quarters: more than 0 for a pickup
    capo: int
    body_fret: int | None  # from the nut, where the neck joins the body
    bass_from: int  # the thinnest string that carries a bass
    holds_over: bool  # its last notes are tied over the bar line
    comes_from: int | None  # the number of the bar played before, where that is not the one written before
    textures: frozenset[Texture]  # that ring unsaid
    moments: tuple[Moment, ...]

    @property
    def two_voices(self) -> bool:
        """Whether a bass rings under other voices; one open string alone is a drone."""
        return Texture.BASS in self.textures and not self._has_one_open_bass

    @property
    def over_a_drone(self) -> bool:
        """Whether one open string sounds again and again under a voice."""
        return Texture.DRONE in self.textures or (Texture.BASS in self.textures and self._has_one_open_bass)

    @property
    def basses(self) -> set[tuple[int, int]]:
        """The (string, fret) places of what is struck on the strings of the bass."""
        struck = (note for moment in self.moments for note in moment.sounding.struck)
        return {(note.string, note.fret) for note in struck if note.string >= self.bass_from}

    @property
    def _has_one_open_bass(self) -> bool:
        basses = self.basses
        return len(basses) == 1 and all(fret == 0 for _, fret in basses)

    def beat_words(self, onset: Fraction) -> str:
        """`the & of beat 2`, of an onset in the bar."""
        return beat_words(self.in_metre(onset), self.bar.metre)

    def way_in(self, moment: Moment) -> str:
        """`, coming from bar 12`, where the way to a moment leads from a bar that is not written before."""
        first = next((each for each in self.moments if each.grip), None)
        if self.comes_from is None or moment is not first:
            return ""
        return f", coming from {bar_words(self.comes_from)}"

    def in_metre(self, onset: Fraction) -> Fraction:
        """An onset in the bar, from where its metre begins."""
        return self.starts_at + onset if self.starts_at else onset


_Gripped = tuple[Grip | None, Move | None, Spread | None]
_NOTHING: _Gripped = (None, None, None)


class Performer:
    """Plays fingered parts for one hand; a bar that is played as before is the same object."""

    def __init__(self, neck: Neck, span_mm: float) -> None:
        self._neck, self._span_mm = neck, span_mm
        self._soundings: dict[int, tuple[Bar, list[tuple[int, Sounding]]]] = {}  # by the bar's identity
        self._picking_hands = PickingHands()
        self._ways: dict[tuple[int, int, bool], Way] = {}  # by the grips' identity
        self._played: dict[
            tuple[object, ...], tuple[PlayedBar, Entering, object]
        ] = {}  # with the grips, so that their ids stay their own

    def bars(
        self, part: Part, fingered: Fingered, hand: int, times: Sequence[BarTime]
    ) -> tuple[tuple[PlayedBar, ...], ...]:
        """Put the grips of one hand and the times on the events: every bar of every run of the route."""
        return tuple(
            tuple(self._visits(part, fingered, hand, timed_run(fingered, times, run), range(len(run))))
            for run in fingered.route.runs
        )

    def bar(
        self, part: Part, fingered: Fingered, hand: int, times: Sequence[BarTime], index: int
    ) -> tuple[PlayedBar, ...]:
        """The same for one bar alone, once for every way it is come to; those before it only as far as they
        bear on it."""
        found: dict[tuple[int, ...], PlayedBar] = {}
        for run in fingered.route.runs:
            timed = timed_run(fingered, times, run)
            for at in (at for at, each in enumerate(run) if each == index):
                first = timed.bears_from(at)
                way = run[first : at + 2]
                if way not in found:
                    *_, found[way] = self._visits(part, fingered, hand, timed, range(first, at + 1))
        return tuple({id(bar): bar for bar in found.values()}.values())

    def _visits(
        self, part: Part, fingered: Fingered, hand: int, timed: TimedRun, positions: range
    ) -> Iterator[PlayedBar]:
        """The bars of a run at some positions one after the other."""
        plucked = self._picking_hands.plucked(part)
        run = timed.bars
        entering = entering_at(fingered, hand, timed, positions.start)
        for at in positions:
            around = _around(part, run, at)
            entering = entering._replace(gap=timed.gaps[at])
            bar, entering = self._bar(
                part, fingered, hand, timed.times[at], run[at], around, entering, plucked
            )
            yield bar

    def _bar(
        self,
        part: Part,
        fingered: Fingered,
        hand: int,
        time: BarTime,
        index: int,
        around: "_Around",
        entering: Entering,
        plucked: float,
    ) -> tuple[PlayedBar, Entering]:
        """A bar, and how the next is come to (but for the gap)."""
        demands, grips = fingered.bars[index], fingered.hands[hand][index]
        bar, number = part.bars[index], part.bar_number(index)
        before, after, metre_changes = around
        starts_at = part.starts_at(index)
        comes_from = None if before in (None, index - 1) else part.bar_number(before)
        following = () if after is None else part.bars[after].events[:1]
        holds_over = any(note.tied for event in following for note in event.notes)
        key = (
            id(bar),
            plucked,
            id(demands),
            id(grips),
            id(entering.before),
            entering.gap,
            entering.stood,
            entering.since_set,
            entering.idle,
            index,
            number,
            time.quarter_seconds,
            metre_changes,
            starts_at.as_integer_ratio(),
            holds_over,
            comes_from,
        )
        if key not in self._played:
            gripped, leaving = self._gripped(demands, grips, entering, time)
            moments, idle = self._moments(bar, demands, gripped, entering, time)
            leaving = leaving._replace(since_set=_since_set(moments, entering, time), idle=idle)
            played = PlayedBar(
                index,
                number,
                bar,
                time.seconds,
                time.quarter_seconds,
                float(bar.quarters / bar.metre.beat_quarters),
                self._span_mm,
                1.0 if bar.has_picking_fingers else plucked,
                part.picking,
                metre_changes,
                starts_at,
                self._neck.capo,
                part.instrument.body_fret if part.instrument else None,
                bass_from(part.tuning.strings),
                holds_over,
                comes_from,
                demands.textures,
                moments,
            )
            self._played[key] = (played, leaving, (bar, demands, grips, entering.before))
        return self._played[key][:2]

    def _gripped(
        self, bar: BarDemands, grips: Sequence[Grip], entering: Entering, time: BarTime
    ) -> tuple[dict[int, _Gripped], Entering]:
        """By event the grip, the move into it and the widest spread; and how the next bar is come to."""
        gripped: dict[int, _Gripped] = {}
        before, gap, stood, *_ = entering
        last, spreads = None, Spreads(self._neck, before)
        for demand, grip in zip(bar.demands, grips, strict=True):
            seconds = (
                gap
                if last is None
                else round((demand.onset_quarters - last.onset_quarters) * time.quarter_seconds, 9)
            )
            move = Move(self._way(before, grip, bool(demand.links.slid)), seconds, stood) if before else None
            gripped[demand.event] = (grip, move, spreads.into(grip, seconds))
            stood = _stood(stood, before, grip, seconds)
            before, last = grip, demand
        return gripped, Entering(before, 0.0, round(stood, 9), inf, FORGOTTEN_S)

    def _moments(
        self,
        bar: Bar,
        demands: BarDemands,
        gripped: dict[int, _Gripped],
        entering: Entering,
        time: BarTime,
    ) -> tuple[tuple[Moment, ...], float]:
        """The bar's moments, and for how long by its end the hand has been free."""
        tap_moves = self._tap_moves(demands, time) if demands.taps else {}
        if id(bar) not in self._soundings:
            self._soundings[id(bar)] = (bar, soundings_of(bar))
        fingers, set_at = HeldFingers(entering.before, entering.idle), -entering.since_set
        moments: list[Moment] = []
        for number, sounding in self._soundings[id(bar)][1]:
            grip, move, spread = gripped.get(number, _NOTHING)
            seconds = sounding.onset_quarters * time.quarter_seconds
            lasts = float(sounding.event.quarters) * time.quarter_seconds
            change = fingers.into(sounding.struck, grip, seconds, lasts)
            tap_move, over = tap_moves.get(number), number in demands.over
            since_set = seconds - set_at
            moments.append(Moment(sounding, seconds, grip, move, spread, tap_move, change, since_set, over))
            set_at = seconds if change.sets_a_shape else set_at
        return tuple(moments), round(min(time.seconds - fingers.let_go, FORGOTTEN_S), 9)

    def _tap_moves(self, demands: BarDemands, time: BarTime) -> dict[int, TapMove]:
        moves = {}
        for a, b in itertools.pairwise(demands.taps):
            distance = abs(self._neck.fret_mm(b.spot.fret) - self._neck.fret_mm(a.spot.fret))
            if b.onset > a.onset and distance > 0:
                needed = movement_seconds(distance, self._neck.fret_width_mm(b.spot.fret)) * (
                    SLIDE_SHARE if b.slid else 1
                )
                moves[b.event] = TapMove(
                    a.spot.fret,
                    b.spot.fret,
                    distance,
                    needed,
                    float(b.onset - a.onset) * time.quarter_seconds,
                )
        return moves

    def _way(self, before: Grip, grip: Grip, slid: bool) -> Way:
        key = (id(before), id(grip), slid)
        if key not in self._ways:
            self._ways[key] = way_between(before, grip, slid, self._neck)
        return self._ways[key]


class _Around(NamedTuple):
    """The bars (indexes) played before and after one, and how often the metre has changed up to it."""

    before: int | None
    after: int | None
    metre_changes: int


def _around(part: Part, run: Sequence[int], at: int) -> _Around:
    changes = 0
    while changes < _MOST_METRE_CHANGES and at > changes:
        before, own = (part.bars[run[at - changes - back]].metre for back in (1, 0))
        if before == own:
            break
        changes += 1
    return _Around(run[at - 1] if at else None, run[at + 1] if at + 1 < len(run) else None, changes)


def _stood(stood: float, before: Grip | None, grip: Grip, seconds: float) -> float:
    """How long the hand has stood in its place by a grip, as far as that counts."""
    stays = before is not None and before.position == grip.position
    return min(stood + seconds, MOST_STOOD_S) if stays else 0.0


def _since_set(moments: Sequence[Moment], entering: Entering, time: BarTime) -> float:
    """Seconds from when a shape was set last to the bar's end; infinite where it is forgotten."""
    set_at = next((moment.seconds for moment in reversed(moments) if moment.change.sets_a_shape), None)
    since = time.seconds + (entering.since_set if set_at is None else -set_at)
    return round(since, 9) if since < FORGOTTEN_S else inf
