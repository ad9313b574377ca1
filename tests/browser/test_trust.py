"""Other ways, readings, own Steps, tapped tempo, the ladder, files: in a real browser."""

from pathlib import Path

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from clear_steps.demo import demo_texts
from clear_steps.formats.musicxml import write_musicxml
from clear_steps.formats.tabtext import read_tab
from tests.browser.page import Page


def test_another_way_to_play_a_bar_is_found_and_pinned(page: Page) -> None:
    page.open("#/song/1")
    page.find("h1", "Before the ovens")
    page.sees("What makes it hard is")
    page.bar(0).click()
    page.find("button", "Other ways to play bar 1").click()
    page.sees("As written")
    way = page.find("[data-way^='Elsewhere']")
    page.sees("Step easier than as written")
    wanted = way.find_element(By.CSS_SELECTOR, "span.font-bold.whitespace-nowrap").text
    way.find_element(By.XPATH, ".//button[contains(., 'Play it this way')]").click()
    page.until(lambda: page.find("aside h2").text.endswith(wanted), f"bar 1 at {wanted}")
    page.press("w")
    page.sees("writing 2, saved")


def test_readings_own_step_and_tapped_tempo(page: Page) -> None:
    page.open("#/song/4")
    page.find("h1", "Delivery round")
    page.sees("the tempo is assumed")
    own = page.find("input[type=number][max='10']")
    own.send_keys("2" + Keys.TAB)
    page.sees("The ladder says")
    page.press(Keys.ESCAPE)
    for _ in range(5):
        page.press("b")
    page.find("button", "Write ").click()
    page.until(lambda: "~" not in page.find("[data-testid=song-step]").text, "the tempo is sure")

    page.bar(2).click()
    page.find("button", "Another reading of this bar").click()
    page.find("input[aria-label='Name of the new reading']").send_keys("as Mira plays it")
    page.find("button", "Begin it").click()
    page.sees("2 readings of this bar")
    page.sees("as first written")
    page.find("section[aria-label='Readings of this bar'] button", "Use").click()
    page.until(
        lambda: page.find("section[aria-label='Readings of this bar'] li", "as first written").text.endswith(
            "in use"
        ),
        "the first reading is in use",
    )


def test_the_ladder_is_copied_changed_tried_saved_and_left_again(page: Page) -> None:
    page.open("#/")
    page.find("a", "Ladder").click()
    page.sees("What Step 4 allows")
    page.sees("reaches up to 95 mm")
    page.find("nav button", "shift").click()
    field = page.find("input[aria-label='shift, point 5, Step']")
    field.send_keys(Keys.CONTROL + "a")
    field.send_keys("7.2")
    page.sees("changed, not saved")
    page.until(lambda: "(+" in page.find("aside").text, "a song's Step rises")
    page.find("button", "Save as my own").click()
    page.sees("writing 1, saved")
    page.chrome.refresh()
    page.sees("writing 1, saved")
    page.choose("Graded by", "the one that ships")
    page.sees("it never changes; a change makes a copy")
    page.find("nav button", "technique").click()
    page.find("input[aria-label='Name of your own technique']").send_keys("harp" + Keys.ENTER)
    page.sees("*harp")


def test_a_musicxml_file_is_looked_at_and_then_saved(page: Page, tmp_path: Path) -> None:
    file = tmp_path / "ovens.musicxml"
    file.write_bytes(write_musicxml(read_tab(demo_texts()[0]).song))
    page.open("#/new")
    page.find("h1", "New song")
    page.chrome.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(file))
    page.sees("Nothing is saved yet")
    page.sees("66 notes in 8 bars")
    page.until(lambda: page.find("button", "Save song").is_enabled())
    page.find("button", "Save song").click()
    page.find("h1", "Before the ovens")
    assert page.step() > 3


def test_what_rings_unsaid_is_told_and_the_teacher_says_otherwise(page: Page) -> None:
    page.open("#/song/4")
    page.find("h1", "Delivery round")
    page.sees("Not written, taken from how it looks:")
    page.sees("the notes of the broken chord ring on to the change of grip.")
    page.find("button", "It rings only where it is written").click()
    page.sees("Only what is written as ringing.")
    page.find("button", "Take it from how it looks again").click()
    page.sees("Not written, taken from how it looks:")


def test_a_finger_that_cannot_be_kept_is_told_on_the_desk(page: Page) -> None:
    strings = "\n".join(
        f"  {name}|{fret}---------------|"
        for name, fret in zip("eBGDAE", ("-", "5", "7", "-", "-", "-"), strict=True)
    )
    tab = f"Tempo: 60\nTime: 4/4\nTuning: standard\n\nlen|w               |\n{strings}\nfin|4/1             |"
    page.open("#/")
    page.find("a, button", "New song").click()
    page.replace_text(tab)
    page.sees("hardest in bar 1")  # what is typed is graded: it can be saved
    page.find("button", "Save song").click()
    page.sees("Fingers that cannot be kept")
    page.sees("the little finger cannot lie on the 2nd string as written")
