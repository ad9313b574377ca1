"""What a player sees stands over the tab where nobody wrote it."""

from tests.browser.page import Page
from tests.core.shapes.test_reading import PICKED


def test_recognised_grips_are_named_over_the_tab_and_go_with_the_chords(page: Page) -> None:
    page.open(f"#/song/{page.add_song(PICKED)}")
    page.until(lambda: {"C", "D/A"} <= page.marks(), "the names of both grips")
    assert "recognised" in page.marks()
    page.find("label", "chords").click()
    page.until(lambda: "D/A" not in page.marks(), "they go with the chords")


def test_a_written_chord_stands_alone(page: Page) -> None:
    named = PICKED.replace("len|", "chd|C               |D               |\nlen|")
    page.open(f"#/song/{page.add_song(named)}")
    page.until(lambda: {"C", "D"} <= page.marks(), "the names as written")
    assert "recognised" not in page.marks()


def test_changes_stand_over_the_tab_with_the_shapes_and_are_said_at_their_place(page: Page) -> None:
    page.open("#/song/3")
    page.bar(1).click()
    assert "change of shape" not in page.marks()
    page.find("label", "shapes").click()
    page.until(lambda: "change of shape" in page.marks(), "they come with the shapes")
    page.until(lambda: any("stay" in mark for mark in page.marks()), "what stays")
    words = page.find("[data-testid=change-words]").text
    assert words == (
        "The first finger stays; the second and third finger move, one fret at most; the little finger is"
        " added; the hand is free for 0.6 s."
    )


def test_the_teacher_says_what_is_held_and_it_is_kept_in_the_text(page: Page) -> None:
    page.open(f"#/song/{page.add_song(PICKED)}")
    page.bar(1).click()
    page.find("aside button", "from here").click()
    page.find("[aria-label='Name of what is held']").send_keys("Dsus/A")
    page.find("button", "Say so").click()
    page.sees("Dsus/A is held from here")
    page.until(lambda: "Dsus/A" in page.marks(), "over the tab")
    page.find("button", "Not held").click()
    page.sees("Nothing is held from here")
    page.find("button", "As it is seen").click()
    page.sees("Held as it is seen")
    page.until(lambda: "N.C." not in page.marks(), "as before")
