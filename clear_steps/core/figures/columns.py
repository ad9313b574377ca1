"""What is played, as columns: the notes struck at one moment, one after the other in played order."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property
from math import lcm

from clear_steps.core.score import Event, Note, Part, Technique, played_order

_NOT_HEARD_AS_OTHER = frozenset({Technique.LET_RING, Technique.DEAD})  # a dead note is another note
_PLAIN = frozenset[Technique]()
NO_PITCH = -1
_LONG = 2  # beats: a note so long, and longer than usual, ends a phrase


@dataclass(frozen=True, slots=True)
class Column:
    """The notes struck at one moment; `at` in ticks from the beginning of what is played, `rest` ticks of
    silence before it."""

    at: int
    rest: int
    bar: int  # index as written
    onset: Fraction  # quarters from the bar's start
    on_beat: bool
    first_of_bar: bool
    spots: tuple[tuple[int, int, bool], ...]  # string, fret, dead: what is equal; a dead note has fret 0
    strings: tuple[int, ...]
    fretted: tuple[tuple[int, int], ...]  # string and fret of what moves with the hand
    pitches: tuple[int, ...]  # from the lowest; none of dead notes
    techniques: frozenset[Technique]


@dataclass(frozen=True)
class Stream:
    """A part, or one voice of it, as it is played."""

    columns: tuple[Column, ...]
    bars: tuple[tuple[int, int, int], ...]  # as played: index as written, first tick, tick after
    ticks: int  # of a quarter
    beat: int  # ticks of a beat at the beginning
    strings: tuple[int, ...] = ()  # of a voice

    @cached_property
    def index_at(self) -> dict[int, int]:
        """Which column stands at a tick."""
        return {column.at: index for index, column in enumerate(self.columns)}

    @cached_property
    def ats(self) -> list[int]:
        """The tick of every column."""
        return [column.at for column in self.columns]

    def columns_between(self, start: int, end: int) -> int:
        """How many columns stand from one tick to before another."""
        return max(bisect_left(self.ats, end) - bisect_left(self.ats, start), 0)

    @cached_property
    def kinds(self) -> list[int]:
        """For every column a number, the same wherever the same is struck; a harmonic is another note."""
        numbers: dict[object, int] = {}
        return [numbers.setdefault((row.spots, row.pitches), len(numbers)) for row in self.columns]

    @cached_property
    def _contents(self) -> list[int]:
        """For every column a number, the same wherever the same is struck and as long."""
        numbers: dict[object, int] = {}
        found = []
        for index, column in enumerate(self.columns):
            rest = self.columns[index + 1].rest if index + 1 < len(self.columns) else 0
            key = (column.spots, column.techniques, self.gaps[index], rest)
            found.append(numbers.setdefault(key, len(numbers)))
        return found

    def content(self, first: int, length: int) -> tuple[int, ...]:
        """What is struck from a column on for so many ticks: the same wherever it is the same."""
        return tuple(self._contents[first : self.column_after(self.columns[first].at + length, first)])

    @cached_property
    def gaps(self) -> tuple[int, ...]:
        """Ticks from every column to the next; 0 after the last."""
        return (*[after - at for at, after in zip(self.ats, self.ats[1:], strict=False)], 0)

    @cached_property
    def single_pitches(self) -> tuple[int, ...]:
        """The pitch of every column with one note; NO_PITCH for chords and dead notes."""
        return tuple([row.pitches[0] if len(row.pitches) == 1 else NO_PITCH for row in self.columns])

    @cached_property
    def phrase_starts(self) -> tuple[bool, ...]:
        """Whether a column comes after silence or after a note that is long here."""
        usual = sorted(self.gaps)[len(self.gaps) // 2] if self.gaps else 0
        long = max(_LONG * self.beat, 2 * usual)
        return tuple(
            [
                index == 0 or column.rest >= self.beat or self.gaps[index - 1] >= long
                for index, column in enumerate(self.columns)
            ]
        )

    @cached_property
    def starts(self) -> tuple[int, ...]:
        """How strongly something begins at every column: a phrase 4, a bar 2, a beat 1."""
        return tuple(
            [
                4 * phrase + 2 * column.first_of_bar + column.on_beat
                for phrase, column in zip(self.phrase_starts, self.columns, strict=True)
            ]
        )

    def phrase_ends(self, index: int) -> bool:
        """Whether silence, a long note or the end comes after a column."""
        return index + 1 == len(self.columns) or self.phrase_starts[index + 1]

    def column_after(self, tick: int, from_column: int = 0) -> int:
        """The first column that does not begin before a tick."""
        return bisect_left(self.ats, tick, from_column)

    def bar_at(self, tick: int) -> tuple[int, int, int]:
        """The bar that a tick lies in: index as written, first tick, tick after."""
        return self.bars[bisect_right(self._bar_starts, tick) - 1]

    def bars_between(self, first: int, last: int) -> list[int]:
        """Indexes, as written, of the bars from one tick's to another's."""
        numbers = (bisect_right(self._bar_starts, first) - 1, bisect_right(self._bar_starts, last))
        return [bar for bar, _, _ in self.bars[slice(*numbers)]]

    @cached_property
    def _bar_starts(self) -> list[int]:
        return [start for _, start, _ in self.bars]

    def starts_after(self, index: int) -> int:
        """How strongly something begins after a column."""
        return self.starts[index + 1] if index + 1 < len(self.columns) else 8


def stream_of(part: Part, order: tuple[str, ...] = (), strings: Sequence[int] = ()) -> Stream:
    """A part in played order; only some strings of it, if they are given."""
    played = played_order(part, order)
    ticks = lcm(*{part.bars[index].ticks_a_quarter for index in played}, 1)
    rows = {index: _written(part, index, ticks, frozenset(strings)) for index in set(played)}
    columns: list[Column] = []
    bars = []
    at = heard_until = 0
    for index in played:
        bar = part.bars[index]
        length = bar.ticks[-1] * ticks // bar.ticks_a_quarter
        bars.append((index, at, at + length))
        for tick, until, struck in rows[index]:
            if struck is not None:
                columns.append(replace(struck, at=at + tick, rest=max(at + tick - heard_until, 0)))
            heard_until = at + until
        at += length
    beat = int(part.bars[played[0]].metre.beat_quarters * ticks) if played else 1
    return Stream(tuple(columns), tuple(bars), ticks, beat, tuple(strings))


def _written(
    part: Part, index: int, ticks: int, strings: frozenset[int]
) -> list[tuple[int, int, Column | None]]:
    """Every event of a bar that sounds: its ticks from the bar's start, the ticks to its end, what is
    struck."""
    bar = part.bars[index]
    finer = ticks // bar.ticks_a_quarter
    beat = bar.metre.beat_quarters * ticks
    begins = part.starts_at(index) * ticks
    rows: list[tuple[int, int, Column | None]] = []
    first = True
    for number, event in enumerate(bar.events):
        if not event.notes:
            continue
        tick, until = bar.ticks[number] * finer, bar.ticks[number + 1] * finer
        struck = None
        if notes := [note for note in event.struck if not strings or note.string in strings]:
            onset, on_beat = bar.onsets[number], (begins + tick) % beat == 0
            struck = _struck(part, event, notes, (index, onset, on_beat, first))
            first = False
        rows.append((tick, until, struck))
    return rows


def _struck(part: Part, event: Event, notes: list[Note], place: tuple[int, Fraction, bool, bool]) -> Column:
    """What is struck at a place: bar, onset, whether on the beat, whether the first of its bar."""
    sounding = [note for note in notes if not note.dead]
    return Column(
        0,
        0,
        *place,
        tuple([(note.string, 0 if note.dead else note.fret, note.dead) for note in notes]),
        tuple([note.string for note in notes]),
        tuple([(note.string, note.fret) for note in sounding if note.fret]),
        tuple(sorted([part.pitch_of(note) for note in sounding])),
        frozenset[Technique]().union(*map(event.techniques_of, notes)) - _NOT_HEARD_AS_OTHER
        if event.techniques or any(note.techniques or note.bend for note in notes)
        else _PLAIN,
    )
