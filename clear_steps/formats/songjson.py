"""The whole song as JSON, one key a field of the score's values."""

from pydantic import TypeAdapter, ValidationError

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.score import Song

_ADAPTER: TypeAdapter[Song] = TypeAdapter(Song)


def song_to_json(song: Song) -> bytes:
    """UTF-8 JSON, indented; equal songs give equal bytes."""
    return _ADAPTER.dump_json(song, indent=1)


def song_from_json(content: bytes) -> Song:
    """Read what `song_to_json` writes; raises ReadError naming the field."""
    try:
        return _ADAPTER.validate_json(content)
    except ValidationError as cause:
        first = cause.errors()[0]
        where = ".".join(str(step) for step in first["loc"]) or "the file"
        raise ReadError(
            (Problem(1, 1, f"{where}: {first['msg']}; expected a song written by Clear Steps"),)
        ) from cause
    except ClearStepsError as cause:
        raise ReadError((Problem(1, 1, str(cause)),)) from cause
