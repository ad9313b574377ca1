"""A stored song as the Desk shows it, and how a new revision of it is saved."""

import re

from flask import Response
from pydantic import TypeAdapter

from clear_steps.core.errors import ReadError
from clear_steps.store import OwnSteps, Songs, StoredRevision, StoredSong
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import (
    current_database,
    current_workers,
    ladder_in_use,
    still_wanted,
    worked_out,
)
from clear_steps.web.songs import schemas as api
from clear_steps.web.songs.grading import analysis_json
from clear_steps.web.whom import GradeQuery, whom_of
from clear_steps.web.workers import NotYetError, TooLongError, TooMuchError

PATIENCE_S = 5.0  # that a song is waited for before it is shown without its grade
_DESK = TypeAdapter(dict[str, object])
_TITLE = re.compile(r"^\s*title\s*:\s*(.+?)\s*$", re.IGNORECASE | re.MULTILINE)


def title_read(text: str) -> str:
    """The title a text gives itself; reading it also proves that it can be read. Done by the workers."""
    return read_cached(text).song.title or "Untitled"


def title_of(text: str) -> str:
    """The title of a text that can be read; raises ReadError. A text that takes too long to read is none
    the worse for it: its title is looked for in its headings alone."""
    try:
        return worked_out(title_read, text)
    except TooLongError:
        found = _TITLE.search(text)
        return found[1] if found else "Untitled"


def desk_of(song: StoredSong, query: GradeQuery, status: int = 200) -> Response:
    """A song at its latest revision, graded: a DeskModel, its analysis as the workers wrote it, or why there
    is none: a song that is stored can always be opened."""
    with current_database().reading() as session:
        ladder, own = ladder_in_use(session), OwnSteps(session).of_song(song.id)
        whom = whom_of(session, query)
    analysis, waiting, problem = "null", False, ""
    try:
        analysis = current_workers().run(
            analysis_json,
            *(song.latest.text, whom, ladder.content),
            wanted=still_wanted(),
            patience_s=PATIENCE_S,
        )
    except (NotYetError, TooMuchError):
        waiting = True
    except (ReadError, TooLongError) as error:
        problem = str(error)
    row = {
        "id": song.id,
        "revision": song.latest.number,
        "saved_at": song.latest.saved_at,
        "text": song.latest.text,
        "put_away": song.put_away,
        "title": song.latest.title,
        "waiting": waiting,
        "problem": problem,
        "own_steps": [
            api.OwnStepModel(part_index=index, number=step.number, step=step.step)
            for index, step in own.items()
        ],
    }
    body = _DESK.dump_json(row).decode()
    return Response(f'{body[:-1]},"analysis":{analysis}}}', status, mimetype="application/json")


def saved(song_id: int, based_on: int, text: str, query: GradeQuery = GradeQuery()) -> Response:
    """Store a text as a new revision and show it; raises ReadError or StaleRevisionError."""
    title = title_of(text)
    with current_database().session() as session:
        Songs(session).save(song_id, based_on, title, text)
        song = Songs(session).get(song_id)
    return desk_of(song, query, 201)


def latest_of(song_id: int) -> StoredRevision:
    """The latest revision; raises NotFoundError."""
    with current_database().reading() as session:
        return Songs(session).get(song_id).latest
