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


def song_form(bars: int, seed: int = 4) -> Part:
    """Verses and choruses of eight bars of eighths, as songs have them: bars come back as they are, moved
    along the neck, or with their end changed."""
    draw = random.Random(seed)
    stock = [[(draw.randint(2, 5), draw.randint(1, 9)) for _ in range(8)] for _ in range(6)]
    sections = [
        [(draw.choice(stock), draw.choice((0, 0, 0, 2, 5)), draw.random() < 0.3) for _ in range(8)]
        for _ in range(4)
    ]
    written: list[Bar] = []
    while len(written) < bars:
        for spots, higher, changed in draw.choice(sections):
            own = [(string, fret + higher) for string, fret in spots]
            if changed:
                own[-2:] = [(draw.randint(2, 5), draw.randint(1, 9)) for _ in range(2)]
            written.append(Bar(events=tuple(Event(Fraction(1, 2), (Note(*spot),)) for spot in own)))
    return Part(bars=tuple(written[:bars]))
