"""Plain tab as people type it: columns, counts, spacing, signs."""

import csv
from fractions import Fraction
from pathlib import Path

import pytest

from clear_steps.core.score import HOW_WORDS, TUNINGS, Bend, Finger, Part, PickingFinger, Stroke, Technique
from clear_steps.formats.tabtext import read_tab, write_tab
from clear_steps.formats.tabtext.lines import Label

CALIBRATION = Path(__file__).parents[1] / "data" / "calibration"


def part_of(*lines: str) -> Part:
    return read_tab("\n".join(lines)).song.parts[0]


def six(thinnest: str, *labels: str, above: tuple[str, ...] = ()) -> Part:
    """A part whose 1st string is as given and whose others are empty."""
    empty = "".join(sign if sign in "|" else "-" for sign in thinnest)
    return part_of(
        "Tuning: standard",
        "Time: 4/4",
        "",
        *above,
        f"e{thinnest}",
        *(f"{name}{empty}" for name in "BGDAE"),
        *labels,
    )


def sounded(part: Part) -> list[tuple[str, int]]:
    return [(str(onset), note.fret) for _, onset, event in part.events() for note in event.notes]


def test_every_calibration_note_is_found_where_it_says() -> None:
    wanted: dict[str, set[tuple[int, Fraction, int, int]]] = {}
    for row in csv.DictReader((CALIBRATION / "notes.csv").open()):
        wanted.setdefault(row["passage"], set()).add(
            (int(row["bar"]), Fraction(row["onset_quarters"]), int(row["string"]), int(row["fret"]))
        )
    assert len(wanted) == 25
    for passage, notes in wanted.items():
        part = read_tab((CALIBRATION / f"{passage}.tab").read_text()).song.parts[0]
        assert {
            (bar + 1, onset, note.string, note.fret)
            for bar, onset, event in part.events()
            for note in event.notes
        } == notes, passage


@pytest.mark.parametrize(
    ("thinnest", "wanted"),
    [
        ("|0---1---2---3---|", [("0", 0), ("1", 1), ("2", 2), ("3", 3)]),
        ("|-0---1---2---3---|", [("0", 0), ("1", 1), ("2", 2), ("3", 3)]),
        (
            "|0-1-2-3-4-5-6-7-|",
            [("0", 0), ("1/2", 1), ("1", 2), ("3/2", 3), ("2", 4), ("5/2", 5), ("3", 6), ("7/2", 7)],
        ),
        ("|5h7-----7p5-----|", [("0", 5), ("1", 7), ("2", 7), ("3", 5)]),
        ("|0-----1-----2-----|", [("0", 0), ("4/3", 1), ("8/3", 2)]),
        ("|--------3-------|", [("2", 3)]),
        (
            "|--0-1-2-3-4-5-6-7-|",
            [("0", 0), ("1/2", 1), ("1", 2), ("3/2", 3), ("2", 4), ("5/2", 5), ("3", 6), ("7/2", 7)],
        ),
    ],
    ids=[
        "quarters",
        "padded",
        "eighths",
        "slurs share",
        "half-note triplets",
        "a late first note",
        "padded by two",
    ],
)
def test_even_spacing_gives_the_rhythm(thinnest: str, wanted: list[tuple[str, int]]) -> None:
    assert sounded(six(thinnest)) == wanted


def test_counts_are_trusted_before_spacing() -> None:
    part = six("|0-1-2---3-------|", above=("  1 & 2   3",))
    assert sounded(part) == [("0", 0), ("1/2", 1), ("1", 2), ("2", 3)]


def test_note_values_are_trusted_before_counts() -> None:
    part = six("|0-1-2-3-|", above=("cnt|1 2 3 4 |", "len|h q e e |"))
    assert sounded(part) == [("0", 0), ("2", 1), ("3", 2), ("7/2", 3)]


def test_a_seven_eighths_bar_of_triplets_holds_21_notes() -> None:
    """Arithmetic, no source."""
    values = "s3 " * 21
    wide = "".join("0--" for _ in range(21))
    part = part_of(
        "Time: 7/8",
        "",
        f"len|{values}|",
        f"  e|{wide}|",
        *(f"  {name}|{'-' * len(wide)}|" for name in "BGDAE"),
    )
    assert len(sounded(part)) == 21


@pytest.mark.parametrize(
    ("sign", "technique"),
    [
        ("h7", Technique.HAMMER_ON),
        ("t12", Technique.TAP),
        ("x", Technique.DEAD),
        ("<12>", Technique.NATURAL_HARMONIC),
        ("7~", Technique.VIBRATO),
        ("/7", Technique.SLIDE_IN_BELOW),
        ("\\7", Technique.SLIDE_IN_ABOVE),
        ("7/", Technique.SLIDE_OUT_UP),
        ("7\\", Technique.SLIDE_OUT_DOWN),
    ],
)
def test_a_sign_on_the_string_is_its_technique(sign: str, technique: Technique) -> None:
    note = six(f"|{sign.ljust(16, '-')}|").bars[0].events[-1].notes[0]
    assert note.techniques == {technique}


