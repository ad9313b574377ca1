"""Nothing is thrown away and nobody is locked out: starts, tabs, copies, sheets, playing, a way back."""

import json
import shutil
import signal
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from clear_steps.core.grade import Limits
from clear_steps.core.hand import Player
from clear_steps.store import Student, Students
from tests.browser.page import Page
from tests.patience import comes_true, patience_s
from tests.test_serving import answers, free_port
from tests.web.test_api import TAB
from tests.web.test_whom_api import WIDE

SONG = 5  # Burnt sugar
TWO_WAYS = """Title: Two ways to hold it
Time: 4/4
Tuning: standard

fin|1/2     |        |2/3     |
chd|Am7     |Em      |C6      |
e|0-------|0-------|0-------|
B|1-------|0-------|1-------|
G|0-------|0-------|0-------|
D|2-------|2-------|2-------|
A|0-------|2-------|0-------|
E|--------|0-------|--------|
"""


@contextmanager
def the_demo(directory: Path, port: int) -> Iterator[subprocess.Popen[bytes]]:
    """The demo by the command that the README's `make demo` runs."""
    command = [shutil.which("clear-steps") or f"{sys.prefix}/bin/clear-steps", "demo", "--port", str(port)]
    process = subprocess.Popen([*command, "--data", str(directory)], stdout=subprocess.DEVNULL)
    try:
        answers(port)
        yield process
    finally:
        process.send_signal(signal.SIGKILL)
        process.wait(patience_s(20))


def titles(page: Page) -> list[str]:
    return [card["title"] for card in page.asks("songs")["songs"]]


def new_song(page: Page, text: str) -> None:
    page.open("#/new")
    page.replace_text(text)
    page.until(lambda: page.find("button", "Save song").is_enabled(), "it can be saved")


def test_a_song_typed_into_the_demo_is_there_after_the_server_was_killed(page: Page, tmp_path: Path) -> None:
    port = free_port()
    page.address = f"http://127.0.0.1:{port}"
    with the_demo(tmp_path / "demo", port):
        new_song(page, TAB)
        page.find("button", "Save song").click()
        page.find("h1", "Porch")
        page.leave()
    with the_demo(tmp_path / "demo", port):
        page.open("#/")
        page.sees("This is the demo")
        page.find("h2", "Porch")
        page.find("h2", "Rolling pins")
        page.leave()


def test_two_tabs_are_two_songs_and_forgetting_one_keeps_the_other(page: Page) -> None:
    first = page.chrome.current_window_handle
    new_song(page, TAB)
    page.chrome.switch_to.new_window("tab")
    second = page.chrome.current_window_handle
    page.open("#/new")
    page.editor()
    assert "Porch" not in page.editor().text
    page.replace_text(TAB.replace("Porch", "Lantern"))
    page.until(lambda: page.find("button", "Save song").is_enabled(), "it can be saved")
    page.chrome.refresh()
    page.sees("Picked up where you left it")
    page.find("button", "Forget it").click()
    page.chrome.switch_to.window(first)
    page.chrome.refresh()
    page.until(lambda: "Porch" in page.editor().text, "the first tab's text")
    page.chrome.switch_to.window(second)
    page.replace_text(TAB.replace("Porch", "Lantern"))
    for window, title in ((second, "Lantern"), (first, "Porch")):
        page.chrome.switch_to.window(window)
        page.until(lambda: page.find("button", "Save song").is_enabled(), "it can be saved")
        page.find("button", "Save song").click()
        page.find("h1", title)
    assert {"Lantern", "Porch"} <= set(titles(page))
    page.chrome.switch_to.window(second)
    page.chrome.close()
    page.chrome.switch_to.window(first)


def test_what_a_tab_that_is_gone_left_is_taken_over_by_the_next(page: Page) -> None:
    first = page.chrome.current_window_handle
    page.chrome.switch_to.new_window("tab")
    new_song(page, TAB)
    page.chrome.close()
    page.chrome.switch_to.window(first)
    page.open("#/new")
    page.sees("Picked up where you left it")
    assert "Porch" in page.editor().text
    page.find("button", "Forget it").click()


