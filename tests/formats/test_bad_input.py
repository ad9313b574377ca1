"""Bad input gives clear messages with their place, or is read right."""

import pytest

from clear_steps.core.errors import ReadError
from clear_steps.formats.tabtext import read_tab, write_tab

NAMES = "eBGDAE"


def tab(
    thinnest: str = "0---", *, headers: tuple[str, ...] = (), above: tuple[str, ...] = (), names: str = NAMES
) -> str:
    empty = "-" * len(thinnest)
    return "\n".join(
        [*headers, *above, *(f"{name}|{thinnest if at == 0 else empty}|" for at, name in enumerate(names))]
    )


def problem(text: str) -> tuple[int, int, str]:
    with pytest.raises(ReadError) as caught:
        read_tab(text)
    first = caught.value.problems[0]
    return first.line, first.column, first.message


@pytest.mark.parametrize(
    ("text", "line", "column", "words"),
    [
        ("", 1, 1, "the text is empty"),
        ("Dear Mira, come at four and bring the capo.", 1, 1, "no tab was found"),
        (tab(names="     "), 1, 1, "5 string lines stand together here; expected 6"),
        (tab(names="eBGDAEBAG"), 1, 1, "9 string lines stand together here; expected 4 to 8"),
        (
            tab(names="     ", headers=("Tuning: standard",)),
            2,
            1,
            "5 string lines stand together here; expected 6",
        ),
        (tab("-99-"), 1, 4, "fret 99 is not on the neck; expected 0 to 36"),
        (
            tab("0-0-0-", headers=("Time: 2/4",), above=("len|q q q |",)),
            2,
            9,
            "bar 1 is too long: it holds 3 quarters here; 2/4 has room for 2",
        ),
        (tab("----", headers=("Time: 4/4",), above=("len|! |",)), 2, 5, "'!' is no note value"),
        (
            tab("0---", headers=("Tuning: standard",)) + "\nE|----|",
            2,
            1,
            "7 string lines stand together here; expected 6",
        ),
        (tab("0\0--"), 1, 4, "a NUL character stands here"),
        ("-" * 1_000_000, 1, 1, "the text has 1,000,000 characters; expected at most 400,000"),
        ("-" * 3000, 1, 2001, "the line has 3,000 columns"),
    ],
)
def test_a_problem_names_its_place_and_what_was_expected(
    text: str, line: int, column: int, words: str
) -> None:
    found = problem(text)
    assert found[:2] == (line, column), found
    assert words in found[2]


@pytest.mark.parametrize(
    ("text", "line", "column", "words"),
    [
        (tab("0---", above=("how|wah |",)), 1, 5, "'wah' is no word for how; expected one of ss pb"),
        (tab("0-z-"), 1, 5, "'z' is no sign of a string line"),
        (tab("7b5-"), 1, 3, "'7b5' bends fret 7 to the sound of 5; expected a higher fret"),
        (tab("=---"), 1, 3, "nothing sounds on the string before it"),
        (tab("0---", above=("pck|p/i |",)), 1, 5, "'p/i' names 2 fingers; expected 1"),
    ],
)
def test_a_sign_or_word_that_says_nothing_is_kept_as_a_remark_and_told(
    text: str, line: int, column: int, words: str
) -> None:
    reading = read_tab(text)
    assert any((g.line, g.column) == (line, column) and words in g.message for g in reading.guesses)
    assert any(event.remark for _, _, event in reading.song.parts[0].events())
    assert read_tab(write_tab(reading.song)).song == reading.song


def test_a_ragged_string_line_is_made_even_and_told_or_named() -> None:
    text = tab("0---")
    reading = read_tab(text.replace("D|----|", "D|-----|"))
    assert reading.song.parts[0].bars == read_tab(text).song.parts[0].bars
    assert any("made even" in guess.message or "make them even" in guess.message for guess in reading.guesses)
    assert problem(text.replace("D|----|", "D|--|--|"))[0] == 4


def test_five_hundred_bars_are_read_and_more_are_refused_with_their_place() -> None:
    def bars(count: int) -> str:
        return "\n\n".join(tab("0---") for _ in range(count))

    assert len(read_tab(bars(500)).song.parts[0].bars) == 500
    line, _, message = problem(bars(1000))
    assert (line, message) == (3501, "this is bar 501 of 1,000; expected at most 500 bars a part")


def test_every_problem_is_told_at_once() -> None:
    with pytest.raises(ReadError) as caught:
        read_tab(tab("-99-98-"))
    assert len(caught.value.problems) == 2


@pytest.mark.parametrize(
    ("header", "told"),
    [
        ("Tempo: fast", "tempo is 'fast'; expected a number from 10 to 400"),
        ("Time: 5/0", "metre is '5/0'; expected 1 to 32 beats"),
        ("Capo: 40", "capo is '40'; expected a number from 0 to 12"),
        ("Tuning: strange", "tuning is 'strange'; expected one of standard"),
    ],
)
def test_a_heading_that_is_not_understood_is_kept_and_told_and_refuses_nothing(
    header: str, told: str
) -> None:
    reading = read_tab(tab("0---", headers=(header,)))
    assert any(told in guess.message for guess in reading.guesses)
    key, text = header.split(": ")
    assert (key, text) in reading.song.extra
    assert (key, text) in read_tab(write_tab(reading.song)).song.extra


STRING_LINES = "\n".join(f"{name}|-0---2---|" for name in "eBGDAE")


@pytest.mark.parametrize(
    "line",
    [
        "1" * 60 + "z",
        "1 " + "1" * 60 + "z",
        "1.  " * 90 + "x",
        " | |1." * 90 + "  !",
        "pm. " * 300 + "!",
        "let ring- " * 150 + "!",
        "1st time _ " * 100 + "!",
    ],
)
def test_a_line_that_could_be_cut_in_endlessly_many_ways_is_read_at_once(line: str) -> None:
    """Where this is broken, the test never ends."""
    reading = read_tab(f"Time: 4/4\nTuning: standard\n\n{line}\n{STRING_LINES}")
    assert len(reading.song.parts[0].bars) == 1
