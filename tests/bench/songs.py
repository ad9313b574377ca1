"""What the bench grades."""

import random
from fractions import Fraction

from clear_steps.core.score import Bar, Event, Note, Part, Song


def sixteenths(bars: int, seed: int = 4) -> Song:
    """A wandering line of sixteenths, the same for the same seed; no two bars alike, and every seed has a
    tempo of its own."""
    draw = random.Random(seed)
    string, fret, written = 3, 5, []
    for _ in range(bars):
        events = []
        for _ in range(16):
            string = min(max(string + draw.choice((-1, 0, 1)), 1), 6)
            fret = min(max(fret + draw.choice((-3, -2, -1, 0, 1, 2, 3)), 1), 17)
            events.append(Event(Fraction(1, 4), (Note(string, fret),)))
        written.append(Bar(events=tuple(events)))
    return Song(tempo=Fraction(90 + 3 * seed), parts=(Part(bars=tuple(written)),))
