"""Which strings the lines of a part are: its tuning, and those that a system leaves out."""

import re
from collections.abc import Sequence
from dataclasses import replace

from clear_steps.core.score import STANDARD, default_tuning
from clear_steps.core.score.tuning import MAX_STRINGS, MIN_STRINGS, TUNINGS, Tuning
from clear_steps.formats.tabtext.header import Headers
from clear_steps.formats.tabtext.lines import StringLine, System
from clear_steps.formats.tabtext.problems import NO_TUNING, Findings
from clear_steps.formats.tabtext.rawbars import without_times

_FLATS = {"Db": "C#", "D#": "Eb", "Gb": "F#", "G#": "Ab", "A#": "Bb"}
_NO_BAR_LINE = re.compile(r"[^|]")
_FORGOTTEN = 5  # lines: more often a forgotten one than a bass


def tuning_of(systems: Sequence[System], headers: Headers, findings: Findings) -> Tuning:
    """The declared tuning, or the one that the string names spell."""
    if not systems or headers.tuning_named:
        return headers.part.tuning
    fullest = max(systems, key=lambda system: len(system.strings))
    count, line = len(fullest.strings), fullest.strings[0].line
    if headers.tuning_like and headers.tuning_like.strings == count:
        return headers.tuning_like
    tuning = _named_by_letters(fullest)
    if tuning is None and _offset(fullest, STANDARD) is not None:
        tuning = STANDARD
    if tuning is None and (not MIN_STRINGS <= count <= MAX_STRINGS or count == _FORGOTTEN):
        expected = f"{MIN_STRINGS} to {MAX_STRINGS} (6 unless a Tuning is declared)"
        expected = "6, or a Tuning that names five strings" if count == _FORGOTTEN else expected
        findings.wrong(line, 1, f"{count} string lines stand together here; expected {expected}")
        return headers.part.tuning
    tuning = tuning or default_tuning(count) or headers.part.tuning
    findings.guessed(line, 1, NO_TUNING, f"{tuning.name} is taken")
    return tuning


def completed(system: System, tuning: Tuning, findings: Findings) -> System | None:
    """The system with a line for every string; None, and told, where nobody can say which strings these
    are."""
    line, count = system.strings[0].line, len(system.strings)
    if count == tuning.strings:
        return system
    offset = _offset(system, tuning)
    if offset is None:
        findings.wrong(
            line,
            1,
            f"{count} string lines stand together here; expected {tuning.strings} for the tuning"
            f" {tuning.name}",
        )
        return None
    findings.guessed(
        line, 1, f"{count} of {tuning.strings} strings are written here", "the others are taken for silent"
    )
    silent = _silent(system.strings[0])
    behind = tuning.strings - count - offset
    return replace(system, strings=[silent] * offset + system.strings + [silent] * behind)


def _silent(line: StringLine) -> StringLine:
    text = without_times(line.text)
    return replace(line, name="", text=text[: line.body] + _NO_BAR_LINE.sub("-", text[line.body :]))


def _offset(system: System, tuning: Tuning) -> int | None:
    """How many thinner strings a system leaves out, by the names of those it has."""
    names, count = _letters(system), len(system.strings)
    if not all(names):
        return None
    places = range(tuning.strings - count + 1)
    fitting = [at for at in places if tuple(map(_sharp, tuning.letters[at : at + count])) == names]
    if len(fitting) > 1 and count == 1:  # a lone E: the thin one is written small
        fitting = fitting[:1] if system.strings[0].name.islower() else fitting[-1:]
    return fitting[0] if fitting else None


def _named_by_letters(system: System) -> Tuning | None:
    names = _letters(system)
    return next((tuning for tuning in TUNINGS.values() if tuple(map(_sharp, tuning.letters)) == names), None)


def _letters(system: System) -> tuple[str, ...]:
    return tuple(
        _sharp(line.name.rstrip("0123456789-").replace("♯", "#").replace("♭", "b").capitalize())
        for line in system.strings
    )


def _sharp(letter: str) -> str:
    return _FLATS.get(letter, letter)