def test_a_backup_is_restored_and_the_restore_undone(page: Page, tmp_path: Path) -> None:
    page.open("#/")
    page.find("a", "Backup").click()
    page.find("a", "Save a backup")
    backup = tmp_path / "backup.sqlite3"
    script = """const done = arguments[0]; fetch('/api/library/backup').then((r) => r.arrayBuffer()).then(
        (b) => done([...new Uint8Array(b)]))"""
    backup.write_bytes(bytes(page.chrome.execute_async_script(script)))
    page.add_song(TAB)
    page.chrome.refresh()
    page.sees("7 songs, with every writing")
    page.chrome.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(backup))
    page.sees("It holds 6 songs")
    page.find("[role=dialog] button", "Restore").click()
    page.sees("6 songs restored")
    assert "Porch" not in titles(page)
    page.find("footer button", "Undo").click()
    page.sees("7 songs, with every writing")
    assert "Porch" in titles(page)
    wrong = tmp_path / "wrong.sqlite3"
    wrong.write_bytes(b"no backup at all" * 100)
    page.expects("422")
    page.chrome.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(wrong))
    page.sees("expected a backup of Clear Steps")
    assert len(titles(page)) == 7


def test_an_empty_library_offers_three_ways_to_begin(empty_page: Page, tmp_path: Path) -> None:
    page = empty_page
    page.open("#/")
    page.sees("No song yet")
    page.find("a", "Paste a tab")
    files = []
    for name in ("Porch", "Lantern"):
        file = tmp_path / f"{name}.tab"
        file.write_text(TAB.replace("Porch", name))
        files.append(str(file))
    page.chrome.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys("\n".join(files))
    page.find("h2", "Lantern")
    assert titles(page) == ["Lantern", "Porch"]


def test_the_demo_songs_can_be_put_into_an_empty_library(empty_page: Page) -> None:
    page = empty_page
    page.open("#/")
    page.find("button", "Put the demo songs in").click()
    page.find("h2", "Rolling pins")
    page.sees("demo song, ")


@pytest.mark.parametrize(("width", "height"), [(390, 844), (1280, 800)])
def test_playing_is_stopped_with_one_touch_wherever_the_reader_is(
    page: Page, width: int, height: int
) -> None:
    with page.sized(width, height):
        page.open(f"#/song/{page.add_song(long_song())}")
        page.bar(0)
        page.find("header button", "Play").click()
        page.until(lambda: stop_in_sight(page, height), "Stop in sight")
        assert comes_true(lambda: marks_passed(page) > 0), "it plays"
        scrolled = "return [scrollY, document.querySelector('section[aria-label=Tab]').scrollTop]"
        page.chrome.execute_script(
            "scrollTo(0, 900); document.querySelector('section[aria-label=Tab]').scrollTo(0, 700)"
        )
        there = page.chrome.execute_script(scrolled)
        assert max(there) > 300
        heard = marks_passed(page)
        assert comes_true(lambda: marks_passed(page) > heard + 2), "it goes on playing"
        assert page.chrome.execute_script(scrolled) == there
        stop_in_sight(page, height)[0].click()  # type: ignore[index]
        page.find("header button", "Play")


def long_song() -> str:
    bars = "0-1-3-5-|" * 4
    system = "\n".join(f"{letter}|{bars if letter == 'e' else '--------|' * 4}" for letter in "eBGDAE")
    return "Title: A long one\nTempo: 200\nTime: 4/4\nTuning: standard\n\n" + "\n\n".join([system] * 12)


def marks_passed(page: Page) -> int:
    """How often the cursor has moved since it was first asked."""
    script = """
    if (window.cursorMoves === undefined) {
      window.cursorMoves = 0
      new MutationObserver(() => (window.cursorMoves += 1)).observe(
        document.querySelector('main'), { subtree: true, childList: true, attributes: true })
    }
    return window.cursorMoves"""
    return int(page.chrome.execute_script(script))


def stop_in_sight(page: Page, height: int):  # type: ignore[no-untyped-def]
    """The buttons that stop and lie wholly within the window."""
    found = page.chrome.find_elements(By.CSS_SELECTOR, "button")
    stops = [each for each in found if "Stop" in each.text and each.is_displayed()]
    box = "const b = arguments[0].getBoundingClientRect(); return [b.top, b.bottom]"
    within = []
    for each in stops:
        top, bottom = page.chrome.execute_script(box, each)
        if top >= 0 and bottom <= height:
            within.append(each)
    return within


def test_the_sheet_opens_for_a_song_with_one_shape_in_two_fingerings(page: Page) -> None:
    song = page.add_song(TWO_WAYS)
    shapes = page.asks(f"songs/{song}")["analysis"]["parts"][0]["shapes"]
    assert len(shapes) == 3
    assert len({json.dumps(shape["frets"]) for shape in shapes}) == 2, "the song has the case"
    page.open(f"#/song/{song}/sheet")
    page.find("article, .lesson-sheet", "Two ways to hold it")
    page.find("[data-block=shapes]")


