"""For whom it is, the map, and fingers by hand: chosen once, kept, undone."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.page import Page


def test_a_student_is_chosen_once_and_kept_over_screens_and_visits(page: Page) -> None:
    page.open("#/song/5")
    page.find("h1", "Burnt sugar")
    page.sees("for a medium hand")
    page.choose_whom("Tomke")
    page.until(lambda: "for Tomke" in page.find("aside h2").text, "named with the Step")
    page.sees("Past Tomke: bars")
    page.find("a", "Make it easier").click()
    page.sees("% kept")
    assert "Tomke" in page.find("button[data-whom]").text
    page.find("button", "Find ways to Step 2.5")  # where Tomke is comfortable
    page.open("#/song/1")
    page.until(lambda: "for Tomke" in page.find("aside h2").text, "on another song")
    page.chrome.refresh()
    page.until(lambda: "for Tomke" in page.find("aside h2").text, "on another visit")
    page.choose_whom("a medium hand")
    page.until(lambda: "for a medium hand" in page.find("aside h2").text, "nobody")


def test_a_student_of_the_same_span_is_not_taken_for_another(page: Page) -> None:
    page.open("#/song/1")
    page.find("h1", "Before the ovens")
    assert "a medium hand" in page.find("button[data-whom]").text, "Mira's span is that of a medium hand"
    page.choose_whom("Mira")
    page.until(lambda: "Mira" in page.find("button[data-whom]").text, "by who she is")
    page.choose_whom("a medium hand")


def test_the_map_is_edited_followed_and_played(page: Page) -> None:
    page.open("#/song/3")
    page.find("h1", "Market morning")
    page.sees("minutes as played")
    page.until(lambda: "strum" in page.find("[data-role]").text, "what a section is for its player")
    page.find("button", "another order").click()
    field = page.find("input[aria-label='Sections as played']")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("Verse x2, Nowhere")
    page.expects("422")
    page.find("button", "Save the order").click()
    page.sees("order is 'Nowhere'; expected sections")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("Verse x2, Ending")
    page.find("button", "Save the order").click()
    rows = "ol[aria-label='Sections as played'] li"
    page.until(lambda: len(page.chrome.find_elements(By.CSS_SELECTOR, rows)) == 2, "the new order")
    assert "2 times" in page.find(rows, "Verse").text
    page.find(f"{rows} button", "Ending").click()
    page.until(lambda: page.find("aside h2").text.startswith("Bar 14"), "the ending's first bar")


def test_what_a_section_is_is_said_and_left_to_be_guessed_again(page: Page) -> None:
    page.open("#/song/5")
    page.until(lambda: "riff (guessed)" in page.find("[data-role]").text, "guessed")
    page.find("button", "what each section is").click()
    page.choose("What Turn is", "line")
    page.until(lambda: page.find("[data-role]").text == "line", "as said")
    page.choose("What Turn is", "as guessed")
    page.until(lambda: "riff (guessed)" in page.find("[data-role]").text, "guessed again")


def test_a_finger_is_pinned_by_key_with_its_cost_and_undone(page: Page) -> None:
    page.open("#/song/1")
    page.bar(4).click()
    page.find("ul[aria-label='Fingers']")
    page.press("3")
    page.sees("Finger 3 is pinned:")
    page.find("button[aria-label^='Finger 3'][aria-pressed=true]")
    page.press("0")
    page.sees("The finger is free again")
    page.find("ul[aria-label='Fingers'] button[aria-label^='Finger 4']").click()
    page.find("button[aria-label^='Finger 4'][aria-pressed=true]")
    page.find("[aria-live] button", "Undo").click()
    pinned = "button[aria-label^='Finger 4'][aria-pressed=true]"
    page.until(lambda: not page.chrome.find_elements(By.CSS_SELECTOR, pinned), "undone")


def test_a_pin_says_where_else_it_holds(page: Page) -> None:
    page.open("#/song/3")
    page.bar(2).click()
    page.find("ul[aria-label='Fingers'] button[aria-label^='Finger 4 for string 5']").click()
    page.sees("Finger 4 is pinned, also in bar 9:")
    page.open("#/")
    page.open("#/song/3?bar=8")
    page.sees("Fingers as pinned in bar 3, which is the same.")


def test_several_parts_stand_under_one_another_and_are_heard_together(page: Page) -> None:
    page.open("#/song/3")
    page.find("h1", "Market morning")
    page.choose("Part", "all parts together")
    page.sees("Strummed guitar")
    page.find("button[aria-label^='Low strings, bar 1,']").click()
    page.until(lambda: page.find("aside h2").text.startswith("Bar 1"), "the other part's bar")
    page.find("button", "Play").click()
    page.find("button", "Stop").click()
    page.choose("Part", "Low strings")
    page.until(
        lambda: not page.chrome.find_elements(By.CSS_SELECTOR, "button[aria-label^='Strummed guitar, bar']"),
        "one part alone",
    )
