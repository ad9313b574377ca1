"""What is played is what is written: heard, not looked up."""

import pytest

from clear_steps.core.easier import version_of
from clear_steps.demo import demo_texts, demo_versions
from clear_steps.formats.tabtext import read_tab
from tests.browser.hearing import listen, not_heard, recorded, written
from tests.browser.page import Page


@pytest.mark.parametrize("piece", [1, 2], ids=["palm-muted low strings", "full chords"])
def test_a_version_sounds_as_it_is_written(page: Page, piece: int) -> None:
    song = read_tab(demo_texts()[piece]).song
    version = version_of(song.parts[0], demo_versions()[piece].edits)
    with recorded(page):
        page.open(f"#/song/{piece + 1}/versions")
        page.sees("For the student")
        page.find("button", "Play").click()
        missing, within = not_heard(listen(page, 8), written(song, version))
    assert within > 15
    assert len(missing) <= within / 10, f"of {within} notes not heard: {missing}"
