"""Each kind of edit on hand-made bars."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.easier import KINDS, applied
from clear_steps.core.score import Bend, Event, Instrument, Metre, Note, Part, Song, Technique
from tests.songs import line

HALF = Fraction(1, 2)


def part_with(song: Song, change: dict[int, Event]) -> Part:
    bar = song.parts[0].bars[0]
    events = tuple(change.get(at, event) for at, event in enumerate(bar.events))
    return replace(song.parts[0], bars=(replace(bar, events=events),))


def results(kind: str, part: Part) -> list[tuple[Event, ...]]:
    """The bar after each proposal of a kind; every one still fills its bar."""
    made = [applied(part, changes) for changes in KINDS[kind].propose(part, 0)]
    assert all(version is not None and version.bars[0].quarters == part.bars[0].quarters for version in made)
    return [version.bars[0].events for version in made if version]


def frets(events: tuple[Event, ...]) -> list[list[tuple[int, int]]]:
    return [[(note.string, note.fret) for note in event.notes] for event in events if event.notes]


def test_another_place_sounds_the_same() -> None:
    part = replace(line("1.5", "1.8", "2.6", "1.5").parts[0], instrument=Instrument.ELECTRIC)
    moved = results("place", part)
    assert [[(2, 10)], [(2, 13)], [(3, 10)], [(2, 10)]] in [frets(events) for events in moved]
    for events in moved:
        assert [part.pitch_of(note) for event in events for note in event.notes] == [
            part.pitch_of(n) for e in part.bars[0].events for n in e.notes
        ]


def test_a_bar_up_the_neck_goes_to_open_position_if_all_of_it_lies_there() -> None:
    assert [[(2, 4)], [(3, 3)], [(2, 1)], [(1, 0)]] in [
        frets(events) for events in results("place", line("3.8", "4.8", "3.5", "1.0").parts[0])
    ]
    assert all(
        spot[0][1] > 4
        for events in results("place", line("1.5", "2.10", "1.5", "2.10").parts[0])
        for spot in frets(events)[:1]
    )
    slurred = part_with(line("3.7", "3.9"), {1: Event(HALF, (Note(3, 9, frozenset({Technique.HAMMER_ON})),))})
    assert all(
        {string for event in frets(events) for string, _ in event} != {1, 2}
        for events in results("place", slurred)
    )


def test_a_note_alone_does_not_leap_up_the_neck() -> None:
    def places(*bar: str) -> set[tuple[int, int]]:
        return {
            spot
            for events in results("place", line(*bar).parts[0])
            for spot in frets(events)[1]
            if frets(events)[0] == [(3, 0)]
        }

    assert (2, 8) not in places("3.0", "1.3", "2.1", "3.0")
    assert (2, 8) in places("3.0", "1.3", "2.5", "3.0"), "where the hand is near by it may"


def test_a_bar_does_not_leap_up_the_neck_away_from_its_neighbours() -> None:
    low, high, moved = line("2.1", "2.3"), line("3.8", "3.10", tempo=100), line("1.3", "1.5", "1.3", "1.5")

    def places(*around: Song) -> list[list[list[tuple[int, int]]]]:
        bars = (around[0].parts[0].bars[0], moved.parts[0].bars[0], around[1].parts[0].bars[0])
        part = replace(moved.parts[0], bars=bars)
        return [
            frets(version.bars[1].events)
            for changes in KINDS["place"].propose(part, 1)
            if (version := applied(part, changes))
        ]

    elsewhere = [[(2, 8)], [(2, 10)], [(2, 8)], [(2, 10)]]
    assert elsewhere not in places(low, low)
    assert elsewhere in places(low, high), "one of the neighbours lies there"


def test_a_bend_moves_to_a_string_that_gives_way_and_no_other() -> None:
    def bent(note: str) -> set[tuple[int, int]]:
        song = line(note, "1.0", "1.0", "1.0")
        bend = replace(song.parts[0].bars[0].events[0].notes[0], bend=Bend(Fraction(2)))
        part = replace(part_with(song, {0: Event(HALF, (bend,))}), instrument=Instrument.ELECTRIC)
        moved = [events[0].notes[0] for events in results("place", part) if events[0].notes[0] != bend]
        assert all(note.bend == bend.bend and part.pitch_of(note) == part.pitch_of(bend) for note in moved)
        return {(note.string, note.fret) for note in moved}

    assert bent("2.8") == {(1, 3), (3, 12), (4, 17)}
    assert bent("2.6") == {(3, 10), (4, 15)}, "at the 1st fret of the 1st string it hardly gives way"
    assert bent("4.5") == set(), "the 5th string is too thick, and there is no 0th fret to bend"


def test_a_note_that_is_slurred_into_does_not_leave_its_string_alone() -> None:
    part = part_with(line("3.7", "3.9"), {1: Event(HALF, (Note(3, 9, frozenset({Technique.HAMMER_ON})),))})
    strings = [
        [event.notes[0].string for event in events if event.notes] for events in results("place", part)
    ]
    assert all(first == second for first, second in strings)


def test_a_skip_is_brought_to_neighbouring_strings_at_the_same_pitch() -> None:
    song = line("5.8+2.6", length=Fraction(1))
    (after,) = results("skip", song.parts[0])
    assert frets(after)[0] == [(2, 6), (4, 3)]
    pitches = {song.parts[0].pitch_of(note) for event in after for note in event.notes}
    assert pitches == {
        song.parts[0].pitch_of(note) for event in song.parts[0].bars[0].events for note in event.notes
    }
    assert not results("skip", line("5.3+2.1", length=Fraction(1)).parts[0])


def test_a_whammy_dip_becomes_a_bend_from_the_fret_below_to_the_same_pitch() -> None:
    dipped = Event(HALF, (Note(3, 7),), frozenset({Technique.WHAMMY_DIP}))
    [events] = results("whammy", part_with(line("3.7", "3.5"), {0: dipped}))
    assert events[0] == Event(HALF, (Note(3, 6, bend=Bend(Fraction(1))),))
    assert events[1:] == part_with(line("3.7", "3.5"), {}).bars[0].events[1:]
    assert not results("whammy", part_with(line("3.7"), {0: replace(dipped, notes=(Note(3, 1),))}))


def test_a_broken_chord_is_struck_together_beat_by_beat_and_by_two_beats() -> None:
    part = line("5.3", "4.2", "3.0", "2.1", "1.0", "2.1", "3.0", "4.2").parts[0]
    by_beat, by_two = results("together", part)
    assert frets(by_beat) == [[(4, 2), (5, 3)], [(2, 1), (3, 0)], [(1, 0), (2, 1)], [(3, 0), (4, 2)]]
    assert frets(by_two) == [[(2, 1), (3, 0), (4, 2), (5, 3)], [(1, 0), (2, 1), (3, 0), (4, 2)]]
    assert [event.quarters for event in by_two] == [2, 2]


@pytest.mark.parametrize(
    ("places", "why"),
    [
        (("1.0", "1.1", "1.3", "1.1", "2.3", "2.1"), "a melody: strings with several frets"),
        (("1.0", "2.1", "1.0", "2.1"), "two strings are no chord"),
        (("5.3", "4.2+2.1", "3.0", "1.0"), "struck together already"),
    ],
)
def test_what_is_no_broken_chord_is_not_struck_together(places: tuple[str, ...], why: str) -> None:
    assert not results("together", line(*places).parts[0]), why


def test_notes_a_step_apart_are_struck_together_only_where_they_ring() -> None:
    part = line("5.3", "4.2", "2.0", "3.2", "2.0", "3.2", "4.2", "5.3").parts[0]  # B over A, a whole tone
    assert len(results("together", part)[0]) == 6, "beats 2 and 3 stay as they are"
    ringing = replace(
        part.bars[0],
        events=tuple(
            replace(event, techniques=frozenset({Technique.LET_RING})) for event in part.bars[0].events
        ),
    )
    assert len(results("together", replace(part, bars=(ringing,)))[0]) == 4


def test_a_bend_becomes_its_target_fret_or_a_slide_to_it() -> None:
    part = part_with(line("3.7", "3.5"), {0: Event(HALF, (Note(3, 7, bend=Bend(Fraction(2), True)),))})
    assert [frets(events)[0] for events in results("bend-fret", part)] == [[(3, 9)]]
    [slid] = results("bend-slide", part)
    assert frets(slid)[:2] == [[(3, 7)], [(3, 9)]]
    assert (slid[0].quarters, slid[1].quarters) == (Fraction(1, 4), Fraction(1, 4))
    assert slid[1].notes[0].techniques == {Technique.SLIDE}
    assert all(note.bend is None for event in slid for note in event.notes)


def test_slurred_notes_are_picked() -> None:
    part = part_with(line("3.7", "3.5"), {1: Event(HALF, (Note(3, 5, frozenset({Technique.PULL_OFF})),))})
    [picked] = results("pick", part)
    assert picked[1].notes[0].techniques == frozenset()


def test_fast_picked_notes_are_slurred_in_pairs_up_or_down_one_string() -> None:
    part = line("3.5", "3.7", "3.9", "3.7", "2.5", "2.5", length=Fraction(1, 4)).parts[0]
    [slurred] = results("slur", part)
    kinds = [sorted(note.techniques) for event in slurred for note in event.notes]
    assert kinds == [[], [Technique.HAMMER_ON], [], [Technique.PULL_OFF], [], []]


def test_a_tap_is_fretted_or_goes_an_octave_lower() -> None:
    part = part_with(line("2.12", "2.8"), {0: Event(HALF, (Note(2, 12, frozenset({Technique.TAP})),))})
    assert [frets(events)[0] for events in results("tap", part)] == [[(2, 12)], [(2, 0)]]


@pytest.mark.parametrize(("fret", "plain"), [(12, 12), (7, 7), (5, 12)])
def test_a_harmonic_becomes_a_plain_note_of_its_pitch_or_an_octave_of_it(fret: int, plain: int) -> None:
    part = part_with(
        line("3.5", "3.5"), {0: Event(HALF, (Note(3, fret, frozenset({Technique.NATURAL_HARMONIC})),))}
    )
    [events] = results("harmonic", part)
    assert frets(events)[0] == [(3, plain)]
    assert (part.pitch_of(events[0].notes[0]) - part.pitch_of(part.bars[0].events[0].notes[0])) % 12 == 0


def test_a_tremolo_becomes_plain_notes_and_vibrato_goes() -> None:
    shaken = Event(
        HALF,
        (Note(1, 5, frozenset({Technique.VIBRATO})),),
        frozenset({Technique.TREMOLO, Technique.LET_RING}),
    )
    [events] = results("leave-out", part_with(line("1.5", "1.7"), {0: shaken}))
    assert (events[0].techniques, events[0].notes[0].techniques) == ({Technique.LET_RING}, frozenset())


def test_inner_notes_go_first_then_all_but_the_top() -> None:
    part = line("6.3+5.2+4.0+3.0+2.0+1.3").parts[0]
    assert frets(results("inner", part)[0]) == [[(1, 3), (6, 3)]]
    assert frets(results("top", part)[0]) == [[(1, 3)]]


def test_a_full_barre_becomes_three_strings_or_a_power_chord() -> None:
    barre_g = line("6.3+5.5+4.5+3.4+2.3+1.3").parts[0]
    shapes = [frets(events)[0] for events in results("chord", barre_g)]
    assert shapes == [[(1, 3), (2, 3), (3, 4)], [(5, 5), (6, 3)]]


def test_inner_notes_are_put_in_brackets_and_a_chord_is_cut_to_its_bass() -> None:
    part = line("6.3+5.2+4.0+1.3").parts[0]
    event = results("brackets", part)[0][0]
    assert [(note.string, note.optional) for note in event.notes] == [
        (1, False),
        (4, True),
        (5, True),
        (6, False),
    ]
    assert frets(results("bass-alone", part)[0]) == [[(6, 3)]]


def test_a_power_chord_becomes_its_root_and_another_chord_does_not() -> None:
    assert frets(results("root", line("6.3+5.5+4.5").parts[0])[0]) == [[(6, 3)]]
    assert results("root", line("6.3+5.2+4.0").parts[0]) == []


def test_an_off_beat_note_after_a_rest_comes_on_the_beat() -> None:
    part = line("r", "3.5", "3.5", "3.5").parts[0]
    [events] = results("beat", part)
    assert [bool(event.notes) for event in events[:4]] == [True, False, True, True]


def test_optional_notes_go() -> None:
    part = part_with(line("3.5", "3.7"), {0: Event(HALF, (Note(2, 5, optional=True), Note(3, 5)))})
    assert frets(results("optional", part)[0])[0] == [(3, 5)]


def test_ringing_is_let_go() -> None:
    part = part_with(line("3.5", "2.7"), {0: Event(HALF, (Note(3, 5),), frozenset({Technique.LET_RING}))})
    assert not results("ring", part)[0][0].techniques


def test_the_two_upper_notes_of_a_chord_may_be_what_is_left() -> None:
    part = line("5.0+4.2+3.2+2.1+1.0", "3.2+2.1", length=Fraction(2)).parts[0]
    (events,) = results("pair", part)
    assert frets(events) == [[(1, 0), (2, 1)], [(2, 1), (3, 2)]]


def test_three_eighths_a_beat_are_no_tuplet() -> None:
    part = line("1.0").parts[0]
    bar = replace(
        part.bars[0], metre=Metre(6, 8), events=tuple(Event(HALF, (Note(1, at),)) for at in range(6))
    )
    jig = replace(part, bars=(bar,))
    assert not results("straight", jig), "they are no tuplet"


def test_ringing_goes_for_the_whole_bar_in_one_edit() -> None:
    part = line("5.3", "4.2", "2.0", "3.2").parts[0]
    ringing = replace(
        part.bars[0],
        events=tuple(
            replace(event, techniques=frozenset({Technique.LET_RING})) for event in part.bars[0].events
        ),
    )
    (changes,) = KINDS["ring"].propose(replace(part, bars=(ringing,)), 0)
    assert len(changes) == 1
    assert not any(event.techniques for event in changes[0].after)
    assert not results("ring", part)
