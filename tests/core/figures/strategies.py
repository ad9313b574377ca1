"""Parts in which things come back: cells that are repeated, moved, restrung, changed, with others between."""

from dataclasses import replace
from fractions import Fraction

from hypothesis import strategies as st

from clear_steps.core.score import Bar, Event, Note, Part, Technique

EIGHTH = Fraction(1, 2)
Spots = list[tuple[int, int]]  # (string, fret) of one moment


@st.composite
def moments(draw: st.DrawFn, lowest: int) -> Spots:
    strings = draw(st.sets(st.integers(2, 5), min_size=0 if draw(st.integers(0, 5)) == 0 else 1, max_size=2))
    return [(string, draw(st.integers(lowest, 9))) for string in sorted(strings)]


@st.composite
def bars_that_come_back(draw: st.DrawFn, lowest: int) -> list[list[Spots]]:
    """Bars of eighths: some of a few, as they are, moved, on other strings, or with a moment changed."""
    stock = [[draw(moments(lowest)) for _ in range(8)] for _ in range(draw(st.integers(1, 3)))]
    bars = []
    for _ in range(draw(st.integers(3, 9))):
        bar = draw(st.sampled_from(stock))
        frets = draw(st.sampled_from([0, 0, 0, 2, 3]))
        strings = draw(st.sampled_from([0, 0, 0, 1]))
        bar = [[(string + strings, fret + frets if fret else 0) for string, fret in spots] for spots in bar]
        if draw(st.integers(0, 2)) == 0:
            bar[draw(st.integers(0, 7))] = draw(moments(lowest))
        bars.append(bar)
    return bars


@st.composite
def parts_that_come_back(draw: st.DrawFn, lowest: int = 0) -> Part:
    """`lowest`: fret."""
    bars = tuple(_bar(bar) for bar in draw(bars_that_come_back(lowest)))
    if draw(st.booleans()):
        at = draw(st.integers(0, len(bars) - 1))
        slurred = [
            replace(
                event, notes=tuple(replace(n, techniques=frozenset({Technique.VIBRATO})) for n in event.notes)
            )
            for event in bars[at].events
        ]
        bars = (*bars[:at], replace(bars[at], events=tuple(slurred)), *bars[at + 1 :])
    return Part(bars=bars)


def _bar(bar: list[Spots]) -> Bar:
    return Bar(events=tuple(Event(EIGHTH, tuple(Note(*spot) for spot in spots)) for spots in bar))


def moved_along(part: Part, frets: int) -> Part:
    """Every note so many frets higher."""
    return replace(
        part,
        bars=tuple(
            replace(
                bar,
                events=tuple(
                    replace(event, notes=tuple(replace(note, fret=note.fret + frets) for note in event.notes))
                    for event in bar.events
                ),
            )
            for bar in part.bars
        ),
    )
