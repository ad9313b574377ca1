"""A stored song as the Desk shows it, and how a new revision of it is saved."""

from flask import Response
from pydantic import TypeAdapter

from clear_steps.store import OwnSteps, Songs, StoredRevision, StoredSong
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import current_database, current_workers, ladder_in_use, still_wanted
from clear_steps.web.songs import schemas as api
from clear_steps.web.songs.grading import analysis_json
from clear_steps.web.whom import GradeQuery, whom_of

_DESK = TypeAdapter(dict[str, object])


def title_of(text: str) -> str:
    """The title a text gives itself; reading it also proves that it can be read."""
    return read_cached(text).song.title or "Untitled"


def desk_of(song: StoredSong, query: GradeQuery, status: int = 200) -> Response:
    """A song at its latest revision, graded: a DeskModel, its analysis as the workers wrote it."""
    with current_database().reading() as session:
        ladder, own = ladder_in_use(session), OwnSteps(session).of_song(song.id)
        whom = whom_of(session, query)
    workers = current_workers()
    analysis = workers.run(analysis_json, song.latest.text, whom, ladder.content, wanted=still_wanted())
    row = {
        "id": song.id,
        "revision": song.latest.number,
        "saved_at": song.latest.saved_at,
        "text": song.latest.text,
        "put_away": song.put_away,
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
