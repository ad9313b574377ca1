"""The whole song as JSON: one key a field of the score's values, and a schema number beside them."""

import json

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.score import Song
from clear_steps.formats.bounds import check_song
from clear_steps.plainjson import PlainJson

SCHEMA = 2  # files of schema 1 held the song under a key of its own, those of 0 the song alone
MAX_BYTES = 12 * 1024 * 1024
_SONG: PlainJson[Song] = PlainJson(Song)


def song_to_json(song: Song) -> bytes:
    """UTF-8 JSON, indented; equal songs give equal bytes."""
    return json.dumps(
        {"schema": SCHEMA, **json.loads(_SONG.dump(song))}, indent=1, ensure_ascii=False
    ).encode()


def song_from_json(content: bytes) -> Song:
    """Read what `song_to_json` writes, now or before it wrote a schema; raises ReadError naming the field."""
    if len(content) > MAX_BYTES:
        raise _wrong(f"the file has {len(content):,} bytes; expected at most {MAX_BYTES:,}")
    try:
        song = _SONG.load(_song_of(content))
        check_song(song)
    except ReadError:
        raise
    except ClearStepsError as cause:
        raise _wrong(f"{cause}; expected a song written by Clear Steps") from cause
    return song


def _song_of(content: bytes) -> bytes | str:
    """The song's own JSON out of a file of any schema; what is no JSON at all is told by the reading that
    follows. Raises ReadError for a file from a newer program."""
    try:
        rows = json.loads(content)
    except (ValueError, RecursionError):
        return content
    if not isinstance(rows, dict) or not isinstance(schema := rows.pop("schema", 0), int):
        return content
    if schema > SCHEMA:
        raise _wrong(f"the file has schema {schema}, from a newer Clear Steps; expected {SCHEMA} at most")
    if schema == 1:
        for key in rows.keys() - {"song"}:
            raise _wrong(f"{key[:40]}: Clear Steps knows no such field")
        rows = rows.get("song")
    return json.dumps(rows)


def _wrong(message: str) -> ReadError:
    return ReadError((Problem(1, 1, message),))
