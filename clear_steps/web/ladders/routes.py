"""Routes of the Ladder screen: read, try, save, choose; and where the teacher's own Steps differ."""

import json
import time

from apiflask import APIBlueprint

from clear_steps.core.grade import Ladder, rungs
from clear_steps.core.score import TECHNIQUES, with_harder
from clear_steps.core.score.techniques import TECHNIQUE_SETS
from clear_steps.ladders import ladder_from_json
from clear_steps.store import KeptAnswers, Ladders, OwnSteps, Songs, digest
from clear_steps.web.current import (
    SHIPPED_LADDER,
    current_database,
    current_ladder,
    ladder_in_use,
    ladder_reading,
    worked_out,
)
from clear_steps.web.ladders import schemas as api
from clear_steps.web.ladders.differing import DifferenceFound, difference_json
from clear_steps.web.program import program_mark
from clear_steps.web.songs.grading import card_or_problem
from clear_steps.web.workers import TooLongError

MOST_TRIED = 12  # songs that a ladder under the pen is tried on
DIFFERENCE = "difference"
PATIENCE_S = 2.0  # that a page waits for differences that are not kept yet
blueprint = APIBlueprint("ladders", __name__, url_prefix="/api")


@blueprint.get("/ladder")
@blueprint.output(api.LadderScreenModel)
def get_ladder() -> api.LadderScreenModel:
    """The ladder in use, in numbers and in words, and the names of the others."""
    return _screen()


def _screen() -> api.LadderScreenModel:
    with current_database().reading() as session:
        stored, every = Ladders(session).in_use(), Ladders(session).every()
    reading = ladder_reading(stored.content if stored else SHIPPED_LADDER.content)
    return api.LadderScreenModel(
        id=stored.id if stored else None,
        revision=stored.number if stored else 0,
        ladder=api.LadderModel.model_validate_json(reading.content),
        filled=list(reading.filled),
        technique_names={row.technique: row.name for row in TECHNIQUES.values()},
        rungs=_rung_models(reading.ladder),
        ladders=[
            api.LadderNameModel(id=row.id, name=ladder_reading(row.content).ladder.name, in_use=row.in_use)
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
    content = ladder.model_dump_json(exclude_none=True)
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
    """What a ladder under the pen says, and what it does to the latest songs; nothing is stored."""
    reading = ladder_reading(body.ladder.model_dump_json(exclude_none=True))
    with current_database().reading() as session:
        songs = [song for song in Songs(session).every() if not song.put_away]
        now = ladder_in_use(session).content
    latest = sorted(songs, key=lambda song: song.latest.saved_at)[-MOST_TRIED:]
    effects: list[api.SongEffectModel] = []
    for song in sorted(latest, key=lambda song: song.latest.title.lower()):
        before, after = (_step(song.latest.text, content) for content in (now, reading.content))
        if before is not None and after is not None:
            title = song.latest.title
            effects.append(api.SongEffectModel(song_id=song.id, title=title, step=before, step_then=after))
    return api.LadderPreviewModel(
        rungs=_rung_models(reading.ladder), songs=effects, left_out=len(songs) - len(effects)
    )


def _step(text: str, ladder: str) -> float | None:
    """A song's Step by a ladder's file; none where its text cannot be read any more, or is too much."""
    try:
        found = worked_out(card_or_problem, text, ladder)
    except TooLongError:
        return None
    grade = json.loads(found)["grade"]
    return None if grade is None else float(grade["step"])


@blueprint.get("/differences")
@blueprint.output(api.DifferenceList)
def list_differences() -> api.DifferenceList:
    """Every part with a Step of the teacher's own, the largest difference first; each is worked out once and
    kept, and what takes longer than a page waits is left for the next time it asks."""
    with current_database().reading() as session:
        own, ladder = OwnSteps(session).every(), ladder_in_use(session).content
        songs = {song.id: song for song in Songs(session).every()}
        kept = KeptAnswers(session, DIFFERENCE, program_mark()).every()
    made: dict[str, str] = {}
    rows, not_graded, waiting, until = [], set(), 0, time.monotonic() + PATIENCE_S
    for (song_id, part_index), step in own.items():
        latest = songs[song_id].latest
        key = digest(latest.text, ladder, f"{part_index} {step}")
        if key not in kept and time.monotonic() > until:
            waiting += 1
            continue
        try:
            if key not in kept:
                made[key] = worked_out(difference_json, latest.text, part_index, step, ladder)
        except TooLongError as error:
            not_graded.add(f"{latest.title}: {error}")
            continue
        found = DifferenceFound.model_validate_json(kept.get(key) or made[key])
        if found.is_there:  # else the part is gone from the latest revision
            name = " / ".join(filter(None, (latest.title, found.part)))
            rows.append(
                api.DifferenceModel(
                    song_id=song_id,
                    part_index=part_index,
                    title=name,
                    computed=found.computed,
                    own=step,
                    measure=found.measure,
                )
            )
    if made:
        with current_database().session() as session:
            KeptAnswers(session, DIFFERENCE, program_mark()).keep(made.items())
    rows.sort(key=lambda row: -abs(row.computed - row.own))
    return api.DifferenceList(differences=rows, waiting=waiting, not_graded=sorted(not_graded))


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
            harder=sorted(with_harder({row.technique}) - {row.technique}),
            step=steps[row.technique],
        )
        for row in TECHNIQUES.values()
    ]
    sets = [
        api.TechniqueSetModel(name=name, techniques=sorted(techniques))
        for name, techniques in TECHNIQUE_SETS.items()
    ]
    return api.TechniqueList(techniques=rows, sets=sets)
