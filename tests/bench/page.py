"""What a teacher waits for in the browser, timed on the demo songs as the product serves them."""

import tempfile
from fractions import Fraction
from pathlib import Path

from selenium.webdriver import Chrome

from clear_steps.core.score import Bar, Event, Note, Part, Song
from clear_steps.formats.tabtext import write_tab
from tests.browser.chrome import headless, served_demo
from tests.browser.page import Page

LONGEST_DEMO = 6  # by bars; sixteen of them
MOST_BARS = 500
# Seconds from the click on a link to the first frame on which the last sign of the song's head is drawn.
OPENED = """
const done = arguments[arguments.length - 1]
const begun = performance.now()
location.hash = arguments[0]
const look = () => {
  const drawn = document.querySelector('[data-bar="0"]') && document.title.startsWith(arguments[1])
  if (drawn) requestAnimationFrame(() => done([begun, performance.now()]))
  else requestAnimationFrame(look)
}
requestAnimationFrame(look)
"""
# From the click on a bar to the first frame after its evidence stands there.
CHOSEN = """
const done = arguments[arguments.length - 1]
const bar = document.querySelector(`[data-bar="${arguments[0]}"]`)
const begun = performance.now()
bar.click()
const look = () =>
  document.querySelector('aside h2').textContent.startsWith(`Bar ${arguments[0] + 1}`)
    ? done(performance.now() - begun)
    : requestAnimationFrame(look)
look()
"""
ANSWERED = """
return performance.getEntriesByType('resource').filter((each) => each.name.includes(arguments[0]))
  .map((each) => each.responseEnd).at(-1)
"""
LOADED = """
const all = [...performance.getEntriesByType('navigation'), ...performance.getEntriesByType('resource')]
return all.reduce((sum, each) => sum + each.transferSize, 0)
"""


def page_figures() -> tuple[float, float, float, float]:
    """Seconds to open the longest demo song warm, to see the evidence of a bar, and to draw 500 bars after
    their answer; kB of the first load, compressed."""
    with (
        tempfile.TemporaryDirectory() as profile,
        headless(Path(profile)) as chrome,
        tempfile.TemporaryDirectory() as data,
        served_demo(Path(data)) as served,
    ):
        page = Page(chrome, served)
        page.open()
        page.sees("Rolling pins")
        loaded = float(chrome.execute_script(LOADED)) / 1024
        opened = min(_opened(page, LONGEST_DEMO, "Rolling pins")[0] for _ in range(5))
        chosen = min(float(chrome.execute_async_script(CHOSEN, at % 2 + 1)) for at in range(10)) / 1000
        long = page.add_song(write_tab(_long_song()))
        page.open()
        page.sees("The long way")
        return opened, chosen, _opened(page, long, "The long way")[1], loaded


def _opened(page: Page, song: int, title: str) -> tuple[float, float]:
    """Seconds from the click, and from the answer, to the drawn tab."""
    chrome: Chrome = page.chrome
    page.open("#/")
    page.find("h1", "Clear Steps")
    page.sees(title)
    chrome.set_script_timeout(60)
    begun, drawn = chrome.execute_async_script(OPENED, f"#/song/{song}", title)
    answered = chrome.execute_script(ANSWERED, f"/api/songs/{song}?") or begun
    return (drawn - begun) / 1000, (drawn - answered) / 1000


def _long_song() -> Song:
    eighth = Fraction(1, 2)
    bars = tuple(
        Bar(events=tuple(Event(eighth, (Note(2 + (bar + at) % 3, (bar + 2 * at) % 8),)) for at in range(8)))
        for bar in range(MOST_BARS)
    )
    return Song("The long way", Fraction(90), parts=(Part(bars=bars),))
