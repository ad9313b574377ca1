"""Places of a part where something is struck, and what lies under the hand there."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score import Bar, Event, Technique, Tuning
from clear_steps.core.score.tuning import bass_from

HAND_FRETS = 4  # frets one grip covers
_VOICES_APART, _LEAST_BASSES = 2, 2  # strings between a bass and what sounds over it; such moments


@dataclass(frozen=True, slots=True)
class Moment:
    """Something struck: bar and event (indexes), onset in the bar and from the part's start (quarters)."""

    bar: int
    index: int
    onset: Fraction
    at: Fraction
    event: Event
    weight: int  # of its place in the metre, larger where it is stronger
    chord: str = ""  # the name that begins here, or over a rest before it

    @property
    def frets(self) -> dict[int, int]:
        """Frets by string of what sounds under the hand: no dead strokes, no natural harmonics."""
        return {
            note.string: note.fret
            for note in self.event.struck
            if not note.dead and Technique.NATURAL_HARMONIC not in note.techniques
        }

    @property
    def harmonics(self) -> frozenset[int]:
        """The frets over which natural harmonics are touched, where nothing else is struck."""
        touched = [note.fret for note in self.event.struck if Technique.NATURAL_HARMONIC in note.techniques]
        return frozenset(touched) if len(touched) == len(self.event.struck) else frozenset()

    @property
    def passes(self) -> bool:
        """Whether a grip may be moved meanwhile: an open string, a dead stroke."""
        return self.is_dead or (len(self.frets) == 1 and not any(self.frets.values()))

    @property
    def is_dead(self) -> bool:
        """Whether nothing but dead strokes is struck."""
        return all(note.dead for note in self.event.struck)


def moments_of(bars: Iterable[Bar], chord: str = "") -> tuple[Moment, ...]:
    """Every place where a note is struck, in written order; `chord` is named before the first bar."""
    found, begins = [], Fraction(0)
    for number, bar in enumerate(bars):
        for index, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
            chord = event.chord or chord
            if event.struck:
                weight = bar.metre.weight_at(onset)
                found.append(Moment(number, index, onset, begins + onset, event, weight, chord))
                chord = ""
        begins += bar.quarters
    return tuple(found)


def within_a_hand(frets: Mapping[int, int]) -> bool:
    """Whether one hand reaches all that is stopped."""
    stopped = [fret for fret in frets.values() if fret]
    return not stopped or max(stopped) - min(stopped) < HAND_FRETS


def joined(frets: Mapping[int, int], more: Mapping[int, int]) -> dict[int, int] | None:
    """Both together; None where a string is stopped twice or no hand reaches all of it."""
    both = {**frets, **more}
    if any(both[string] != fret for string, fret in frets.items()):
        return None
    return both if within_a_hand(both) else None


def has_voices(moments: Sequence[Moment], tuning: Tuning) -> bool:
    """Whether a bass goes with a melody: low strings struck together with strings well above them, twice or
    more."""
    lowest = bass_from(tuning.strings)
    together = (moment.frets.keys() for moment in moments if len(moment.frets) > 1)
    apart = (max(strings) >= lowest and max(strings) - min(strings) >= _VOICES_APART for strings in together)
    return sum(apart) >= _LEAST_BASSES
