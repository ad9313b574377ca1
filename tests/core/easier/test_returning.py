"""Notes that a thinning left out and the target can bear come back."""

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.easier.edit import Change, version_of
from clear_steps.core.easier.heights import Heights
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.proposals import Proposals
from clear_steps.core.easier.returning import give_notes_back
from clear_steps.core.easier.writing import Writing
from clear_steps.core.grade import Grader
from clear_steps.core.score import Bar, Event, Note, Part, Song, Technique
from clear_steps.ladders import default_ladder
from tests.songs import line

EIGHTHS = ("1.0", "1.1", "1.3", "1.0", "2.3", "2.1", "2.0", "2.1")


def one_note(bar: Bar, index: int) -> Change:
    """The bar with its first note alone."""
    return Change(index, Fraction(0), bar.events, (replace(bar.events[0], quarters=bar.quarters),))


def given_back(song: Song, target: float, thinned: Sequence[int], settled: bool = False) -> Writing:
    """What is written once some bars were thinned to a note, and notes were given back."""
    part, ladder = song.parts[0], default_ladder()
    scores = KeptSoFar(part)
    writing, proposals = Writing(part, (), scores), Proposals(part, KINDS, scores)
    writing.take(
        "rhythm", [one_note(part.bars[index], index) for index in thinned], "too fast", lambda _: "slower"
    )
    writing.version = proposals.known(writing.version)
    if settled:
        writing.settle()
    give_notes_back(writing, Heights(Grader(song, part, ladder), target, None), proposals, target)
    return writing


def onsets(bar: Bar) -> list[float]:
    return [float(onset) for onset, event in zip(bar.onsets, bar.events, strict=True) if event.struck]


def at_tempo(song: Song, tempo: int) -> Song:
    return replace(song, tempo=Fraction(tempo))


def test_as_many_come_back_as_the_target_bears_and_no_stub_off_the_beat() -> None:
    song = at_tempo(line(*EIGHTHS), 80)
    writing = given_back(song, 1.3, [0])
    assert onsets(writing.version.bars[0]) == [0.0, 1.0, 2.0, 3.0]
    assert writing.version.bars[0].quarters == 4


def test_the_edit_says_what_it_still_gives_up_and_makes_the_version_afresh() -> None:
    song = at_tempo(line(*EIGHTHS), 80)
    (edit,) = given_back(song, 1.5, [0]).edits
    assert edit.effect.startswith("bar 1: Step ")
    assert edit.loss == pytest.approx(
        100 - KeptSoFar(song.parts[0]).overall(version_of(song.parts[0], [edit]))
    )


def test_bars_thinned_alike_stay_alike() -> None:
    song = at_tempo(line(*EIGHTHS, *EIGHTHS), 80)
    writing = given_back(song, 1.6, [0, 1])
    assert writing.version.bars[0].events == writing.version.bars[1].events
    assert len(onsets(writing.version.bars[0])) > 1


def test_what_a_harder_version_gave_up_stays_given_up() -> None:
    song = at_tempo(line(*EIGHTHS), 80)
    assert onsets(given_back(song, 1.5, [0], settled=True).version.bars[0]) == [0.0]


@pytest.mark.parametrize(
    ("slurred", "still"), [(3, False), (5, True)], ids=["its source stays away", "its source is back"]
)
def test_a_slur_comes_back_with_the_note_it_comes_from_and_else_is_picked(slurred: int, still: bool) -> None:
    hammered = frozenset({Technique.HAMMER_ON})
    events = [
        Event(Fraction(1), (Note(1, fret, hammered if fret == slurred else frozenset()),))
        for fret in (0, 1, 3, 5)
    ]
    song = Song(tempo=Fraction(60), parts=(Part(bars=(Bar(events=tuple(events)),)),))
    bar = given_back(song, 9.0, [0]).version.bars[0]
    notes = {event.notes[0].fret: event.notes[0].techniques for event in bar.events}
    assert sorted(notes) == [0, 3, 5], "all four would be no edit"
    assert (notes[slurred] == hammered) is still


def test_an_easy_song_is_left_alone_where_it_is_not_reached() -> None:
    song = at_tempo(line(*EIGHTHS), 300)
    assert onsets(given_back(song, 1.0, [0]).version.bars[0]) == [0.0]
