"""Routes about one place in a song: other ways to play it, other readings, the tempo, the teacher's own
Step."""

from collections.abc import Callable
from dataclasses import replace

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import SAME_STEP, SCHOOL_TITLES, Alternative, alternatives
from clear_steps.core.score import (
    Part,
    Song,
    unknown_sections,
    with_finger,
    with_reading,
    with_reading_in_use,
    with_role,
)
from clear_steps.formats.tabtext import with_heading, write_bars, write_tab
from clear_steps.store import OwnSteps, Songs
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import current_database, current_ladder
from clear_steps.web.passages import schemas as api
from clear_steps.web.songs.desk import desk_of, latest_of, saved
from clear_steps.web.songs.schemas import DeskModel
from clear_steps.web.whom import GradeQuery, whom_of

blueprint = APIBlueprint("passages", __name__, url_prefix="/api")


@blueprint.post("/songs/<int:song_id>/tempo")
@blueprint.input(api.TempoIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def write_tempo(song_id: int, body: api.TempoIn) -> Response:
    """Write a tapped tempo into the text's header, as a new revision."""
    return saved(song_id, body.based_on, with_heading(latest_of(song_id).text, "Tempo", str(body.tempo)))


@blueprint.post("/songs/<int:song_id>/ringing")
@blueprint.input(api.RingingIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def set_ringing(song_id: int, body: api.RingingIn) -> Response:
    """Say that a part rings as written, or take that back, as a new revision."""
    return _with_changed_part(song_id, body, lambda part: replace(part, rings_as_written=body.as_written))


@blueprint.post("/songs/<int:song_id>/order")
@blueprint.input(api.OrderIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def write_order(song_id: int, body: api.OrderIn) -> Response:
    """Say in which order the sections are played, as a new revision; raises InvalidValueError for a name that
    no section has."""
    song = read_cached(latest_of(song_id).text).song
    order = tuple(" ".join(item.split()) for item in body.order.split(",") if item.strip())
    if unknown := unknown_sections(song, order):
        names = dict.fromkeys(section.name for part in song.parts for section in part.sections)
        raise InvalidValueError("order", unknown[0], f"sections with commas between: {', '.join(names)}")
    return saved(song_id, body.based_on, write_tab(replace(song, order=order)))


@blueprint.post("/songs/<int:song_id>/roles")
@blueprint.input(api.RoleIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def give_role(song_id: int, body: api.RoleIn) -> Response:
    """Say what a section is for its player, or leave it to be guessed, as a new revision."""
    return _with_changed_part(song_id, body, lambda part: with_role(part, body.first_bar, body.role))


@blueprint.post("/songs/<int:song_id>/fingers")
@blueprint.input(api.FingerIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def pin_finger(song_id: int, body: api.FingerIn) -> Response:
    """Pin a note to a finger, or free it, as a new revision; the answer is fingered and graded anew."""
    song = read_cached(latest_of(song_id).text).song
    part = part_of(song, body.part_index)
    pinned = with_finger(part, body.bar, body.event, body.string, body.finger)
    return saved(song_id, body.based_on, write_tab(_with_part(song, part, pinned)), body.grade)


@blueprint.post("/songs/<int:song_id>/alternatives")
@blueprint.input(api.PassageIn, arg_name="body")
@blueprint.output(api.AlternativeList)
def list_alternatives(song_id: int, body: api.PassageIn) -> api.AlternativeList:
    """Other ways to play a passage of the latest revision, easiest first."""
    latest = latest_of(song_id)
    with current_database().reading() as session:
        whom = whom_of(session, body.grade)
    written = read_cached(latest.text).song
    song = whom.on_their_guitar(written)
    part = part_of(song, body.part_index)
    ladder, notes = current_ladder().ladder, body.notes(part)
    ways = alternatives(song, part, body.first, body.last, ladder, whom.request, notes)
    scale = written.parts[body.part_index].scale_length_mm
    rows = [_alternative_model(written, replace(way.part, scale_length_mm=scale), way, body) for way in ways]
    return api.AlternativeList(
        revision=latest.number,
        schools_agree=not set(SCHOOL_TITLES.values()) & {way.title for way in ways},
        nothing_easier=all(way.step >= ways[0].step - SAME_STEP for way in ways),
        alternatives=rows,
    )


def _alternative_model(song: Song, part: Part, way: Alternative, body: api.PassageIn) -> api.AlternativeModel:
    """A way, and the song with `part` as it is then."""
    passage = replace(part, bars=part.bars[body.first : body.last + 1], sections=(), remarks=(), readings=())
    return api.AlternativeModel(
        title=way.title,
        sentence=way.sentence,
        step=way.step,
        song_step=way.song_step,
        widest_mm=way.widest_mm,
        moves=way.moves,
        travel_mm=way.travel_mm,
        strings=list(way.strings),
        stops_ringing=way.stops_ringing,
        tab=write_bars(passage),
        text=write_tab(_with_part(song, song.parts[body.part_index], part)),
    )


def _with_part(song: Song, part: Part, changed: Part) -> Song:
    return replace(song, parts=tuple(changed if own is part else own for own in song.parts))


@blueprint.post("/songs/<int:song_id>/readings")
@blueprint.input(api.ReadingIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def begin_reading(song_id: int, body: api.ReadingIn) -> Response:
    """Keep a bar as it stands aside and begin another reading of it, as a new revision."""
    return _with_changed_part(song_id, body, lambda part: with_reading(part, body.bar, body.name))


@blueprint.post("/songs/<int:song_id>/readings/use")
@blueprint.input(api.ReadingIn, arg_name="body")
@blueprint.output(DeskModel, status_code=201)
def use_reading(song_id: int, body: api.ReadingIn) -> Response:
    """Put a kept reading in its bar's place, as a new revision."""
    return _with_changed_part(song_id, body, lambda part: with_reading_in_use(part, body.bar, body.name))


def _with_changed_part(
    song_id: int, body: api.RingingIn | api.RoleIn | api.ReadingIn, change: Callable[[Part], Part]
) -> Response:
    """The song with one part changed, as a new revision."""
    song = read_cached(latest_of(song_id).text).song
    part = part_of(song, body.part_index)
    return saved(song_id, body.based_on, write_tab(_with_part(song, part, change(part))))


@blueprint.put("/songs/<int:song_id>/own-step")
@blueprint.input(api.OwnStepIn, arg_name="body")
@blueprint.output(DeskModel)
def give_own_step(song_id: int, body: api.OwnStepIn) -> Response:
    """Write the teacher's own Step beside the computed one, or take it back."""
    with current_database().session() as session:
        song = Songs(session).get(song_id)
        OwnSteps(session).set(song_id, body.part_index, body.step, body.based_on)
    return desk_of(song, GradeQuery())
