"""What is written down: song, part, bar, event, note, as frozen values."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property
from itertools import accumulate
from math import lcm

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.playing import (
    Dynamic,
    Feel,
    Finger,
    Instrument,
    Picking,
    PickingFinger,
    Role,
    Stroke,
)
from clear_steps.core.score.rhythm import Metre
from clear_steps.core.score.techniques import TECHNIQUES, Technique, Writing, bend_technique
from clear_steps.core.score.tuning import STANDARD, Tuning

MAX_FRET = 36
USUAL_FRETS = 24
# Half tones above the open string of the harmonic touched over a fret (partials 2 to 6, equal temperament).
HARMONIC_HALF_TONES = {12: 12, 7: 19, 19: 19, 5: 24, 24: 24, 4: 28, 9: 28, 16: 28, 3: 31}
ASSUMED_TEMPO = Fraction(100)
COMMON_TIME = Metre(4, 4)
_AT_ONCE = Fraction(0)
UNCOUNTED = -1  # of repeats: several times, not counted yet
_PASSES_UNCOUNTED = 2  # until somebody counts them
LAST_TIME = 0  # of an ending: played the last time, however often that is


@dataclass(frozen=True, slots=True)
class Bend:
    """A bend up by `half_tones` (0 only for the release of an earlier bend)."""

    half_tones: Fraction
    released: bool = False

    def __post_init__(self) -> None:
        if not 0 <= self.half_tones <= 6 or (self.half_tones == 0 and not self.released):
            raise InvalidValueError(
                "bend", str(self.half_tones), "a quarter to three whole tones above the fret"
            )

    @property
    def techniques(self) -> frozenset[Technique]:
        """The table's rows this bend counts as."""
        rows = {bend_technique(self.half_tones)} if self.half_tones else set()
        return frozenset(rows | ({Technique.RELEASE} if self.released else set()))


@dataclass(frozen=True, slots=True)
class Note:
    """One string stopped at one fret (above the capo); string 1 is the thinnest."""

    string: int
    fret: int
    techniques: frozenset[Technique] = frozenset()
    bend: Bend | None = None
    tied: bool = False
    finger: Finger | None = None
    picking: PickingFinger | None = None
    uncertain: bool = False
    optional: bool = False

    def __post_init__(self) -> None:
        if not 0 <= self.fret <= MAX_FRET:
            raise InvalidValueError("fret", self.fret, f"0 to {MAX_FRET}")

    def __hash__(self) -> int:
        return hash((self.string, self.fret, self.tied))  # what tells notes apart nearly always; quick

    @property
    def dead(self) -> bool:
        """A muted click without pitch."""
        return Technique.DEAD in self.techniques


@dataclass(frozen=True)  # no slots: what is asked for often is kept
class Event:
    """Notes that start together, or a rest when there are none; lasts `quarters`."""

    quarters: Fraction
    notes: tuple[Note, ...] = ()  # by string, thinnest first
    techniques: frozenset[Technique] = frozenset()  # those written as a word: all notes share them
    stroke: Stroke | None = None
    chord: str = ""
    remark: str = ""
    free: bool = False
    uncertain: bool = False  # the rhythm here is doubtful
    own_techniques: frozenset[str] = frozenset()  # of the teacher's own naming
    position: int | None = None  # pinned by the teacher: the fret the index finger covers
    stopped: frozenset[int] = frozenset()  # strings that must not ring on from here
    dip: Fraction | None = None  # of the whammy bar, half tones; None where it is not said how deep
    dynamic: Dynamic | None = None

    def __hash__(self) -> int:
        return self._hash

    @cached_property
    def _hash(self) -> int:
        return hash((self.quarters, self.notes))

    @cached_property
    def struck(self) -> tuple[Note, ...]:
        """The notes that are sounded anew, ties left out."""
        return tuple(note for note in self.notes if not note.tied)

    def strings_by_word(self) -> dict[Technique, tuple[int, ...]]:
        """Techniques that are written as a word and hold for some strings alone, with these strings."""
        return {
            row.technique: strings
            for row in TECHNIQUES.values()
            if row.writing is Writing.WORD
            and (strings := tuple(note.string for note in self.notes if row.technique in note.techniques))
        }

    def techniques_of(self, note: Note) -> frozenset[Technique]:
        """Every technique on a note: its own, its bend's and the event's."""
        bend = note.bend.techniques if note.bend else frozenset()
        return note.techniques | self.techniques | bend


