"""From one tuning to another, string by string: how far, and what to compare each with."""

from dataclasses import dataclass
from enum import StrEnum

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Tuning

_OCTAVE = 12
_HIGHEST_FRET = 12  # that a neighbour is pressed at to compare with
_TIGHT = 2  # half tones up from which a string may break (common practice, no source)


class Compare(StrEnum):
    """What a string is held against."""

    UNISON = "unison"  # another open string
    OCTAVE_BELOW = "octave_below"  # it sounds an octave below another open string
    OCTAVE_ABOVE = "octave_above"
    PRESSED = "pressed"  # a thicker string pressed at a fret
    PRESSES = "presses"  # itself pressed at a fret gives a thinner open string
    TONE = "tone"  # nothing is in tune yet: a tone


@dataclass(frozen=True, slots=True)
class Turn:
    """One string turned: `by` half tones (up positive), to `pitch` (MIDI number), compared with the string
    `other` at `fret`."""

    string: int
    by: int
    pitch: int
    compare: Compare
    other: int = 0
    fret: int = 0

    @property
    def tight(self) -> bool:
        """Whether the string is drawn so much tighter that it may break."""
        return self.by >= _TIGHT


def turns(old: Tuning, new: Tuning) -> tuple[Turn, ...]:
    """The strings to turn, each compared with what is in tune by then; raises InvalidValueError where the
    instruments have not as many strings."""
    if old.strings != new.strings:
        raise InvalidValueError("strings of the tuning", new.strings, f"as many as there are, {old.strings}")
    numbers = range(1, new.strings + 1)
    ready = [string for string in numbers if old.open_pitch(string) == new.open_pitch(string)]
    waiting = [string for string in numbers if string not in ready]
    found: list[Turn] = []
    while waiting:
        tries = [_turn(string, old, new, ready) for string in waiting]
        best = min(tries, key=lambda turn: (list(Compare).index(turn.compare), turn.fret, -turn.string))
        found.append(best)
        ready.append(best.string)
        waiting.remove(best.string)
    return tuple(found)


def _turn(string: int, old: Tuning, new: Tuning, ready: list[int]) -> Turn:
    pitch = new.open_pitch(string)
    by = pitch - old.open_pitch(string)
    nearest = sorted(ready, key=lambda other: abs(other - string))
    for compare, apart in (
        (Compare.UNISON, 0),
        (Compare.OCTAVE_BELOW, _OCTAVE),
        (Compare.OCTAVE_ABOVE, -_OCTAVE),
    ):
        for other in nearest:
            if new.open_pitch(other) - pitch == apart:
                return Turn(string, by, pitch, compare, other)
    for other in nearest:
        fret = pitch - new.open_pitch(other)
        if 0 < fret <= _HIGHEST_FRET:
            return Turn(string, by, pitch, Compare.PRESSED, other, fret)
        if 0 < -fret <= _HIGHEST_FRET:
            return Turn(string, by, pitch, Compare.PRESSES, other, -fret)
    return Turn(string, by, pitch, Compare.TONE)