@pytest.mark.parametrize(
    ("sign", "bend"),
    [
        ("7b9", Bend(Fraction(2))),
        ("7b", Bend(Fraction(1))),
        ("7b8.5", Bend(Fraction(3, 2))),
        ("7b9r7", Bend(Fraction(2), True)),
        ("15b19", Bend(Fraction(4))),
    ],
)
def test_a_bend_is_named_by_the_fret_it_sounds_like(sign: str, bend: Bend) -> None:
    assert six(f"|{sign.ljust(16, '-')}|").bars[0].events[0].notes[0].bend == bend


def test_a_bend_after_a_tie_begins_late() -> None:
    events = six("|7-------=b9-----|").bars[0].events
    assert [(note.tied, note.fret, note.bend) for event in events for note in event.notes] == [
        (False, 7, None),
        (True, 7, Bend(Fraction(2))),
    ]


def test_labelled_lines_stand_under_the_first_digit() -> None:
    part = part_of(
        "Tuning: drop D",
        "Time: 4/4",
        "",
        "chd|Dm              |",
        "len|q   e e e q.    |",
        "how|    lr----------|",
        "pck|p   i m a D     |",
        "  e|--------0-------|",
        "  B|------1---1-----|",
        "  G|----2-----------|",
        "  D|0---------------|",
        "  A|----------------|",
        "  D|----------------|",
        "fin|    2 1   1     |",
        "rem|slowly  at first |",
    )
    events = part.bars[0].events
    assert [event.chord for event in events] == ["Dm", "", "", "", ""]
    assert [bool(event.techniques) for event in events] == [False, True, True, True, True]
    assert [event.notes[0].picking for event in events] == [
        PickingFinger.THUMB,
        PickingFinger.INDEX,
        PickingFinger.MIDDLE,
        PickingFinger.RING,
        None,
    ]
    assert events[4].stroke is Stroke.DOWN
    assert [event.notes[0].finger for event in events] == [
        None,
        Finger.MIDDLE,
        Finger.INDEX,
        None,
        Finger.INDEX,
    ]
    assert events[0].remark == "slowly"


def test_two_chord_names_on_one_note_stay_together() -> None:
    song = read_tab(
        "\n".join(["Time: 4/4", "chd|C G       |", *(f"  {name}|0---------|" for name in "eBGDAE")])
    ).song
    assert song.parts[0].bars[0].events[0].chord == "C,G"
    assert read_tab(write_tab(song)).song == song


def test_string_names_tell_the_tuning_where_none_is_written() -> None:
    reading = read_tab(
        "\n".join(["Time: 4/4", *(f"{name}|--0--|" for name in ("e", "B", "G", "D", "A", "D"))])
    )
    assert reading.song.parts[0].tuning == TUNINGS["drop D"]
    assert "drop D is taken" in reading.guesses[0].message


def test_repeats_endings_metres_and_counts_are_kept() -> None:
    lines = [f"{name}|:0---0---|3---3---:|0---0---|" for name in "eBGDAE"]
    part = part_of("Time: 4/4", "bar|         1.        2. 2/4", *(line for line in lines))
    first, second, third = part.bars
    assert first.repeat_start
    assert (second.repeat_times, second.endings) == (2, (1,))
    assert (third.endings, str(third.metre)) == ((2,), "2/4")


def test_unknown_headers_and_remarks_are_kept() -> None:
    song = read_tab(
        "\n".join(
            ["Learned at: the mill", "Time: 4/4", "play it softly", *(f"{name}|0---|" for name in "eBGDAE")]
        )
    ).song
    assert song.extra == (("Learned at", "the mill"),)
    assert song.parts[0].remarks == ((0, "play it softly"),)


def test_a_bar_that_fits_no_rhythm_is_marked_uncertain_and_said() -> None:
    reading = read_tab(
        "\n".join(
            [
                "Time: 4/4",
                "e|0-0---0-----0-0-0----0|",
                *(f"{name}|----------------------|" for name in "BGDAE"),
            ]
        )
    )
    assert reading.song.parts[0].bars[0].uncertain
    assert any("nearest plain one" in guess.message for guess in reading.guesses)


def test_the_example_of_the_format_s_description_is_read_and_round_trips() -> None:
    text = (Path(__file__).parents[2] / "docs" / "tab-text.md").read_text()
    example = text.split("```tab\n")[1].split("```")[0]
    reading = read_tab(example)
    assert reading.guesses == ()
    assert [len(bar.events) for bar in reading.song.parts[0].bars] == [5, 2]
    assert read_tab(write_tab(reading.song)).song == reading.song


def test_the_description_names_every_word_and_header() -> None:
    text = (Path(__file__).parents[2] / "docs" / "tab-text.md").read_text()
    assert all(f"`{word}`" in text for word in HOW_WORDS)
    assert all(f"`{label}`" in text for label in Label)


def test_notes_beyond_the_neck_are_kept_and_told() -> None:
    strings = "\n".join(f"{name}|{'21--' if name == 'e' else '----'}|" for name in "eBGDAE")
    reading = read_tab(f"Frets: 20\nTempo: 90\n\nlen|w   |\n{strings}\n")
    assert reading.song.parts[0].frets == 20
    assert reading.song.parts[0].bars[0].events[0].notes[0].fret == 21
    assert any("beyond the neck's 20 frets" in guess.message for guess in reading.guesses)
    assert not any(
        "beyond" in guess.message
        for guess in read_tab(f"Frets: 22\nTempo: 90\n\nlen|w   |\n{strings}\n").guesses
    )
