"""What somebody may play of a song, the original or a version of it, graded for them; done by the workers."""

from dataclasses import dataclass

from clear_steps.core.grade import Grading, Ladder, Reach, grade_part, reach_of
from clear_steps.core.score import Part, Song
from clear_steps.core.teach import Playable
from clear_steps.store import Songs, StoredVersion
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.versions.comparing import asked_words, version_now
from clear_steps.web.whom import Whom


@dataclass(frozen=True, slots=True)
class Offered:
    """A version with the text of its revision, or a part of the original."""

    text: str
    version: StoredVersion | None = None
    part_index: int = 0

    @property
    def version_id(self) -> int | None:
        """The number of the version; none for the original."""
        return self.version.id if self.version else None

    @property
    def student(self) -> str | None:
        """For whom it was written, by name; none where for nobody."""
        return self.version.student.name if self.version and self.version.student else None


@dataclass(frozen=True, slots=True)
class Played:
    """What is played, on whose guitar, and its grade for them."""

    song: Song
    part: Part
    grading: Grading
    words: str  # what it is: `asked for Step 4`, `the original, Guitar 2`


def offered_of(songs: Songs, version: StoredVersion) -> Offered:
    """A version with the text of its revision."""
    return Offered(songs.revision(version.song_id, version.revision).text, version, version.part_index)


def played(offered: Offered, whom: Whom, ladder: Ladder) -> Played:
    """What is offered, as somebody plays it; a later revision may have fewer parts: its last one then."""
    song = whom.on_their_guitar(read_cached(offered.text).song)
    if offered.version:
        now = version_now(offered.version, song, ladder, whom)
        return Played(song, now.version, now.grading, asked_words(offered.version))
    part = song.parts[min(offered.part_index, len(song.parts) - 1)]
    grading = grade_part(song, part, ladder, whom.request)
    return Played(song, part, grading, f"the original{f', {part.name}' if part.name else ''}")


def reach_in(own: Played, whom: Whom, ladder: Ladder) -> Reach:
    """What of it is past them, by all that is known of them."""
    return reach_of(own.part, own.grading, whom.ability(ladder))


def playable(key: int, offered: Offered, whom: Whom, ladder: Ladder) -> Playable:
    """What is offered under a key, as one choice of theirs."""
    own = played(offered, whom, ladder)
    reach = reach_in(own, whom, ladder)
    return Playable(key, own.grading.step, len(reach.bars), reach.within)
