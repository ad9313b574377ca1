"""What is handed out on paper: everything that is drawn, nothing over an edge, on few pages."""

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from clear_steps.core.score import Technique
from tests.browser.page import Page
from tests.browser.test_every_mark import MARKS, TEXTS, looked_for
from tests.every_mark import every_mark_text

PAPERS = ("A4", "Letter")
SHORTEST, LONGEST, FOUR_PLAYERS = 1, 6, 4


def sheet_text(page: Page) -> str:
    return str(page.chrome.find_element(By.CSS_SELECTOR, ".sheets").get_property("textContent"))


def test_everything_that_is_drawn_is_printed(page: Page) -> None:
    page.open()
    page.open(f"#/song/{page.add_song(every_mark_text())}")
    page.find("h1", "Every mark")
    with page.printing("Print"):
        found = page.marks(".sheets")
    wanted = [*(looked_for(technique) for technique in Technique), *MARKS, *TEXTS]
    assert [name for name in wanted if name not in found] == []


@pytest.mark.parametrize(("song", "pages"), [(SHORTEST, 1), (LONGEST, 2)])
def test_the_original_alone_is_printed_from_the_desk(page: Page, song: int, pages: int) -> None:
    page.open(f"#/song/{song}")
    page.find("[data-bar='0']")
    with page.printing("Print"):
        text = sheet_text(page)
        assert "as written" in text
        assert "for a medium hand" in text
        assert "As played:" in text
        assert "Tune: " in text
    assert max(page.pages_printed(paper) for paper in PAPERS) <= pages


def test_sixteen_bars_of_original_and_version_are_two_pages(page: Page) -> None:
    page.open(f"#/song/{LONGEST}/versions")
    page.sees("% kept")
    with page.printing("Print"):
        assert "original" in sheet_text(page)
    assert max(page.pages_printed(paper) for paper in PAPERS) <= 2


def test_four_players_are_printed_under_one_another(page: Page) -> None:
    page.open(f"#/song/{FOUR_PLAYERS}/group")
    page.find("section button", "Make a group").click()
    page.find("[data-seat='2']")
    page.find("button", "Add a player").click()
    page.find("[data-seat='3']")
    with page.printing("Print"):
        names = page.chrome.find_elements(By.CSS_SELECTOR, ".sheets .row-name")
        shown = [name.get_property("textContent") for name in names[:4]]
        assert len(set(shown)) == 4
        assert len(names) % 4 == 0
    assert max(page.pages_printed(paper) for paper in PAPERS) <= 3


def test_cautions_stand_at_the_bar_and_on_the_sheet_and_nowhere_else(page: Page) -> None:
    page.open("#/song/1")
    page.find("h1", "Before the ovens")
    page.choose_whom("a child hand")
    page.bar(1).click()
    page.sees("Bar 2")
    assert page.chrome.find_elements(By.CSS_SELECTOR, "[data-caution]") == []
    page.press(Keys.ARROW_UP)
    page.sees("Bar 1")
    page.find("[data-caution='stretch']", "rather than push")
    with page.printing("Print"):
        text = sheet_text(page)
        assert "rather than push" in text
        assert "Stop at pain" in text
    page.open("#/song/2")
    page.find("h1", "Flour sacks")
    with page.printing("Print"):
        assert "Stop at pain" not in sheet_text(page)


def test_the_ladder_is_printed_in_words(page: Page) -> None:
    page.open("#/ladder")
    page.sees("What Step 4 allows")
    with page.printing("Print"):
        text = sheet_text(page)
        assert all(f"Step {step}" in text for step in range(1, 11))
        assert "stretch:" in text
    assert max(page.pages_printed(paper) for paper in PAPERS) == 2
