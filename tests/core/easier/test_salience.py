"""What matters of a tune: beats, long notes, the ends of phrases, what comes back."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.easier.salience import salience_of
from clear_steps.core.score import Bar, Event, Metre, Note, Part, Section

FOUR = Metre(4, 4)


def bar(*frets: int | None, length: Fraction = Fraction(1)) -> Bar:
    return Bar(FOUR, tuple(Event(length, () if fret is None else (Note(1, fret),)) for fret in frets))


def test_the_beat_counts_more_than_what_lies_between() -> None:
    eighths = Part(
        bars=(
            bar(*range(8), length=Fraction(1, 2)),
            bar(*range(3, 11), length=Fraction(1, 2)),
            bar(12, 11, 10, 9),
        )
    )
    first, middle, _ = salience_of(eighths)
    assert middle[0] > middle[2] > middle[1]
    assert middle[2] == middle[4]
    assert first[0] > middle[0], "it opens the phrase"


def test_a_phrase_ends_with_a_section_a_long_rest_or_the_song() -> None:
    bars = (bar(0, 1, 2, 3), bar(5, 3, None, None), bar(7, 8, 10, 12), bar(3, 3, 2, 1))
    plain = [list(row) for row in salience_of(Part(bars=bars))]
    usual = plain[0][1]
    edges = [
        (at, number)
        for at, row in enumerate(plain)
        for number, weight in enumerate(row)
        if number and weight > usual + 1e-9
    ]
    assert edges == [(1, 1), (3, 3)]
    named = salience_of(Part(bars=bars, sections=(Section("verse", 0), Section("chorus", 3))))
    assert named[2][3] == pytest.approx(plain[2][3] * 1.4)


def test_a_bar_that_comes_back_counts_more_even_when_it_is_moved() -> None:
    part = Part(bars=(bar(0, 3, 5, 3), bar(9, 1, 4, 4), bar(2, 5, 7, 5)))
    other = replace(part, bars=(*part.bars[:2], bar(2, 5, 7, 12)))
    back, alone = salience_of(part), salience_of(other)
    assert back[0][1] == pytest.approx(alone[0][1] * 1.15)
    assert back[1] == alone[1]


def test_silence_weighs_nothing() -> None:
    assert salience_of(Part(bars=(bar(None, 1, 2, None),)))[0][0] == 0
