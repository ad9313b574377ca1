"""Reading and writing by file ending."""

from collections.abc import Callable
from pathlib import PurePath

from clear_steps.core.errors import InvalidValueError, Problem, ReadError
from clear_steps.core.score import Song
from clear_steps.formats.songjson import song_from_json, song_to_json
from clear_steps.formats.tabtext import decode, read_tab, write_tab


def _tab_song(content: bytes) -> Song:
    return read_tab(decode(content)).song


def _tab_bytes(song: Song) -> bytes:
    return write_tab(song).encode()


_FORMATS: dict[str, tuple[Callable[[bytes], Song], Callable[[Song], bytes]]] = {
    ".tab": (_tab_song, _tab_bytes),
    ".txt": (_tab_song, _tab_bytes),
    ".json": (song_from_json, song_to_json),
}
ENDINGS = tuple(_FORMATS)


def read_song(name: str, content: bytes) -> Song:
    """The song in a file; raises ReadError with line and column."""
    ending = PurePath(name).suffix.lower()
    if ending not in _FORMATS:
        raise ReadError((Problem(1, 1, f"'{ending}' files cannot be read; expected one of {' '.join(ENDINGS)}"),))
    return _FORMATS[ending][0](content)


def write_song(name: str, song: Song) -> bytes:
    """The song as the content of a file of that name; raises InvalidValueError for an unknown ending."""
    ending = PurePath(name).suffix.lower()
    if ending not in _FORMATS:
        raise InvalidValueError("file ending", ending, f"one of {' '.join(ENDINGS)}")
    return _FORMATS[ending][1](song)
