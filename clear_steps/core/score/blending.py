"""Another writing of a part, taken from one note to another; around it the part stays as it is."""

from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise

from clear_steps.core.score.song import Bar, Event, Part
from clear_steps.core.score.techniques import ARRIVING


@dataclass(frozen=True, slots=True)
class Notes:
    """From one moment to another, both included: bars by index, onsets in quarters from the bar's start."""

    first_bar: int
    first_onset: Fraction
    last_bar: int
    last_onset: Fraction

    def inside(self, bar: int, onset: Fraction) -> bool:
        """Whether a moment lies among them."""
        return (self.first_bar, self.first_onset) <= (bar, onset) <= (self.last_bar, self.last_onset)


def blended(part: Part, other: Part, notes: Notes) -> Part | None:
    """The part with the notes as another writing of the same bars has them; None where that is not possible:
    something would begin or end elsewhere, or hang on a note that is no longer there."""
    bars = list(part.bars)
    for index in range(notes.first_bar, notes.last_bar + 1):
        mixed = _mixed(part.bars[index], other.bars[index], index, notes)
        if mixed is None:
            return None
        bars[index] = mixed
    made = replace(part, bars=tuple(bars))
    return made if _loose(made, notes) <= _loose(part, notes) else None


def _mixed(own: Bar, other: Bar, index: int, notes: Notes) -> Bar | None:
    outside = [
        (onset, event)
        for onset, event in zip(own.onsets, own.events, strict=True)
        if not notes.inside(index, onset)
    ]
    taken = list(zip(other.onsets, other.events, strict=True))
    before = [row for row in outside if (index, row[0]) < (notes.first_bar, notes.first_onset)]
    behind = [row for row in outside if row not in before]
    start = before[-1][0] + before[-1][1].quarters if before else Fraction(0)
    end = behind[0][0] if behind else own.quarters
    inside = [row for row in taken if start <= row[0] < end]
    fits = inside and inside[0][0] == start and inside[-1][0] + inside[-1][1].quarters == end
    if not fits:
        return None
    return replace(own, events=tuple(event for _, event in (*before, *inside, *behind)))


def _loose(part: Part, notes: Notes) -> int:
    """How many events of the bars, and of the ones beside them, hang on something that is not there."""
    bars = part.bars[max(notes.first_bar - 1, 0) : notes.last_bar + 2]
    events = [event for bar in bars for event in bar.events if event.notes]
    return sum(not _hangs_well(before, event) for before, event in pairwise(events))


def _hangs_well(before: Event, event: Event) -> bool:
    """Whether what is tied or slurred to goes on from a note of its string."""
    strings = {note.string: note.fret for note in before.notes}
    for note in event.notes:
        if note.tied and strings.get(note.string) != note.fret:
            return False
        if note.techniques & ARRIVING and note.string not in strings:
            return False
    return True
