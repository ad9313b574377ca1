"""Tab text: plain-text tab plus labelled lines; the grammar is docs/tab-text.md."""

from clear_steps.formats.tabtext.header import with_tempo
from clear_steps.formats.tabtext.lines import decode
from clear_steps.formats.tabtext.reader import Reading, read_tab
from clear_steps.formats.tabtext.writer import write_bars, write_tab

__all__ = ["Reading", "decode", "read_tab", "with_tempo", "write_bars", "write_tab"]
