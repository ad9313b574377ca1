"""Every screen and state as those meet it who use keys, a screen reader, a phone, or no mouse."""

from collections.abc import Callable
from pathlib import Path

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.page import Page
from tests.browser.test_desk import WIDE
from tests.every_mark import every_mark_text

AXE = Path(__file__).parents[2] / "frontend/node_modules/axe-core/axe.min.js"
RUN = """
const done = arguments[arguments.length - 1]
axe.run(document, {resultTypes: ['violations']}).then(({violations}) => done(violations
  .filter(({impact}) => impact === 'serious' || impact === 'critical')
  .map(({id, nodes}) => `${id}: ${nodes.slice(0, 3).map((node) => node.html.slice(0, 160)).join(' | ')}`)))
"""
SCREENS = (
    "#/",
    "#/new",
    "#/song/3",
    "#/song/7",
    "#/song/5/versions",
    "#/song/3/sheet",
    "#/students",
    "#/ladder",
)
SIDEWAYS = "return document.documentElement.scrollWidth - document.documentElement.clientWidth"


def serious(page: Page) -> list[str]:
    """What axe calls serious or critical on the page as it stands."""
    page.chrome.execute_script(AXE.read_text())
    found: list[str] = page.chrome.execute_async_script(RUN)
    return found


def bar(page: Page) -> None:
    page.bar(1).click()
    page.find("button", "Other ways to play").click()
    page.sees("As written")


def text(page: Page) -> None:
    page.find("button", "Text").click()
    page.editor()


def whom(page: Page) -> None:
    page.find("button[data-whom]").click()
    page.find("[aria-label='Students']")


def keys(page: Page) -> None:
    page.find("button[aria-label='Keys']").click()
    page.sees("Keys of the Desk")


def version(page: Page) -> None:
    page.sees("kept")
    page.find("button", "Change it by hand").click()


def side_by_side(page: Page) -> None:
    page.find("button", "Side by side").click()


def group(page: Page) -> None:
    page.find("section button", "Make a group").click()
    page.find("[data-seat='0']")


def nothing(page: Page) -> None:
    page.find("h1")


STATES: dict[str, tuple[str, Callable[[Page], None]]] = {
    "songs": ("#/", nothing),
    "new song": ("#/new", nothing),
    "desk": ("#/song/1", nothing),
    "desk with a bar": ("#/song/1", bar),
    "desk with its text": ("#/song/1", text),
    "desk, for whom": ("#/song/1", whom),
    "desk, keys": ("#/song/1", keys),
    "versions": ("#/song/5/versions", version),
    "side by side": ("#/song/5/versions", side_by_side),
    "group": ("#/song/4/group", group),
    "students": ("#/students", nothing),
    "ladder": ("#/ladder", nothing),
}


# Colours are all that the dark changes: one state of each screen that has its own.
IN_THE_DARK = ("songs", "desk with a bar", "versions", "ladder")


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_nothing_serious_on_any_screen(page: Page, theme: str) -> None:
    page.open()
    page.chrome.execute_script(f"localStorage.setItem('clear-steps-theme', '{theme}')")
    found = {}
    states = STATES if theme == "light" else {name: STATES[name] for name in IN_THE_DARK}
    for name, (path, reach) in states.items():
        page.leave()
        page.open(path)
        page.until(lambda: "Fetching" not in page.find("body").text, "everything is there")
        reach(page)
        if problems := serious(page):
            found[name] = problems
    page.chrome.execute_script("localStorage.clear()")
    assert found == {}


@pytest.mark.parametrize("width", [390, 640, 1024])
def test_no_screen_scrolls_sideways(page: Page, width: int) -> None:
    """640 is what 200 % of zoom leaves of 1280."""
    page.add_song(every_mark_text())
    found = {}
    with page.sized(width, 844):
        for path in SCREENS if width == 390 else ("#/song/3", "#/song/5/versions"):
            page.leave()
            page.open(path)
            page.until(lambda: "Fetching" not in page.find("body").text, "everything is there")
            page.find("h1")
            if (over := page.chrome.execute_script(SIDEWAYS)) > 0:
                found[path] = over
    assert found == {}


def test_a_teacher_with_a_phone_goes_from_paste_to_print(page: Page) -> None:

    with page.sized(390, 844):
        page.open("#/new")
        page.replace_text(WIDE)
        page.until(lambda: page.find("button", "Save song").is_enabled())
        page.find("button", "Save song").click()
        page.find("h1", "Porch steps")
        assert page.step() > 1
        page.find("a", "Make it easier").click()
        page.find("button", "Find ways to Step").click()
        page.find("[data-way] button", "Take this way").click()
        page.sees("% kept")
        with page.printing("Print"):
            assert page.chrome.find_elements(By.CSS_SELECTOR, ".sheets .row-name")


def test_escape_closes_what_lies_over_the_page_and_the_focus_comes_back(page: Page) -> None:
    page.open("#/song/1")
    whom(page)
    page.press(Keys.ESCAPE)
    page.until(lambda: not page.chrome.find_elements(By.CSS_SELECTOR, "[aria-label='Students']"), "closed")
    assert (page.focused().get_attribute("aria-label") or "").endswith(", for whom")
    keys(page)
    page.press(Keys.ESCAPE)
    page.until(lambda: "Keys of the Desk" not in page.find("body").text, "closed")
    page.until(lambda: page.focused().get_attribute("aria-label") == "Keys", "back on its button")


def test_the_focus_begins_at_the_name_of_a_screen_and_comes_back_from_the_text(page: Page) -> None:
    page.open("#/song/1")
    page.find("h1", "Before the ovens")
    page.until(lambda: page.focused().tag_name == "h1", "at the name")
    text(page)
    page.find("section[aria-label='Tab text'] button", "Close").click()
    page.until(lambda: "Text" in page.focused().text, "back where it was opened")
