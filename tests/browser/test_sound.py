"""What is played is what is written: heard, not looked up."""

from dataclasses import replace

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
        recording = listen(page, 8)
    notes = written(song, version)
    missing, within = not_heard(recording, notes)
    assert within > 15
    assert len(missing) <= within / 10, f"of {within} notes not heard: {missing}"
    a_half_tone_up, _ = not_heard(recording, [replace(note, midi=note.midi + 1) for note in notes])
    assert len(a_half_tone_up) > within / 2, "what is not played is heard"
