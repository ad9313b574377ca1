"""What the bench grades."""

import random
from fractions import Fraction

from clear_steps.core.score import Bar, Event, Note, Part, Song


def sixteenths(bars: int) -> Song:
    """A wandering line of sixteenths, the same every time; no two bars alike."""
    draw = random.Random(4)
    string, fret, written = 3, 5, []
    for _ in range(bars):
        events = []
        for _ in range(16):
            string = min(max(string + draw.choice((-1, 0, 1)), 1), 6)
            fret = min(max(fret + draw.choice((-3, -2, -1, 0, 1, 2, 3)), 1), 17)
            events.append(Event(Fraction(1, 4), (Note(string, fret),)))
        written.append(Bar(events=tuple(events)))
    return Song(tempo=Fraction(100), parts=(Part(bars=tuple(written)),))
