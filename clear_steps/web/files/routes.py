"""Routes of files: a look at one before anything is stored, and a song as a file."""

import base64
import binascii

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.errors import InvalidValueError
from clear_steps.formats import import_song, write_song
from clear_steps.formats.tabtext import write_tab
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.files import schemas as api
from clear_steps.web.songs.desk import latest_of

blueprint = APIBlueprint("files", __name__, url_prefix="/api")


@blueprint.post("/imports")
@blueprint.input(api.ImportIn, arg_name="body")
@blueprint.output(api.ImportModel)
def look_at_file(body: api.ImportIn) -> api.ImportModel:
    """What a file says, as tab text, and what was read, guessed and not placed; nothing is stored."""
    try:
        content = base64.b64decode(body.content_base64, validate=True)
    except binascii.Error as cause:
        raise InvalidValueError(
            "content", f"{len(body.content_base64)} characters", "a file in base64"
        ) from cause
    found = import_song(body.name, content)
    own_text = body.name.lower().endswith((".tab", ".txt"))
    text = content.decode("utf-8-sig") if own_text else write_tab(found.song)
    return api.ImportModel(
        text=text, read=list(found.read), guessed=list(found.guessed), not_placed=list(found.not_placed)
    )


@blueprint.get("/songs/<int:song_id>/file.<ending>")
@blueprint.doc(hide=True)
def song_file(song_id: int, ending: str) -> Response:
    """The latest revision as a file: .tab as it was typed, else MusicXML, MIDI or JSON."""
    text = latest_of(song_id).text
    song = read_cached(text).song
    content = text.encode() if ending in ("tab", "txt") else write_song(f"song.{ending}", song)
    name = (
        "".join(letter if letter.isalnum() else "-" for letter in song.title or "song").strip("-").lower()
        or "song"
    )
    return Response(
        content,
        mimetype="application/octet-stream",
        headers={"Content-Disposition": f"attachment; filename*=UTF-8''{_quoted(name)}.{ending}"},
    )


def _quoted(name: str) -> str:
    return "".join(
        letter if letter.isascii() else f"%{'%'.join(f'{byte:02X}' for byte in letter.encode())}"
        for letter in name
    )
