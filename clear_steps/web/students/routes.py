"""Routes of students: who they are and what they can do."""

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.grade import MEASURES
from clear_steps.core.hand import PRESET_SPANS_MM
from clear_steps.core.score import TUNINGS
from clear_steps.store import Songs, Student, Students, Versions
from clear_steps.web.current import answered, current_database, ladder_in_use, worked_out
from clear_steps.web.students import schemas as api
from clear_steps.web.students.handing_out import hand_out_json
from clear_steps.web.students.songs import TheirSong, not_graded, student_song, their_songs
from clear_steps.web.versions.offered import Offered, offered_of
from clear_steps.web.workers import TooLongError

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
    return api.StudentSongList(songs=[_graded(stored.student, row, ladder) for row in theirs])


def _graded(student: Student, theirs: TheirSong, ladder: str) -> api.StudentSong:
    """One song that takes too long is no other song's affair."""
    try:
        return worked_out(student_song, student, theirs, ladder)
    except TooLongError as error:
        return not_graded(theirs.song, str(error))


@blueprint.get("/students/<int:student_id>/songs/<int:song_id>/parts/<int:part_index>")
@blueprint.output(api.HandOutModel)
def propose_hand_out(student_id: int, song_id: int, part_index: int) -> Response:
    """What of a part of a song is proposed for a student; versions written for somebody else are theirs."""
    with current_database().reading() as session:
        songs, student = Songs(session), Students(session).get(student_id).student
        original = Offered(songs.get(song_id).latest.text, part_index=part_index)
        ladder = ladder_in_use(session).content
        offered = [
            offered_of(songs, each) for each in Versions(session).of_song(song_id) if not each.put_away
        ]
    fitting = [
        each for each in offered if each.part_index == part_index and each.student in (None, student.name)
    ]
    return answered(hand_out_json, student, original, tuple(fitting), ladder)


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
