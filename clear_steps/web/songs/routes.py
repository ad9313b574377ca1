"""The API's routes; each is a thin call of the core and the store."""

from apiflask import APIBlueprint

from clear_steps.core.errors import ReadError
from clear_steps.core.score import TECHNIQUES
from clear_steps.store import OwnSteps, Songs, StoredSong
from clear_steps.web.analysis.shown import analysis_of, graded, hardest_words
from clear_steps.web.current import LadderInUse, current_database, current_ladder, ladder_in_use
from clear_steps.web.schemas import problem_model
from clear_steps.web.songs import schemas as api
from clear_steps.web.songs.desk import desk_of, saved, title_of

blueprint = APIBlueprint("songs", __name__, url_prefix="/api")


@blueprint.get("/songs")
@blueprint.output(api.CardList)
def list_songs() -> api.CardList:
    """Every song as a card, by title."""
    with current_database().session() as session:
        songs, own, ladder = Songs(session).every(), OwnSteps(session).every(), ladder_in_use(session)
    return api.CardList(songs=[_card(song, own.get((song.id, 0)), ladder) for song in songs])


def _card(song: StoredSong, own_step: float | None, ladder: LadderInUse) -> api.CardModel:
    result = graded(song.latest.text, api.GradeQuery(), ladder)
    part, grading = result.reading.song.parts[0], result.gradings[0]
    events = [event for each in result.reading.song.parts for _, _, event in each.events()]
    techniques = {
        technique for event in events for note in event.notes for technique in event.techniques_of(note)
    }
    return api.CardModel(
        id=song.id,
        title=song.latest.title,
        revision=song.latest.number,
        step=max(other.step for other in result.gradings),
        own_step=own_step,
        techniques=sorted(TECHNIQUES[technique].name for technique in techniques),
        sections=[section.name for each in result.reading.song.parts for section in each.sections],
        tuning=part.tuning.name,
        tempo=float(grading.tempo),
        tempo_assumed=grading.tempo_assumed,
        bars=len(part.bars),
        parts=len(result.gradings),
        climb=[
            api.ClimbColumn(
                number=grade.number, step=grade.step, beats=float(bar.quarters / bar.metre.beat_quarters)
            )
            for bar, grade in zip(part.bars, grading.bars, strict=True)
        ],
        hardest=hardest_words(part, grading),
    )


@blueprint.post("/songs")
@blueprint.input(api.TextIn, arg_name="body")
@blueprint.output(api.DeskModel, status_code=201)
def add_song(body: api.TextIn) -> api.DeskModel:
    """Store a new song; a text that cannot be read stores nothing."""
    title = title_of(body.text)
    with current_database().session() as session:
        song = Songs(session).add(title, body.text)
    return desk_of(song, body.grade)


@blueprint.post("/preview")
@blueprint.input(api.TextIn, arg_name="body")
@blueprint.output(api.PreviewModel)
def preview(body: api.TextIn) -> api.PreviewModel:
    """Read and grade a text without storing it; a text that is not finished is no error."""
    try:
        return api.PreviewModel(
            analysis=analysis_of(graded(body.text, body.grade, current_ladder())), problems=[]
        )
    except ReadError as error:
        return api.PreviewModel(
            analysis=None, problems=[problem_model(problem) for problem in error.problems]
        )


@blueprint.get("/songs/<int:song_id>")
@blueprint.input(api.GradeQuery, location="query", arg_name="query")
@blueprint.output(api.DeskModel)
def get_song(song_id: int, query: api.GradeQuery) -> api.DeskModel:
    """A song at its latest revision, graded for a hand and a tempo."""
    with current_database().session() as session:
        song = Songs(session).get(song_id)
    return desk_of(song, query)


@blueprint.get("/songs/<int:song_id>/revisions")
@blueprint.output(api.RevisionList)
def list_revisions(song_id: int) -> api.RevisionList:
    """Every revision of a song, oldest first, with its text."""
    with current_database().session() as session:
        found = Songs(session).revisions(song_id)
    return api.RevisionList(
        revisions=[
            api.RevisionModel(number=r.number, title=r.title, saved_at=r.saved_at, text=r.text) for r in found
        ]
    )


@blueprint.post("/songs/<int:song_id>/revisions")
@blueprint.input(api.RevisionIn, arg_name="body")
@blueprint.output(api.DeskModel, status_code=201)
def save_revision(song_id: int, body: api.RevisionIn) -> api.DeskModel:
    """Save a text as a new revision; 409 if it is based on an old one."""
    return saved(song_id, body.based_on, body.text)
