"""Where to cut a part: at rests and long notes, where the hand moves, where figures and phrases end.

Every place between two struck moments has a strength, as a border; every chunk costs what its size is worse
than three to nine notes, or two to three chords with the changes between them. Of all ways to cut, the one
that is worth most is taken. A section begins a chunk; no border lies inside a slur, a bend or a tie, and in
what is strummed or picked only where a grip, or a bar of a long one, begins. The weights are from memory of
how teachers cut.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import accumulate, pairwise

from clear_steps.core.figures import As, At, ComingBack
from clear_steps.core.score import Part, Technique
from clear_steps.core.score.techniques import ARRIVING
from clear_steps.core.teach.chunks.chunk import Chunk, Struck, struck_in
from clear_steps.core.teach.chunks.grips import Gripped, begins_anew, gripped, into_next

Positions = Mapping[tuple[int, int], int]
"""The fret the index finger covers, by bar and event, where the hand presses anything."""

_MOST = 9  # moments
_LONGEST = 24  # moments that one chunk may have, where nothing better can be cut
_LONGEST_GRIPPED = 96
_CHORDS, _GRIP_BARS = 3, 4  # of a chunk, the last chord with it
_SECTION, _REST, _LONG, _BAR, _BEAT = 8.0, 2.8, 2.4, 1.6, 0.4
_FIGURE, _FIGURE_ENDS, _MOST_OF_FIGURES = 1.2, 0.8, 2.0
_MOVE, _FARTHER_FRETS = 0.7, 2
_OFF_THE_BEAT = -1.6
_EACH_BORDER = 1.6
_NEVER = float("-inf")


def proposed_chunks(part: Part, found: ComingBack, positions: Positions) -> tuple[Chunk, ...]:
    """The part cut into chunks, in the order written; together they hold all that is struck. One that ends
    where a grip begins goes on into it."""
    rows = struck_in(part)
    if not rows:
        return ()
    grips = gripped(part)
    strengths = _strengths(part, rows, found, positions, grips)
    starts = _best_starts(part, rows, strengths, grips)
    return tuple(
        Chunk(rows[first].at, rows[into_next(part, rows, grips, first, after) - 1].at)
        for first, after in pairwise([*starts, len(rows)])
    )


@dataclass(frozen=True, slots=True)
class _Moments:
    """What decides the sizes of chunks, in quarters from the part's start."""

    begins: list[float]
    lasts: list[float]
    bars: list[float]
    counted: list[int]  # up to each, what stands between the places of a moved grip left out

    def length(self, start: int, after: int) -> float:
        """In bars."""
        quarters = self.begins[after - 1] + self.lasts[after - 1] - self.begins[start]
        return quarters / self.bars[start]

    def size_cost(self, start: int, after: int) -> float:
        """How much worse a chunk of these moments of a line is than one of a good size."""
        count = self.counted[after] - self.counted[start]
        cost = {0: 6.0, 1: 4.5, 2: 2.2, 3: 1.0}.get(count, 0.1 * abs(count - 6))
        over = max(count - _MOST, 0)
        long = max(self.length(start, after) - 2.1, 0)
        return cost + 1.2 * over + (1.0 if over else 0.0) + 1.5 * long


def _grip_cost(moments: _Moments, grips: Gripped, start: int, after: int, end: int) -> float:
    """How much worse a chunk of grips is than one of two or three, the one it goes on into with them."""
    chords = grips.count(start, end)
    single = 5.0 if chords == 1 else 0.0
    many = max(chords - _CHORDS, 0)
    long = max(moments.length(start, end) - _GRIP_BARS, 0)
    return single + (0.8 if many == 1 else 6.0 * many) + 6.0 * long + 0.3 * moments.length(start, after)


def _measured(part: Part, rows: Sequence[Struck], grips: Gripped) -> _Moments:
    starts = list(accumulate((float(bar.quarters) for bar in part.bars), initial=0.0))
    return _Moments(
        [starts[row.at.bar] + float(row.at.onset) for row in rows],
        [float(row.event.quarters) for row in rows],
        [float(part.bars[row.at.bar].metre.quarters) for row in rows],
        list(accumulate((at not in grips.between for at in range(len(rows))), initial=0)),
    )


def _best_starts(part: Part, rows: Sequence[Struck], strengths: Sequence[float], grips: Gripped) -> list[int]:
    """Indexes of the moments at which chunks begin."""
    moments = _measured(part, rows, grips)
    best: list[tuple[float, int]] = [(0.0, 0)]  # by how many moments are cut: worth, where the last begins
    section = 0  # where it begins, of the last moment that is cut
    for after in range(1, len(rows) + 1):
        section = after - 1 if begins_anew(part, rows, after - 1) else section
        longest = _LONGEST_GRIPPED if grips.is_held(after - 1) else _LONGEST
        choices = []
        for start in range(max(after - longest, section), after):
            if strengths[start] == _NEVER and start:
                continue
            own = strengths[start] - _EACH_BORDER if start else 0.0
            if grips.are_held(start, after):
                end = into_next(part, rows, grips, start, after)
                cost = _grip_cost(moments, grips, start, after, end)
            else:
                cost = moments.size_cost(start, after)
            choices.append((best[start][0] + own - cost, start))
        best.append(max(choices, default=(_NEVER, 0)))
    starts, after = [], len(rows)
    while after:
        after = best[after][1]
        starts.append(after)
    return starts[::-1]


