"""What a student plays: the songs they have a version of or a seat in, graded for them."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from clear_steps.core.errors import ReadError
from clear_steps.store import Groups, Songs, StoredSong, StoredStudent, Student, Versions
from clear_steps.web.current import ladder_of
from clear_steps.web.students import schemas as api
from clear_steps.web.versions.offered import Offered, offered_of, played, reach_in
from clear_steps.web.whom import whom_is


@dataclass(frozen=True, slots=True)
class TheirSong:
    """A song of a student's with the versions that were written for them, by number."""

    song: StoredSong
    versions: tuple[tuple[int, Offered], ...]


def their_songs(session: Session, stored: StoredStudent) -> list[TheirSong]:
    """A student's songs by title, those put away left out."""
    songs = Songs(session)
    written: dict[int, list[tuple[int, Offered]]] = {}
    for version in Versions(session).of_student(stored.student.name):
        if not version.put_away:
            written.setdefault(version.song_id, []).append((version.id, offered_of(songs, version)))
    theirs = {*written, *(group.song_id for group in Groups(session).seating(stored.id))}
    found = [song for song in map(songs.get, theirs) if not song.put_away]
    rows = [TheirSong(song, tuple(written.get(song.id, ()))) for song in found]
    return sorted(rows, key=lambda row: (row.song.latest.title.lower(), row.song.id))


def student_song(student: Student, theirs: TheirSong, ladder: str) -> api.StudentSong:
    """A song graded for a student; done by the workers."""
    whom, by = whom_is(student), ladder_of(ladder).ladder
    try:
        original = played(Offered(theirs.song.latest.text), whom, by)
    except ReadError as error:
        return not_graded(theirs.song, str(error))
    reach = reach_in(original, whom, by)
    versions = []
    for number, offered in theirs.versions:
        own = played(offered, whom, by)
        versions.append(
            api.StudentVersion(
                id=number,
                asked=own.words,
                step=own.grading.step,
                within_reach=reach_in(own, whom, by).within,
            )
        )
    return api.StudentSong(
        song_id=theirs.song.id,
        title=theirs.song.latest.title,
        step=original.grading.step,
        past_bars=[original.part.bar_number(each.index) for each in reach.bars],
        past_song=reach.song_words,
        within_reach=reach.within,
        versions=versions,
    )


def not_graded(song: StoredSong, problem: str) -> api.StudentSong:
    """A song that is listed without its Step, and why."""
    return api.StudentSong(song_id=song.id, title=song.latest.title, problem=problem)
