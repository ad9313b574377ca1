"""A version held against its original: what stands, how it grades, what it keeps."""

from collections.abc import Sequence
from dataclasses import dataclass

from clear_steps.core.easier.edit import Edit, standing, transposition
from clear_steps.core.easier.kept import Kept, KeptSoFar
from clear_steps.core.grade import GradeRequest, Grading, Ladder, grade_part
from clear_steps.core.score import Part, Song


@dataclass(frozen=True, slots=True)
class Compared:
    """A version fingered and graded anew, the ids of edits that do not stand, and what is kept of the whole
    and of every bar (per cent)."""

    version: Part
    gone: frozenset[int]
    grading: Grading
    kept: Kept
    kept_by_bar: tuple[float, ...]


def compared(
    song: Song,
    part: Part,
    ladder: Ladder,
    edits: Sequence[Edit],
    refused: Sequence[int],
    request: GradeRequest,
) -> Compared:
    """The version with some edits refused."""
    version, gone = standing(part, edits, refused)
    scores = KeptSoFar(part, half_tones=transposition(edits, refused))
    return Compared(
        version, gone, grade_part(song, version, ladder, request), scores.of(version), scores.by_bar(version)
    )
