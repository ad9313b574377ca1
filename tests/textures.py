"""Songs of real variety, the same for the same seed: lines, strums, broken chords, a bass under a melody,
power chords, drones, with techniques here and there. For laws that hold in so many of a hundred cases."""

import random
from collections.abc import Callable, Iterator
from fractions import Fraction

from clear_steps.core.score import Bar, Bend, Event, Note, Part, Song, Technique

HALF, QUARTER = Fraction(1, 2), Fraction(1, 4)
_OPEN_CHORDS = (
    ((5, 3), (4, 2), (3, 0), (2, 1), (1, 0)),
    ((5, 0), (4, 2), (3, 2), (2, 1), (1, 0)),
    ((6, 0), (5, 2), (4, 2), (3, 1), (2, 0), (1, 0)),
    ((4, 0), (3, 2), (2, 3), (1, 2)),
    ((6, 3), (5, 2), (4, 0), (3, 0), (2, 0), (1, 3)),
)
_BARRES = (
    ((6, 0), (5, 2), (4, 2), (3, 1), (2, 0), (1, 0)),
    ((6, 0), (5, 2), (4, 2), (3, 0), (2, 0), (1, 0)),
    ((5, 0), (4, 2), (3, 2), (2, 2), (1, 0)),
    ((5, 0), (4, 2), (3, 0), (2, 1)),
)


def _event(length: Fraction, notes: Iterator[tuple[int, int]] | list[tuple[int, int]]) -> Event:
    return Event(length, tuple(Note(string, fret) for string, fret in sorted(notes)))


def _line(draw: random.Random) -> list[Event]:
    length = draw.choice([HALF, HALF, QUARTER, Fraction(1)])
    string, place, events = draw.randint(1, 6), draw.randint(1, 12), []
    for _ in range(int(4 / length)):
        string = min(max(string + draw.choice((-1, 0, 0, 1)), 1), 6)
        place = min(max(place + draw.choice((0, 0, 0, 0, -2, 2, 5)), 1), 14)
        fret = draw.choice((0, *range(place, place + 4))) if place < 4 else place + draw.randint(0, 3)
        events.append(_event(length, [(string, fret)]))
    return events


def _chord(draw: random.Random) -> list[tuple[int, int]]:
    if draw.random() < 0.6:
        return list(draw.choice(_OPEN_CHORDS))
    fret = draw.randint(1, 8)
    return [(string, low + fret) for string, low in draw.choice(_BARRES)]


def _strum(draw: random.Random) -> list[Event]:
    lengths = draw.choice(
        [[Fraction(1)] * 4, [HALF] * 8, [Fraction(1), HALF, HALF, Fraction(1), Fraction(1)]]
    )
    changes = draw.choice((1, 2, 4))
    chords = [_chord(draw) for _ in range(changes)]
    done, events = Fraction(0), []
    for length in lengths:
        events.append(_event(length, chords[int(done * changes / 4)]))
        done += length
    return events


def _broken(draw: random.Random) -> list[Event]:
    chord = _chord(draw)
    order = [draw.choice(chord) for _ in range(8)]
    return [_event(HALF, [note]) for note in order]


def _bass_and_melody(draw: random.Random) -> list[Event]:
    events = []
    for _ in range(4):
        bass, melody = (
            (draw.choice((4, 5, 6)), draw.choice((0, 2, 3))),
            (draw.choice((1, 2)), draw.randint(0, 3)),
        )
        pinched = [bass, melody] if draw.random() < 0.5 else [bass]
        events += [_event(HALF, pinched), _event(HALF, [(draw.choice((1, 2, 3)), draw.randint(0, 3))])]
    return events


def _power(draw: random.Random) -> list[Event]:
    fret, events = draw.randint(1, 10), []
    for _ in range(8):
        fret = min(max(fret + draw.choice((0, 0, 0, 2, -2, 5)), 1), 12)
        string = 6
        events.append(_event(HALF, [(string, fret), (string - 1, fret + 2), (string - 2, fret + 2)]))
    return events


def _drone(draw: random.Random) -> list[Event]:
    place = draw.randint(2, 9)
    events = []
    for _ in range(4):
        events += [_event(HALF, [(4, 0)]), _event(HALF, [(draw.choice((2, 3)), place + draw.randint(0, 3))])]
    return events


_TEXTURES: tuple[Callable[[random.Random], list[Event]], ...] = (
    _line,
    _line,
    _strum,
    _broken,
    _bass_and_melody,
    _power,
    _drone,
)


def _with_techniques(draw: random.Random, events: list[Event]) -> tuple[Event, ...]:
    found = []
    for event in events:
        note = event.notes[0] if len(event.notes) == 1 else None
        if note and note.fret > 4 and draw.random() < 0.06:
            bent = Note(note.string, note.fret, bend=Bend(Fraction(2)))
            found.append(Event(event.quarters, (bent,)))
        elif note and note.fret and draw.random() < 0.06:
            shaken = Note(note.string, note.fret, frozenset({Technique.VIBRATO}))
            found.append(Event(event.quarters, (shaken,)))
        else:
            found.append(event)
    return tuple(found)


def textured_songs(count: int, bars: int = 4, seed: int = 0) -> Iterator[Song]:
    """So many songs of so many bars, mostly one texture with a bar of another."""
    for number in range(count):
        draw = random.Random(1000 * seed + number)
        mostly = draw.choice(_TEXTURES)
        written = tuple(
            Bar(
                events=_with_techniques(
                    draw, (mostly if draw.random() < 0.7 else draw.choice(_TEXTURES))(draw)
                )
            )
            for _ in range(bars)
        )
        capo = draw.choice((0, 0, 0, 2))
        yield Song(tempo=Fraction(draw.randint(60, 150)), parts=(Part(bars=written, capo=capo),))
