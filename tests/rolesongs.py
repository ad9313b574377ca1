"""Songs of every role, made up by a seed: what the laws of versions are tried and counted on.

Four to eight bars each, in sections that recur; nothing is taken from anywhere.
"""

import random
from collections.abc import Callable, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.score import (
    TUNINGS,
    Bar,
    Bend,
    Event,
    Instrument,
    Metre,
    Note,
    Part,
    Picking,
    Role,
    Section,
    Song,
    Technique,
)
from clear_steps.core.score.strumming import ChordShape

Draw = random.Random
EIGHTH, QUARTER = Fraction(1, 2), Fraction(1)
CHORDS = {
    "C": "x32010", "G": "320003", "Am": "x02210", "Em": "022000", "D": "xx0232", "F": "133211",
    "Bm": "x24432", "F#m": "244222", "B": "x24442", "Eb": "x68886", "Ab": "466544", "Cm": "x35543",
    "E7": "020100", "A7": "x02020", "Bb": "x13331",
}  # fmt: skip
STRUMS = ("q e e e e q", "q q q q", "e e e e e e e e", "q e e q e e", "q. e q q")
LENGTHS = {"q": QUARTER, "e": EIGHTH, "s": Fraction(1, 4), "q.": Fraction(3, 2), "h": Fraction(2)}
RHYTHMS = ("e e e e q q", "e e s s e e e q", "q e e q q", "s s s s e e q q", "e e e e e e e e", "q. e q e e")
MINOR = (0, 3, 5, 7, 10, 12, 15)


def lengths(words: str) -> list[Fraction]:
    return [LENGTHS[word] for word in words.split()]


def shape(name: str) -> tuple[Note, ...]:
    frets = ChordShape(name, CHORDS[name]).by_string
    return tuple(Note(string, frets[string]) for string in sorted(frets))


def strum(draw: Draw) -> Callable[[int], Bar]:
    names, pattern = draw.sample(sorted(CHORDS), 4), lengths(draw.choice(STRUMS))
    named = draw.random() < 0.7

    def bar(number: int) -> Bar:
        name = names[number % len(names)]
        events = [Event(length, shape(name)) for length in pattern]
        return Bar(events=(replace(events[0], chord=name if named else ""), *events[1:]))

    return bar


def riff(draw: Draw) -> Callable[[int], Bar]:
    rhythm = lengths(draw.choice(RHYTHMS))
    cells = [[draw.choice((0, 0, 0, 3, 5, 7)) for _ in rhythm] for _ in range(2)]
    accents = {0, draw.randrange(len(rhythm)), draw.randrange(len(rhythm))}

    def bar(number: int) -> Bar:
        events = []
        for at, (length, fret) in enumerate(zip(rhythm, cells[number % 2], strict=True)):
            power = fret > 0 and at in accents
            notes = (Note(5, fret + 2), Note(6, fret)) if power else (Note(6, fret),)
            how = Technique.ACCENT if at in accents else Technique.PALM_MUTE
            events.append(Event(length, notes, frozenset({how})))
        return Bar(events=tuple(events))

    return bar


def picked(draw: Draw) -> Callable[[int], Bar]:
    names = draw.sample(["C", "G", "Am", "Em", "D", "F"], 3)
    order = draw.choice(([0, 2, 1, 3, 0, 2, 1, 3], [0, 1, 2, 3, 2, 1, 2, 3], [0, 3, 1, 2, 0, 3, 1, 2]))

    def bar(number: int) -> Bar:
        grip = shape(names[number % len(names)])
        voices = [grip[-1], grip[2], grip[1], grip[0]]
        events = [Event(EIGHTH, (voices[at],)) for at in order]
        top, bass = grip[draw.choice((0, 1))], grip[-1]
        pinch = tuple(sorted({top, bass}, key=lambda note: note.string))
        return Bar(events=(replace(events[0], notes=pinch), *events[1:]))

    return bar


def line(draw: Draw) -> Callable[[int], Bar]:
    rhythms = [lengths(draw.choice(RHYTHMS)) for _ in range(2)]
    at, bars = draw.randrange(4), []
    for rhythm in rhythms:
        events = []
        for length in rhythm:
            at = min(max(at + draw.choice((-2, -1, -1, 0, 1, 1, 2)), 0), len(MINOR) - 1)
            string, fret = divmod(MINOR[at], 5)
            note = Note(3 - min(string, 2), 5 + fret)
            if length >= 1 and draw.random() < 0.3:
                note = replace(note, bend=Bend(Fraction(draw.choice((1, 2)))))
            events.append(Event(length, (note,)))
        bars.append(Bar(events=tuple(events)))
    return lambda number: bars[number % len(bars)]


def chord_melody(draw: Draw) -> Callable[[int], Bar]:
    names = draw.sample(["C", "G", "Am", "D", "E7", "A7"], 3)
    rhythm = lengths(draw.choice(("q e e q q", "q q q q", "q q e e q")))
    steps = [[draw.choice((0, 2, 3)) for _ in rhythm] for _ in range(2)]

    def bar(number: int) -> Bar:
        grip = shape(names[number % len(names)])
        events = []
        for at, (length, fret) in enumerate(zip(rhythm, steps[number % 2], strict=True)):
            melody = Note(1, fret)
            inner = tuple(note for note in grip if 1 < note.string < 6)
            events.append(Event(length, (melody, *inner) if at % 2 == 0 else (melody,)))
        return Bar(events=tuple(events))

    return bar


def bass(draw: Draw) -> Callable[[int], Bar]:
    rhythm = lengths(draw.choice(("q q q q", "e e e e e e e e", "q e e q e e")))
    roots = [draw.choice(((4, 1), (4, 3), (3, 0), (3, 3))) for _ in range(3)]

    def bar(number: int) -> Bar:
        string, fret = roots[number % len(roots)]
        walk = [fret, fret, fret + 2, fret, fret, fret + 2, fret + 4, fret + 2]
        notes = (Note(string, walk[at % len(walk)]) for at in range(len(rhythm)))
        return Bar(events=tuple(Event(length, (note,)) for length, note in zip(rhythm, notes, strict=True)))

    return bar


MAKERS = {
    Role.STRUM: strum,
    Role.RIFF: riff,
    Role.PICKED: picked,
    Role.LINE: line,
    Role.CHORD_MELODY: chord_melody,
    Role.BASS: bass,
}


def song_of(role: Role, seed: int) -> Song:
    """A song of one role; the same seed gives the same one."""
    draw = Draw(f"{role} {seed}")
    make = MAKERS[role](draw)
    bars: Sequence[Bar] = [make(number) for number in range(draw.choice((4, 6, 8)))]
    part = Part(
        tuning=TUNINGS["bass"] if role is Role.BASS else Part().tuning,
        instrument=Instrument.ELECTRIC if role in (Role.RIFF, Role.LINE) else Instrument.ACOUSTIC,
        picking=Picking.FINGERS if role is Role.PICKED else Picking.PICK,
        bars=tuple(replace(bar, metre=Metre(4, 4)) for bar in bars),
        sections=(Section("A", 0, role=role),),
    )
    return Song(f"{role} {seed}", Fraction(draw.randrange(80, 150)), parts=(part,))
