"""Words of labelled lines, marks over bars, and rhythms that do not add up: each put in its place, or
told."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.errors import Guess, Problem, ReadError
from clear_steps.core.grade import grade_song
from clear_steps.core.score import Bar, Event, Finger, Metre, Part, Role, Technique
from clear_steps.core.shapes.ringing import ringing_notes
from clear_steps.formats.tabtext import read_tab, write_tab
from clear_steps.formats.tabtext.reader import Reading
from clear_steps.ladders import default_ladder
from tests.formats.test_bad_input import problem, tab

WIDE = tuple(f"  {name}" for name in "eBGDAE")  # as wide as the labels, so that words stand over their notes
STANDARD = ("Tempo: 90", "Time: 4/4", "Tuning: standard")


def read(thinnest: str, *above: str, below: tuple[str, ...] = ()) -> Reading:
    return read_tab("\n".join([tab(thinnest, headers=STANDARD, above=above, names=WIDE), *below]))


def bar_of(thinnest: str, *above: str, below: tuple[str, ...] = ()) -> Bar:
    return read(thinnest, *above, below=below).song.parts[0].bars[0]


def guesses(reading: Reading) -> list[str]:
    return [guess.message for guess in reading.guesses]


def told_of(text: str) -> tuple[Guess | Problem, ...]:
    """What a text is refused for, or what is guessed in it."""
    try:
        return read_tab(text).guesses
    except ReadError as error:
        return error.problems


@pytest.mark.parametrize(
    ("thinnest", "above", "place", "words"),
    [
        (
            "3---",
            "fin|9 |",
            (2, 5),
            "'9' is no fingering; expected 1 2 3 4 or T from the highest string down",
        ),
        (
            "3---",
            "fin|1/2/3 |",
            (2, 5),
            "'1/2/3' names 3 fingers; expected 1, one for every fretted string here",
        ),
        ("3---", "pck|z |", (2, 5), "'z' is no picking; expected p i m a c from the lowest string up"),
        ("----3---", "how|h       |", (2, 5), "'h' is no word for how"),
        (
            "3-------",
            "how|      PM|",
            (2, 11),
            "no note stands at 'PM'; expected it at the first digit of one",
        ),
        (
            "3-------",
            "pck|      p |",
            (2, 11),
            "no note stands at 'p'; expected it at the first digit of one",
        ),
        (
            "3---",
            "chd|              C|",
            (2, 19),
            "'C' stands over no bar; expected it above or below a bar of its system",
        ),
        ("3---", "bar|9/|", (2, 5), "metre is '9/'"),
        ("3---", "bar|soon|", (2, 5), "'soon' is no mark of a bar; expected a metre such as 7/8"),
        ("3---", "bar|@slow|", (2, 5), "tempo is 'slow'; expected a number from 10 to 400"),
        ("3-3---", "cnt|1 y |", (2, 7), "'y' is no count of 4/4; expected 1 to 4, e & a, t l"),
        (
            "3-3-3---",
            "len|h h    |",
            (3, 9),
            "no value stands over this note of bar 1; expected one of w h q e s t z",
        ),
        (
            "3---",
            "len|h h |",
            (2, 7),
            "no note stands under the value 'h'; expected 1 values in bar 1, R before a rest",
        ),
    ],
)
def test_a_word_that_fits_nothing_is_told_at_its_place(
    thinnest: str, above: str, place: tuple[int, int], words: str
) -> None:
    told = told_of(tab(thinnest, headers=("Time: 4/4",), above=(above,), names=WIDE))
    assert any((each.line, each.column) == place and words in each.message for each in told)


def test_bar_lines_that_differ_are_told_at_the_first_that_does() -> None:
    lines = [f"{name}|{'0---|----' if name != 'G' else '0--------'}|" for name in "eBGDAE"]
    assert problem("\n".join(lines)) == (
        3,
        7,
        "the bar lines differ from those of line 1; expected them under one another",
    )


@pytest.mark.parametrize(
    ("above", "metre", "tempo", "times", "endings"),
    [
        ("bar|7/8 |", Metre(7, 8), None, 0, ()),
        ("bar|@96 |", Metre(4, 4), 96, 0, ()),
        ("bar|x3  |", Metre(4, 4), None, 3, ()),
        ("bar|1.2.|", Metre(4, 4), None, 0, (1, 2)),
        ("bar|    | x4", Metre(4, 4), None, 4, ()),
    ],
)
def test_marks_over_a_bar_are_kept(
    above: str, metre: Metre, tempo: int | None, times: int, endings: tuple[int, ...]
) -> None:
    bar = bar_of("0---", above)
    assert (bar.metre, bar.tempo, bar.repeat_times, bar.endings) == (metre, tempo, times, endings)


def test_a_count_of_repeats_may_end_the_string_line() -> None:
    assert bar_of("0---").repeat_times == 0
    text = tab("0---", headers=STANDARD).replace("e|0---|", "e|0---| x3")
    assert read_tab(text).song.parts[0].bars[0].repeat_times == 3


def test_a_rest_fills_a_bar_that_is_not_full_and_that_is_said() -> None:
    second = ["", "len|q q |", *(f"  {name}|{'0-0-' if name == 'e' else '----'}|" for name in "eBGDAE")]
    reading = read("0---", "len|w   |", below=tuple(second))
    assert [event.quarters for event in reading.song.parts[0].bars[1].events] == [1, 1, 2]
    assert "bar 2 holds 2 of 4 quarters; a rest fills it" in guesses(reading)


def test_rests_among_the_values_are_rests() -> None:
    events = bar_of("0-------5---", "len|q   Rq  h   |").events
    assert [(event.quarters, len(event.notes)) for event in events] == [(1, 1), (1, 0), (2, 1)]


def test_a_bar_whose_values_do_not_fit_the_notes_takes_slurred_ones_too() -> None:
    events = bar_of("5h7-----", "len|h h |").events
    assert [(event.quarters, event.notes[0].fret) for event in events] == [(2, 5), (2, 7)]
    assert events[1].notes[0].techniques == {Technique.HAMMER_ON}


def test_a_note_without_a_count_leaves_the_bar_to_its_spacing_and_that_is_said() -> None:
    reading = read("0---0---0---0---", "cnt|1   2       4   |")
    assert [event.quarters for event in reading.song.parts[0].bars[0].events] == [1, 1, 1, 1]
    assert "no count stands over this note; the bar's rhythm is taken from its spacing" in guesses(reading)


def test_a_bar_without_notes_is_a_rest_whatever_its_values() -> None:
    events = bar_of("--------", "len|Rw      |").events
    assert [(event.quarters, event.notes) for event in events] == [(4, ())]


@pytest.mark.parametrize(("column", "said"), [(8, "next"), (24, "last")])
def test_a_remark_between_two_notes_goes_to_the_nearer_end_and_that_is_said(column: int, said: str) -> None:
    reading = read("0---------------0-----------", f"rem|{' ' * (column - 4)}lift early")
    events = reading.song.parts[0].bars[0].events
    assert [event.remark for event in events] == ["", "lift early"]
    assert f"'lift early' stands between two notes; it is put on the {said} one" in guesses(reading)


def test_fingers_and_positions_are_pinned_where_they_stand() -> None:
    bar = bar_of("3---", "fin|3 |")
    assert bar.events[0].notes[0].finger is Finger.RING
    position = bar_of("5---", "fin|@5:1|").events[0]
    assert (position.position, position.notes[0].finger) == (5, Finger.INDEX)


@pytest.mark.parametrize(
    ("line", "quarters", "what"),
    [
        ("1   &   ", [Fraction(1, 2), Fraction(3, 2)], "counts"),
        ("e   q.  ", [Fraction(1, 2), Fraction(3, 2)], "note values"),
        ("Am  C   ", [1, 1], "chords"),
        ("PM  lr  ", [1, 1], "words"),
        ("P.M.----", [1, 1], "a palm mute drawn over the notes"),
    ],
)
def test_a_line_without_a_label_is_told_by_what_stands_in_it(
    line: str, quarters: list[Fraction], what: str
) -> None:
    """The notes stand evenly: only counts and values make anything but quarters of them."""
    strings = [f"{name} |{'0---0---' if name == 'e' else '--------'}|" for name in "eBGDAE"]
    events = (
        read_tab("\n".join(["Tempo: 90", "Time: 2/4", f"   {line}", *strings])).song.parts[0].bars[0].events
    )
    assert [event.quarters for event in events] == quarters
    assert [event.chord for event in events] == (["Am", "C"] if what == "chords" else ["", ""])
    muted = [Technique.PALM_MUTE in event.techniques for event in events]
    assert muted == {"words": [True, False], "a palm mute drawn over the notes": [True, True]}.get(
        what, [False, False]
    )


def test_lines_of_words_that_no_strings_follow_are_remarks() -> None:
    song = read_tab(
        "\n".join(["Tempo: 90", "Time: 4/4", *(f"{name}|0---|" for name in "eBGDAE"), "", "Am C G"])
    ).song
    assert [text for _, text in song.parts[0].remarks] == ["Am C G"]


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("Reading 9: higher", "a reading of bar 9 stands here; expected a bar from 1 to 1"),
        ("Reading 1: higher\nUsing 1: lower", "0 bars follow this line"),
        ("Reading 1: higher\nReading 9: lower", "0 bars follow this line"),
        ("Reading 1: higher", "0 bars follow this line; expected one bar, the other reading of bar 1"),
    ],
)
def test_a_reading_of_a_bar_that_is_not_there_is_told(line: str, words: str) -> None:
    body = "\n".join(f"{name}|0---|" for name in "eBGDAE")
    with pytest.raises(ReadError) as caught:
        read_tab(f"Tempo: 90\nTime: 4/4\nTuning: standard\n{body}\n\n{line}\n")
    assert words in str(caught.value)


@pytest.mark.parametrize("text", ["Mood: calm", "Tempo: 50", "Part: two", "play it softly"])
@pytest.mark.parametrize("bar", [0, 1])
def test_a_remark_is_read_back_as_one_whatever_it_looks_like(text: str, bar: int) -> None:
    song = read("0---").song
    remarked = replace(
        song, parts=(replace(song.parts[0], bars=song.parts[0].bars * 2, remarks=((bar, text),)),)
    )
    assert read_tab(write_tab(remarked)).song == remarked


def test_sections_without_a_bar_are_left_out_and_told() -> None:
    body = "\n".join(f"{name}|0---|" for name in "eBGDAE")
    reading = read_tab("\n".join([*STANDARD, "", "[Intro]", "[Verse x2]", body, "", "[Ending]"]))
    assert [
        (section.name, section.first_bar, section.times) for section in reading.song.parts[0].sections
    ] == [("Verse", 0, 2)]
    assert [(guess.line, guess.message) for guess in reading.guesses] == [
        (5, "no bar follows the section 'Intro'; it is left out"),
        (14, "no bar follows the section 'Ending'; it is left out"),
    ]


def test_an_order_of_sections_that_are_not_there_is_told() -> None:
    body = "\n".join(f"{name}|0---|" for name in "eBGDAE")
    reading = read_tab(f"Tempo: 90\nTime: 4/4\nTuning: standard\nOrder: Verse, Bridge\n\n[Verse]\n{body}\n")
    assert guesses(reading) == [
        "Order names 'Bridge', which is no section; it is passed over when the song is played"
    ]


def test_triplets_may_be_counted() -> None:
    events = bar_of("0-0-0-0---0---0---", "cnt|1 t l 2   3   4   |").events
    assert [event.quarters for event in events] == [Fraction(1, 3)] * 3 + [1, 1, 1]


SYSTEM = """Tempo: 90
Time: 4/4
Tuning: standard

