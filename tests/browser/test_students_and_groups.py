"""A student's own version, and a group that plays together, driven as a teacher would."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.page import Page


def test_a_new_student_gets_a_version_within_limits(page: Page) -> None:
    page.open()
    page.find("a", "Students").click()
    page.find("button", "New student").click()
    page.find("form[aria-label='New student'] input[maxlength='80']").send_keys("Ines")
    page.find("button", "small").click()
    page.find("input[max='20']").send_keys("3")
    page.find("button[aria-label='none: knows no technique']").click()
    page.find("button", "fingerstyle").click()
    page.find("button[aria-label='all: knows all techniques']").click()
    page.find("button", "one by one (35 of 35)").click()
    page.find("label", "whole-tone bend").click()
    page.find("button", "Add the student").click()
    page.sees("90 mm; 3 notes/s; 4 techniques not known yet")  # what needs it goes with it
    page.chrome.refresh()
    page.find("button", "Ines").click()
    page.find("button", "one by one (31 of 35)").click()
    box = page.find("label", "whole-tone bend").find_element(By.CSS_SELECTOR, "[role=checkbox]")
    assert box.get_attribute("aria-checked") == "false"

    page.open("#/song/5/versions")
    page.find("button", "for a student").click()
    page.find("[role=menuitem]", "Ines").click()
    page.sees("Everything is within what Ines can play.")
    page.find("aside [data-group] button", "bars").click()
    page.sees("The limit here")
    page.find("button[aria-label^='Which version: what Ines can play']")
    page.open("#/students")
    page.find("button", "Ines").click()
    page.find("section[aria-label='Songs of Ines'] a", "Burnt sugar")
    page.find("section[aria-label='Songs of Ines'] a", "what Ines can play")


def test_a_student_is_changed_by_keyboard_and_a_taken_name_is_told(page: Page) -> None:
    page.open("#/students")
    page.find("button", "Tomke").click()
    name = page.find("form[aria-label='Tomke'] input[maxlength='80']")
    name.send_keys(Keys.CONTROL, "a")
    name.send_keys("Mira", Keys.ENTER)
    page.sees("no other student has")
    assert any("409" in complaint for complaint in page.complaints())
    name.send_keys(Keys.CONTROL, "a")
    name.send_keys("Tomke Holt", Keys.ENTER)
    page.find("nav button", "Tomke Holt")


def test_a_student_put_away_is_no_longer_to_be_chosen_until_brought_back(page: Page) -> None:
    page.open("#/students")
    page.find("button", "Anselm").click()
    page.find("form[aria-label='Anselm'] button", "Put away").click()
    page.find("main button", "put away (1)")
    page.open("#/song/5/versions")
    page.find("button", "for a student").click()
    page.find("[role=menuitem]", "Mira")
    assert "Anselm" not in page.find("[role=menu]").text
    page.open("#/students")
    page.find("main button", "put away (1)").click()
    page.find("nav button", "Anselm").click()
    page.find("form[aria-label='Anselm'] button", "Bring back").click()
    page.until(lambda: "put away (1)" not in page.find("main").text, "nobody put away any more")
    page.find("nav button", "Anselm")


def test_a_group_is_made_changed_played_and_printed(page: Page) -> None:
    page.open("#/song/4/versions")
    page.find("a", "a group").click()
    page.sees("Nobody plays together yet")
    page.find("section button", "Make a group").click()
    assert (
        len(
            page.find("section[aria-label='All parts, lined up bar by bar']").find_elements(
                By.CSS_SELECTOR, "[data-system]"
            )
        )
        >= 1
    )
    page.find("button", "Add a player").click()
    page.find("[data-seat='3']")
    page.choose("What player 4 plays", "the original")
    page.until(lambda: "player 4" in page.find("[data-rows]").text, "drawn")
    who = page.find("[data-seat='3'] input[list]")
    who.send_keys(Keys.CONTROL, "a")
    who.send_keys("Bas", Keys.TAB)
    page.until(lambda: "Bas" in page.find("[data-rows]").text, "the new name")
    page.chrome.refresh()
    page.until(lambda: page.find("[data-seat='3'] input[list]").get_property("value") == "Bas", "kept")

    page.find("button", "Play together").click()
    page.until(
        lambda: page.chrome.find_elements(By.CSS_SELECTOR, "svg line[y1='8']"), "a cursor over all parts"
    )
    page.find("button", "Stop").click()
    page.find("label", "a page each").click()
    with page.printing("Print"):
        assert len(page.chrome.find_elements(By.CSS_SELECTOR, ".sheet-head")) == 4
    page.open("#/song/5/group")
    page.sees("Nobody plays together yet")
    page.open("#/song/4/group")
    page.find("[data-seat='3']")
    page.find("[data-seat='3'] button", "Take out").click()
    page.until(lambda: len(page.chrome.find_elements(By.CSS_SELECTOR, "[data-seat]")) == 3, "three players")
