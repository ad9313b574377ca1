"""Whose every block of a text is: headers of the song, and for each part its own headers and music."""

from dataclasses import dataclass, field, replace

from clear_steps.core.score import Part, Song
from clear_steps.formats.tabtext.brought import as_we_write
from clear_steps.formats.tabtext.header import Headers, read_header
from clear_steps.formats.tabtext.lines import (
    GOES_ON,
    Header,
    ReadingLine,
    RemarkLine,
    SectionLine,
    System,
    blocks_of,
    lines_of,
)
from clear_steps.formats.tabtext.problems import Findings


@dataclass
class PartDraft:
    """A part's headers and, in their order, what follows them."""

    headers: Headers
    items: list[System | SectionLine | RemarkLine | ReadingLine] = field(default_factory=list)

    @property
    def systems(self) -> list[System]:
        """Its music."""
        return [item for item in self.items if isinstance(item, System)]


class _Drafts:
    """The parts as they begin and go on; the last one spoken of takes what follows."""

    def __init__(self) -> None:
        self.all = [PartDraft(Headers(Song(), Part()))]
        self._current = self.all[0]

    @property
    def current(self) -> PartDraft:
        return self._current

    def begin(self, name: str) -> None:
        """A further part, or the name of the first one."""
        before = self._current.headers
        headers = Headers(before.song, Part(name=name), before.metre)
        if self._current.systems:
            self._go_to(PartDraft(headers))
            return
        headers.part = replace(before.part, name=name)
        headers.tuning_named, headers.scale_named = before.tuning_named, before.scale_named
        self._current.headers = headers

    def go_on(self, name: str) -> None:
        """A guitar that was there before, or a new one: in the same song, tuned as the first where it has as
        many strings. Sections that have just begun go with it."""
        moved = self._without_bars()
        song, first = self._current.headers.song, self.all[0]
        own = next((draft for draft in self.all if draft.headers.part.name == name), None)
        if own is None and not first.systems and not first.headers.part.name:
            own = first
            own.headers.part = replace(first.headers.part, name=name)
        if own is None:
            like = first.headers
            own = PartDraft(replace(like, part=replace(like.part, name=name), tuning_named=False))
            own.headers.tuning_like = like.part.tuning if like.tuning_named else None
        own.headers.song = song
        self._go_to(own)
        own.items += moved

    def _go_to(self, draft: PartDraft) -> None:
        self._current = draft
        if draft not in self.all:
            self.all.append(draft)

    def _without_bars(self) -> list[System | SectionLine | RemarkLine | ReadingLine]:
        """The sections at the end that no bar has followed yet, taken out."""
        items = self._current.items
        stop = len(items)
        while stop and isinstance(items[stop - 1], SectionLine):
            stop -= 1
        moved, items[stop:] = items[stop:], []
        return moved


def drafts_of(text: str, findings: Findings) -> tuple[Song, list[PartDraft]]:
    """The song's headers and its parts; raises ReadError for what cannot be a tab at all."""
    drafts = _Drafts()
    for block in blocks_of(as_we_write(lines_of(text), findings)):
        if not isinstance(block, Header):
            drafts.current.items.append(block)
        elif block.key.lower() == GOES_ON.lower():
            drafts.go_on(block.text)
        elif block.key.lower() == "part":
            drafts.begin(block.text)
        else:
            read_header(drafts.current.headers, block.key, block.text, block.line, block.column, findings)
    return drafts.current.headers.song, drafts.all
