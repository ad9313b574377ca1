"""An easier version beside the original, driven as a teacher would."""

from selenium.webdriver import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from tests.browser.page import Page


def version_step(page: Page) -> float:
    return float(page.find("[data-testid=version-step]").text)


def type_target(page: Page, text: str) -> None:
    field = page.find("input[aria-label='Target Step, typed']")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys(text, Keys.TAB)


def cursors(page: Page) -> int:
    return len(page.chrome.find_elements(By.CSS_SELECTOR, "svg line[y1='8']"))


def test_ask_compare_refuse_take_back_reload_print(page: Page) -> None:
    page.open("#/song/5")
    page.find("a", "Make it easier").click()
    page.sees("The target of 4.0 is reached")
    type_target(page, "3")
    page.takes_a_way("3.0")
    page.sees("The target of 3.0 is reached")
    easiest = version_step(page)
    assert easiest <= 3.05
    page.sees("For the student")

    page.find("[data-group] button", "Refuse").click()
    page.sees(" refused")
    page.until(lambda: version_step(page) >= easiest, "graded anew")
    page.find("[data-group] button", "Keep").click()
    page.until(lambda: " refused" not in page.find("aside").text, "taken back")
    page.until(lambda: version_step(page) == easiest, "the same version again")

    page.chrome.refresh()
    page.sees("As written")
    page.find("button[aria-label^='Which version: ']").click()
    assert len(page.chrome.find_elements(By.CSS_SELECTOR, "[role=option]")) == 2
    page.press(Keys.ESCAPE)
    with page.printing("Print"):
        assert [
            row.get_property("textContent")
            for row in page.chrome.find_elements(By.CSS_SELECTOR, ".sheets .row-name")
        ][:2] == [
            "original",
            "version",
        ]


def test_the_target_is_moved_by_keyboard_alone_and_typed(page: Page) -> None:
    page.open("#/song/4/versions")
    page.find("[role=slider][aria-label='Target Step']")
    type_target(page, "3")
    page.find("button", "Find ways to Step 3.0")
    page.tab_to("Target Step").send_keys(Keys.ARROW_RIGHT)
    page.find("button", "Find ways to Step 3.5")
    type_target(page, "2.5")
    page.find("button", "Find ways to Step 2.5")


def test_a_refusal_names_the_bar_the_measure_and_what_was_tried(page: Page) -> None:
    page.open("#/song/6/versions")
    page.sees("% kept")
    type_target(page, "2")
    page.takes_a_way("2.0", "as it is written")
    page.sees("The target of 2.0 is not reached")
    page.sees("Why it stays at Step")
    page.find("button", "What each kind of change could still do").click()
    page.sees(": Step")


def test_one_edit_alone_is_refused_by_bar(page: Page) -> None:
    page.open("#/song/5/versions")
    page.choose("Listed by", "bar")
    page.find("[data-group^='Bar'] button", "Refuse").click()
    page.sees(" refused")


def test_the_two_sides_are_heard_in_turn(page: Page) -> None:
    page.open("#/song/2/versions")
    page.sees("% kept")
    page.find("button", "Play").click()
    page.find("button", "Stop")
    page.until(lambda: cursors(page) == 1, "a cursor")
    page.find("button", "original").click()
    page.until(lambda: page.find("button", "original").get_attribute("aria-pressed") == "true")
    page.until(lambda: cursors(page) == 1, "the cursor goes on")
    page.find("button", "Stop").click()
    page.until(lambda: cursors(page) == 0, "no cursor when nothing plays")


def test_a_staircase_side_by_side_a_layer_and_a_bar_by_hand(page: Page) -> None:
    page.open("#/song/2/versions")
    page.sees("The target of 4.0 is reached")
    page.find("button", "a staircase").click()
    page.find("[role=menuitem]", "Steps 2, 4, 6").click()
    page.sees("From the easiest to the original")
    page.sees("one of the stairs 2, 4, 6")
    assert (
        len(page.chrome.find_elements(By.CSS_SELECTOR, "section[aria-label='All versions side by side'] li"))
        == 5
    )
    page.find("section[aria-label='All versions side by side'] button", "asked for Step 2").click()
    page.sees("The target of 2.0 is reached")

    page.choose("Approach", "the groove")
    page.find("button", "a layer").click()
    page.find("[role=menuitem]", "the bass alone").click()
    page.sees("Written as asked: the bass alone.")
    page.find("button", "Change it by hand").click()
    page.find("button", "the whole bar as text").click()
    area = page.find("textarea[aria-label='Tab of the bar']")
    page.until(lambda: "|" in area.get_property("value"), "the bar's tab")
    written = area.get_property("value")
    page.chrome.execute_script(
        "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', {bubbles: true}))",
        area,
        written.replace("0", "3", 1),
    )
    page.find("button", "Put it in: a change like any other").click()
    page.sees("Changed by hand")


