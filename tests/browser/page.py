"""What a teacher does on a page, in words."""

import json
from base64 import b64decode
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any, TypeVar
from urllib.request import Request, urlopen

from selenium.webdriver import ActionChains, Chrome
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from tests.browser.chrome import Served
from tests.browser.paper import pages_of
from tests.patience import patience_s

T = TypeVar("T")
MOST_STOPS = 120  # tab stops passed on the way to something
# Pages that are higher than what A4 and Letter leave, and drawings wider than it.
OVER_THE_EDGE = """
return [...document.querySelectorAll('.sheets .sheet-page, .sheets .lesson-sheet')].flatMap((page) => {
  const box = page.getBoundingClientRect()
  const wide = [...page.querySelectorAll('path, text, p, li, h1')].filter((each) => {
    const own = each.getBoundingClientRect()
    return own.right > box.right + 3 || own.left < box.left - 3
  })
  const cut = page.matches('.sheet-page') && box.height > 948 // others are paged by the browser
  return [...(cut ? [`page of ${box.height} px`] : []), ...wide.map((each) => each.outerHTML)]
})
"""
PASTE = """
const data = new DataTransfer(); data.setData('text/plain', arguments[1]);
arguments[0].dispatchEvent(new ClipboardEvent('paste', {clipboardData: data, bubbles: true, cancelable:
true}));
"""


