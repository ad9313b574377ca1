"""Fingers of static chord shapes against the open chord data set; see `chord_shapes.py` for the source."""

from tests.outside.chord_shapes import compare, exact_in_sequence


def test_unseen_chord_shapes_get_the_fingers_people_write_down() -> None:
    result = compare()
    assert result.positions > 900
    assert result.left_out < 60
    assert result.exact >= 0.87
    assert result.barre >= 0.95


def test_a_shape_keeps_its_familiar_fingers_whatever_came_before() -> None:
    assert exact_in_sequence(300) >= 0.86
