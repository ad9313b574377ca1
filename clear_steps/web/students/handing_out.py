"""What of a song is proposed for a student, by the one rule of what they can play; done by the workers."""

from clear_steps.core.teach import best_fit
from clear_steps.store import Student
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.students import schemas as api
from clear_steps.web.versions.offered import Offered, playable
from clear_steps.web.whom import whom_is


def hand_out_json(student: Student, original: Offered, versions: tuple[Offered, ...], ladder: str) -> str:
    """The HandOutModel of a part of a song and its versions; raises InvalidValueError where there is no such
    part."""
    part_of(read_cached(original.text).song, original.part_index)
    offered, whom, by = (original, *versions), whom_is(student), ladder_of(ladder).ladder
    best = best_fit([playable(key, each, whom, by) for key, each in enumerate(offered)], ())
    if not best.within:
        return api.HandOutModel(proposed=None).model_dump_json()
    proposed = api.ProposedModel(version_id=offered[best.key].version_id, step=best.step)
    return api.HandOutModel(proposed=proposed).model_dump_json()
