"""A request about a part of a song -> values that say what is meant, for the workers."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from clear_steps.core.easier import Wish
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Part, Song
from clear_steps.store import Songs, Student, Students, Versions, digest
from clear_steps.store.students import student_json
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import current_database, ladder_in_use, ladder_of
from clear_steps.web.program import program_mark
from clear_steps.web.versions import schemas as api
from clear_steps.web.whom import ANYBODY, Whom, whom_is


@dataclass(frozen=True, slots=True)
class AskedPart:
    """A part of a song's latest revision, for whom it is, and the file of the ladder it is graded by."""

    revision: int
    text: str
    part_index: int
    whom: Whom
    ladder: str

    def opened(self) -> "OpenedPart":
        """Read, as it lies for them; done by the workers. Raises InvalidValueError where there is no such
        part."""
        song = self.whom.on_their_guitar(read_cached(self.text).song)
        part = part_of(song, self.part_index)
        return OpenedPart(song, part, self.whom, ladder_of(self.ladder).ladder)


@dataclass(frozen=True, slots=True)
class OpenedPart:
    """A part that was asked about, and what it is graded by."""

    song: Song
    part: Part
    whom: Whom
    ladder: Ladder


def asked_part(session: Session, song_id: int, part_index: int, whom: Whom = ANYBODY) -> AskedPart:
    """The part that is asked about; raises NotFoundError."""
    latest = Songs(session).get(song_id).latest
    return AskedPart(latest.number, latest.text, part_index, whom, ladder_in_use(session).content)


@dataclass(frozen=True, slots=True)
class AskedVersion:
    """What a search is asked for: of which part, for which student, and a digest of all of it."""

    song_id: int
    of: AskedPart
    student: Student | None
    wish: Wish
    digest: str


def asked_version(song_id: int, body: api.VersionIn) -> AskedVersion:
    """What a request for easier versions asks; raises NotFoundError and InvalidValueError."""
    with current_database().reading() as session:
        kept = Versions(session).get(body.keeping) if body.keeping is not None else None
        student = kept.student if kept else None
        if body.student_id is not None:
            student = Students(session).get(body.student_id).student
        of = asked_part(session, song_id, body.part_index, whom_is(student) if student else ANYBODY)
    refused = [edit for edit in kept.edits if edit.id in kept.refused] if kept else []
    wish = Wish(
        (body.target, *body.further_targets),
        body.approach,
        body.layer,
        body.setup,
        student.limits if student else None,
        body.tuning_and_capo,
        body.chosen,
        frozenset((bar, edit.kind) for edit in refused for bar in edit.bars),
        body.fill_short_bars,
    )
    asked = digest(
        f"{song_id} {of.revision}",
        body.model_dump_json(),
        repr(sorted(wish.refused)),
        student_json(student),
        of.ladder,
        program_mark(),
    )
    return AskedVersion(song_id, of, student, wish, asked)
