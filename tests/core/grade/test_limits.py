"""What a student can do, held against graded bars."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import Ability, GradeRequest, HardestShape, Limits, grade_part
from clear_steps.core.hand import Player
from clear_steps.core.score import Bend, Event, Song, Technique, with_harder
from clear_steps.ladders import default_ladder
from tests.songs import line, playable_songs

LADDER = default_ladder()


def beyond(song: Song, limits: Limits, span_mm: float = 100.0) -> dict[str, str]:
    player = Player(span_mm)
    grading = grade_part(song, song.parts[0], LADDER, GradeRequest(player))
    ability = Ability(player, limits, LADDER)
    rows = zip(grading.bars, song.parts[0].bars, grading.fingered.hands[grading.hand], strict=True)
    return {each.measure: each.limit for row in rows for each in ability.beyond(*row)}


def test_what_nobody_has_said_limits_nothing() -> None:
    assert not beyond(line("1.0", "1.3", "2.1", "2.3", length=Fraction(1)), Limits())


def test_the_hand_span_is_a_limit_of_its_own() -> None:
    wide = line("6.1+1.5", length=Fraction(4))
    assert beyond(wide, Limits(), span_mm=80.0) == {"stretch": "a comfortable 80 mm"}
    assert not beyond(wide, Limits(), span_mm=140.0)


def test_notes_a_second_limit_both_hands() -> None:
    fast = line(*["1.0", "1.1", "1.3", "1.1"] * 4, length=Fraction(1, 4))
    fast = replace(fast, tempo=Fraction(120))
    assert beyond(fast, Limits(notes_per_second=6.0)) == {"speed": "6 notes a second"}
    assert not beyond(fast, Limits(notes_per_second=9.0))


def test_techniques_not_known_yet_are_named() -> None:
    song = line("2.5", length=Fraction(4))
    (event,) = song.parts[0].bars[0].events
    bent = Event(event.quarters, tuple(replace(note, bend=Bend(Fraction(2))) for note in event.notes))
    part = replace(song.parts[0], bars=(replace(song.parts[0].bars[0], events=(bent,)),))
    found = beyond(
        replace(song, parts=(part,)),
        Limits(unknown_techniques=frozenset({Technique.BEND_WHOLE, Technique.TAP})),
    )
    assert found == {"technique": "whole-tone bends not known yet"}


def test_what_needs_an_unknown_technique_is_not_known_either() -> None:
    song = line("2.5", length=Fraction(4))
    (event,) = song.parts[0].bars[0].events
    bent = Event(event.quarters, tuple(replace(note, bend=Bend(Fraction(4))) for note in event.notes))
    part = replace(song.parts[0], bars=(replace(song.parts[0].bars[0], events=(bent,)),))
    limits = Limits(unknown_techniques=frozenset({Technique.BEND_HALF}))
    assert beyond(replace(song, parts=(part,)), limits) == {"technique": "two-tone bends not known yet"}
    assert not beyond(replace(song, parts=(part,)), Limits(unknown_techniques=frozenset({Technique.TRILL})))


@given(st.frozensets(st.sampled_from(list(Technique))))
def test_harder_relatives_are_found_at_once(techniques: frozenset[Technique]) -> None:
    found = with_harder(techniques)
    assert techniques <= found == with_harder(found)


@pytest.mark.parametrize(
    ("most", "limit"),
    [(HardestShape.NO_BARRE, "no barre known yet"), (HardestShape.SMALL_BARRE, "no full barre known yet")],
)
def test_shapes_not_known_yet_are_named(most: HardestShape, limit: str) -> None:
    barre = line("6.1+5.3+4.3+3.2+2.1+1.1", length=Fraction(4))
    assert beyond(barre, Limits(hardest_shape=most)).get("shapes") == limit
    assert "shapes" not in beyond(barre, Limits(hardest_shape=HardestShape.FULL_BARRE))


def test_any_measure_may_have_a_comfortable_step_and_the_one_gone_furthest_beyond_comes_first() -> None:
    fast = replace(line(*["1.0", "1.1", "1.3", "1.1"] * 4, length=Fraction(1, 4)), tempo=Fraction(120))
    assert beyond(fast, Limits(steps=(("speed", 2.0),))) == {"speed": "Step 2"}
    grading = grade_part(fast, fast.parts[0], LADDER)
    both = Ability(Player(), Limits(notes_per_second=7.0, steps=(("speed", 1.0),)), LADDER).beyond(
        grading.bars[0], fast.parts[0].bars[0], ()
    )
    assert [each.limit for each in both] == ["Step 1", "7 notes a second"]


@pytest.mark.parametrize(
    "limits", [{"notes_per_second": 0.1}, {"steps": (("volume", 3.0),)}, {"steps": (("speed", 11.0),)}]
)
def test_limits_that_say_nothing_are_refused(limits: dict[str, object]) -> None:
    with pytest.raises(InvalidValueError):
        Limits(**limits)  # type: ignore[arg-type]


@settings(max_examples=20)
@given(playable_songs(most_bars=2), st.floats(1.0, 6.0), st.floats(0.5, 6.0))
def test_a_wider_limit_is_never_stricter(song: Song, rate: float, more: float) -> None:
    narrow = beyond(song, Limits(notes_per_second=rate, steps=(("technique", 2.0),)))
    wide = beyond(song, Limits(notes_per_second=rate + more, steps=(("technique", 4.0),)))
    assert set(wide) <= set(narrow)