{above}
  e|----------------0---------------|
  B|--------3-----------------------|
  G|--------------------------------|
  D|--------------------------------|
  A|--------------------------------|
  E|0---------------0-------0-------|
"""


def events_under(*above: str) -> tuple[Event, ...]:
    lines = "\n".join(("len|q       q       q       q       |", *above))
    return read_tab(SYSTEM.format(above=lines)).song.parts[0].bars[0].events


def test_a_word_may_name_its_strings() -> None:
    events = events_under("how|PM      lr      PM:6            |")
    assert events[0].techniques == {Technique.PALM_MUTE}
    assert {note.string: note.techniques for note in events[2].notes} == {
        1: frozenset(),
        6: {Technique.PALM_MUTE},
    }
    assert write_tab(
        read_tab(
            SYSTEM.format(
                above="len|q       q       q       q       |\nhow|PM      lr      PM:6            |"
            )
        ).song
    ).count("PM:6")


def test_a_muted_bass_lies_under_a_ringing_melody() -> None:
    events = events_under("how|PM      lr      PM:6+lr:1       |")
    ringing = ringing_notes(Part(bars=(Bar(events=events),)))[0]
    assert [note.string for note in ringing[3].notes] == [2, 1]
    assert [note.string for note in ringing[2].notes] == [2], "the muted bass does not ring"


def test_a_string_that_must_not_ring_on_is_said_and_graded() -> None:
    song = read_tab(
        SYSTEM.format(above="len|q       q       q       q       |\nhow|        stop:6                  |")
    ).song
    assert song.parts[0].bars[0].events[1].stopped == {6}
    found = grade_song(song, default_ladder())[0].bars[0].findings["damping"]
    assert found.evidence == "Sounding strings are stopped once, first at beat 2."


def test_the_depth_of_a_dip_and_the_loudness_are_kept() -> None:
    events = events_under("how|dip:1.5                         |", "dyn|mf              pp              |")
    assert (events[0].dip, events[0].dynamic, events[2].dynamic) == (Fraction(3, 2), "mf", "pp")


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("how|PM:5                            |", "'PM:5' names string 5; expected one that is struck there"),
        ("how|PM:                             |", "'PM:' names no strings; expected numbers from 1 to 8"),
        ("how|stop                            |", "'stop' names no strings"),
        ("how|dip:x                           |", "'dip:x' says no depth; expected half tones"),
        ("dyn|loud                            |", "'loud' is no loudness; expected one of pp p mp mf f ff"),
    ],
)
def test_what_a_word_says_wrongly_is_told_with_what_was_expected(line: str, told: str) -> None:
    text = SYSTEM.format(above=f"len|q       q       q       q       |\n{line}")
    assert any(told in guess.message for guess in told_of(text))


@pytest.mark.parametrize(
    ("braces", "role", "sound"),
    [
        ("", None, ()),
        (" {picked}", Role.PICKED, ()),
        (" {clean, Strummed, far away}", Role.STRUM, ("clean", "far away")),
        (" {chord melody}", Role.CHORD_MELODY, ()),
        (" {dry,}", None, ("dry",)),
        (" {riff, line}", Role.RIFF, ("line",)),
    ],
)
def test_braces_say_what_a_section_is_and_its_sound(
    braces: str, role: Role | None, sound: tuple[str, ...]
) -> None:
    text = f"[Verse x2]{braces}\n\n" + "".join(f"{string}|0---2---|\n" for string in "eBGDAE")
    part = read_tab(text).song.parts[0]
    (section,) = part.sections
    assert (section.name, section.times, section.role, section.sound) == ("Verse", 2, role, sound)
    assert part.remarks == ()
