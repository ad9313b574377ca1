"""Several songs in one text: where each begins."""

import re
from bisect import bisect_left
from collections.abc import Sequence

from clear_steps.formats.tabtext.brought.headings import is_heading, is_title_line, title_in
from clear_steps.formats.tabtext.brought.shells import without_shell
from clear_steps.formats.tabtext.brought.strings import row_of
from clear_steps.formats.tabtext.problems import Findings, short

_UNDERLINE = re.compile(r"[=*_~#-]{4,}")
_NEAR = 2  # lines between a title on its own and the heading that makes it one


def first_song(lines: list[str], findings: Findings) -> list[str]:
    """The lines up to a second song that has music of its own, which is told; the others blank."""
    starts = song_starts(lines)
    if len(starts) < 2:
        return lines
    second = starts[1]
    names = ", ".join(f"'{short(_title(lines, at))}'" for at in starts[1:4])
    more = f" and {len(starts) - 4} more" if len(starts) > 4 else ""
    what = f"{len(starts)} songs stand in the text; the next begins here: {names}{more}"
    findings.guessed(second + 1, 1, what, "the first one is read")
    return lines[:second] + [""] * (len(lines) - second)


def songs_in(text: str) -> list[tuple[str, str]]:
    """The title and the text of every song in a text."""
    lines = without_shell(text.split("\n"), Findings())
    starts = song_starts(lines)
    ends = [*starts[1:], len(lines)]
    return [
        (_title(lines, start), "\n".join(lines[start:end]).strip("\n") + "\n")
        for start, end in zip(starts, ends, strict=True)
    ]


def song_starts(lines: Sequence[str]) -> list[int]:
    """The first line of every song that has music; one of all lines where there is only one."""
    music = [at for at, line in enumerate(lines) if row_of(line)]
    starts = [0]
    for at in range(music[-1]) if music else ():
        # The first string line of the song so far; every song has some before the next begins.
        first = music[bisect_left(music, starts[-1])]
        if first < at and _begins_song(lines, at, lines[at]):
            starts.append(at)
    return starts


def _begins_song(lines: Sequence[str], at: int, line: str) -> bool:
    """A title by its key; or alone, underlined or with a heading such as the tempo under it."""
    if line.startswith(" ") or row_of(line):
        return False
    if title_in(line):
        return True
    if not is_title_line(line, at) or ":" in line:
        return False
    below = next((own.strip() for own in lines[at + 1 : at + 1 + _NEAR] if own.strip()), "")
    return bool(_UNDERLINE.fullmatch(below)) or is_heading(below)


def _title(lines: Sequence[str], at: int) -> str:
    """What a song is called: by its first lines."""
    for line in lines[at : at + 6]:
        if row_of(line):
            break
        if title := title_in(line) or (line.strip() if is_title_line(line, at) else ""):
            return title.strip("\"'")
    return "Untitled"