@dataclass(frozen=True)  # no slots, as for events
class Bar:
    """One bar; its events follow one another without gaps and fill it."""

    metre: Metre = COMMON_TIME
    events: tuple[Event, ...] = ()
    tempo: Fraction | None = None  # a change of tempo at this bar, quarters a minute
    repeat_start: bool = False
    repeat_times: int = 0  # played so often in all, at a closing repeat sign; 0 = no sign, or UNCOUNTED
    endings: tuple[int, ...] = ()  # played these times; LAST_TIME
    double_bar: bool = False
    pickup: bool = False  # holds less than its metre: a first bar, or one of two that a repeat cuts

    def __hash__(self) -> int:
        return hash(self.events)

    @property
    def passes(self) -> int:
        """How often what its closing repeat sign ends is played."""
        return _PASSES_UNCOUNTED if self.repeat_times == UNCOUNTED else self.repeat_times

    @cached_property
    def quarters(self) -> Fraction:
        """Length actually held, in quarters."""
        return Fraction(self.ticks[-1], self.ticks_a_quarter)

    @cached_property
    def onsets(self) -> tuple[Fraction, ...]:
        """Onset of every event from the bar's start, in quarters."""
        return tuple(Fraction(tick, self.ticks_a_quarter) for tick in self.ticks[:-1])

    @cached_property
    def ticks_a_quarter(self) -> int:
        """As few as make every onset whole."""
        return lcm(*(event.quarters.denominator for event in self.events))

    @cached_property
    def ticks(self) -> tuple[int, ...]:
        """Onset of every event and the bar's end, in whole ticks: sums and hashes of fractions are slow."""
        lengths = (
            event.quarters.numerator * (self.ticks_a_quarter // event.quarters.denominator)
            for event in self.events
        )
        return tuple(accumulate(lengths, initial=0))

    @cached_property
    def has_picking_fingers(self) -> bool:
        """Whether letters say which fingers pluck."""
        return any(note.picking for event in self.events for note in event.notes)

    @cached_property
    def pinned(self) -> bool:
        """Whether the teacher has said a finger or a place of the hand."""
        return any(
            event.position is not None or any(note.finger for note in event.notes) for event in self.events
        )

    @cached_property
    def unpinned_events(self) -> tuple[Event, ...]:
        """Its events as if nothing were pinned."""
        if not self.pinned:
            return self.events
        return tuple(
            replace(event, notes=tuple(replace(note, finger=None) for note in event.notes), position=None)
            for event in self.events
        )

    @cached_property
    def sounding_beats(self) -> float:
        """Beats of it that are no rest."""
        sounding = sum((event.quarters for event in self.events if event.notes), Fraction(0))
        return float(sounding / self.metre.beat_quarters)

    @property
    def uncertain(self) -> bool:
        """Whether anything in the bar is marked doubtful."""
        return any(event.uncertain or any(note.uncertain for note in event.notes) for event in self.events)

    @property
    def silent(self) -> bool:
        """Whether no note is struck in it."""
        return not any(event.struck for event in self.events)


@dataclass(frozen=True, slots=True)
class Section:
    """A named stretch of bars, from `first_bar` (index) to the next section."""

    name: str
    first_bar: int
    times: int | None = 1  # None: several times, not yet counted
    like: str = ""  # the section it is as, but for the bars it holds itself
    differs: tuple[int, ...] = ()  # which of that section's bars they stand for, counted from 1
    role: Role | None = None  # as the teacher says; None: to be guessed
    sound: tuple[str, ...] = ()  # free words: clean, dry


@dataclass(frozen=True, slots=True)
class BarReading:
    """Another way the same bar is played or was written down, kept by name; without content it names the one
    in use."""

    bar: int  # index
    name: str
    content: Bar | None


@dataclass(frozen=True, slots=True)
class Part:
    """What one guitar plays."""

    name: str = ""
    tuning: Tuning = STANDARD
    capo: int = 0
    instrument: Instrument | None = None
    picking: Picking | None = None
    scale_length_mm: float = 648.0
    bars: tuple[Bar, ...] = ()
    sections: tuple[Section, ...] = ()
    remarks: tuple[tuple[int, str], ...] = ()  # (index of the bar it stands before, text)
    readings: tuple[BarReading, ...] = ()  # by bar, then as they were added
    frets: int = USUAL_FRETS  # on the neck, counted from the nut
    rings_as_written: bool = False  # nothing is taken to ring on that is not written

    def pitch_of(self, note: Note) -> int:
        """Sounding MIDI number: open string + capo + fret, or the partial of a natural harmonic."""
        harmonic = Technique.NATURAL_HARMONIC in note.techniques
        above = HARMONIC_HALF_TONES.get(note.fret, note.fret) if harmonic else note.fret
        return self.tuning.open_pitch(note.string) + self.capo + above

    @property
    def highest_fret(self) -> int:
        """The last fret of the neck, counted from the capo as notes are."""
        return self.frets - self.capo

    def bar_number(self, index: int) -> int:
        """Written number: from 1, a pickup is 0."""
        return index if self.bars and self.bars[0].pickup else index + 1

    def starts_at(self, index: int) -> Fraction:
        """Where in its metre a bar begins, in quarters: 0, but for a pickup, which ends with it."""
        bar, before = self.bars[index], self.bars[index - 1] if index else None
        if not bar.pickup or bar.endings:  # an ending is short at its end
            return _AT_ONCE
        begins = before is None or bar.repeat_start or before.repeat_times or before.double_bar
        return bar.metre.quarters - bar.quarters if begins else _AT_ONCE

    def bar_index(self, number: int) -> int:
        """Index of a bar by its written number."""
        return number if self.bars and self.bars[0].pickup else number - 1

    def events(self) -> Iterator[tuple[int, Fraction, Event]]:
        """Every event as (bar index, onset in the bar in quarters, event)."""
        for index, bar in enumerate(self.bars):
            for onset, event in zip(bar.onsets, bar.events, strict=True):
                yield index, onset, event


@dataclass(frozen=True, slots=True)
class Song:
    """A whole transcription."""

    title: str = ""
    tempo: Fraction | None = None  # quarters a minute; None = unknown
    tempo_assumed: bool = False  # written, but as a guess
    cents: int = 0
    feel: Feel | None = None
    order: tuple[str, ...] = ()
    parts: tuple[Part, ...] = ()
    extra: tuple[tuple[str, str], ...] = ()  # header lines nobody here knows, kept as written

    @property
    def playing_tempo(self) -> Fraction:
        """The marked tempo, or the assumed one."""
        return self.tempo if self.tempo is not None else ASSUMED_TEMPO

    @property
    def tempo_is_assumed(self) -> bool:
        """Whether every figure that depends on tempo rests on a guess."""
        return self.tempo is None or self.tempo_assumed
