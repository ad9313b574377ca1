"""Tab text: plain-text tab plus labelled lines; the grammar is docs/tab-text.md."""

from clear_steps.formats.tabtext.brought import songs_in
from clear_steps.formats.tabtext.brought.headings import TAKEN_FOR_TITLE
from clear_steps.formats.tabtext.brought.tunings import tuning_said
from clear_steps.formats.tabtext.header import spell_tempo
from clear_steps.formats.tabtext.headlines import with_heading
from clear_steps.formats.tabtext.lines import decode
from clear_steps.formats.tabtext.problems import NO_METRE, NO_TUNING
from clear_steps.formats.tabtext.reader import Reading, read_tab, read_what_can_be
from clear_steps.formats.tabtext.writer import write_bars, write_tab

__all__ = [
    "NO_METRE",
    "NO_TUNING",
    "TAKEN_FOR_TITLE",
    "Reading",
    "decode",
    "read_tab",
    "read_what_can_be",
    "songs_in",
    "spell_tempo",
    "tuning_said",
    "with_heading",
    "write_bars",
    "write_tab",
]
