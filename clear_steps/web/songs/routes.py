"""Routes of songs; each is a thin call of the core and the store."""

from apiflask import APIBlueprint
from flask import Response, current_app

from clear_steps.store import Songs
from clear_steps.web.current import answered, current_database, ladder_in_use
from clear_steps.web.songs import schemas as api
from clear_steps.web.songs.cards import Cards
from clear_steps.web.songs.desk import desk_of, saved, title_of
from clear_steps.web.songs.grading import preview_json
from clear_steps.web.whom import GradeQuery, whom_of

blueprint = APIBlueprint("songs", __name__, url_prefix="/api")


@blueprint.get("/songs")
@blueprint.output(api.CardList)
def list_songs() -> Response:
    """Every song as a card, by title."""
    cards: Cards = current_app.extensions["clear_steps_cards"]
    return Response(cards.list_json(), mimetype="application/json")


@blueprint.post("/songs")
@blueprint.input(api.NewSongIn, arg_name="body")
@blueprint.output(api.DeskModel, status_code=201)
def add_song(body: api.NewSongIn) -> Response:
    """Store a new song; a text that cannot be read stores nothing, and a draft sent again is the same
    song."""
    title = title_of(body.text)
    with current_database().session() as session:
        songs = Songs(session)
        there = songs.of_draft(body.draft)
        song = songs.add(title, body.text, body.draft)
    return desk_of(song, body.grade, 200 if there else 201)


@blueprint.post("/preview")
@blueprint.input(api.TextIn, arg_name="body")
@blueprint.output(api.PreviewModel)
def preview(body: api.TextIn) -> Response:
    """Read and grade a text without storing it; a text that is not finished is no error."""
    with current_database().reading() as session:
        ladder, whom = ladder_in_use(session).content, whom_of(session, body.grade)
    return answered(preview_json, body.text, whom, ladder)


@blueprint.get("/songs/<int:song_id>")
@blueprint.input(GradeQuery, location="query", arg_name="query")
@blueprint.output(api.DeskModel)
def get_song(song_id: int, query: GradeQuery) -> Response:
    """A song at its latest revision, graded for a hand and a tempo."""
    with current_database().reading() as session:
        song = Songs(session).get(song_id)
    return desk_of(song, query)


@blueprint.put("/songs/<int:song_id>/away")
@blueprint.input(api.AwayIn, arg_name="body")
@blueprint.output({}, status_code=204)
def put_song_away(song_id: int, body: api.AwayIn) -> tuple[str, int]:
    """Take a song out of sight, or bring it back; nothing of it is lost."""
    with current_database().session() as session:
        Songs(session).put_away(song_id, body.away)
    return "", 204


@blueprint.get("/songs/<int:song_id>/revisions")
@blueprint.output(api.RevisionList)
def list_revisions(song_id: int) -> api.RevisionList:
    """Every revision of a song, oldest first, with its text."""
    with current_database().reading() as session:
        found = Songs(session).revisions(song_id)
    return api.RevisionList(
        revisions=[
            api.RevisionModel(number=r.number, title=r.title, saved_at=r.saved_at, text=r.text) for r in found
        ]
    )


@blueprint.post("/songs/<int:song_id>/revisions")
@blueprint.input(api.RevisionIn, arg_name="body")
@blueprint.output(api.DeskModel, status_code=201)
def save_revision(song_id: int, body: api.RevisionIn) -> Response:
    """Save a text as a new revision; 409 if it is based on an old one."""
    return saved(song_id, body.based_on, body.text)


@blueprint.get("/alive")
@blueprint.output({}, status_code=204)
def is_alive() -> tuple[str, int]:
    """Whether the server answers; a page that lost it asks until it does."""
    return "", 204
