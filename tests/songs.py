"""Songs with real variety by a seed, as hypothesis draws them, and small builders for hand-made bars."""

import random
from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction
from typing import TypeVar

from hypothesis import strategies as st

from clear_steps.core.score import (
    LAST_TIME,
    TECHNIQUES,
    TUNINGS,
    UNCOUNTED,
    Bar,
    BarReading,
    Bend,
    Dynamic,
    Event,
    Feel,
    Finger,
    Instrument,
    Metre,
    Note,
    Part,
    Picking,
    PickingFinger,
    Role,
    Section,
    Song,
    Stroke,
    Technique,
    Writing,
)  # fmt: skip

WORD_TECHNIQUES = [row.technique for row in TECHNIQUES.values() if row.writing is Writing.WORD]
LENGTHS = [
    Fraction(n, d)
    for n, d in ((1, 4), (1, 2), (3, 4), (1, 1), (3, 2), (2, 1), (1, 3), (1, 6), (2, 5), (1, 8))
]
ARRIVALS = (
    Technique.HAMMER_ON,
    Technique.TAP,
    Technique.SLIDE_IN_BELOW,
    Technique.SLIDE_IN_ABOVE,
    Technique.DEAD,
    Technique.NATURAL_HARMONIC,
)
FROM_BEFORE = (Technique.PULL_OFF, Technique.SLIDE)
T = TypeVar("T")


class Dice(random.Random):
    """Chance from one seed: drawing every choice of a song by itself took seconds a song."""

    def once_in(self, count: int) -> bool:
        return self.randrange(count) == 0

    def maybe(self, values: Sequence[T]) -> T | None:
        """One of them, or as often none."""
        return self.choice(values) if self.once_in(2) else None

    def some(self, values: Sequence[T], most: int) -> set[T]:
        return set(self.sample(values, self.randint(0, min(most, len(values)))))

    def words(self) -> str:
        """Two or three small words."""
        return " ".join(
            "".join(self.choice("abcdefghijklmnop") for _ in range(self.randint(2, 4)))
            for _ in range(self.randint(2, 3))
        )


def _note(dice: Dice, string: int, before: int | None) -> Note:
    """One note on a string; `before` is the fret last sounded there."""
    if before is not None and dice.once_in(10):
        bend = Bend(Fraction(dice.choice((1, 2))), dice.once_in(2)) if dice.once_in(2) else None
        return Note(string, before, bend=bend, tied=True)
    techniques = dice.some((Technique.VIBRATO, Technique.SLIDE_OUT_DOWN), 1)
    if dice.once_in(4):
        techniques.add(dice.choice(ARRIVALS if before is None else (*ARRIVALS, *FROM_BEFORE)))
    dead = Technique.DEAD in techniques
    if dice.once_in(10):
        techniques.add(dice.choice((Technique.PALM_MUTE, Technique.LET_RING, Technique.STACCATO)))
    bends = not dead and dice.once_in(6)
    return Note(
        string,
        0 if dead else dice.randint(0, 17),
        frozenset(techniques),
        Bend(Fraction(dice.randint(1, 8), 2), dice.once_in(2)) if bends else None,
        finger=dice.maybe(list(Finger)) if dice.once_in(6) else None,
        picking=dice.maybe(list(PickingFinger)) if dice.once_in(6) else None,
        uncertain=dice.once_in(10),
        optional=dice.once_in(10),
    )


def _event(dice: Dice, length: Fraction, strings: int, held: dict[int, int]) -> Event:
    chosen = sorted(dice.some(range(1, strings + 1), 3))
    struck = tuple(_note(dice, string, held.get(string)) for string in chosen)
    held.update({note.string: note.fret for note in struck})
    words = frozenset(dice.some(WORD_TECHNIQUES, 2)) if struck else frozenset()
    struck = tuple(replace(note, techniques=note.techniques - words) for note in struck)
    sounds = any(not note.tied for note in struck)
    return Event(
        length,
        struck,
        words,
        dice.maybe(list(Stroke)) if sounds else None,
        dice.choice(("", "", "Am", "C/G", "F#m7b5")),
        dice.words() if dice.once_in(10) else "",
        dice.once_in(20),
        dice.once_in(20),
        frozenset({"harp"}) if struck and dice.once_in(20) else frozenset(),
        dice.randint(1, 12) if sounds and dice.once_in(20) else None,
        frozenset(dice.some(range(1, strings + 1), 2)) if struck else frozenset(),
        None,
        dice.maybe(list(Dynamic)) if struck else None,
    )


def _bar(dice: Dice, strings: int, held: dict[int, int]) -> Bar:
    """A bar that its events fill; `held` is the fret last sounded on each string."""
    metre = dice.choice((Metre(4, 4), Metre(3, 4), Metre(7, 8), Metre(6, 8)))
    left, events = metre.quarters, []
    while left:
        length = dice.choice([length for length in LENGTHS if length <= left] + [left])
        events.append(_event(dice, length, strings, held))
        left -= length
    return Bar(
        metre,
        tuple(events),
        tempo=Fraction(dice.randint(40, 200)) if dice.once_in(10) else None,
        repeat_start=dice.once_in(2),
        repeat_times=dice.choice((0, 0, 2, 3, UNCOUNTED)),
        endings=dice.choice(((), (), (1,), (1, 2), (LAST_TIME,))),
        double_bar=dice.once_in(5),
    )


