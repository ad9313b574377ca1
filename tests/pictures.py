"""`make pictures`: docs/screenshots anew, every main view at 1280x800, from the demo data."""

import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from clear_steps.store.backups import keep_daily_copy
from tests.browser.chrome import headless, served_demo
from tests.browser.page import Page
from tests.every_mark import every_mark_text

FOLDER = Path(__file__).parents[1] / "docs/screenshots"
WIDTH, HEIGHT = 1280, 800
BEFORE_THE_OVENS, FLOUR_SACKS, MARKET_MORNING, DELIVERY_ROUND, BURNT_SUGAR = 1, 2, 3, 4, 5
NEW_SONG = """Title: Porch steps
Tempo: 92

e|----------------|--------5-8-5---|
B|------------5-8-|----5-8-------8-|
G|--------5-7-----|5-7-------------|
D|----5-7---------|----------------|
A|5-7-------------|----------------|
E|----------------|----------------|
"""


def songs(page: Page) -> None:
    page.open()
    page.sees("Rolling pins")


def desk(page: Page) -> None:
    page.open(f"#/song/{BEFORE_THE_OVENS}")
    page.bar(4).click()
    page.find("button", "Show the hardest moment").click()
    page.sees("Bar 5")


def what_comes_back(page: Page) -> None:
    page.open(f"#/song/{BURNT_SUGAR}")
    figure = page.find("section[aria-label='What comes back'] button", "Bar 1, four times")
    figure.click()
    page.chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", figure)  # type: ignore[no-untyped-call]
    page.sees("one string thinner")


def changes(page: Page) -> None:
    """Shapes over the tab, what stays and moves from one to the next, and one change in a sentence."""
    page.open(f"#/song/{MARKET_MORNING}")
    page.find("label", "shapes").click()
    page.bar(1).click()
    page.find("[data-testid=change-words]")
    page.until(lambda: "change of shape" in page.marks(), "the changes")


def lesson(page: Page) -> None:
    page.open(f"#/song/{FLOUR_SACKS}")
    page.find("[aria-label='Chunks'] button")
    page.press("j", "j", "j", "j")
    page.find("h2", "Chunk Riff d")


def lesson_sheet(page: Page) -> None:
    page.open(f"#/song/{DELIVERY_ROUND}/sheet")
    page.find(".paper [data-block='words']")


def desk_text(page: Page) -> None:
    """The Desk in the dark, with the text open."""
    page.chrome.execute_cdp_cmd("Emulation.clearDeviceMetricsOverride", {})
    page.open(f"#/song/{BURNT_SUGAR}")
    page.bar(1).click()
    page.find("button[aria-label='Dark']").click()
    page.find("button", "Text").click()
    page.editor()


def new_song(page: Page) -> None:
    page.open("#/new")
    page.replace_text(NEW_SONG)
    page.sees("hardest in")


def versions(page: Page) -> None:
    page.open(f"#/song/{BURNT_SUGAR}/versions")
    page.sees("For the student")


def ways(page: Page) -> None:
    """Three ways to a Step, none taken yet."""
    page.open(f"#/song/{DELIVERY_ROUND}/versions")
    page.sees("% kept")
    page.find("button", "Find ways to Step 3.0").click()
    page.find("[data-way] button", "Take this way")


def side_by_side(page: Page) -> None:
    page.open(f"#/song/{BURNT_SUGAR}/versions")
    page.find("button", "a staircase").click()
    page.find("[role=menuitem]", "Steps 2, 3, 4").click()
    page.sees("From the easiest to the original")


def group(page: Page) -> None:
    """A class of three: the original, a version within limits, chords to strum."""
    page.open(f"#/song/{DELIVERY_ROUND}/versions")
    page.find("button", "for a student").click()
    page.find("[role=menuitem]", "Tomke").click()
    page.sees("Everything is within what Tomke can play.")
    page.find("button", "a layer").click()
    page.find("[role=menuitem]", "chords to strum").click()
    page.sees("Written as asked")
    page.find("a", "a group").click()
    page.find("section button", "Make a group").click()
    page.find("[data-seat='2']")
    while len(seats := page.chrome.find_elements(By.CSS_SELECTOR, "[data-seat]")) > 3:
        page.find(f"[data-seat='{len(seats) - 1}'] button", "Take out").click()
        page.until(
            lambda more=len(seats): len(page.chrome.find_elements(By.CSS_SELECTOR, "[data-seat]")) < more,
            "a seat less",
        )  # type: ignore[misc]
    for seat, (who, plays) in enumerate(
        [("Anselm", "the original"), ("Tomke", "what Tomke"), ("Mira", "chords to strum")]
    ):
        page.find(f"[data-seat='{seat}'] button[aria-label^='What ']").click()
        page.find("[role=option]", plays).click()
        name = page.find(f"[data-seat='{seat}'] input[list]")
        name.send_keys(Keys.CONTROL, "a")
        name.send_keys(who, Keys.TAB)
        page.until(lambda who=who: who in page.find("[data-rows]").text, who)  # type: ignore[misc]


def students(page: Page) -> None:
    page.open("#/students")
    page.find("button", "Tomke").click()
    page.find("form[aria-label='Tomke']")


def backup(page: Page) -> None:
    keep_daily_copy(page.served.database)
    page.open("#/library")
    page.find("[aria-label=Copies]")
    # Where the picture was taken is nobody's affair.
    usual = "~/.local/share/clear-steps/clear-steps.sqlite3"
    page.chrome.execute_script("document.querySelector('main .font-mono').textContent = arguments[0]", usual)


def ladder(page: Page) -> None:
    page.open("#/ladder")
    page.sees("What Step 4 allows")


def every_mark(page: Page) -> None:
    """Every length, technique and mark on one page."""
    page.open()
    metrics = {"width": WIDTH, "height": 3080, "deviceScaleFactor": 1, "mobile": False}
    page.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    song = page.add_song(every_mark_text())
    page.open(f"#/song/{song}")
    page.find("h1", "Every mark")


def desk_phone(page: Page) -> None:
    metrics = {"width": 390, "height": 844, "deviceScaleFactor": 1, "mobile": True}
    page.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    page.open(f"#/song/{BURNT_SUGAR}")
    page.find("[data-bar='0']")


VIEWS: tuple[Callable[[Page], None], ...] = (
    songs,
    desk,
    changes,
    what_comes_back,
    lesson,
    lesson_sheet,
    new_song,
    ways,
    versions,
    side_by_side,
    group,
    students,
    ladder,
    backup,
    every_mark,
    desk_phone,
    desk_text,
)


def main(wanted: list[str]) -> None:
    with (
        tempfile.TemporaryDirectory() as profile,
        headless(Path(profile)) as chrome,
        tempfile.TemporaryDirectory() as data,
        served_demo(Path(data)) as served,
    ):
        frame = chrome.execute_script("return [outerWidth - innerWidth, outerHeight - innerHeight]")
        chrome.set_window_size(WIDTH + frame[0], HEIGHT + frame[1])
        for view in VIEWS:
            name = view.__name__.replace("_", "-")
            if wanted and name not in wanted:
                continue
            page = Page(chrome, served)
            page.leave()
            kept = {"origin": served.address, "storageTypes": "local_storage"}
            chrome.execute_cdp_cmd("Storage.clearDataForOrigin", kept)  # each view stands for itself
            view(page)
            time.sleep(1)  # fonts, and motion that comes to rest
            chrome.save_screenshot(str(FOLDER / f"{name}.png"))
            print(f"docs/screenshots/{name}.png is taken")


if __name__ == "__main__":
    main(sys.argv[1:])