def edits(page: Page) -> int:
    return int(page.find("aside h3", " change").text.split()[0])


def fret_field(page: Page, string: int) -> WebElement:
    return page.find(f"input[aria-label='Fret on string {string}, empty for none']")


def test_a_note_is_changed_added_and_taken_out_on_the_version_and_can_be_refused(page: Page) -> None:
    page.open("#/song/5/versions")
    before = edits(page)
    page.find("[data-pick='0 2']").click()
    fret_field(page, 2).send_keys("3", Keys.TAB)
    page.until(lambda: edits(page) == before + 1, "an edit more")
    page.until(lambda: fret_field(page, 2).get_property("value") == "3", "the note that was added")
    assert page.focused().get_attribute("aria-label") == "Fret on string 3, empty for none", (
        "the hands stay on the keys"
    )
    fret_field(page, 2).send_keys(Keys.CONTROL, "a")
    fret_field(page, 2).send_keys(Keys.DELETE, Keys.TAB)
    page.until(lambda: edits(page) == before + 2, "another")
    page.find("button", "Make it half as long").click()
    page.until(lambda: edits(page) == before + 3, "a third")
    page.find("[data-group='changed by hand'] button", "Refuse all").click()
    page.sees("3 refused")
    page.chrome.refresh()
    page.sees("3 refused")


def test_what_no_instrument_has_is_told(page: Page) -> None:
    page.open("#/song/5/versions")
    page.find("[data-pick='0 0']").click()
    fret_field(page, 1).send_keys("33", Keys.TAB)
    page.sees("fret is 33; expected 0 to 24")
    assert any("422" in complaint for complaint in page.complaints())


def test_a_version_is_put_away_and_brought_back(page: Page) -> None:
    page.open("#/song/4/versions")
    page.find("button", "Side by side (1)").click()
    page.find("button", "Put away").click()
    page.sees("Put away (1)")
    page.find("section button", "Put away (1)").click()
    page.find("button", "Bring back").click()
    page.until(
        lambda: "Put away (1)" not in page.chrome.find_element(By.TAG_NAME, "body").text, "brought back"
    )
    page.find("button", "asked for Step 3")


def test_a_two_part_song_is_made_easier_part_by_part_and_as_one_guitar(page: Page) -> None:
    page.open("#/song/3/versions")
    page.choose("Which part to make easier", "Low strings")
    page.find("button", "a layer").click()
    page.find("[role=menuitem]", "the guitars as one part").click()
    page.sees("Written as asked: the guitars as one part.")


def test_a_short_bar_is_filled_when_asked(page: Page) -> None:
    page.open("#/song/6/versions")
    page.sees("% kept")
    page.find("label", "fill the short bar 7").click()
    type_target(page, "9")
    page.takes_a_way("9.0")
    page.sees("it no longer fits the recording")


def test_three_ways_are_compared_and_one_taken(page: Page) -> None:
    page.open("#/song/4/versions")
    page.sees("% kept")
    page.finds_ways("3.0")
    cards = page.chrome.find_elements(By.CSS_SELECTOR, "[data-way]")
    assert len(cards) == 3
    assert all("% kept" in card.text and "changes most" in card.text for card in cards)
    assert all(len(card.find_elements(By.CSS_SELECTOR, "svg")) >= 1 for card in cards), "the bar is drawn"
    page.find("[data-way='chords to strum'] button", "Take this way").click()
    page.sees("For the student")
    page.sees("Chords to strum")
    page.find("[aria-label='Both climbs']")
    assert not page.chrome.find_elements(By.CSS_SELECTOR, "[data-way]")


def test_a_song_is_easier_without_changing_a_note_too(page: Page) -> None:
    page.open("#/song/3/versions")
    page.sees("% kept")
    type_target(page, "3")
    page.finds_ways("3.0")
    page.find("[aria-label='Without changing a note']", "Another part instead: Low strings")
    page.open("#/song/6/versions")
    page.sees("% kept")
    assert not page.chrome.find_elements(By.CSS_SELECTOR, "[data-way]"), "another song is another search"


