"""An easier version beside the original, driven as a teacher would."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.page import Page

PROBE = "window.printed = 0; window.print = () => { window.printed += 1; window.dispatchEvent(new Event('beforeprint')) }"


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
    page.find("a", "Easier versions").click()
    page.sees("The target of 4.0 is reached")
    page.find("input[aria-label='Target Step']").send_keys(Keys.ARROW_LEFT, Keys.ARROW_LEFT)
    page.find("button", "Write Step 3.0").click()
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
    assert len(page.find("select[aria-label='Which version']").find_elements(By.TAG_NAME, "option")) == 2
    page.chrome.execute_script(PROBE)
    page.find("button[aria-label=Print]").click()
    assert page.chrome.execute_script("return window.printed") == 1
    widths = page.chrome.execute_script("return [...document.querySelectorAll('[data-system]')].map((each) => each.offsetWidth)")
    assert widths
    assert max(widths) <= 680, "a system is wider than the printed page"


def test_the_target_is_moved_by_keyboard_alone_and_typed(page: Page) -> None:
    page.open("#/song/4/versions")
    page.find("input[aria-label='Target Step']")
    page.tab_to("Target Step").send_keys(Keys.ARROW_RIGHT)
    page.find("button", "Write Step 4.5")
    type_target(page, "2.5")
    page.find("button", "Write Step 2.5")


def test_a_refusal_names_the_bar_the_measure_and_what_was_tried(page: Page) -> None:
    page.open("#/song/1/versions")
    type_target(page, "1")
    page.find("button", "Write Step 1.0").click()
    page.sees("The target of 1.0 is not reached")
    page.sees("Why it stays at Step")
    page.find("summary", "What each kind of edit could still do").click()
    page.sees("the notes on strong beats kept: Step")


def test_one_edit_alone_is_refused_by_bar(page: Page) -> None:
    page.open("#/song/5/versions")
    page.find("aside option", "bar").click()
    page.find("[data-group^='Bar'] button", "Refuse").click()
    page.sees(" refused")


def test_the_two_sides_are_heard_in_turn(page: Page) -> None:
    page.open("#/song/2/versions")
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
    page.find("button", "Write a staircase of 2, 4").click()
    page.sees("From the easiest to the original")
    page.sees("a stair of 2, 4")
    assert len(page.chrome.find_elements(By.CSS_SELECTOR, "section[aria-label='All versions side by side'] li")) == 4
    page.find("section[aria-label='All versions side by side'] button", "asked for Step 2").click()
    page.sees("The target of 2.0 is reached")

    page.find("select[aria-label='Approach']").send_keys("the groove")
    page.find("button", "the bass").click()
    page.sees("A layer alone: the bass.")
    page.find("summary", "Change a bar by hand").click()
    area = page.find("textarea[aria-label='Tab of the bar']")
    page.until(lambda: "|" in area.get_property("value"), "the bar's tab")
    written = area.get_property("value")
    page.chrome.execute_script(
        "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', {bubbles: true}))", area, written.replace("0", "3", 1)
    )
    page.find("button", "Put it in: an edit like any other").click()
    page.sees("Changed by hand")
