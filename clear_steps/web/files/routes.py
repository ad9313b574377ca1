"""Routes of files: a look at one before anything is stored, and a song as a file."""

import base64
import binascii

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.errors import InvalidValueError
from clear_steps.formats import import_song, write_song
from clear_steps.formats.tabtext import decode, write_tab
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import current_workers, still_wanted
from clear_steps.web.files import schemas as api
from clear_steps.web.songs.desk import latest_of

blueprint = APIBlueprint("files", __name__, url_prefix="/api")
OWN_ENDINGS = (".tab", ".txt")


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
    answer = current_workers().run(import_json, body.name, content, wanted=still_wanted())
    return Response(answer, mimetype="application/json")


def import_json(name: str, content: bytes) -> str:
    """The ImportModel of a file; done by the workers. Raises ReadError."""
    found = import_song(name, content)
    text = decode(content)[0] if name.lower().endswith(OWN_ENDINGS) else write_tab(found.song)
    model = api.ImportModel(
        text=text, read=list(found.read), guessed=list(found.guessed), not_placed=list(found.not_placed)
    )
    return model.model_dump_json()


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
