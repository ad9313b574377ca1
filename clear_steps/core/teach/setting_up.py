"""From one tuning to another, string by string: how far, and what to compare each with; and where a capo
saves the turning."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Tuning
from clear_steps.core.score.tuning import MAX_CAPO

_OCTAVE = 12
_HIGHEST_FRET = 12  # that a neighbour is pressed at to compare with
_TIGHT = 2  # half tones up from which a string may break (common practice, no source)
_SLACKEST = -5  # half tones down from which a string only rattles (the same)


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


@dataclass(frozen=True, slots=True)
class Setting:
    """A guitar made ready: its open strings, the capo, and what has to be turned for it."""

    tuning: Tuning
    capo: int
    turns: tuple[Turn, ...]

    @property
    def effort(self) -> tuple[int, int, int]:
        """Strings to turn, half tones in all, and how high the capo sits: the fewest changes first."""
        return len(self.turns), sum(abs(turn.by) for turn in self.turns), self.capo


def written_setting(old: Tuning, tuning: Tuning, capo: int) -> Setting:
    """As the song has it; raises InvalidValueError as `turns` does."""
    return Setting(tuning, capo, turns(old, tuning))


def fewest_changes(old: Tuning, tuning: Tuning, capo: int) -> Setting | None:
    """The setting that sounds the same, with the same shapes, for fewer changes; None where there is none."""
    written = written_setting(old, tuning, capo)
    return min(
        (each for each in _others(old, tuning, capo) if each.effort[:2] < written.effort[:2]),
        key=lambda each: each.effort,
        default=None,
    )


def _others(old: Tuning, tuning: Tuning, capo: int) -> Iterator[Setting]:
    """The same pitches over the capo with the capo elsewhere, as far as strings can be turned."""
    for other in range(MAX_CAPO + 1):
        pitches = tuple(pitch + capo - other for pitch in tuning.pitches)
        ways = [pitch - open_pitch for pitch, open_pitch in zip(pitches, old.pitches, strict=True)]
        if other != capo and all(_SLACKEST <= by < _TIGHT for by in ways):
            yield written_setting(old, Tuning(pitches), other)


def sounds_apart(old: Tuning, tuning: Tuning, capo: int) -> int | None:
    """By how many half tones the song's open strings, over the capo, sound above those of a guitar; None
    where not all do alike."""
    if old.strings != tuning.strings:
        return None
    ways = {new + capo - own for own, new in zip(old.pitches, tuning.pitches, strict=True)}
    return ways.pop() if len(ways) == 1 else None
