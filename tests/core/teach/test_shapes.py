"""Shapes are drawn once, where they are new, with the fingers that take them."""

from clear_steps.core.grade import grade_part
from clear_steps.core.shapes import read_shapes
from clear_steps.core.teach import Shape, ShapePlace, shape_places, shapes
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder

PICKED = """Tempo: 80

chd|Am              |C       Am      |
  e|------0---0-----|----0-------0---|
  B|----1-------1---|--1-------1-----|
  G|--2-------------|0-------2-------|
  D|----------------|----------------|
  A|0---------------|3-------0-------|
  E|----------------|----------------|
"""


def places(text: str) -> tuple[ShapePlace, ...]:
    song = read_tab(text).song
    part = song.parts[0]
    grips = grade_part(song, part, default_ladder()).grips
    return shape_places(read_shapes(part), grips, part.tuning.strings)


def test_a_broken_chord_is_one_shape_from_its_name_on() -> None:
    found = places(PICKED)
    assert [(place.bar, place.event, place.shape.name) for place in found] == [
        (0, 0, "Am"),
        (1, 0, "C"),
        (1, 3, "Am"),
    ]
    assert found[0].shape.frets == (0, 1, 2, 2, 0, None), "whole, also what is not struck"
    assert found[0].shape.fingers == ("", "1", "3", "2", "", "")
    assert [shape.name for shape in shapes(found)] == ["Am", "C"]


def test_a_grip_that_is_seen_is_drawn_with_its_name() -> None:
    found = places(PICKED.replace("chd|Am              |C       Am      |\n", ""))
    assert [place.shape.name for place in found] == ["Am"], "what passes is not held"


MELODY = """Tempo: 104

chd|F               |
len|e e e e e e e e |
  e|------1---------|
  B|1---------3-----|
  G|--2-----------2-|
  D|----3-------3---|
  A|--------3-------|
  E|1---------------|
"""


def test_a_shape_is_drawn_as_it_is_taught_whatever_a_melody_over_it_takes() -> None:
    """The little finger plays the melody: the picture had the third finger on two strings."""
    (place,) = places(MELODY)
    assert place.shape.fingers == ("1", "1", "2", "4", "3", "1")


def test_written_fingers_are_drawn_before_those_that_are_taught() -> None:
    (place,) = places(
        MELODY.replace("len|", "fin|1 2 3 1 3 4 3 2 |\nlen|").replace("--3-------3---", "--3-------3---")
    )
    assert place.shape.fingers[3:5] == ("3", "3")


def test_a_line_and_two_strings_carried_are_not_drawn() -> None:
    line = """Tempo: 80

  e|----------------|
  B|----------------|
  G|----------------|
  D|----7-5---7---9-|
  A|5-7-----7---7---|
  E|----------------|
"""
    assert places(line) == ()
    assert (
        places(
            line.replace("D|----7-5---7---9-", "D|5-----7---9-----").replace(
                "A|5-7-----7---7---", "A|3-----5---7-----"
            )
        )
        == ()
    )


def test_what_is_part_of_a_shape_of_its_name_is_not_drawn_again() -> None:
    whole, less = Shape("C", (0, 1, 0, 2, 3, None), ("", "1", "", "2", "3", "")), (None, 1, 0, 2, None, None)
    part = Shape("C", less, ("", "1", "", "2", "", ""))
    other = Shape("Am7", less, ("", "1", "", "2", "", ""))
    found = shapes(tuple(ShapePlace(0, at, shape) for at, shape in enumerate((part, whole, other, whole))))
    assert found == (whole, other)


def test_harmonics_are_no_shape() -> None:
    assert (
        places(
            "Tempo: 80\n\n"
            + "\n".join(f"{name}|<12>----|" for name in "eBG")
            + "\n"
            + "\n".join(f"{name}|--------|" for name in "DAE")
            + "\n"
        )
        == ()
    )
