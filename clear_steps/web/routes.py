"""The API's routes; each is a thin call of the core and the store."""

from apiflask import APIBlueprint
from flask import current_app

from clear_steps.core.errors import ReadError
from clear_steps.core.hand import PRESET_SPANS_MM
from clear_steps.core.score import TECHNIQUES
from clear_steps.ladders import default_ladder
from clear_steps.store import Database, Players, Songs, StoredSong
from clear_steps.web import schemas as api
from clear_steps.web.analysis import analysis_of, graded, hardest_words, problem_model, read_cached

blueprint = APIBlueprint("api", __name__, url_prefix="/api")


def current_database() -> Database:
    """The database of the application that answers."""
    database: Database = current_app.extensions["clear_steps_database"]
    return database


def _title(text: str) -> str:
    """The title a text gives itself; reading it also proves that it can be read."""
    return read_cached(text).song.title or "Untitled"


@blueprint.get("/songs")
@blueprint.output(api.CardList)
def list_songs() -> api.CardList:
    """Every song as a card, by title."""
    with current_database().session() as session:
        songs = Songs(session).every()
    return api.CardList(songs=[_card(song) for song in songs])


def _card(song: StoredSong) -> api.CardModel:
    result = graded(song.latest.text, api.GradeQuery())
    part, grading = result.reading.song.parts[0], result.gradings[0]
    return api.CardModel(
        id=song.id,
        title=song.latest.title,
        revision=song.latest.number,
        step=max(other.step for other in result.gradings),
        tuning=part.tuning.name,
        tempo=float(grading.tempo),
        tempo_assumed=grading.tempo_assumed,
        bars=len(part.bars),
        parts=len(result.gradings),
        climb=[
            api.ClimbColumn(number=grade.number, step=grade.step, beats=float(bar.quarters / bar.metre.beat_quarters))
            for bar, grade in zip(part.bars, grading.bars, strict=True)
        ],
        hardest=hardest_words(part, grading),
    )


@blueprint.post("/songs")
@blueprint.input(api.TextIn, arg_name="body")
@blueprint.output(api.DeskModel, status_code=201)
def add_song(body: api.TextIn) -> api.DeskModel:
    """Store a new song; a text that cannot be read stores nothing."""
    title = _title(body.text)
    with current_database().session() as session:
        song = Songs(session).add(title, body.text)
    return _desk(song, body.grade)


@blueprint.post("/preview")
@blueprint.input(api.TextIn, arg_name="body")
@blueprint.output(api.PreviewModel)
def preview(body: api.TextIn) -> api.PreviewModel:
    """Read and grade a text without storing it; a text that is not finished is no error."""
    try:
        return api.PreviewModel(analysis=analysis_of(graded(body.text, body.grade)), problems=[])
    except ReadError as error:
        return api.PreviewModel(analysis=None, problems=[problem_model(problem) for problem in error.problems])


@blueprint.get("/songs/<int:song_id>")
@blueprint.input(api.GradeQuery, location="query", arg_name="query")
@blueprint.output(api.DeskModel)
def get_song(song_id: int, query: api.GradeQuery) -> api.DeskModel:
    """A song at its latest revision, graded for a hand and a tempo."""
    with current_database().session() as session:
        song = Songs(session).get(song_id)
    return _desk(song, query)


def _desk(song: StoredSong, query: api.GradeQuery) -> api.DeskModel:
    analysis = analysis_of(graded(song.latest.text, query))
    return api.DeskModel(id=song.id, revision=song.latest.number, saved_at=song.latest.saved_at, text=song.latest.text, analysis=analysis)


@blueprint.get("/songs/<int:song_id>/revisions")
@blueprint.output(api.RevisionList)
def list_revisions(song_id: int) -> api.RevisionList:
    """Every revision of a song, oldest first, with its text."""
    with current_database().session() as session:
        found = Songs(session).revisions(song_id)
    return api.RevisionList(revisions=[api.RevisionModel(number=r.number, title=r.title, saved_at=r.saved_at, text=r.text) for r in found])


@blueprint.post("/songs/<int:song_id>/revisions")
@blueprint.input(api.RevisionIn, arg_name="body")
@blueprint.output(api.DeskModel, status_code=201)
def save_revision(song_id: int, body: api.RevisionIn) -> api.DeskModel:
    """Save a text as a new revision; 409 if it is based on an old one."""
    title = _title(body.text)
    with current_database().session() as session:
        revision = Songs(session).save(song_id, body.based_on, title, body.text)
    return _desk(StoredSong(song_id, revision), api.GradeQuery())


@blueprint.get("/players")
@blueprint.output(api.PlayerList)
def list_players() -> api.PlayerList:
    """Every player, and the preset hands."""
    with current_database().session() as session:
        players = Players(session).every()
    return api.PlayerList(
        players=[api.PlayerModel(id=player.id, name=player.name, span_mm=player.span_mm) for player in players],
        preset_spans_mm=PRESET_SPANS_MM,
    )


@blueprint.post("/players")
@blueprint.input(api.PlayerIn, arg_name="body")
@blueprint.output(api.PlayerModel, status_code=201)
def add_player(body: api.PlayerIn) -> api.PlayerModel:
    """Store a new player."""
    with current_database().session() as session:
        player = Players(session).add(body.name, body.span_mm)
    return api.PlayerModel(id=player.id, name=player.name, span_mm=player.span_mm)


@blueprint.put("/players/<int:player_id>")
@blueprint.input(api.PlayerIn, arg_name="body")
@blueprint.output(api.PlayerModel)
def change_player(player_id: int, body: api.PlayerIn) -> api.PlayerModel:
    """Change a player's name and span."""
    with current_database().session() as session:
        player = Players(session).change(player_id, body.name, body.span_mm)
    return api.PlayerModel(id=player.id, name=player.name, span_mm=player.span_mm)


@blueprint.get("/techniques")
@blueprint.output(api.TechniqueList)
def list_techniques() -> api.TechniqueList:
    """The table of techniques with each one's Step on the ladder."""
    steps = default_ladder().technique_steps
    rows = [
        api.TechniqueModel(technique=row.technique, name=row.name, sign=row.sign, writing=row.writing, hand=row.hand, step=steps[row.technique])
        for row in TECHNIQUES.values()
    ]
    return api.TechniqueList(techniques=rows)
