"""How little likely a likeness is chance: what is the same, in bits, against the places there are to choose
from.

All weights from memory, set on parts of which a teacher said what comes back (tests/data/figures).
"""

from collections import Counter
from math import log2

from clear_steps.core.figures.columns import Stream
from clear_steps.core.figures.likeness import As, Likeness
from clear_steps.core.figures.stretches import Stretch

MARGIN = 3.0  # bits over chance
LEAST_CHAINED = 1.5
CHAINED, MOST_COPIES = 3.0, 4  # bits that every copy that follows at once is worth
_ISOLATED = 1.5  # silence or a long note on both sides is worth so much of the margin
_NOTE, _SAME_AGAIN, _NOTE_MORE, _TECHNIQUES = 2.2, 0.7, 1.0, 1.0  # bits
_MOST_NOTES = 4
_GAP_SHARE = 0.6  # rhythms are alike more often than their lengths make likely
_OTHER = 2.5  # bits that a column that differs takes away


class Chance:
    """Of one stream."""

    def __init__(self, stream: Stream) -> None:
        self._stream = stream
        gaps = Counter(stream.gaps)
        self._gap_bits = {gap: -_GAP_SHARE * log2(count / len(stream.gaps)) for gap, count in gaps.items()}
        self._phrases = log2(max(sum(stream.phrase_starts), 2))
        self._bars = log2(max(len(stream.bars), 2))
        self._beats = log2(max(sum(column.on_beat for column in stream.columns), 2))
        self._columns = log2(max(len(stream.columns), 2))
        self._own_bits = [self._column_bits(index) for index in range(len(stream.columns))]
        self._sums = [0.0]
        for bits in self._own_bits:
            self._sums.append(self._sums[-1] + bits)

    def bits(self, stretch: Stretch, likeness: Likeness) -> float:
        """What a place of a stretch has in common with it."""
        total = self._whole(stretch, placed=likeness.how in (As.EQUAL, As.PLACE))
        if likeness.otherwise:
            columns = self._stream.columns[stretch.first : stretch.last + 1]
            total -= _TECHNIQUES * sum(bool(column.techniques) for column in columns)
        return total * likeness.matched / likeness.columns - _OTHER * likeness.other

    def needed(self, stretch: Stretch, place: int, copies: int, known: bool) -> float:
        """What a place that begins at a column must have in common with a stretch, if it is one of so many
        copies that follow one another; less where the stretch is `known` to come back."""
        choice, isolated = self._choice(stretch, place)
        chained = CHAINED * (min(copies, MOST_COPIES) - 1)
        margin = MARGIN - _ISOLATED * isolated - chained - 1
        return max((choice if known else 2 * choice) + margin, LEAST_CHAINED if copies > 2 else MARGIN)

    def could_come_back(self, stretch: Stretch, copies: int = 1) -> bool:
        """Whether there is enough in it for a place to be no chance, if so many copies follow one another."""
        needed = self.needed(stretch, stretch.first, copies, known=False)
        return self._whole(stretch, placed=True) >= needed

    def _whole(self, stretch: Stretch, placed: bool) -> float:
        first = stretch.first
        begins = self._own_bits[first] - self._gap_before(first) - self._note_bits(first)
        begins += _NOTE * placed + self._shape_bits(first)
        return begins + self._sums[stretch.last + 1] - self._sums[first + 1]

    def _column_bits(self, index: int) -> float:
        techniques = _TECHNIQUES * bool(self._stream.columns[index].techniques)
        return self._gap_before(index) + self._note_bits(index) + techniques

    def _gap_before(self, index: int) -> float:
        return self._gap_bits[self._stream.gaps[index - 1]] if index else 0.0

    def _note_bits(self, index: int) -> float:
        columns = self._stream.columns
        if index and columns[index].spots == columns[index - 1].spots:
            return _SAME_AGAIN
        return _NOTE + self._shape_bits(index)

    def _shape_bits(self, index: int) -> float:
        return _NOTE_MORE * (min(len(self._stream.columns[index].strings), _MOST_NOTES) - 1)

    def _choice(self, stretch: Stretch, place: int) -> tuple[float, bool]:
        """Bits that it takes to say where it begins, among all places that are as good; whether silence or
        a long note stands around it."""
        stream = self._stream
        both = (stretch.first, place)
        ends = stream.phrase_ends(stretch.last)
        if ends and all(stream.phrase_starts[index] for index in both):
            return self._phrases, True
        of_bars = all(stream.columns[index].first_of_bar for index in both)
        if of_bars and (ends or stretch.bars):
            return self._bars, ends
        if all(stream.columns[index].on_beat for index in both):
            return self._beats, False
        return self._columns, False
