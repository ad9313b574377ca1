"""The main flow, driven in a real browser as a teacher would."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from clear_steps.demo import demo_texts
from tests.browser.page import Page

STRINGS = "eBGDAE"


def tab(thinnest: str, third: str, title: str = "Porch steps") -> str:
    rows = {"e": thinnest, "G": third}
    lines = "\n".join(f"{name}|{rows.get(name, '-' * len(thinnest))}|" for name in STRINGS)
    return f"Title: {title}\nTempo: 100\nTime: 4/4\nTuning: standard\n\n{lines}\n"


WIDE = tab("5-5-5-5-5-5-5-5-", "1-1-1-1-1-1-1-1-")


def test_paste_errors_preview_save_evidence_hand_edit_reload(page: Page) -> None:
    page.open()
    page.sees("Rolling pins")
    page.find("a", "New song").click()
    page.replace_text(WIDE.replace("5-5-5", "5-99-", 1))
    page.sees("line 6, column 5")
    page.sees("fret 99 is not on the neck")
    assert not page.find("button", "Save song").is_enabled()
    page.replace_text(WIDE)
    page.sees("hardest in bar 1")
    page.until(lambda: page.find("button", "Save song").is_enabled())
    page.find("button", "Save song").click()

    page.find("h1", "Porch steps")
    page.bar(0).click()
    page.sees("Bar 1")
    page.sees(
        "the hand holds frets 1 and 5 at once with the first and little finger: 126 mm of a comfortable 100"
    )
    page.sees("126 mm of your 100")
    usual = page.step()
    page.choose_whom("a child hand")
    page.until(lambda: page.step() > usual, "a higher Step for a child's hand")
    page.sees("find other fingers or another place rather than push")

    page.press(Keys.ESCAPE)
    page.find("button", "Text").click()
    page.replace_text(tab("2-2-2-2-2-2-2-2-", "1-1-1-1-1-1-1-1-"))
    page.sees("writing 1, changed")
    page.until(lambda: page.step() < usual, "the climb follows the text under the pen")
    page.until(lambda: page.find("button", "Save").is_enabled())
    page.find("button", "Save").click()
    page.sees("writing 2, saved")

    page.chrome.refresh()
    page.find("h1", "Porch steps")
    page.find("button", "Text").click()
    page.sees("writing 2, saved")
    page.choose("Bring back", "writing 1")
    page.until(lambda: "5-5-5-5-5-5-5-5-" in page.editor().text, "the older text is back in the editor")
    page.sees("writing 2, changed")


def test_a_stale_save_is_said_and_nothing_typed_is_lost(page: Page) -> None:
    page.open("#/song/1")
    page.find("button", "Text").click()
    page.replace_text(WIDE)
    page.until(lambda: page.find("button", "Save").is_enabled())
    body = {"based_on": 1, "text": demo_texts()[0]}
    page.chrome.execute_async_script(
        "const done = arguments[1]; fetch('/api/songs/1/revisions', {method: 'POST', headers:"
        " {'Content-Type': 'application/json'}, body: JSON.stringify(arguments[0])}).then(done)",
        body,
    )
    page.find("button", "Save").click()
    page.sees("writing 2 has been saved since; nothing was overwritten")
    assert "5-5-5-5-5-5-5-5-" in page.editor().text
    # The refused save is an answer of 409, which the browser writes down as a failed request.
    assert [message for message in page.complaints() if "409" not in message] == []


def test_the_whole_desk_by_keyboard_alone(page: Page) -> None:
    page.open()
    page.sees("Burnt sugar")
    page.tab_to("Burnt sugar").send_keys(Keys.ENTER)
    page.find("h1", "Burnt sugar")
    page.find("[data-bar='0']")
    page.press(Keys.ARROW_RIGHT)
    page.sees("5th string, open, sounds A2")
    page.press(Keys.ARROW_DOWN)
    page.sees("Bar 2")
    page.sees("two whole-tone bends")
    page.press_shifted(Keys.ARROW_DOWN)
    page.until(lambda: len(page.chrome.find_elements(By.CSS_SELECTOR, "[data-bar][aria-pressed=true]")) == 2)
    page.press("?")
    page.sees("Keys of the Desk")
    page.press(Keys.ESCAPE)
    page.until(lambda: "Keys of the Desk" not in page.find("body").text)
    page.press("w")
    page.sees("writing 1, saved")
    page.tab_to("Play")


def test_play_moves_a_cursor_and_stops(page: Page) -> None:
    page.open("#/song/2")
    page.bar(1).click()
    page.find("button[aria-label='1 2 3: count-in']").click()
    page.find("button[aria-label='Repeat']").click()
    page.find("button", "Play").click()
    page.find("button", "Stop")

    def cursor() -> str | None:
        lines = page.chrome.find_elements(By.CSS_SELECTOR, "line[stroke='var(--changed)']")
        return lines[0].get_attribute("x1") if lines else None

    first = page.until(cursor, "a cursor on the tab")
    page.until(lambda: cursor() not in (None, first), "the cursor moves on")
    page.find("button", "Stop").click()
    page.find("button", "Play")
    page.until(lambda: cursor() is None, "no cursor when nothing plays")


def test_a_slower_practice_tempo_lowers_the_step_at_once(page: Page) -> None:
    page.open("#/song/6")
    before = page.step()
    slider = page.find("[role=slider][aria-label^='Practice tempo']")
    slider.send_keys(*[Keys.ARROW_LEFT] * 10)
    page.sees("63 of 126")
    page.until(lambda: page.step() < before, "an easier Step at half the tempo")


def test_every_demo_piece_is_engraved_bar_by_bar(page: Page) -> None:
    counts = {1: 8, 2: 9, 3: 15, 4: 8, 5: 12, 6: 16}
    with page.sized(1280, 3000):  # only what is near the window is drawn
        for song, bars in counts.items():
            page.open(f"#/song/{song}")
            page.until(
                lambda wanted=bars: len(page.chrome.find_elements(By.CSS_SELECTOR, "[data-bar]")) == wanted,
                f"{bars} bars",
            )


def test_songs_are_found_by_name_and_an_empty_search_says_so(page: Page) -> None:
    page.open()
    page.sees("Market morning")
    find = page.find("input[type=search]")
    find.send_keys("sugar")
    page.until(lambda: len(page.chrome.find_elements(By.CSS_SELECTOR, "main li a")) == 1)
    find.send_keys("xyz")
    page.sees("No song is called")


def test_a_dropped_file_is_read(page: Page) -> None:
    page.open("#/new")
    page.editor()
    page.chrome.execute_script(
        "const data = new DataTransfer(); data.items.add(new File([arguments[0]], 'porch.tab', {type:"
        " 'text/plain'}));document.querySelector('main').dispatchEvent(new DragEvent('drop', {dataTransfer:"
        " data, bubbles: true, cancelable: true}))",
        WIDE,
    )
    page.sees("hardest in bar 1")


def test_songs_stand_on_terraces_and_are_filtered(page: Page) -> None:
    page.open()
    page.sees("Rolling pins")

    def steps() -> list[str | None]:
        rows = page.chrome.find_elements(By.CSS_SELECTOR, "main ol > li[aria-label]")
        return [terrace.get_attribute("aria-label") for terrace in rows]

    page.until(lambda: steps() == ["Step 3", "Step 4", "Step 5", "Step 6", "Step 7"], "terraces rise")
    page.choose("Only songs with this Step", "Step 4")
    page.until(
        lambda: len(page.chrome.find_elements(By.CSS_SELECTOR, "main ol article")) == 2, "the songs of Step 4"
    )
    page.choose("Only songs with this Step", "any Step")
    page.choose("Only songs with this technique", "tap")
    page.until(
        lambda: len(page.chrome.find_elements(By.CSS_SELECTOR, "main ol article")) == 1, "one song with taps"
    )
    page.choose("Only songs with this tuning", "drop D")
    page.sees("No song is like this, with what you chose above")
    page.find("button", "Show all").click()
    page.until(lambda: len(page.chrome.find_elements(By.CSS_SELECTOR, "main ol article")) == 6, "all songs")


def test_the_picture_shows_the_moment_that_the_sentence_tells_of(page: Page) -> None:
    """Another note may be chosen; then it is said, and one click leads to the hardest moment."""
    page.open("#/song/1")
    page.bar(4).click()
    page.find("button", "Show the hardest moment").click()
    page.sees("the hand holds frets 2 and 5 at once with the first and little finger: 92 mm")
    page.sees("92 mm of your 100")
    assert not page.chrome.find_elements(By.CSS_SELECTOR, "[data-testid=picture-moment]")


def test_what_there_is_to_learn_stands_beside_the_step_and_the_guess_of_a_hand_is_told(page: Page) -> None:
    page.open("#/song/5")
    assert page.find("[data-testid=to-learn]").text.endswith("sittings.")
    tenths = "A|3---5---7---5---|", "B|5---6---8---6---|"
    lines = ["e|----------------|", tenths[1], *(f"{name}|----------------|" for name in "GD"), tenths[0]]
    song = page.add_song("Title: Tenths\nTempo: 80\n\n" + "\n".join([*lines, "E|----------------|"]))
    page.open(f"#/song/{song}")
    page.sees("the strings are plucked with the fingers")
