"""What comes back: chosen with the keyboard, shown in the tab, spoken, and played place after place."""

from dataclasses import replace
from fractions import Fraction

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from clear_steps.core.score import Bar, Event, Metre
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from tests.browser.hearing import listen, not_heard, recorded, written
from tests.browser.page import Page

BEFORE_THE_OVENS, BURNT_SUGAR = 1, 5


def tab_to(page: Page, text: str) -> None:
    """Press Tab until what has the focus says so."""
    for _ in range(90):
        page.press(Keys.TAB)
        focused = page.chrome.switch_to.active_element
        if text in (focused.get_attribute("aria-label") or focused.text.replace("\n", " ")):
            return
    raise AssertionError(f"no way to {text} by Tab")


def shown(page: Page) -> list[str | None]:
    places = page.chrome.find_elements(By.CSS_SELECTOR, "[data-figure-place]")
    return [place.get_attribute("data-figure-place") for place in places]


def test_a_figure_is_chosen_by_keyboard_and_its_places_are_shown_and_spoken(page: Page) -> None:
    page.open(f"#/song/{BURNT_SUGAR}")
    page.find("section[aria-label='What comes back']")
    tab_to(page, "a Bar 1, four times")
    page.press(Keys.ENTER)
    page.sees("bar 3, bar 7: the same")
    page.sees("bar 5: one string thinner, but for beat 2")
    page.until(lambda: shown(page) == ["bar 1", "bar 3", "bar 5", "bar 7"], "all its places in the tab")
    assert len(page.chrome.find_elements(By.CSS_SELECTOR, "[data-differs='bar 5']")) == 1
    tab_to(page, "bar 5: one string thinner")
    page.press(Keys.ENTER)
    page.until(lambda: page.find("aside h2").text.startswith("Bar 5"), "that place")
    spoken = page.chrome.find_element(By.CSS_SELECTOR, "[data-testid=place-words]")
    assert spoken.get_attribute("aria-live") == "polite"
    assert spoken.get_attribute("textContent") == "bar 5: one string thinner, but for beat 2"


def test_n_goes_from_place_to_place_and_escape_back_to_the_song(page: Page) -> None:
    page.open(f"#/song/{BURNT_SUGAR}")
    page.find("section[aria-label='What comes back']")
    for bar in (1, 3, 5, 7, 1):
        page.press("n")
        page.until(lambda bar=bar: page.find("aside h2").text.startswith(f"Bar {bar}"), f"bar {bar}")
    assert len(shown(page)) == 4
    page.press(Keys.ESCAPE)
    page.until(lambda: shown(page) == [], "nothing chosen")


def test_its_places_are_heard_one_after_the_other(page: Page) -> None:
    song = read_tab(demo_texts()[BEFORE_THE_OVENS - 1]).song
    part = song.parts[0]
    breath = Bar(Metre(1, 4), (Event(Fraction(1)),))
    first, *others = (replace(bar, repeat_start=False, repeat_times=0, endings=()) for bar in part.bars[:4])
    bars = (first, *(each for bar in others for each in (breath, bar)))
    with recorded(page):
        page.open(f"#/song/{BEFORE_THE_OVENS}")
        page.find("button[aria-label^='1 2 3']").click()
        page.find("section[aria-label='What comes back'] button", "Bar 1, eight times").click()
        page.find("button", "Play all").click()
        recording = listen(page, 13)
    missing, within = not_heard(recording, written(song, replace(part, bars=bars, sections=())))
    assert within > 15
    assert len(missing) <= within / 10, f"of {within} notes not heard: {missing}"
