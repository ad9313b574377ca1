"""Where a teacher's own Step differs from the computed one; done by the workers."""

from pydantic import BaseModel

from clear_steps.core.errors import ReadError
from clear_steps.core.grade import difference
from clear_steps.web.analysis.shown import graded
from clear_steps.web.current import ladder_of
from clear_steps.web.whom import ANYBODY


class DifferenceFound(BaseModel):
    """The computed Step of a part and the measure behind a difference; nothing where the part, or the
    reading of its text, is gone."""

    is_there: bool
    part: str = ""
    computed: float = 0.0
    measure: str = ""


def difference_json(text: str, part_index: int, own: float, ladder: str) -> str:
    """The DifferenceFound of a part of a text."""
    try:
        result = graded(text, ANYBODY, ladder_of(ladder))
    except ReadError:
        return DifferenceFound(is_there=False).model_dump_json()
    song = result.reading.song
    if part_index >= len(song.parts):
        return DifferenceFound(is_there=False).model_dump_json()
    part = song.parts[part_index]
    found = difference(song, part, result.gradings[part_index], own)
    return DifferenceFound(
        is_there=True, part=part.name, computed=found.computed, measure=found.measure
    ).model_dump_json()
