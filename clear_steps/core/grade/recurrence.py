"""What comes back: bars that are an earlier bar again, moved along or across the neck, or in another
octave."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from clear_steps.core.grade.finding import number_words
from clear_steps.core.grade.songwide import Figures
from clear_steps.core.score import Bar, Note, Part


@dataclass(frozen=True, slots=True)
class Recurrence:
    """Bars (indexes, both inclusive) that repeat earlier ones, and how."""

    first: int
    last: int
    like: int  # the first of the earlier bars
    like_last: int
    how: str  # `again`, `two frets lower`, `one string thinner`, `an octave higher`


def figures_of(part: Part) -> dict[int, int]:
    """For every bar that sounds (index) the first that is the same figure, itself where none was before
    it."""
    sounding = [index for index, bar in enumerate(part.bars) if not bar.silent]
    return Figures().firsts(part, sounding)


def recurrences(part: Part) -> tuple[Recurrence, ...]:
    """Every stretch of bars that comes back, as long as the same words hold for it.

    A stretch is as long as the one it repeats, or one bar over and over.
    """
    found: list[Recurrence] = []
    for index, like in figures_of(part).items():
        if index == like:
            continue
        how = _how(part, part.bars[like], part.bars[index])
        if how != "again" and sum(bool(event.struck) for event in part.bars[index].events) < 2:
            continue  # one note elsewhere is no figure
        last = found[-1] if found else None
        goes_on = last is not None and last.last == index - 1 and last.how == how
        if (
            last
            and goes_on
            and like == last.like_last + 1
            and like < last.first
            and last.like_last - last.like == last.last - last.first
        ):
            found[-1] = replace(last, last=index, like_last=like)
        elif last and goes_on and like == last.like == last.like_last:
            found[-1] = replace(last, last=index)
        else:
            found.append(Recurrence(index, index, like, like, how))
    return tuple(found)


def recurrence_words(part: Part, row: Recurrence) -> str:
    """`Bars 5-6: the figure of bars 1-2, two frets lower.`"""
    own, earlier = _bars(part, row.first, row.last), _bars(part, row.like, row.like_last)
    own = own[0].upper() + own[1:]
    return f"{own}: {earlier} again." if row.how == "again" else f"{own}: the figure of {earlier}, {row.how}."


def _bars(part: Part, first: int, last: int) -> str:
    a, b = part.bar_number(first), part.bar_number(last)
    return f"bar {a}" if a == b else f"bars {a}-{b}"


def _how(part: Part, before: Bar, after: Bar) -> str:
    pairs = list(_pairs(before, after))
    strings = {b.string - a.string for a, b in pairs}
    frets = {b.fret - a.fret for a, b in pairs if not a.dead}
    if strings == {0}:
        fret = frets.pop() if len(frets) == 1 else 0
        return f"{_counted(abs(fret), 'fret')} {'higher' if fret > 0 else 'lower'}" if fret else "again"
    if len(strings) == 1 and frets <= {0}:
        string = strings.pop()
        return f"{_counted(abs(string), 'string')} {'thicker' if string > 0 else 'thinner'}"
    apart = {part.pitch_of(b) - part.pitch_of(a) for a, b in pairs if not a.dead}
    if len(apart) == 1 and (half_tones := apart.pop()) % 12 == 0:
        octaves = abs(half_tones) // 12
        height = "higher" if half_tones > 0 else "lower"
        return (
            "the same notes elsewhere on the neck"
            if not octaves
            else f"{'an octave' if octaves == 1 else f'{number_words(octaves)} octaves'} {height}"
        )
    return "moved to other strings"


def _pairs(before: Bar, after: Bar) -> Iterator[tuple[Note, Note]]:
    for a, b in zip(before.events, after.events, strict=False):
        yield from zip(a.struck, b.struck, strict=False)


def _counted(count: int, name: str) -> str:
    return f"{number_words(count)} {name}{'' if count == 1 else 's'}"