def _part(dice: Dice, most_bars: int) -> Part:
    """A part on any of the named tunings."""
    tuning = dice.choice(list(TUNINGS.values()))
    held: dict[int, int] = {}
    held_before, written = dict(held), list[Bar]()
    for _ in range(dice.randint(1, most_bars)):
        held_before = dict(held)
        written.append(_bar(dice, tuning.strings, held))
    last = len(written) - 1
    readings: tuple[BarReading, ...] = ()
    if dice.once_in(4):
        aside = BarReading(last, "as first written", _bar(dice, tuning.strings, held_before))
        readings = (aside, BarReading(last, "louder", None))
    starts = sorted(dice.some(range(len(written)), 2))
    return Part(
        dice.words() if dice.once_in(2) else "",
        tuning,
        dice.randint(0, 5),
        dice.maybe(list(Instrument)),
        dice.maybe(list(Picking)),
        dice.choice((648.0, 628.0, 580.0)),
        tuple(written),
        tuple(
            Section(
                dice.words(),
                start,
                dice.choice((1, 1, 2, None)),
                role=dice.maybe(list(Role)),
                sound=dice.choice(((), ("clean",), ("dry", "far away"))),
            )
            for start in starts
        ),
        tuple((start, f"Watch {dice.words()}") for start in starts[:1]),
        readings,
        dice.choice((24, 24, 22, 19)),
        dice.once_in(5),
    )


def song_by(seed: int, most_parts: int = 2, most_bars: int = 3) -> Song:
    """A whole song; the same seed gives the same one."""
    dice = Dice(seed)
    written = tuple(_part(dice, most_bars) for _ in range(dice.randint(1, most_parts)))
    named = [section.name for part in written for section in part.sections]
    tempo = Fraction(dice.randint(40, 200)) if dice.once_in(2) else None
    return Song(
        dice.words() if dice.once_in(2) else "",
        tempo,
        tempo is not None and dice.once_in(2),
        dice.randint(-50, 50),
        dice.maybe(list(Feel)),
        tuple(named[:1]),
        written,
        (("Learned from", dice.words()),) if dice.once_in(2) else (),
    )


def songs(most_parts: int = 2, most_bars: int = 3) -> st.SearchStrategy[Song]:
    """Whole songs with real variety."""
    return st.integers(0, 2**32).map(lambda seed: song_by(seed, most_parts, most_bars))


def line(*frets: str, length: Fraction = Fraction(1, 2), tempo: int = 120) -> Song:
    """A song of one 4/4 bar after another from `string.fret` words; `r` rests, `6.3+5.5` is a chord."""
    events = [Event(length, _chord(word)) for word in frets]
    per_bar = int(4 / length)
    while len(events) % per_bar:
        events.append(Event(length))
    written = tuple(
        Bar(events=tuple(events[start : start + per_bar])) for start in range(0, len(events), per_bar)
    )
    return Song(tempo=Fraction(tempo), parts=(Part(bars=written),))


def _chord(word: str) -> tuple[Note, ...]:
    if word == "r":
        return ()
    pairs = sorted(tuple(int(number) for number in spot.split(".")) for spot in word.split("+"))
    return tuple(Note(string, fret) for string, fret in pairs)


@st.composite
def playable_songs(draw: st.DrawFn, most_bars: int = 4) -> Song:
    """One part that a hand could play: it keeps near a position that drifts, with some chords and
    techniques."""
    position, string, written = draw(st.integers(1, 9)), draw(st.integers(1, 6)), []
    tempo = draw(st.integers(50, 150))
    for _ in range(draw(st.integers(1, most_bars))):
        length = draw(st.sampled_from([Fraction(1), Fraction(1, 2), Fraction(1, 2), Fraction(1, 4)]))
        events = []
        for choice in draw(st.lists(st.integers(0, 999), min_size=int(4 / length), max_size=int(4 / length))):
            string = min(max(string + choice % 3 - 1, 1), 6)
            position = min(max(position + (choice // 3 % 7 == 0) - (choice // 3 % 7 == 1), 1), 12)
            fret = 0 if choice % 11 == 0 else position + choice // 21 % 4
            notes = [Note(string, fret, frozenset({Technique.VIBRATO}) if choice % 29 == 0 else frozenset())]
            if choice % 13 == 0 and string < 6:
                notes.append(Note(string + 1, position + choice // 7 % 3))
            word = (
                frozenset({(Technique.PALM_MUTE, Technique.TREMOLO, Technique.LET_RING)[choice % 3]})
                if choice % 17 == 0
                else frozenset()
            )
            events.append(
                Event(length, () if choice % 23 == 0 else tuple(notes), word if choice % 23 else frozenset())
            )
        written.append(Bar(events=tuple(events)))
    return Song(tempo=Fraction(tempo), parts=(Part(bars=tuple(written), sections=(Section("All", 0),)),))
