"""Routes about one place in a song: other ways to play it, other readings, the tempo, the teacher's own
Step."""

from collections.abc import Callable

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.score import Part, with_chord, with_finger, with_reading, with_reading_in_use, with_role
from clear_steps.formats.tabtext import with_heading
from clear_steps.store import OwnSteps, Songs
from clear_steps.web.current import answered, current_database, current_ladder, worked_out
from clear_steps.web.passages import schemas as api
from clear_steps.web.passages.writing import (
    alternatives_json,
    changed_text,
    ordered_text,
    ringing_as_written,
)
from clear_steps.web.songs.desk import desk_of, latest_of, saved
from clear_steps.web.songs.schemas import DeskModel
from clear_steps.web.whom import GradeQuery, whom_of

blueprint = APIBlueprint("passages", __name__, url_prefix="/api")


@blueprint.post("/songs/<int:song_id>/tempo")
@blueprint.input(api.TempoIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def write_tempo(song_id: int, body: api.TempoIn) -> Response:
    """Write a tapped tempo into the text's header, as a new revision."""
    text = worked_out(with_heading, latest_of(song_id).text, "Tempo", str(body.tempo))
    return saved(song_id, body.based_on, text)


@blueprint.post("/songs/<int:song_id>/ringing")
@blueprint.input(api.RingingIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def set_ringing(song_id: int, body: api.RingingIn) -> Response:
    """Say that a part rings as written, or take that back, as a new revision."""
    return saved(song_id, body.based_on, _changed(song_id, body, ringing_as_written, body.as_written))


@blueprint.post("/songs/<int:song_id>/order")
@blueprint.input(api.OrderIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def write_order(song_id: int, body: api.OrderIn) -> Response:
    """Say in which order the sections are played, as a new revision; raises InvalidValueError for a name that
    no section has."""
    return saved(song_id, body.based_on, worked_out(ordered_text, latest_of(song_id).text, body.order))


@blueprint.post("/songs/<int:song_id>/roles")
@blueprint.input(api.RoleIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def give_role(song_id: int, body: api.RoleIn) -> Response:
    """Say what a section is for its player, or leave it to be guessed, as a new revision."""
    return saved(song_id, body.based_on, _changed(song_id, body, with_role, body.first_bar, body.role))


@blueprint.post("/songs/<int:song_id>/fingers")
@blueprint.input(api.FingerIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def pin_finger(song_id: int, body: api.FingerIn) -> Response:
    """Pin a note to a finger, or free it, as a new revision; the answer is fingered and graded anew."""
    note = (body.bar, body.event, body.string, body.finger)
    return saved(song_id, body.based_on, _changed(song_id, body, with_finger, *note), body.grade)


@blueprint.post("/songs/<int:song_id>/names")
@blueprint.input(api.NameIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def name_shape(song_id: int, body: api.NameIn) -> Response:
    """Say what is held from an event on, as a new revision; the answer is read and fingered anew."""
    place = (body.bar, body.event, body.name)
    return saved(song_id, body.based_on, _changed(song_id, body, with_chord, *place))


@blueprint.post("/songs/<int:song_id>/alternatives")
@blueprint.input(api.PassageIn, arg_name="body")
@blueprint.output(api.AlternativeList)
def list_alternatives(song_id: int, body: api.PassageIn) -> Response:
    """Other ways to play a passage of the latest revision, easiest first."""
    latest = latest_of(song_id)
    with current_database().reading() as session:
        whom = whom_of(session, body.grade)
    return answered(alternatives_json, latest.text, latest.number, body, whom, current_ladder().content)


@blueprint.post("/songs/<int:song_id>/readings")
@blueprint.input(api.ReadingIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def begin_reading(song_id: int, body: api.ReadingIn) -> Response:
    """Keep a bar as it stands aside and begin another reading of it, as a new revision."""
    return saved(song_id, body.based_on, _changed(song_id, body, with_reading, body.bar, body.name))


@blueprint.post("/songs/<int:song_id>/readings/use")
@blueprint.input(api.ReadingIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def use_reading(song_id: int, body: api.ReadingIn) -> Response:
    """Put a kept reading in its bar's place, as a new revision."""
    return saved(song_id, body.based_on, _changed(song_id, body, with_reading_in_use, body.bar, body.name))


def _changed(
    song_id: int,
    body: api.RingingIn | api.RoleIn | api.FingerIn | api.NameIn | api.ReadingIn,
    change: Callable[..., Part],
    *values: object,
) -> str:
    """The latest text with one part changed."""
    return worked_out(changed_text, latest_of(song_id).text, body.part_index, change, *values)


@blueprint.put("/songs/<int:song_id>/own-step")
@blueprint.input(api.OwnStepIn, arg_name="body")
@blueprint.output(DeskModel)
def give_own_step(song_id: int, body: api.OwnStepIn) -> Response:
    """Write the teacher's own Step beside the computed one, or take it back."""
    with current_database().session() as session:
        song = Songs(session).get(song_id)
        OwnSteps(session).set(song_id, body.part_index, body.step, body.based_on)
    return desk_of(song, GradeQuery())
