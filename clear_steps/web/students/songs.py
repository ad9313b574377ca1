"""What a student plays: the songs they have a version of or a seat in, graded for them."""

from sqlalchemy.orm import Session

from clear_steps.core.grade import Ability, bars_past, grade_part
from clear_steps.store import Groups, Songs, StoredSong, StoredStudent, Versions
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import LadderInUse, ladder_in_use
from clear_steps.web.students import schemas as api
from clear_steps.web.versions.comparing import asked_words, version_now
from clear_steps.web.whom import whom_is


def songs_of(session: Session, stored: StoredStudent) -> list[api.StudentSong]:
    """Their songs by title, those put away left out."""
    ladder = ladder_in_use(session)
    rows = [_song_of(session, song, stored, ladder) for song in Songs(session).every() if not song.put_away]
    return [row for row in rows if row is not None]


def _song_of(
    session: Session, song: StoredSong, stored: StoredStudent, ladder: LadderInUse
) -> api.StudentSong | None:
    name = stored.student.name
    written = [
        version
        for version in Versions(session).of_song(song.id)
        if version.student is not None and version.student.name == name and not version.put_away
    ]
    seated = any(
        seat.student_id == stored.id
        for group in Groups(session).of_song(song.id)
        for seat in group.group.seats
    )
    if not written and not seated:
        return None
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
