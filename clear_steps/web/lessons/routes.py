"""Routes of lessons: a part's chunks as they are taught, where the teacher cuts, setting up, the sheet."""

from dataclasses import replace

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.figures import At
from clear_steps.core.score import Part
from clear_steps.core.teach.chunks import struck_at
from clear_steps.formats.tabtext import write_tab
from clear_steps.store import (
    Chunkings,
    ChunkStart,
    LessonSheet,
    LessonSheets,
    Songs,
    StaleRevisionError,
    Students,
    Versions,
)
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import current_database, current_workers, ladder_in_use, still_wanted
from clear_steps.web.lessons import schemas as api
from clear_steps.web.lessons.settingup import setting_up
from clear_steps.web.lessons.telling import Asked, lesson_json, stretch_json
from clear_steps.web.versions.stored import standing_of
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
        song = read_cached(Songs(session).revision(stored.song_id, stored.revision).text).song
        tab = write_tab(replace(song, parts=(standing_of(session, stored),)))
    asked, ladder = _asked(stored.song_id, query.model_copy(update={"part_index": stored.part_index}))
    of_version = replace(asked, text=tab, revision=stored.revision, part_index=0)
    answer = current_workers().run(lesson_json, of_version, ladder, wanted=still_wanted())
    return Response(answer, mimetype="application/json")


@blueprint.put("/songs/<int:song_id>/chunks")
@blueprint.input(api.ChunksIn, arg_name="body")
@blueprint.output(api.LessonModel)
def cut(song_id: int, body: api.ChunksIn) -> Response:
    """Keep where the teacher cuts a part, or give it back to the proposal."""
    with current_database().session() as session:
        latest = Songs(session).get(song_id).latest
        if latest.number != body.revision:
            raise StaleRevisionError(body.revision, latest.number)
        part = part_of(read_cached(latest.text).song, body.lesson.part_index)
        starts = tuple(_start(part, start) for start in body.starts)
        if list(starts) != sorted(set(starts), key=lambda start: (start.bar, start.onset)):
            raise InvalidValueError("chunks", "not in their order", "each to begin after the one before")
        Chunkings(session).save(song_id, body.lesson.part_index, body.based_on, latest.number, starts)
    return _lesson(song_id, body.lesson)


@blueprint.post("/songs/<int:song_id>/stretch")
@blueprint.input(api.StretchIn, arg_name="body")
@blueprint.output(api.ChunkModel)
def tell_stretch(song_id: int, body: api.StretchIn) -> Response:
    """Some notes of a part: their Step, their hardest switch, the tempo to begin with, and their words."""
    asked, ladder = _asked(song_id, body.lesson)
    ends = (body.first.bar, body.first.event), (body.last.bar, body.last.event)
    answer = current_workers().run(stretch_json, asked, *ends, ladder, wanted=still_wanted())
    return Response(answer, mimetype="application/json")


@blueprint.get("/songs/<int:song_id>/setting-up")
@blueprint.input(api.SettingUpQuery, location="query", arg_name="query")
@blueprint.output(api.SettingUpModel)
def get_setting_up(song_id: int, query: api.SettingUpQuery) -> api.SettingUpModel:
    """How a guitar is made ready for a part, string by string."""
    with current_database().reading() as session:
        text = Songs(session).get(song_id).latest.text
        whom = whom_of(session, query)
    song = read_cached(text).song
    return setting_up(song, part_of(song, query.part_index), whom, query)


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
    answer = current_workers().run(lesson_json, *_asked(song_id, query), wanted=still_wanted())
    return Response(answer, mimetype="application/json")


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


def _start(part: Part, start: api.ChunkStartIn) -> ChunkStart:
    bars = part.bars
    there = start.bar < len(bars) and start.event < len(bars[start.bar].events)
    onset = bars[start.bar].onsets[start.event] if there else None
    if onset is None or not struck_at(part, At(start.bar, onset)):
        raise InvalidValueError("begin of a chunk", f"bar {start.bar}, event {start.event}", "a struck note")
    return ChunkStart(start.bar, onset, " ".join(start.name.split()))
