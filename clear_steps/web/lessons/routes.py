"""Routes of lessons: a part's chunks as they are taught, where the teacher cuts, setting up, the sheet."""

from dataclasses import replace

from apiflask import APIBlueprint
from flask import Response

from clear_steps.store import (
    Chunkings,
    LessonSheet,
    LessonSheets,
    Songs,
    StaleRevisionError,
    Students,
    Versions,
)
from clear_steps.web.current import answered, current_database, ladder_in_use, worked_out
from clear_steps.web.lessons import schemas as api
from clear_steps.web.lessons.cutting import starts_of
from clear_steps.web.lessons.settingup import setting_up_json
from clear_steps.web.lessons.telling import Asked, lesson_json, stretch_json
from clear_steps.web.songs.desk import latest_of
from clear_steps.web.versions.stored import tab_of_version
from clear_steps.web.whom import whom_of

blueprint = APIBlueprint("lessons", __name__, url_prefix="/api")


@blueprint.get("/songs/<int:song_id>/lesson")
@blueprint.input(api.LessonQuery, location="query", arg_name="query")
@blueprint.output(api.LessonModel)
def get_lesson(song_id: int, query: api.LessonQuery) -> Response:
    """The chunks of a part at the latest revision, with all that is said of them."""
    return _lesson(song_id, query)


@blueprint.get("/versions/<int:version_id>/lesson")
@blueprint.input(api.LessonQuery, location="query", arg_name="query")
@blueprint.output(api.LessonModel)
def get_version_lesson(version_id: int, query: api.LessonQuery) -> Response:
    """A version as it is taught, cut where the teacher cuts its original."""
    with current_database().reading() as session:
        stored = Versions(session).get(version_id)
        text = Songs(session).revision(stored.song_id, stored.revision).text
    tab = worked_out(tab_of_version, stored, text)
    asked, ladder = _asked(stored.song_id, query.model_copy(update={"part_index": stored.part_index}))
    of_version = replace(asked, text=tab, revision=stored.revision, part_index=0)
    return answered(lesson_json, of_version, ladder)


@blueprint.put("/songs/<int:song_id>/chunks")
@blueprint.input(api.ChunksIn, arg_name="body")
@blueprint.output(api.LessonModel)
def cut(song_id: int, body: api.ChunksIn) -> Response:
    """Keep where the teacher cuts a part, or give it back to the proposal."""
    text = latest_of(song_id).text
    starts = worked_out(starts_of, text, body.lesson.part_index, tuple(body.starts))
    with current_database().session() as session:
        latest = Songs(session).get(song_id).latest
        if latest.number != body.revision or latest.text != text:
            raise StaleRevisionError(body.revision, latest.number)
        Chunkings(session).save(song_id, body.lesson.part_index, body.based_on, latest.number, starts)
    return _lesson(song_id, body.lesson)


@blueprint.post("/songs/<int:song_id>/stretch")
@blueprint.input(api.StretchIn, arg_name="body")
@blueprint.output(api.ChunkModel)
def tell_stretch(song_id: int, body: api.StretchIn) -> Response:
    """Some notes of a part: their Step, their hardest switch, the tempo to begin with, and their words."""
    asked, ladder = _asked(song_id, body.lesson)
    ends = (body.first.bar, body.first.event), (body.last.bar, body.last.event)
    return answered(stretch_json, asked, *ends, ladder)


@blueprint.get("/songs/<int:song_id>/setting-up")
@blueprint.input(api.SettingUpQuery, location="query", arg_name="query")
@blueprint.output(api.SettingUpModel)
def get_setting_up(song_id: int, query: api.SettingUpQuery) -> Response:
    """How a guitar is made ready for a part, string by string."""
    with current_database().reading() as session:
        text = Songs(session).get(song_id).latest.text
        whom = whom_of(session, query)
    return answered(setting_up_json, text, whom, query)


@blueprint.get("/songs/<int:song_id>/sheet")
@blueprint.input(api.SheetQuery, location="query", arg_name="query")
@blueprint.output(api.SheetModel)
def get_sheet(song_id: int, query: api.SheetQuery) -> api.SheetModel:
    """What stands on a song's sheet for a student, or for anybody; as usual where nobody chose yet."""
    with current_database().reading() as session:
        Songs(session).get(song_id)
        number, sheet = LessonSheets(session).latest(song_id, query.student_id)
        if number == 0 and query.student_id is not None:
            student = Students(session).get(query.student_id).student
            sheet = replace(sheet, language=student.language, names=student.names)
    return _sheet_model(number, sheet)


@blueprint.put("/songs/<int:song_id>/sheet")
@blueprint.input(api.SheetIn, arg_name="body")
@blueprint.output(api.SheetModel)
def choose_sheet(song_id: int, body: api.SheetIn) -> api.SheetModel:
    """Keep what stands on a sheet."""
    sheet = LessonSheet(
        tuple(body.blocks),
        tuple(body.off),
        body.language,
        body.names,
        body.version_id,
        tuple(body.beside),
        body.with_original,
    )
    with current_database().session() as session:
        Songs(session).get(song_id)
        if body.student_id is not None:
            Students(session).get(body.student_id)
        number = LessonSheets(session).save(song_id, body.student_id, body.based_on, sheet)
    return _sheet_model(number, sheet)


def _sheet_model(number: int, sheet: LessonSheet) -> api.SheetModel:
    return api.SheetModel(
        number=number,
        blocks=list(sheet.blocks),
        off=list(sheet.off),
        language=sheet.language,
        names=sheet.names,
        version_id=sheet.version_id,
        beside=list(sheet.beside),
        with_original=sheet.with_original,
    )


def _lesson(song_id: int, query: api.LessonQuery) -> Response:
    return answered(lesson_json, *_asked(song_id, query))


def _asked(song_id: int, query: api.LessonQuery) -> tuple[Asked, str]:
    """What is asked for, and the ladder's file."""
    with current_database().reading() as session:
        songs, ladder = Songs(session), ladder_in_use(session)
        latest = songs.get(song_id).latest
        kept = Chunkings(session).latest(song_id, query.part_index)
        kept_text = songs.revision(song_id, kept.revision).text if kept.starts else ""
        student = None if query.student_id is None else Students(session).get(query.student_id).student
        whom = whom_of(session, query)
    asked = Asked(
        latest.text,
        latest.number,
        query.part_index,
        kept,
        kept_text,
        query.part_index,
        whom,
        student.comfortable_step if student else None,
        query.language,
        query.names,
    )
    return asked, ladder.content