def test_what_a_section_is_can_be_said_where_versions_are_written(page: Page) -> None:
    page.open("#/song/5/versions")
    page.find("button", "what each section is").click()
    page.choose("What Turn is", "line")
    page.sees("This version belongs to an earlier writing of the song")
    type_target(page, "4")
    page.takes_a_way("4.0")
    page.sees("The target of 4.0 is reached")


def test_one_change_is_asked_for_with_its_step_seen_before(page: Page) -> None:
    page.open("#/song/5/versions")
    page.sees("% kept")
    before = edits(page)
    page.find("button", "Ask for one change").click()
    page.choose("First bar to change", "12")
    page.sees("What applies here")
    page.find("[aria-label='Changes that apply'] button").click()
    page.until(lambda: edits(page) == before + 1, "a change more")
    page.sees("(bar 12)")
    page.find("[aria-label='Changes that apply']")


def test_bars_for_one_change_are_chosen_by_clicking(page: Page) -> None:
    page.open("#/song/5/versions")
    page.sees("% kept")
    first, last = page.find("[data-pick='1 0']"), page.find("[data-pick='2 0']")
    ActionChains(page.chrome).click(first).key_down(Keys.SHIFT).click(last).key_up(Keys.SHIFT).perform()
    page.sees("What applies here")
    assert page.find("button[aria-label^='First bar to change: ']").text == "2"
    assert page.find("button[aria-label^='Last bar to change: ']").text == "3"
    of_bars = changes_listed(page)
    page.find("label", "only from the picked note to the other").click()
    page.until(lambda: changes_listed(page) != of_bars, "the changes of the notes alone")


def changes_listed(page: Page) -> list[str]:
    """What applies, with the Steps it would give."""
    return page.find("[aria-label='Changes that apply']").text.splitlines()


def test_one_change_is_asked_for_on_the_desk_and_becomes_a_version(page: Page) -> None:
    page.open("#/song/5")
    page.bar(3).click()
    page.find("button", "Ask for one change, as a version").click()
    page.find("[aria-label='Changes that apply'] button", "fret the note the bend goes to").click()
    page.sees("one change: fret the note the bend goes to")
    assert edits(page) == 1


def test_one_change_keeps_to_the_notes_that_are_chosen(page: Page) -> None:
    page.open("#/song/5")
    page.bar(3).click()
    page.press(Keys.ARROW_RIGHT)
    page.press_shifted(Keys.ARROW_RIGHT)
    page.find("button", "Other ways to play the chosen notes")
    page.find("button", "Ask for one change, as a version").click()
    page.sees("what is around them stays")
    page.find("[aria-label='Changes that apply'] li")


def test_what_is_refused_is_left_alone_by_another_way(page: Page) -> None:
    page.open("#/song/5/versions")
    page.sees("% kept")
    type_target(page, "3")
    page.takes_a_way("3.0", "as it is written")
    page.sees("The target of 3.0 is reached")
    refused = page.find("[data-group]").get_attribute("data-group")
    page.find("[data-group] button", "Refuse").click()
    page.sees("The target of 3.0 is not reached")
    page.find("button", "Find another way that leaves it alone").click()
    page.until(lambda: "not reached" not in page.find("aside").text, "another version", 60)
    groups = page.chrome.find_elements(By.CSS_SELECTOR, "[data-group]")
    assert refused not in [group.get_attribute("data-group") for group in groups]


def test_a_third_tuning_is_asked_for_by_name_and_says_where_it_sits(page: Page) -> None:
    page.open("#/song/5/versions")
    page.sees("% kept")
    page.choose("Tuning and capo", "another tuning or capo")
    field = page.find("input[aria-label='Tuning']")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("D standard", Keys.ENTER)
    page.find("button[aria-label^='What stays: the shapes stay (it sits']")
    type_target(page, "4")
    page.takes_a_way("4.0", "as it is written")
    page.sees("is traded for whole step down")
    page.sees("below the original")


def test_ways_for_a_student_keep_to_what_they_can_do(page: Page) -> None:
    page.open("#/song/5/versions")
    page.sees("% kept")
    page.choose_whom("Tomke")
    page.find("button", "for Tomke")
    type_target(page, "3")
    page.takes_a_way("3.0", "as it is written")
    page.sees("Everything is within what Tomke can play.")
    page.find("button[aria-label^='Which version: what Tomke can play, asked for Step 3']")
