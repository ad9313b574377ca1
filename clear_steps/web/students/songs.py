"""What a student plays: the songs they have a version of or a seat in, graded for them."""

from sqlalchemy.orm import Session

from clear_steps.core.grade import Ability, bars_past, grade_part
from clear_steps.store import Groups, Songs, StoredSong, StoredStudent, StoredVersion, Versions
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import LadderInUse, ladder_in_use
from clear_steps.web.students import schemas as api
from clear_steps.web.versions.comparing import asked_words, version_now
from clear_steps.web.whom import whom_is


def songs_of(session: Session, stored: StoredStudent) -> list[api.StudentSong]:
    """Their songs by title, those put away left out."""
    ladder, songs = ladder_in_use(session), Songs(session)
    written: dict[int, list[StoredVersion]] = {}
    for version in Versions(session).of_student(stored.student.name):
        if not version.put_away:
            written.setdefault(version.song_id, []).append(version)
    theirs = {*written, *(group.song_id for group in Groups(session).seating(stored.id))}
    found = [song for song in map(songs.get, theirs) if not song.put_away]
    rows = [_song_of(session, song, written.get(song.id, []), stored, ladder) for song in found]
    return sorted(rows, key=lambda row: (row.title.lower(), row.song_id))


def _song_of(
    session: Session,
    song: StoredSong,
    written: list[StoredVersion],
    stored: StoredStudent,
    ladder: LadderInUse,
) -> api.StudentSong:
    whom = whom_is(stored.student)
    read = whom.on_their_guitar(read_cached(song.latest.text).song)
    part = read.parts[0]
    grading = grade_part(read, part, ladder.ladder, whom.request)
    past = bars_past(part, grading, Ability(whom.request.player, whom.limits, ladder.ladder))
    versions = []
    for version in written:
        own = whom.on_their_guitar(read_cached(Songs(session).revision(song.id, version.revision).text).song)
        now = version_now(version, own, ladder.ladder, whom)
        versions.append(api.StudentVersion(id=version.id, asked=asked_words(version), step=now.grading.step))
    return api.StudentSong(
        song_id=song.id,
        title=song.latest.title,
        step=grading.step,
        past_bars=[part.bar_number(each.index) for each in past],
        versions=versions,
    )
