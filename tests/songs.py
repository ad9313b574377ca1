"""Hypothesis strategies for songs with real variety, and small builders for hand-made bars."""

from dataclasses import replace
from fractions import Fraction

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
_WORDS = (
    st.text("abcdefghij klmnop", min_size=1, max_size=14)
    .map(lambda text: " ".join(text.split()))
    .filter(lambda text: len(text) > 3)
)


@st.composite
def notes(draw: st.DrawFn, string: int, before: int | None) -> Note:
    """One note on a string; `before` is the fret last sounded there."""
    if before is not None and draw(st.integers(0, 9)) == 0:
        bend = draw(st.none() | st.builds(Bend, st.sampled_from([Fraction(1), Fraction(2)]), st.booleans()))
        return Note(string, before, bend=bend, tied=True)
    techniques = set(
        draw(st.sets(st.sampled_from([Technique.VIBRATO, Technique.SLIDE_OUT_DOWN]), max_size=1))
    )
    arrival = (
        [Technique.HAMMER_ON, Technique.PULL_OFF, Technique.SLIDE]
        if before is not None
        else [Technique.HAMMER_ON]
    )
    arrival += [
        Technique.TAP,
        Technique.SLIDE_IN_BELOW,
        Technique.SLIDE_IN_ABOVE,
        Technique.DEAD,
        Technique.NATURAL_HARMONIC,
    ]
    if draw(st.integers(0, 3)) == 0:
        techniques.add(draw(st.sampled_from(arrival)))
    dead = Technique.DEAD in techniques
    if draw(st.integers(0, 9)) == 0:
        techniques.add(draw(st.sampled_from([Technique.PALM_MUTE, Technique.LET_RING, Technique.STACCATO])))
    bend = (
        None
        if dead or draw(st.integers(0, 5))
        else Bend(Fraction(draw(st.integers(1, 8)), 2), draw(st.booleans()))
    )
    return Note(
        string,
        0 if dead else draw(st.integers(0, 17)),
        frozenset(techniques),
        bend,
        finger=draw(st.none() | st.sampled_from(Finger)) if draw(st.integers(0, 5)) == 0 else None,
        picking=draw(st.none() | st.sampled_from(PickingFinger)) if draw(st.integers(0, 5)) == 0 else None,
        uncertain=draw(st.integers(0, 9)) == 0,
        optional=draw(st.integers(0, 9)) == 0,
    )


@st.composite
def bars(draw: st.DrawFn, strings: int, held: dict[int, int]) -> Bar:
    """A bar that its events fill; `held` is the fret last sounded on each string."""
    metre = draw(st.sampled_from([Metre(4, 4), Metre(3, 4), Metre(7, 8), Metre(6, 8)]))
    left, events = metre.quarters, []
    while left:
        length = draw(st.sampled_from([length for length in LENGTHS if length <= left] + [left]))
        chosen = sorted(draw(st.sets(st.integers(1, strings), max_size=3)))
        struck = tuple(draw(notes(string, held.get(string))) for string in chosen)
        held.update({note.string: note.fret for note in struck})
        words = frozenset(draw(st.sets(st.sampled_from(WORD_TECHNIQUES), max_size=2)))
        words = words if struck else frozenset()
        struck = tuple(replace(note, techniques=note.techniques - words) for note in struck)
        events.append(
            Event(
                length,
                struck,
                words,
                draw(st.none() | st.sampled_from(Stroke)) if any(not note.tied for note in struck) else None,
                draw(st.sampled_from(["", "", "Am", "C/G", "F#m7b5"])),
                draw(_WORDS) if draw(st.integers(0, 9)) == 0 else "",
                draw(st.integers(0, 19)) == 0,
                draw(st.integers(0, 19)) == 0,
                frozenset({"harp"}) if struck and draw(st.integers(0, 19)) == 0 else frozenset(),
                draw(st.integers(1, 12))
                if any(not note.tied for note in struck) and draw(st.integers(0, 19)) == 0
                else None,
                frozenset(draw(st.sets(st.integers(1, strings), max_size=2)) if struck else ()),
                None,
                draw(st.none() | st.sampled_from(Dynamic)) if struck else None,
            )
        )
        left -= length
    return Bar(
        metre,
        tuple(events),
        tempo=draw(st.none() | st.integers(40, 200).map(Fraction)) if draw(st.integers(0, 4)) == 0 else None,
        repeat_start=draw(st.booleans()),
        repeat_times=draw(st.sampled_from([0, 0, 2, 3, UNCOUNTED])),
        endings=draw(st.sampled_from([(), (), (1,), (1, 2), (LAST_TIME,)])),
        double_bar=draw(st.integers(0, 4)) == 0,
    )


@st.composite
def parts(draw: st.DrawFn, most_bars: int = 3) -> Part:
    """A part on any of the named tunings."""
    tuning = draw(st.sampled_from(list(TUNINGS.values())))
    held: dict[int, int] = {}
    count, written = draw(st.integers(1, most_bars)), ()
    for _ in range(count):
        held_before = dict(held)
        written = (*written, draw(bars(tuning.strings, held)))
    readings: tuple[BarReading, ...] = ()
    if draw(st.integers(0, 3)) == 0:
        aside = draw(bars(tuning.strings, held_before))
        readings = (
            BarReading(len(written) - 1, "as first written", aside),
            BarReading(len(written) - 1, "louder", None),
        )
    starts = sorted(draw(st.sets(st.integers(0, len(written) - 1), max_size=2)))
    times = st.sampled_from([1, 1, 2, None])
    return Part(
        draw(_WORDS | st.just("")),
        tuning,
        draw(st.integers(0, 5)),
        draw(st.none() | st.sampled_from(Instrument)),
        draw(st.none() | st.sampled_from(Picking)),
        draw(st.sampled_from([648.0, 628.0, 580.0])),
        written,
        tuple(
            Section(
                draw(_WORDS),
                start,
                draw(times),
                role=draw(st.none() | st.sampled_from(Role)),
                sound=tuple(draw(st.sampled_from([(), ("clean",), ("dry", "far away")]))),
            )
            for start in starts
        ),
        tuple((start, f"Watch {draw(_WORDS)}") for start in starts[:1]),
        readings,
        draw(st.sampled_from([24, 24, 22, 19])),
        draw(st.integers(0, 4)) == 0,
    )


@st.composite
def songs(draw: st.DrawFn, most_parts: int = 2, most_bars: int = 3) -> Song:
    """A whole song."""
    written = tuple(draw(parts(most_bars)) for _ in range(draw(st.integers(1, most_parts))))
    named = [section.name for part in written for section in part.sections]
    tempo = draw(st.none() | st.integers(40, 200).map(Fraction))
    return Song(
        draw(_WORDS | st.just("")),
        tempo,
        tempo is not None and draw(st.booleans()),
        draw(st.integers(-50, 50)),
        draw(st.none() | st.sampled_from(Feel)),
        tuple(named[:1]),
        written,
        (("Learned from", draw(_WORDS)),) if draw(st.booleans()) else (),
    )


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
