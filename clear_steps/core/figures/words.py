"""What comes back, in the words of a lesson."""

from collections.abc import Callable

from clear_steps.core.figures.likeness import As
from clear_steps.core.figures.told import At, ComingBack, Figure, Place, Rule
from clear_steps.core.score import Part
from clear_steps.core.score.words import beat_words, capital, number_words, string_words

_NAMED = 2  # moments; more are counted
_TIMES = {2: "twice"}


def told_lines(part: Part, found: ComingBack) -> list[str]:
    """All of it, a line for every figure, place and rule."""
    lines = []
    for figure in found.figures:
        lines.append(figure_words(part, figure))
        for place in figure.later:
            where = stretch_words(part, place.first, place.last)
            lines.append(f"  {where}: {likeness_words(part, place)}")
    return lines + [f"{rule_words(part, rule)}." for rule in found.rules]


def rule_words(part: Part, rule: Rule) -> str:
    """`Bars 1 to 3: each bar two frets lower`."""
    where = stretch_words(part, rule.first, rule.last)
    return f"{capital(where)}: {rule.words}"


def figure_words(part: Part, figure: Figure) -> str:
    """`Bar 1, four times`, `Beats 1 to 2 of bar 3 on the 1st and 2nd strings, twice`."""
    first = figure.first
    where = stretch_words(part, first.first, first.last)
    times = _TIMES.get(figure.times, f"{number_words(figure.times)} times")
    return f"{capital(where)}{_voice_words(figure)}, {times}"


def likeness_words(part: Part, place: Place) -> str:
    """How a place is like the first: `the same but for beat 4`, `two frets lower`."""
    but = _but_words(part, place)
    if place.how is As.EQUAL:
        return f"the same{but}"
    return f"{_HOW[place.how](place.by)}{',' if but else ''}{but}"


def stretch_words(part: Part, first: At, last: At) -> str:
    """`bar 5`, `bars 5 to 6`, `beats 3 to 4 of bar 2`, `beat 4 of bar 2 to beat 1 of bar 4`."""
    a, b = part.bar_number(first.bar), part.bar_number(last.bar)
    if _begins(part, first) and _ends(part, last):
        return f"bar {a}" if a == b else f"bars {a} to {b}"
    beats = _beat(part, first), _beat(part, last)
    if a != b:
        return f"{beats[0]} of bar {a} to {beats[1]} of bar {b}"
    if all(words.startswith("beat ") for words in beats):
        numbers = [words.removeprefix("beat ") for words in beats]
        one = beats[0] == beats[1]
        return f"{beats[0]} of bar {a}" if one else f"beats {' to '.join(numbers)} of bar {a}"
    return f"{beats[0]} to {beats[1]} of bar {a}"


def _but_words(part: Part, place: Place) -> str:
    if not place.but:
        return ""
    if len(place.but) > _NAMED:
        return f" but for {number_words(len(place.but))} moments from {_moment(part, place, place.but[0])} on"
    return f" but for {' and '.join(_moment(part, place, at) for at in place.but)}"


def _moment(part: Part, place: Place, at: At) -> str:
    """A moment of a place; its bar is said where it has several."""
    bar = "" if place.first.bar == place.last.bar else f" of bar {part.bar_number(at.bar)}"
    return f"{_beat(part, at)}{bar}"


def _beat(part: Part, at: At) -> str:
    return beat_words(part.starts_at(at.bar) + at.onset, part.bars[at.bar].metre)


def _begins(part: Part, at: At) -> bool:
    """Whether nothing is struck before it in its bar."""
    bar = part.bars[at.bar]
    return all(onset >= at.onset for onset, event in zip(bar.onsets, bar.events, strict=True) if event.struck)


def _ends(part: Part, at: At) -> bool:
    bar = part.bars[at.bar]
    return all(onset <= at.onset for onset, event in zip(bar.onsets, bar.events, strict=True) if event.struck)


def _voice_words(figure: Figure) -> str:
    if not figure.strings:
        return ""
    return f" on the {string_words(figure.strings)}"


def _moved(by: int) -> str:
    return f"{_counted(by, 'fret')} {'higher' if by > 0 else 'lower'}"


def _restrung(by: int) -> str:
    return f"{_counted(by, 'string')} {'thicker' if by > 0 else 'thinner'}"


def _octave(by: int) -> str:
    octaves = abs(by) // 12
    return f"{'an octave' if octaves == 1 else _counted(octaves, 'octave')} {'higher' if by > 0 else 'lower'}"


def _counted(count: int, name: str) -> str:
    return f"{number_words(abs(count))} {name}{'' if abs(count) == 1 else 's'}"


_HOW: dict[As, Callable[[int], str]] = {
    As.FIRST: lambda _: "here first",
    As.MOVED: _moved,
    As.STRINGS: _restrung,
    As.OCTAVE: _octave,
    As.PLACE: lambda _: "the same notes elsewhere on the neck",
    As.RHYTHM: lambda _: "the same pattern on other notes",
}
