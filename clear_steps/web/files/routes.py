"""Routes of files: a look at one before anything is stored, and a song as a file."""

import base64
import binascii
from collections.abc import Sequence
from dataclasses import replace
from typing import TypeVar

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.errors import InvalidValueError
from clear_steps.formats import as_text, import_song, songs_of, write_song
from clear_steps.formats.tabtext import read_tab, songs_in, with_heading, write_tab
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import answered, worked_out
from clear_steps.web.files import schemas as api
from clear_steps.web.songs.desk import latest_of

T = TypeVar("T")
blueprint = APIBlueprint("files", __name__, url_prefix="/api")


@blueprint.post("/imports")
@blueprint.input(api.ImportIn, arg_name="body")
@blueprint.output(api.ImportModel)
def look_at_file(body: api.ImportIn) -> Response:
    """What a file says, as tab text, and what was read, guessed and not placed; nothing is stored."""
    try:
        content = base64.b64decode(body.content_base64, validate=True)
    except (binascii.Error, ValueError) as cause:
        found = f"{len(body.content_base64)} characters"
        raise InvalidValueError("content", found, "a file in base64") from cause
    return answered(import_json, body.name, content, body.song)


@blueprint.put("/texts/heading")
@blueprint.input(api.HeadingIn, arg_name="body")
@blueprint.output(api.TextModel)
def change_heading(body: api.HeadingIn) -> api.TextModel:
    """A text with one header line changed; nothing is stored."""
    text = worked_out(with_heading, body.text, body.key, body.value)
    return api.TextModel(text=text)


@blueprint.put("/texts/parts")
@blueprint.input(api.PartsIn, arg_name="body")
@blueprint.output(api.TextModel)
def keep_parts(body: api.PartsIn) -> api.TextModel:
    """A text with some of its parts; nothing is stored."""
    text = worked_out(with_parts_kept, body.text, body.parts)
    return api.TextModel(text=text)


@blueprint.put("/texts/song")
@blueprint.input(api.WhichIn, arg_name="body")
@blueprint.output(api.TextModel)
def take_song(body: api.WhichIn) -> api.TextModel:
    """One of several songs in a text; nothing is stored."""
    songs = worked_out(songs_in, body.text)
    return api.TextModel(text=_chosen(songs, body.song)[1])


def _chosen(songs: Sequence[tuple[str, T]], which: int) -> tuple[str, T]:
    if which >= len(songs):
        raise InvalidValueError("song", which, f"0 to {len(songs) - 1}")
    return songs[which]


def with_parts_kept(text: str, parts: Sequence[int]) -> str:
    """The text of a song with some of its parts (indexes); done by the workers. Raises ReadError and
    InvalidValueError."""
    song = read_tab(text).song
    kept = tuple(part for at, part in enumerate(song.parts) if at in parts)
    if not kept:
        raise InvalidValueError("parts", list(parts), f"some of 0 to {len(song.parts) - 1}")
    return write_tab(replace(song, parts=kept))


def import_json(name: str, content: bytes, which: int) -> str:
    """The ImportModel of a file, or of one of the songs in it; done by the workers. Raises ReadError."""
    songs = songs_of(name, content)
    found = as_text(import_song(name, _chosen(songs, which)[1] if songs else content))
    model = api.ImportModel(
        text=found.text,
        read=list(found.read),
        guessed=list(found.guessed),
        not_placed=list(found.not_placed),
        changed=list(found.changed),
        songs=[title for title, _ in songs],
    )
    return model.model_dump_json()


@blueprint.get("/songs/<int:song_id>/file.<ending>")
@blueprint.doc(hide=True)
def song_file(song_id: int, ending: str) -> Response:
    """The latest revision as a file: .tab as it was typed, else MusicXML, MIDI or JSON."""
    latest = latest_of(song_id)
    typed = ending in ("tab", "txt")
    content = latest.text.encode() if typed else worked_out(file_content, latest.text, ending)
    letters = (letter if letter.isalnum() else "-" for letter in latest.title)
    name = "".join(letters).strip("-").lower() or "song"
    return Response(
        content,
        mimetype="application/octet-stream",
        headers={"Content-Disposition": f"attachment; filename*=UTF-8''{_quoted(name)}.{ending}"},
    )


def file_content(text: str, ending: str) -> bytes:
    """A text as a file of another kind; done by the workers. Raises ReadError."""
    return write_song(f"song.{ending}", read_cached(text).song)


def _quoted(name: str) -> str:
    return "".join(
        letter if letter.isascii() else f"%{'%'.join(f'{byte:02X}' for byte in letter.encode())}"
        for letter in name
    )
