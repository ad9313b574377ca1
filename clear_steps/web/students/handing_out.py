"""What of a song may be handed to a student, by the one rule of what they can play; done by the workers."""

from clear_steps.core.grade import Grading, grade_part, reach_of
from clear_steps.core.score import Part
from clear_steps.core.teach import Playable, best_fit
from clear_steps.store import StoredVersion, Student
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.students import schemas as api
from clear_steps.web.versions.comparing import asked_words, version_now
from clear_steps.web.whom import whom_is


def hand_out_json(
    student: Student,
    text: str,
    part_index: int,
    versions: tuple[tuple[StoredVersion, str], ...],
    ladder: str,
) -> str:
    """The HandOutList of a part of a song and its versions, each with its revision's text."""
    whom, by = whom_is(student), ladder_of(ladder).ladder
    song = whom.on_their_guitar(read_cached(text).song)
    part = part_of(song, part_index)
    graded: list[tuple[int | None, str, Part, Grading]] = [
        (None, "the original", part, grade_part(song, part, by, whom.request))
    ]
    for version, own_text in versions:
        own = version_now(version, whom.on_their_guitar(read_cached(own_text).song), by, whom)
        graded.append((version.id, asked_words(version), own.version, own.grading))
    reaches = [reach_of(own, grading, whom.ability(by)) for _, _, own, grading in graded]
    rows = [
        Playable(key, grading.step, len(reach.bars), reach.within)
        for key, ((_, _, _, grading), reach) in enumerate(zip(graded, reaches, strict=True))
    ]
    best = best_fit(rows, ())
    return api.HandOutList(
        choices=[
            api.HandOutModel(
                version_id=number,
                part_index=part_index,
                asked=asked,
                step=grading.step,
                within_reach=reach.within,
            )
            for (number, asked, _, grading), reach in zip(graded, reaches, strict=True)
        ],
        proposed=best.key if best.within else None,
    ).model_dump_json()
