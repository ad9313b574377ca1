"""Each way down on hand-made bars: what a teacher would write, and nothing where it does not belong."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.easier.wanted import wanted_bars
from clear_steps.core.easier.ways import Scene, choices_of
from clear_steps.core.easier.ways.capo import open_shapes_with_capo
from clear_steps.core.easier.words import does
from clear_steps.core.score import Bar, Bend, Event, Metre, Note, Part, Role, Song, Technique
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder

LADDER = default_ladder()
HEAD = "Tempo: 100\nTime: 4/4\nTuning: standard\n\n"


def read(role: str, *lines: str, head: str = HEAD) -> Song:
    """A part of one section with a role, from the lines of its systems."""
    return read_tab(head + f"[A] {{{role}}}\n\n" + "\n".join(lines)).song


def written(part: Part, choice: str, number: int, index: int = 0) -> Bar:
    """A bar as an option of its role writes it, the bar itself where it has nothing to do."""
    wanted = wanted_bars(part)
    own = next(each for each in choices_of(part, wanted, LADDER)[wanted[index].role] if each.name == choice)
    events = own.options[number].rewrite(Scene(part, wanted, LADDER), index)
    return replace(part.bars[index], events=events) if events else part.bars[index]


def frets(bar: Bar) -> list[tuple[Fraction, list[tuple[int, int]]]]:
    rows = zip(bar.onsets, bar.events, strict=True)
    return [(at, [(note.string, note.fret) for note in event.struck]) for at, event in rows if event.struck]


def onsets(bar: Bar) -> list[float]:
    return [float(at) for at, _ in frets(bar)]


STRUM = read(
    "strum",
    "chd|G               |D               |",
    "len|q   e e e e q   |q   e e e e q   |",
    "pck|D   D U D U D   |D   D U D U D   |",
    "  E|3---3-3-3-3-3---|2---2-2-2-2-2---|",
    "  B|0---0-0-0-0-0---|3---3-3-3-3-3---|",
    "  G|0---0-0-0-0-0---|2---2-2-2-2-2---|",
    "  D|0---0-0-0-0-0---|0---0-0-0-0-0---|",
    "  A|2---2-2-2-2-2---|----------------|",
    "  E|3---3-3-3-3-3---|----------------|",
).parts[0]


@pytest.mark.parametrize(("number", "struck"), [(0, [0, 1, 2, 3]), (3, [0, 2]), (4, [0])])
def test_a_strum_pattern_comes_from_the_library_and_leaves_the_chord_whole(
    number: int, struck: list[float]
) -> None:
    bar = written(STRUM, "pattern", number)
    assert onsets(bar) == struck
    assert all(len(notes) == 6 for _, notes in frets(bar))
    assert bar.quarters == 4
    assert bar.events[0].chord == "G"


PUSHED = read(
    "strum",
    "chd|G           D |            Em |",
    "len|q e e e e e e |q e e e e e e  |",
    "  E|3-3-3-3-3-3-2-|=-2-2-2-2-2-0--|",
    "  B|0-0-0-0-0-0-3-|=-3-3-3-3-3-0--|",
    "  G|0-0-0-0-0-0-2-|=-2-2-2-2-2-0--|",
    "  D|0-0-0-0-0-0-0-|=-0-0-0-0-0-2--|",
    "  A|2-2-2-2-2-2---|------------2--|",
    "  E|3-3-3-3-3-3---|------------0--|",
).parts[0]


def test_a_push_over_the_bar_line_is_struck_on_the_one_and_its_name_goes_with_it() -> None:
    first, second = written(PUSHED, "pushes", 0), written(PUSHED, "pushes", 0, 1)
    assert onsets(first) == [0, 1, 1.5, 2, 2.5, 3]
    assert [event.chord for event in first.events] == ["G", "", "", "", "", ""]
    assert (onsets(second)[0], second.events[0].chord) == (0, "D")


def test_between_the_beats_stays_between_the_beats() -> None:
    skank = read(
        "strum",
        "len|Re e    Re e    Re e    Re e    |",
        "  E|---2-------2-------2-------2----|",
        "  B|---3-------3-------3-------3----|",
        "  G|---4-------4-------4-------4----|",
        "  D|--------------------------------|",
        "  A|--------------------------------|",
        "  E|--------------------------------|",
    ).parts[0]
    every_beat = [written(skank, "pattern", number) for number in (1, 3, 4)]
    assert all(bar == skank.bars[0] for bar in every_beat)
    assert onsets(written(skank, "pattern", 6)) == [0.5, 2.5]
    back_beats = written(skank, "pattern", 7)
    assert onsets(back_beats) == [1, 3]
    assert not back_beats.events[-1].notes or back_beats.events[-1].quarters == 1, "a stop stays a stop"


def chords(**shapes: str) -> Part:
    """A bar a chord, in quarters: names and frets from the lowest string."""
    bars = []
    for name, signs in shapes.items():
        notes = tuple(Note(6 - at, int(sign)) for at, sign in reversed(list(enumerate(signs))) if sign != "x")
        events = tuple(Event(Fraction(1), notes, chord="" if at else name) for at in range(4))
        bars.append(Bar(events=events))
    return Part(bars=tuple(bars))


def test_smaller_shapes_are_of_the_same_chord_and_substitutes_say_their_name() -> None:
    part = chords(F="133211", Bm="x24432")
    assert frets(written(part, "shapes", 0))[0][1] == [(1, 1), (2, 1), (3, 2), (4, 3)]
    small = written(part, "shapes", 1)
    assert (frets(small)[0][1], small.events[0].chord) == ([(1, 0), (2, 1), (3, 2), (4, 3)], "Fmaj7")
    assert written(part, "shapes", 1, 1).events[0].chord == "Bm7"
    open_g = chords(G="320003")
    assert written(open_g, "shapes", 0) == open_g.bars[0], "an open shape is left alone"


def test_the_capo_for_open_shapes_sounds_where_the_song_does_and_names_follow() -> None:
    part = chords(Ab="466544", Fm="133111", Db="x46664", Eb="x68886")
    found = open_shapes_with_capo(part, LADDER)
    assert found is not None
    capo, changes = found
    assert capo == 1
    assert [change.after[0].chord for change in changes] == ["G", "Em", "C", "D"]
    moved = replace(part, capo=capo)
    for change in changes:
        before = {part.pitch_of(note) % 12 for note in change.before[0].notes}
        assert {moved.pitch_of(note) % 12 for note in change.after[0].notes} == before
    assert open_shapes_with_capo(chords(C="x32010", G="320003"), LADDER) is None, "no need of one"


RIFF = read(
    "riff",
    "len|e  e  e   e  s  s  e   e  e   |",
    "how|PM PM acc PM PM PM acc PM acc |",
    "  E|------------------------------|",
    "  B|------------------------------|",
    "  G|------------------------------|",
    "  D|------2------------5------3---|",
    "  A|------2------------5------3---|",
    "  E|0--0------0--0--0------0------|",
).parts[0]


def test_a_power_chord_becomes_its_root_never_its_fifth() -> None:
    riff = read(
        "riff",
        "len|q   q   h       |",
        "  E|----------------|",
        "  B|----------------|",
        "  G|----------------|",
        "  D|2---5-----------|",
        "  A|2---5-----------|",
        "  E|0---3---0-------|",
    ).parts[0]
    assert [notes for _, notes in frets(written(riff, "texture", 1))] == [[(6, 0)], [(6, 3)], [(6, 0)]]


def test_a_riff_keeps_its_accents_in_their_own_rhythm() -> None:
    assert onsets(written(RIFF, "rhythm", 2)) == [0, 1, 2.5, 3.5]
    assert onsets(written(RIFF, "rhythm", 0)) == [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5]


PICKED = read(
    "picked",
    "len|e   e e e e e e e |",
    "pck|p/m i p a p i p m |",
    "  E|--------0---------|",
    "  B|1---------------1-|",
    "  G|----0-------0-----|",
    "  D|------2-------2---|",
    "  A|3---------3-------|",
    "  E|------------------|",
).parts[0]


def test_of_a_picked_bar_inner_notes_go_first_and_the_melody_last() -> None:
    assert frets(written(PICKED, "texture", 2)) == [
        (0, [(2, 1), (5, 3)]), (Fraction(3, 2), [(1, 0)]), (2, [(5, 3)]), (Fraction(7, 2), [(2, 1)])
    ]  # fmt: skip
    alone = written(PICKED, "texture", 4)
    assert {string for _, notes in frets(alone) for string, _ in notes} == {1, 2}


def test_a_melody_may_come_onto_its_beats_with_the_bass() -> None:
    assert frets(written(PICKED, "rhythm", 2)) == [
        (0, [(2, 1), (5, 3)]), (1, [(1, 0), (4, 2)]), (2, [(5, 3)]), (3, [(2, 1), (4, 2)])
    ]  # fmt: skip


LINE = read(
    "line",
    "len|s s s s s s s s s s s s s s s s |",
    "  E|--------------------------------|",
    "  B|--------------------------------|",
    "  G|5-6-7-8-5-6-7-8-5-6-7-8-5-6-7-9-|",
    "  D|--------------------------------|",
    "  A|--------------------------------|",
    "  E|--------------------------------|",
).parts[0]


def test_of_a_line_the_ends_and_the_peak_of_a_phrase_stay() -> None:
    halves = written(LINE, "rhythm", 2)
    assert onsets(halves) == [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5, 3.75], "the last note is the highest"
    early = written(LINE, "rhythm", 3)
    assert onsets(early) == [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5]
    assert early.events[-1].notes[0].fret == 9, "it comes early, in place of what stays before it"
    plain = written(LINE, "rhythm", 4)
    assert onsets(plain) == [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5]
    assert plain.events[-1].notes[0].fret == 7


def test_three_eighths_a_beat_become_long_and_short() -> None:
    bar = Bar(Metre(6, 8), tuple(Event(Fraction(1, 2), (Note(1, at),)) for at in range(6)))
    jig = written(Part(bars=(bar,)), "rhythm", 3)
    assert [event.quarters for event in jig.events] == [1, Fraction(1, 2), 1, Fraction(1, 2)]


def test_where_a_slide_leads_is_what_a_thinner_line_keeps() -> None:
    """Of a bend that became a slide the target is the tune."""
    sliding = (
        Event(Fraction(1, 2), (Note(2, 15),)),
        Event(Fraction(1, 2), (Note(2, 17, frozenset({Technique.SLIDE})),)),
    )
    rest = tuple(Event(Fraction(1, 2), (Note(1, 12 + at),)) for at in range(6))
    part = Part(bars=(Bar(events=(*sliding, *rest)),))
    assert frets(written(part, "rhythm", 5))[0] == (0, [(2, 17)])


def test_a_bend_goes_to_its_target_never_back_to_its_start() -> None:
    bent = Event(Fraction(4), (Note(3, 7, bend=Bend(Fraction(2))),))
    part = Part(bars=(Bar(events=(bent,)),))
    slid, fretted = written(part, "bends", 1), written(part, "bends", 2)
    assert [(float(at), notes) for at, notes in frets(slid)] == [(0, [(3, 7)]), (0.5, [(3, 9)])]
    assert frets(fretted) == [(0, [(3, 9)])]


def test_a_bass_keeps_its_roots_and_the_walk_into_the_change() -> None:
    part = replace(
        read(
            "bass",
            "len|q   e e q   q   |q   q   q   q   |",
            "  E|----------------|----------------|",
            "  B|----------------|----------------|",
            "  G|----------------|----------------|",
            "  D|----------------|----------------|",
            "  A|3---3-3-3---2---|0---0---0---0---|",
            "  E|----------------|----------------|",
        ).parts[0]
    )
    assert onsets(written(part, "rhythm", 1)) == [0, 2, 3]
    assert onsets(written(part, "rhythm", 2)) == [0, 2]


def test_everything_a_way_does_has_words() -> None:
    part = STRUM
    for choices in choices_of(part, wanted_bars(part), LADDER).values():
        for choice in choices:
            for option in choice.options:
                assert does(option.kind) != option.kind, option.kind
                assert option.says


def test_every_role_has_ways() -> None:
    assert set(choices_of(STRUM, wanted_bars(STRUM), LADDER)) == set(Role)


def test_a_rest_after_notes_that_are_gone_stays_a_rest() -> None:
    bar = Bar(
        events=(
            Event(Fraction(1, 2), (Note(1, 10),)),
            Event(Fraction(1, 2), (Note(1, 9),)),
            Event(Fraction(3), ()),
        )
    )
    made = written(Part(bars=(bar,)), "rhythm", 7)
    assert [(event.quarters, len(event.notes)) for event in made.events] == [(1, 1), (3, 0)]


def test_an_end_off_the_half_beat_comes_early_where_a_line_is_thinned_to_beats() -> None:
    beats = written(LINE, "rhythm", 5)
    assert onsets(beats) == [0, 1, 2, 3]
    assert beats.events[-1].notes[0].fret == 9


def test_a_strum_loses_an_outer_string_that_is_far_and_none_within_its_shape() -> None:
    part = read(
        "strum",
        "len|w               |w               |",
        "  E|0---------------|10--------------|",
        "  B|2---------------|13--------------|",
        "  G|4---------------|10--------------|",
        "  D|4---------------|12--------------|",
        "  A|5---------------|13--------------|",
        "  E|----------------|----------------|",
    ).parts[0]
    assert [note.string for note in written(part, "shapes", 2).events[0].notes] == [1, 2, 3, 4]
    assert written(part, "shapes", 2, index=1) == part.bars[1]