def _quarters_between(part: Part, first: At, last: At) -> Fraction:
    bars = sum((part.bars[index].quarters for index in range(first.bar, last.bar)), Fraction(0))
    return bars + last.onset - first.onset


def _strengths(
    part: Part, rows: Sequence[Struck], found: ComingBack, positions: Positions, grips: Gripped
) -> list[float]:
    """How well a chunk begins at every moment; _NEVER inside a slur, a bend, a tie or a pattern."""
    figures = _figure_borders(rows, found)
    gaps = sorted(_quarters_between(part, a.at, b.at) for a, b in pairwise(rows))
    usual = gaps[len(gaps) // 2] if gaps else Fraction(0)
    strengths = [0.0]
    for index in range(1, len(rows)):
        before, row = rows[index - 1], rows[index]
        if begins_anew(part, rows, index):
            strengths.append(_SECTION)
            continue
        if _hangs_together(part, before, row) or grips.is_inside(index):
            strengths.append(_NEVER)
            continue
        strengths.append(
            _by_the_bars(part, before, row, grips.begins(index))
            + _by_the_silence(part, before, row, usual)
            + min(figures.get(index, 0.0), _MOST_OF_FIGURES)
            + _by_the_hand(before, row, positions)
        )
    return strengths


def _hangs_together(part: Part, before: Struck, row: Struck) -> bool:
    """Whether one is slurred, bent back, tied or leant on the other; nothing is after a rest, or over a dead
    stroke."""
    dead = all(note.dead for note in before.event.struck)
    if dead or _quarters_between(part, before.at, row.at) > _sounding(part, before, row):
        return False
    strings = {note.string for note in before.event.notes}
    for note in row.event.notes:
        techniques = row.event.techniques_of(note)
        if note.tied or techniques & (ARRIVING | {Technique.SHIFT_SLIDE}):
            return True
        if note.bend and not note.bend.half_tones and note.string in strings:
            return True
    return any(Technique.GRACE in before.event.techniques_of(note) for note in before.event.notes)


def _by_the_bars(part: Part, before: Struck, row: Struck, is_grip: bool) -> float:
    bar = part.bars[row.at.bar]
    worth = _BAR if before.at.bar != row.at.bar or is_grip else 0.0
    place = part.starts_at(row.at.bar) + row.at.onset
    on_beat = is_grip or place % bar.metre.beat_quarters == 0
    return worth + (_BEAT if on_beat else _OFF_THE_BEAT)


def _by_the_silence(part: Part, before: Struck, row: Struck, usual: Fraction) -> float:
    gap = _quarters_between(part, before.at, row.at)
    beat = part.bars[before.at.bar].metre.beat_quarters
    silence = gap - _sounding(part, before, row)
    worth = _REST if silence >= beat else 1.0 if silence > 0 else 0.0
    if gap >= 2 * usual and gap >= beat:
        worth += _LONG if gap >= 2 * beat else _LONG / 2
    return worth


def _sounding(part: Part, before: Struck, row: Struck) -> Fraction:
    """Quarters from a moment on until nothing sounds, ties counted, at most up to the next."""
    total = Fraction(0)
    for index in range(before.at.bar, row.at.bar + 1):
        bar = part.bars[index]
        for onset, event in zip(bar.onsets, bar.events, strict=True):
            at = At(index, onset)
            if before.at <= at < row.at:
                if not event.notes:
                    return total
                total += event.quarters
    return total


def _by_the_hand(before: Struck, row: Struck, positions: Positions) -> float:
    """Worth of a move of the hand."""
    one = positions.get((before.at.bar, before.number))
    other = positions.get((row.at.bar, row.number))
    return _MOVE if one and other and abs(one - other) >= _FARTHER_FRETS else 0.0


def _figure_borders(rows: Sequence[Struck], found: ComingBack) -> dict[int, float]:
    """Worth of the moments at which figures begin, and of those after their ends."""
    index_of = {row.at: index for index, row in enumerate(rows)}
    worth: dict[int, float] = {}
    for figure in found.figures:
        own = (_FIGURE, _FIGURE_ENDS) if not figure.strings else (_FIGURE / 2, _FIGURE_ENDS / 2)
        for place in figure.places:
            share = 0.3 if place.how is As.RHYTHM else 1.0
            for moment, more, apart in ((place.first, own[0], 0), (place.last, own[1], 1)):
                if moment in index_of:
                    at = index_of[moment] + apart
                    worth[at] = worth.get(at, 0.0) + share * more
    return worth
