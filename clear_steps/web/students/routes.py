"""Routes of students: who they are and what they can do."""

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.grade import MEASURES
from clear_steps.core.hand import PRESET_SPANS_MM
from clear_steps.core.score import TUNINGS
from clear_steps.store import Songs, Students, Versions
from clear_steps.web.current import answered, current_database, ladder_in_use, worked_out
from clear_steps.web.students import schemas as api
from clear_steps.web.students.handing_out import hand_out_json
from clear_steps.web.students.songs import student_song, their_songs

blueprint = APIBlueprint("students", __name__, url_prefix="/api")


@blueprint.get("/students")
@blueprint.output(api.StudentList)
def list_students() -> api.StudentList:
    """Every student by name, the preset hands, and the measures that may have a limit."""
    with current_database().reading() as session:
        students = [api.student_model(stored) for stored in Students(session).every()]
    measures = [api.MeasureModel(name=row.name, about=row.about) for row in MEASURES.values()]
    return api.StudentList(
        students=students, preset_spans_mm=PRESET_SPANS_MM, measures=measures, tunings=list(TUNINGS)
    )


@blueprint.get("/students/<int:student_id>/songs")
@blueprint.output(api.StudentSongList)
def list_student_songs(student_id: int) -> api.StudentSongList:
    """The songs a student has a version of or a seat in, with their Steps."""
    with current_database().reading() as session:
        stored, ladder = Students(session).get(student_id), ladder_in_use(session).content
        theirs = their_songs(session, stored)
    songs = [worked_out(student_song, stored.student, row, ladder) for row in theirs]
    return api.StudentSongList(songs=songs)


@blueprint.get("/students/<int:student_id>/songs/<int:song_id>/parts/<int:part_index>")
@blueprint.output(api.HandOutList)
def list_hand_outs(student_id: int, song_id: int, part_index: int) -> Response:
    """What of a part of a song may be handed to a student, and what is proposed; versions that were written
    for somebody else are theirs."""
    with current_database().reading() as session:
        songs, student = Songs(session), Students(session).get(student_id).student
        latest, ladder = songs.get(song_id).latest, ladder_in_use(session).content
        fitting = [
            (each, songs.revision(song_id, each.revision).text)
            for each in Versions(session).of_song(song_id)
            if not each.put_away
            and each.part_index == part_index
            and (each.student is None or each.student.name == student.name)
        ]
    return answered(hand_out_json, student, latest.text, part_index, tuple(fitting), ladder)


@blueprint.post("/students")
@blueprint.input(api.StudentIn, arg_name="body")
@blueprint.output(api.StudentModel, status_code=201)
def add_student(body: api.StudentIn) -> tuple[api.StudentModel, int]:
    """Store a new student; the very same once more is the one that is there, another of that name 409."""
    with current_database().session() as session:
        students = Students(session)
        known = {stored.id for stored in students.every()}
        stored = students.add(body.student)
    return api.student_model(stored), 200 if stored.id in known else 201


@blueprint.put("/students/<int:student_id>")
@blueprint.input(api.StudentChange, arg_name="body")
@blueprint.output(api.StudentModel)
def change_student(student_id: int, body: api.StudentChange) -> api.StudentModel:
    """Save a student as a new revision; 409 if it is based on an old one."""
    with current_database().session() as session:
        return api.student_model(Students(session).save(student_id, body.based_on, body.student))
