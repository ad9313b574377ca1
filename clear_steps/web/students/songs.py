"""What a student plays: the songs they have a version of or a seat in, graded for them."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from clear_steps.core.grade import grade_part, reach_of
from clear_steps.store import Groups, Songs, StoredSong, StoredStudent, StoredVersion, Student, Versions
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.students import schemas as api
from clear_steps.web.versions.comparing import asked_words, version_now
from clear_steps.web.whom import whom_is


@dataclass(frozen=True, slots=True)
class TheirSong:
    """A song of a student's with what was written for them, each version with its revision's text."""

    song: StoredSong
    versions: tuple[tuple[StoredVersion, str], ...]


def their_songs(session: Session, stored: StoredStudent) -> list[TheirSong]:
    """A student's songs by title, those put away left out."""
    songs = Songs(session)
    written: dict[int, list[tuple[StoredVersion, str]]] = {}
    for version in Versions(session).of_student(stored.student.name):
        if not version.put_away:
            text = songs.revision(version.song_id, version.revision).text
            written.setdefault(version.song_id, []).append((version, text))
    theirs = {*written, *(group.song_id for group in Groups(session).seating(stored.id))}
    found = [song for song in map(songs.get, theirs) if not song.put_away]
    rows = [TheirSong(song, tuple(written.get(song.id, ()))) for song in found]
    return sorted(rows, key=lambda row: (row.song.latest.title.lower(), row.song.id))


def student_song(student: Student, theirs: TheirSong, ladder: str) -> api.StudentSong:
    """A song graded for a student; done by the workers."""
    whom, grading_by = whom_is(student), ladder_of(ladder).ladder
    read = whom.on_their_guitar(read_cached(theirs.song.latest.text).song)
    part = read.parts[0]
    grading = grade_part(read, part, grading_by, whom.request)
    reach = reach_of(part, grading, whom.ability(grading_by))
    versions = []
    for version, text in theirs.versions:
        now = version_now(version, whom.on_their_guitar(read_cached(text).song), grading_by, whom)
        within = reach_of(now.version, now.grading, whom.ability(grading_by)).within
        versions.append(
            api.StudentVersion(
                id=version.id, asked=asked_words(version), step=now.grading.step, within_reach=within
            )
        )
    return api.StudentSong(
        song_id=theirs.song.id,
        title=theirs.song.latest.title,
        step=grading.step,
        past_bars=[part.bar_number(each.index) for each in reach.bars],
        past_song=reach.song_words,
        within_reach=reach.within,
        versions=versions,
    )