class Page:
    """A browser on one served application; every look waits for what the teacher would see."""

    def __init__(self, chrome: Chrome, served: Served) -> None:
        self.chrome, self.served, self.address = chrome, served, served.address
        self._expected: list[str] = []

    def open(self, path: str = "#/") -> None:
        self.chrome.get(f"{self.address}/{path}")

    def leave(self) -> None:
        self.chrome.get("about:blank")

    def until(self, look: Callable[[], T], what: str = "", seconds: float = 15) -> T:
        return WebDriverWait(self.chrome, patience_s(seconds), ignored_exceptions=(Exception,)).until(
            lambda _: look(), what
        )

    def reached(self, element: WebElement) -> WebElement:
        """An element after the page has scrolled to it: then it never lies under the row of what was done."""
        self.chrome.execute_script("arguments[0].scrollIntoView({block: 'nearest'})", element)
        return element

    def find(self, css: str, text: str = "") -> WebElement:
        def look() -> WebElement | None:
            return next(
                (
                    found
                    for found in self.chrome.find_elements(By.CSS_SELECTOR, css)
                    if text in found.text and found.is_displayed()
                ),
                None,
            )

        found = self.until(look, f"{css} with '{text}'")
        assert found is not None
        return found

    def sees(self, text: str, seconds: float = 15) -> None:
        self.until(
            lambda: text in self.chrome.find_element(By.CSS_SELECTOR, "body").text,
            f"the text '{text}'",
            seconds,
        )

    def step(self) -> float:
        return float(self.find("[data-testid=song-step]").text.split()[1])

    def bar(self, index: int) -> WebElement:
        return self.find(f"[data-bar='{index}']")

    def editor(self) -> WebElement:
        return self.find(".cm-content")

    def replace_text(self, text: str) -> None:
        """Select all that stands in the editor and paste over it."""
        editor = self.editor()
        editor.click()
        ActionChains(self.chrome).key_down(Keys.CONTROL).send_keys("a").key_up(Keys.CONTROL).perform()
        self.chrome.execute_script(PASTE, editor, text)

    def press(self, *keys: str) -> None:
        ActionChains(self.chrome).send_keys(*keys).perform()

    def press_shifted(self, key: str) -> None:
        ActionChains(self.chrome).key_down(Keys.SHIFT).send_keys(key).key_up(Keys.SHIFT).perform()

    def asks(self, path: str, body: dict[str, object] | None = None) -> Any:
        """What the server answers, without the page."""
        sent = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json"} if sent else {}
        request = Request(f"{self.address}/api/{path}", sent, headers)
        with urlopen(request) as answer:
            return json.load(answer)

    def add_song(self, text: str) -> int:
        """A song that is there already when the teacher looks; its id."""
        return int(self.asks("songs", {"text": text})["id"])

    def add_version(self, song: int, bar: int) -> int:
        """A version with one change on a bar (index); its id."""
        offer = self.asks(f"songs/{song}/changes?first={bar}&last={bar}")["changes"][0]
        wish = {"first": bar, "last": bar, "kind": offer["kind"], "says": offer["says"]}
        return int(self.asks(f"songs/{song}/changes", wish)["id"])

    @contextmanager
    def sized(self, width: int, height: int) -> Iterator[None]:
        """A window of another size for a while."""
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
        self.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        try:
            yield
        finally:
            self.chrome.execute_cdp_cmd("Emulation.clearDeviceMetricsOverride", {})

    def marks(self, within: str = "body") -> set[str]:
        """Names and texts of all marks that are drawn."""
        script = """return [...document.querySelectorAll(`${arguments[0]} [data-mark]`)].flatMap(
            (mark) => [mark.dataset.mark, mark.textContent.trim()])"""
        return set(self.chrome.execute_script(script, within))

    @contextmanager
    def printing(self, button: str, by_key: bool = False) -> Iterator[None]:
        """Press the button, and look at what the browser would print; no sheet is over its page's edge."""
        self.chrome.execute_script(
            "window.print = () => dispatchEvent(new Event('beforeprint'))", "the printer stays off"
        )
        if by_key:
            self.tab_to(button)
            self.press(Keys.ENTER)
        else:
            self.find("header button", button).click()
        self.until(
            lambda: self.chrome.find_elements(By.CSS_SELECTOR, ".sheets .sheet-page, .sheets .lesson-sheet"),
            "a sheet",
        )
        assert self.chrome.execute_script(OVER_THE_EDGE) == []
        yield
        self.chrome.execute_script("dispatchEvent(new Event('afterprint'))")

    def printed(self, paper: str = "A4") -> bytes:
        """The PDF that the browser makes of what it prints on A4 or Letter."""
        width, height = {"A4": (8.27, 11.69), "Letter": (8.5, 11)}[paper]
        margins = dict.fromkeys(("marginTop", "marginBottom", "marginLeft", "marginRight"), 14 / 25.4)
        asked = {"paperWidth": width, "paperHeight": height, **margins}
        return b64decode(self.chrome.execute_cdp_cmd("Page.printToPDF", asked)["data"])

    def pages_printed(self, paper: str = "A4") -> int:
        """How many pages that are."""
        return len(pages_of(self.printed(paper)))

    def finds_ways(self, target: str) -> None:
        """Search for ways to a Step, however busy the machine is."""
        self.find("button", f"Find ways to Step {target}").click()
        self.sees(f"Ways to Step {target}", seconds=60)

    def takes_a_way(self, target: str, name: str = "") -> None:
        """Find ways to a Step and take one, the best or by its name."""
        self.finds_ways(target)
        card = f"[data-way^='{name}']" if name else "[data-way]"
        self.find(f"{card} button", "Take this way").click()

    def choose(self, label: str, option: str) -> None:
        """Choose from the list that is called so; once more where the list was drawn anew meanwhile."""
        self.find(f'button[aria-label^="{label}: "]').click()
        self.find("[role=option]", option).click()
        self.until(lambda: self._is_closed_or_clicked(option), "the list closed")

    def choose_by_key(self, label: str, option: str) -> None:
        """The same with the keys alone."""
        self.tab_to(f"{label}: ")
        self.press(Keys.ENTER)
        self.find("[role=option]", option)
        for _ in self.chrome.find_elements(By.CSS_SELECTOR, "[role=option]"):
            reached = self.chrome.find_elements(By.CSS_SELECTOR, "[role=option][data-highlighted]")
            if reached and option in reached[0].text:
                break
            self.press(Keys.ARROW_DOWN)
        self.press(Keys.ENTER)

    def _is_closed_or_clicked(self, option: str) -> bool:
        shown = self.chrome.find_elements(By.CSS_SELECTOR, "[role=option]")
        for each in shown:
            if option in each.text and each.is_displayed():
                each.click()
        return not shown

    def choose_whom(self, name: str) -> None:
        """For whom everything is graded."""
        self.find("button[data-whom]").click()
        self.find("[aria-label='Students'] button, [aria-label='Hands'] button", name).click()

    def focused(self) -> WebElement:
        return self.chrome.switch_to.active_element

    def tab_to(self, text: str) -> WebElement:
        """Press Tab until something that is called so has the focus."""
        for _ in range(MOST_STOPS):
            self.press(Keys.TAB)
            focused = self.focused()
            if focused.tag_name == "body":  # between the last stop and the first
                continue
            if text in (focused.text or "") or text in (focused.get_attribute("aria-label") or ""):
                return focused
        raise AssertionError(f"no tab stop is called '{text}'")

    def complaints(self) -> list[str]:
        return [
            entry["message"]
            for entry in self.chrome.get_log("browser")
            if entry["level"] in ("SEVERE", "WARNING")
            and not any(words in entry["message"] for words in self._expected)
        ]

    def expects(self, words: str) -> None:
        """The browser will complain of this, and rightly."""
        self._expected.append(words)

    def foreign_requests(self) -> set[str]:
        urls = set()
        for entry in self.chrome.get_log("performance"):
            message = json.loads(entry["message"])["message"]
            if message["method"] == "Network.requestWillBeSent":
                urls.add(message["params"]["request"]["url"])
        allowed = (self.address, "data:", "blob:", "about:", "chrome:")
        return {
            url for url in urls if not url.startswith(allowed) and not url.startswith("http://127.0.0.1:")
        }
