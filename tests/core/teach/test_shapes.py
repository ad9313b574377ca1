"""Shapes are drawn once, where they are new, with the fingers that take them."""

from clear_steps.core.grade import grade_part
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
    return shape_places(song.parts[0], grade_part(song, song.parts[0], default_ladder()))


def test_a_broken_chord_is_one_shape_from_its_name_on() -> None:
    found = places(PICKED)
    assert [(place.bar, place.event, place.shape.name) for place in found] == [
        (0, 0, "Am"),
        (1, 0, "C"),
        (1, 3, "Am"),
    ]
    assert found[0].shape.frets == (0, 1, 2, None, 0, None)
    assert found[0].shape.fingers[1] == "1"
    assert [shape.name for shape in shapes(found)] == ["Am", "C"]


def test_a_strummed_chord_without_a_name_is_drawn_and_a_single_line_is_not() -> None:
    strummed = PICKED.replace("chd|Am              |C       Am      |\n", "")
    assert places(strummed) == ()
    together = (
        strummed.replace("  A|0---------------|", "  A|3---------------|")
        .replace("  e|------0---0-----|", "  e|0-----0---0-----|")
        .replace("  B|----1-------1---|", "  B|1---1-------1---|")
    )
    (place,) = places(together)
    assert (place.shape.name, place.shape.frets) == ("", (0, 1, None, None, 3, None))
    assert place.shape.first_fret == 1


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
