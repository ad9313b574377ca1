"""Routes of the Ladder screen: read, try, save, choose; and where the teacher's own Steps differ."""

from apiflask import APIBlueprint

from clear_steps.core.grade import Ladder, difference, rungs
from clear_steps.core.score import TECHNIQUES
from clear_steps.ladders import default_ladder_json, ladder_from_json
from clear_steps.store import Ladders, OwnSteps, Songs
from clear_steps.web.analysis.schemas import GradeQuery
from clear_steps.web.analysis.shown import graded
from clear_steps.web.current import LadderInUse, current_database, current_ladder, ladder_in_use
from clear_steps.web.ladders import schemas as api

blueprint = APIBlueprint("ladders", __name__, url_prefix="/api")


@blueprint.get("/ladder")
@blueprint.output(api.LadderScreenModel)
def get_ladder() -> api.LadderScreenModel:
    """The ladder in use, in numbers and in words, and the names of the others."""
    return _screen()


def _screen() -> api.LadderScreenModel:
    with current_database().session() as session:
        stored, every, ladder = (
            Ladders(session).in_use(),
            Ladders(session).every(),
            ladder_in_use(session).ladder,
        )
    content = stored.content if stored else default_ladder_json().decode()
    return api.LadderScreenModel(
        id=stored.id if stored else None,
        revision=stored.number if stored else 0,
        ladder=api.LadderModel.model_validate_json(content),
        technique_names={row.technique: row.name for row in TECHNIQUES.values()},
        rungs=_rung_models(ladder),
        ladders=[
            api.LadderNameModel(
                id=row.id, name=api.LadderModel.model_validate_json(row.content).name, in_use=row.in_use
            )
            for row in every
        ],
    )


def _rung_models(ladder: Ladder) -> list[api.RungModel]:
    return [
        api.RungModel(
            step=rung.step,
            measures=[api.RungMeasureModel(measure=name, words=words) for name, words in rung.sentences],
        )
        for rung in rungs(ladder)
    ]


@blueprint.post("/ladders")
@blueprint.input(api.LadderIn, arg_name="body")
@blueprint.output(api.LadderScreenModel, status_code=201)
def add_ladder(body: api.LadderIn) -> api.LadderScreenModel:
    """Store a ladder as a new one, and grade by it."""
    content = _checked(body.ladder)
    with current_database().session() as session:
        Ladders(session).add(content)
    return _screen()


@blueprint.post("/ladders/<int:ladder_id>/revisions")
@blueprint.input(api.LadderRevisionIn, arg_name="body")
@blueprint.output(api.LadderScreenModel, status_code=201)
def save_ladder(ladder_id: int, body: api.LadderRevisionIn) -> api.LadderScreenModel:
    """Save a ladder as a new revision; 409 if it is based on an old one."""
    content = _checked(body.ladder)
    with current_database().session() as session:
        Ladders(session).save(ladder_id, body.based_on, content)
    return _screen()


def _checked(ladder: api.LadderModel) -> str:
    """The ladder as a file's JSON; raises ReadError where it cannot grade."""
    content = ladder.model_dump_json()
    ladder_from_json(content.encode())
    return content


@blueprint.put("/ladder/choice")
@blueprint.input(api.LadderChoiceIn, arg_name="body")
@blueprint.output(api.LadderScreenModel)
def choose_ladder(body: api.LadderChoiceIn) -> api.LadderScreenModel:
    """Grade by this ladder from now on; none is the one that ships."""
    with current_database().session() as session:
        Ladders(session).use(body.ladder_id)
    return _screen()


@blueprint.post("/ladder/preview")
@blueprint.input(api.LadderIn, arg_name="body")
@blueprint.output(api.LadderPreviewModel)
def preview_ladder(body: api.LadderIn) -> api.LadderPreviewModel:
    """What a ladder under the pen says, and what it does to the songs; nothing is stored."""
    content = body.ladder.model_dump_json()
    ladder = ladder_from_json(content.encode())
    with current_database().session() as session:
        songs, now = Songs(session).every(), ladder_in_use(session)
    tried = LadderInUse(content, ladder)
    effects = []
    for song in songs:
        steps = [
            max(grading.step for grading in graded(song.latest.text, GradeQuery(), which).gradings)
            for which in (now, tried)
        ]
        effects.append(
            api.SongEffectModel(song_id=song.id, title=song.latest.title, step=steps[0], step_then=steps[1])
        )
    return api.LadderPreviewModel(rungs=_rung_models(ladder), songs=effects)


@blueprint.get("/differences")
@blueprint.output(api.DifferenceList)
def list_differences() -> api.DifferenceList:
    """Every part with a Step of the teacher's own, the largest difference first."""
    with current_database().session() as session:
        own, songs, ladder = (
            OwnSteps(session).every(),
            {song.id: song for song in Songs(session).every()},
            ladder_in_use(session),
        )
    rows = []
    for (song_id, part_index), step in own.items():
        result = graded(songs[song_id].latest.text, GradeQuery(), ladder)
        if part_index >= len(result.gradings):
            continue  # the part is gone from the latest revision
        song = result.reading.song
        found = difference(song, song.parts[part_index], result.gradings[part_index], step)
        name = " / ".join(filter(None, (songs[song_id].latest.title, song.parts[part_index].name)))
        rows.append(
            api.DifferenceModel(
                song_id=song_id,
                part_index=part_index,
                title=name,
                computed=found.computed,
                own=found.own,
                measure=found.measure,
            )
        )
    return api.DifferenceList(differences=sorted(rows, key=lambda row: -abs(row.computed - row.own)))


@blueprint.get("/techniques")
@blueprint.output(api.TechniqueList)
def list_techniques() -> api.TechniqueList:
    """The table of techniques with each one's Step on the ladder."""
    steps = current_ladder().ladder.technique_steps
    rows = [
        api.TechniqueModel(
            technique=row.technique,
            name=row.name,
            sign=row.sign,
            writing=row.writing,
            hand=row.hand,
            step=steps[row.technique],
        )
        for row in TECHNIQUES.values()
    ]
    return api.TechniqueList(techniques=rows)
