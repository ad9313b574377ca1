"""Another writing of a part, taken from one note to another: only the chosen notes change, nothing hangs in
the air; so are other ways to play them, and one change asked for."""

from fractions import Fraction

from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.easier import asked_edit, offers
from clear_steps.core.easier.edit import standing
from clear_steps.core.grade import alternatives
from clear_steps.core.score import Part, Song
from clear_steps.core.score.blending import Notes, blended
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import songs

SONG = read_tab(demo_texts()[1]).song
PART = SONG.parts[0]
PLAIN = "Tempo: 100\nTime: 4/4\nTuning: standard\n\n"
SLURRED = f"""{PLAIN}e|----------------|
B|----------------|
G|0---2h4-5---7---|
D|----------------|
A|----------------|
E|----------------|
"""
ELSEWHERE = f"""{PLAIN}e|----------------|
B|----------------|
G|0-----------2---|
D|----7h9-10------|
A|----------------|
E|----------------|
"""


def outside(part: Part, notes: Notes) -> list[tuple[int, Fraction, object]]:
    """What is played around the chosen notes, and when."""
    return [
        (index, onset, event)
        for index, bar in enumerate(part.bars)
        for onset, event in zip(bar.onsets, bar.events, strict=True)
        if not notes.inside(index, onset) and event.notes
    ]


@st.composite
def chosen(draw: st.DrawFn, part: Part) -> Notes:
    places = [(index, onset) for index, bar in enumerate(part.bars) for onset in bar.onsets]
    ends = sorted(draw(st.tuples(st.sampled_from(places), st.sampled_from(places))))
    return Notes(*ends[0], *ends[1])


@settings(max_examples=50, deadline=None)
@given(st.data(), songs())
def test_the_same_writing_changes_nothing(data: st.DataObject, song: Song) -> None:
    part = song.parts[0]
    assert blended(part, part, data.draw(chosen(part))) == part


def test_what_hangs_on_another_string_is_not_cut_in_two() -> None:
    part, other = (read_tab(text).song.parts[0] for text in (SLURRED, ELSEWHERE))
    onsets = part.bars[0].onsets
    both = blended(part, other, Notes(0, onsets[1], 0, onsets[2]))
    assert both is not None
    assert [note.string for event in both.bars[0].events for note in event.notes] == [3, 4, 4, 3, 3]
    assert blended(part, other, Notes(0, onsets[2], 0, onsets[3])) is None  # hammered from the 3rd string


@settings(max_examples=25, deadline=None)
@given(st.data())
def test_a_change_on_some_notes_leaves_the_others_alone(data: st.DataObject) -> None:
    notes = data.draw(chosen(PART).filter(lambda own: own.last_bar - own.first_bar < 2))
    bars = range(notes.first_bar, notes.last_bar + 1)
    for offer in offers(SONG, PART, bars, default_ladder(), notes=notes)[:3]:
        wanted = (offer.kind, offer.says)
        edit = asked_edit(SONG, PART, (), (), wanted, bars, default_ladder(), notes=notes)
        made = standing(PART, (edit,), ())[0]
        assert made != PART
        assert outside(made, notes) == outside(PART, notes)


@settings(max_examples=25, deadline=None)
@given(st.data())
def test_another_way_of_some_notes_leaves_the_others_alone(data: st.DataObject) -> None:
    notes = data.draw(chosen(PART).filter(lambda own: own.first_bar == own.last_bar))
    ways = alternatives(SONG, PART, notes.first_bar, notes.last_bar, default_ladder(), notes=notes)
    for way in ways[1:]:
        assert outside(way.part, notes) == outside(PART, notes)
