"""What is brought becomes a song: an untidy tab mended by its fields, several tunes, guitars as parts, a big
file stopped."""

from pathlib import Path

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from clear_steps.formats import write_song
from clear_steps.formats.tabtext import read_tab
from tests.browser.page import Page

UNTIDY = """Paper lantern
tempo about 92
Drop D tunning

Intro (x2)
e|-----------------|-----------------|
B|-----1-------1---|-------0-------0--|
G|---0-------0-----|-----0---0---0---|
D|-----------------|---2-------2-----|
A|-3-------3-------|-----------------|
D|-----------------|-3!--------------|
"""
STRINGS = "\n".join(f"{name}|{'-3---3---3---3---' if name == 'A' else '-' * 17}|" for name in "GDAE")
GUITARS = f"""Title: Two at the mill
Tempo: 100
Time: 4/4

Gtr 1
e|-0---2---3---5---|
B|-----------------|
G|-----------------|
D|-----------------|
A|-----------------|
E|-----------------|

Bass
{STRINGS}
"""
TUNES = "".join(
    f"X:{at}\nT:{title}\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\n{notes}|\n\n"
    for at, (title, notes) in enumerate(
        (("First lamp", "CDEF"), ("Second lamp", "GABc"), ("Third lamp", "cBAG")), 1
    )
)


def field(page: Page, name: str) -> str:
    return page.find(f"input[id='heading-{name}']").get_attribute("value") or ""


def fill(page: Page, name: str, value: str) -> None:
    box = page.find(f"input[id='heading-{name}']")
    box.send_keys(Keys.CONTROL + "a")
    box.send_keys(value + Keys.ENTER)


def test_an_untidy_tab_is_read_its_guesses_mended_by_the_fields_and_saved(page: Page) -> None:
    page.open("#/new")
    page.find("h1", "New song")
    page.replace_text(UNTIDY)
    page.sees("the string lines are not equally long")
    page.sees("'!' is no sign of a string line")
    assert (field(page, "Title"), field(page, "Tempo"), field(page, "Time")) == ("Paper lantern", "92", "4/4")
    page.find("button[aria-label='Tempo is right: 92']").click()
    page.until(lambda: "Tempo: 92" in page.editor().text)
    assert field(page, "Tuning") == "drop D"
    fill(page, "Tuning", "D A D G A D")
    page.until(lambda: "Tuning: DADGAD" in page.editor().text)
    page.until(lambda: field(page, "Tuning") == "DADGAD")
    page.expects("422")
    fill(page, "Capo", "40")
    page.sees("capo is '40'; expected a number from 0 to 12")
    fill(page, "Capo", "2")
    page.until(lambda: "Capo: 2" in page.editor().text)
    page.until(lambda: page.find("button", "Save song").is_enabled())
    page.find("button", "Save song").click()
    page.find("h1", "Paper lantern")


def test_the_tunes_of_a_file_are_listed_one_is_looked_at_and_all_are_saved(
    page: Page, tmp_path: Path
) -> None:
    file = tmp_path / "lamps.abc"
    file.write_text(TUNES)
    page.open("#/new")
    page.find("h1", "New song")
    page.chrome.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(file))
    page.sees("3 songs are in here")
    page.find("section[aria-label='Songs found'] button", "Second lamp").click()
    page.until(lambda: field(page, "Title") == "Second lamp")
    page.find("button", "Save all 3").click()
    for title in ("First lamp", "Second lamp", "Third lamp"):
        page.sees(title)


def test_two_guitars_become_parts_or_one_of_them_is_taken(page: Page) -> None:
    page.open("#/new")
    page.find("h1", "New song")
    page.replace_text(GUITARS)
    page.sees("Gtr 1: 1 bar")
    page.sees("Bass: 1 bar")
    page.until(lambda: page.find("button", "Save song").is_enabled())
    page.find("button", "Save song").click()
    page.find("h1", "Two at the mill")
    page.choose("Part", "Bass")
    page.find('button[aria-label="Part: Bass"]')
    page.open("#/new")
    page.replace_text(GUITARS)
    page.sees("Bass: 1 bar")
    page.find("[aria-label='Parts'] > span:first-child button", "leave out").click()
    page.until(lambda: "Gtr 1" not in page.editor().text and "Bass" in page.editor().text)


def test_a_big_file_says_that_it_is_read_and_can_be_stopped(page: Page, tmp_path: Path) -> None:
    bar = "0-2-3-5-7-8-10-12-3-2-"
    rows = "\n".join(f"{name}|{(bar if name == 'e' else '-' * len(bar)) + '|'}" for name in "eBGDAE")
    song = read_tab("Title: Long road\nTempo: 90\nTime: 4/4\nTuning: standard\n\n" + f"{rows}\n\n" * 300).song
    file = tmp_path / "long.musicxml"
    content = write_song("long.musicxml", song).decode()
    # Without its tab every note has to be placed, which takes a while.
    file.write_text("\n".join(line for line in content.split("\n") if "<string>" not in line))
    page.open("#/new")
    page.find("h1", "New song")
    page.chrome.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(file))
    page.sees("Reading long.musicxml")
    page.find("button", "Stop").click()
    page.sees("Paste a tab below")
    assert page.editor().text.strip().startswith("Paste a tab here")
