"""A stored song as the Desk shows it, and how a new revision of it is saved."""

from clear_steps.store import OwnSteps, Songs, StoredRevision, StoredSong
from clear_steps.web.analysis.shown import analysis_of, graded, read_cached
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.songs import schemas as api


def title_of(text: str) -> str:
    """The title a text gives itself; reading it also proves that it can be read."""
    return read_cached(text).song.title or "Untitled"


def desk_of(song: StoredSong, query: api.GradeQuery) -> api.DeskModel:
    """A song at its latest revision, graded."""
    with current_database().session() as session:
        ladder, own = ladder_in_use(session), OwnSteps(session).every()
    analysis = analysis_of(graded(song.latest.text, query, ladder))
    return api.DeskModel(
        id=song.id,
        revision=song.latest.number,
        saved_at=song.latest.saved_at,
        text=song.latest.text,
        own_steps=[own.get((song.id, index)) for index in range(len(analysis.parts))],
        analysis=analysis,
    )


def saved(song_id: int, based_on: int, text: str) -> api.DeskModel:
    """Store a text as a new revision; raises ReadError or StaleRevisionError."""
    title = title_of(text)
    with current_database().session() as session:
        revision = Songs(session).save(song_id, based_on, title, text)
    return desk_of(StoredSong(song_id, revision), api.GradeQuery())


def latest_of(song_id: int) -> StoredRevision:
    """The latest revision; raises NotFoundError."""
    with current_database().session() as session:
        return Songs(session).get(song_id).latest
