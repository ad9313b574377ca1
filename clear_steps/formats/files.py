"""Reading and writing by file ending."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace
from pathlib import PurePath

from clear_steps.core.errors import InvalidValueError, Problem, ReadError
from clear_steps.core.score import Song
from clear_steps.formats.abc import abc_tunes, read_abc
from clear_steps.formats.assembly import counted_notes
from clear_steps.formats.midi import write_midi
from clear_steps.formats.musicxml import read_musicxml, write_musicxml
from clear_steps.formats.pitched import Imported
from clear_steps.formats.readback import read_back
from clear_steps.formats.songjson import song_from_json, song_to_json
from clear_steps.formats.tabtext import decode, read_tab, songs_in, write_tab


def _tab(content: bytes) -> Imported:
    text, taken = decode(content)
    reading = read_tab(text)
    return Imported(reading.song, _counted(reading.song), (*taken, *reading.guesses), text=text)


def _json(content: bytes) -> Imported:
    song = song_from_json(content)
    return Imported(song, _counted(song))


def _counted(song: Song) -> tuple[str, ...]:
    return tuple(map(counted_notes, song.parts))


def _tab_bytes(song: Song) -> bytes:
    return write_tab(song).encode()


@dataclass(frozen=True, slots=True)
class _Format:
    """What can be done with files of an ending."""

    read: Callable[[bytes], Imported] | None
    write: Callable[[Song], bytes] | None


_FORMATS: dict[str, _Format] = {
    ".tab": _Format(_tab, _tab_bytes),
    ".txt": _Format(_tab, _tab_bytes),
    ".json": _Format(_json, song_to_json),
    ".musicxml": _Format(read_musicxml, write_musicxml),
    ".xml": _Format(read_musicxml, write_musicxml),
    ".mxl": _Format(read_musicxml, None),
    ".abc": _Format(read_abc, None),
    ".mid": _Format(None, write_midi),
}
ENDINGS = tuple(_FORMATS)
_READABLE = tuple(ending for ending, own in _FORMATS.items() if own.read)
_WRITABLE = tuple(ending for ending, own in _FORMATS.items() if own.write)


def songs_of(name: str, content: bytes) -> tuple[tuple[str, bytes], ...]:
    """The title of every song in a file, and the content that holds it alone; none where there is only
    one."""
    split = _SPLIT.get(PurePath(name).suffix.lower())
    found = tuple(split(content)) if split else ()
    return found if len(found) > 1 else ()


def _tabs_of(content: bytes) -> Iterator[tuple[str, bytes]]:
    return ((title, text.encode()) for title, text in songs_in(decode(content)[0]))


_SPLIT: dict[str, Callable[[bytes], Iterable[tuple[str, bytes]]]] = {
    ".tab": _tabs_of,
    ".txt": _tabs_of,
    ".abc": abc_tunes,
}


def import_song(name: str, content: bytes) -> Imported:
    """The song in a file (the first, where there are several), with what was read, guessed and not placed;
    raises ReadError with line and column."""
    ending = PurePath(name).suffix.lower()
    read = _FORMATS[ending].read if ending in _FORMATS else None
    if read is None:
        raise ReadError(
            (Problem(1, 1, f"'{ending}' files cannot be read; expected one of {' '.join(_READABLE)}"),)
        )
    return read(content)


def as_text(found: Imported) -> Imported:
    """An import with the tab text it becomes, read back: what that changes is told."""
    if found.text:
        return found  # it was tab text
    text = write_tab(found.song)
    return replace(found, text=text, changed=read_back(found.song, text))


def read_song(name: str, content: bytes) -> Song:
    """The song in a file alone; raises ReadError."""
    return import_song(name, content).song


def write_song(name: str, song: Song) -> bytes:
    """The song as the content of a file of that name; raises InvalidValueError for an ending that cannot be
    written."""
    ending = PurePath(name).suffix.lower()
    write = _FORMATS[ending].write if ending in _FORMATS else None
    if write is None:
        raise InvalidValueError("file ending", ending, f"one of {' '.join(_WRITABLE)}")
    return write(song)
