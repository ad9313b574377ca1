"""The whole song as JSON: a schema number, and one key a field of the score's values."""

import json
from dataclasses import dataclass

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.score import Song
from clear_steps.formats.bounds import check_song
from clear_steps.plainjson import PlainJson

SCHEMA = 1  # files of schema 0 hold the song alone
MAX_BYTES = 12 * 1024 * 1024
_BARE: PlainJson[Song] = PlainJson(Song)


@dataclass(frozen=True, slots=True)
class SongFile:
    """What a file holds."""

    schema: int
    song: Song


_FILE: PlainJson[SongFile] = PlainJson(SongFile)


def song_to_json(song: Song) -> bytes:
    """UTF-8 JSON, indented; equal songs give equal bytes."""
    return _FILE.dump(SongFile(SCHEMA, song), indent=1).encode()


def song_from_json(content: bytes) -> Song:
    """Read what `song_to_json` writes, now or before it wrote a schema; raises ReadError naming the field."""
    if len(content) > MAX_BYTES:
        raise _wrong(f"the file has {len(content):,} bytes; expected at most {MAX_BYTES:,}")
    try:
        schema = _schema_of(content)
        if schema > SCHEMA:
            raise _wrong(f"the file has schema {schema}, from a newer Clear Steps; expected {SCHEMA} at most")
        song = _FILE.load(content).song if schema else _BARE.load(content)
        check_song(song)
    except ReadError:
        raise
    except ClearStepsError as cause:
        raise _wrong(f"{cause}; expected a song written by Clear Steps") from cause
    return song


def _schema_of(content: bytes) -> int:
    """The file's schema number, 0 where it has none; what is no JSON at all is told by the reading that
    follows."""
    try:
        rows = json.loads(content)
    except (ValueError, RecursionError):
        return SCHEMA
    number = rows.get("schema", 0) if isinstance(rows, dict) else SCHEMA
    return number if isinstance(number, int) and number >= 0 else SCHEMA


def _wrong(message: str) -> ReadError:
    return ReadError((Problem(1, 1, message),))