def test_a_child_is_handed_and_seated_only_what_is_within_their_reach(page: Page) -> None:
    with page.served.database.session() as session:
        child = Students(session).add(Student("Juna", Player(100.0), Limits(), comfortable_step=2.0)).id
    page.open("#/song/1/sheet")
    page.choose_whom("Juna")
    page.sees("past a comfortable Step 2")
    page.choose("What is handed out", "version at Step")
    page.sees("past a comfortable Step 2")  # the version is past her too
    assert page.asks(f"students/{child}/songs/1/parts/0") == {"proposed": None}
    page.find("[aria-label='Past who gets it'] a", "Write a version for them")
    group = {"name": "Thursday", "seats": [{"who": "Juna", "student_id": child}]}
    page.asks("songs/1/groups", group)
    page.open("#/song/1/group")
    page.sees("for Juna")
    assert "within reach" not in page.find("main").text


def test_a_version_within_reach_is_handed_out_by_one_click(page: Page) -> None:
    song = page.asks("songs", {"text": WIDE})["id"]
    with page.served.database.session() as session:
        Students(session).add(Student("Enno", Player(75.0), Limits()))
    page.asks(
        f"songs/{song}/changes",
        {"first": 0, "last": 0, "kind": "root", "says": "the root alone, one string"},
    )
    page.open(f"#/song/{song}/sheet")
    page.choose_whom("Enno")
    page.find("[aria-label='Past who gets it'] button", "Hand out the version at Step 1.").click()
    page.sees("one change: the root alone, one string")
    assert not page.chrome.find_elements(By.CSS_SELECTOR, "[aria-label='Past who gets it']")


def test_a_reload_and_the_way_back_find_what_was_chosen(page: Page) -> None:
    page.open(f"#/song/{SONG}")
    page.bar(2).click()
    page.press("-")
    page.until(lambda: "bar=2" in page.chrome.current_url, "the bar stands in the address")
    tempo = page.find("[data-testid=tempo]").text
    page.chrome.refresh()
    page.until(lambda: page.find("[data-testid=tempo]").text == tempo, "the tempo")
    page.find("[aria-label=Evidence]", "Bar 3")
    page.find("a", "Make it easier").click()
    page.find("h1")
    page.chrome.back()
    page.find("[aria-label=Evidence]", "Bar 3")
    page.open("#/")
    page.find("input[type=search]").send_keys("Rolling")
    page.find("h2", "Rolling pins").click()
    page.find("h1", "Rolling pins")
    page.chrome.back()
    page.until(lambda: page.find("input[type=search]").get_attribute("value") == "Rolling", "the filter")


def test_a_cut_and_a_choice_of_the_sheet_are_undone(page: Page) -> None:
    page.open(f"#/song/{SONG}")
    page.bar(1).click()
    before = len(page.asks(f"songs/{SONG}/lesson")["chunks"])
    page.press("x")
    page.sees("chunk")
    page.find("footer button", "Undo").click()
    assert comes_true(lambda: len(page.asks(f"songs/{SONG}/lesson")["chunks"]) == before)
    page.open(f"#/song/{SONG}/sheet")
    page.find("[data-block=words]")
    page.choose("Language", "Español")
    page.sees("What stands on the sheet is changed")
    page.find("footer button", "Undo").click()
    assert comes_true(lambda: page.asks(f"songs/{SONG}/sheet")["language"] == "en")


def test_a_screen_that_cannot_fetch_says_so(page: Page) -> None:
    page.expects("404")
    page.open("#/song/99/sheet")
    page.sees("there is no song 99")
    page.press(Keys.ESCAPE)


def test_a_reload_finds_the_version_that_was_shown(page: Page) -> None:
    first, second = (page.add_version(SONG, bar) for bar in (0, 2))

    def shown() -> str:
        return page.find("[aria-label='What was given up']").text

    page.open(f"#/song/{SONG}/versions?version={first}")
    page.until(lambda: shown(), "a version is shown")
    of_the_first = shown()
    page.chrome.refresh()
    page.until(lambda: shown() == of_the_first, "the same after a reload")
    assert f"version={first}" in page.chrome.current_url
    page.open(f"#/song/{SONG}/versions?version={second}")
    page.until(lambda: shown() not in ("", of_the_first), "another in the address")
    of_the_last = shown()
    page.open(f"#/song/{SONG}/versions?version=999999")
    page.until(lambda: shown() == of_the_last, "the last, where that one is not there")
