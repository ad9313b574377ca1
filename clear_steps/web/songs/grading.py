"""What is graded of a text, as JSON ready to be sent; done by the workers, so only values go in and out."""

from functools import lru_cache

from pydantic import BaseModel

from clear_steps.core.errors import ReadError
from clear_steps.core.score import TECHNIQUES
from clear_steps.web.analysis.shown import Graded, analysis_of, graded, hardest_words
from clear_steps.web.current import ladder_of
from clear_steps.web.schemas import problem_model
from clear_steps.web.songs import schemas as api
from clear_steps.web.whom import ANYBODY, Whom


@lru_cache(maxsize=64)
def analysis_json(text: str, whom: Whom, ladder: str) -> str:
    """The AnalysisModel of a text by a ladder's file; raises ReadError."""
    return analysis_of(graded(text, whom, ladder_of(ladder))).model_dump_json()


def preview_json(text: str, whom: Whom, ladder: str) -> str:
    """The PreviewModel of a text that need not be finished."""
    try:
        analysis, problems = analysis_of(graded(text, whom, ladder_of(ladder))), []
    except ReadError as error:
        analysis, problems = None, [problem_model(problem) for problem in error.problems]
    return api.PreviewModel(analysis=analysis, problems=problems).model_dump_json()


def card_json(text: str, ladder: str) -> str:
    """What a song's card shows of its text: `grade`, or the `problem` that keeps it from being graded."""
    try:
        grade, problem = _card_grade(graded(text, ANYBODY, ladder_of(ladder))), ""
    except ReadError as error:
        grade, problem = None, str(error)
    return _Graded(grade=grade, problem=problem).model_dump_json()


class _Graded(BaseModel):
    grade: api.CardGrade | None
    problem: str


def _card_grade(result: Graded) -> api.CardGrade:
    part, grading = result.reading.song.parts[0], result.gradings[0]
    events = [event for each in result.reading.song.parts for _, _, event in each.events()]
    techniques = {
        technique for event in events for note in event.notes for technique in event.techniques_of(note)
    }
    return api.CardGrade(
        step=max(other.step for other in result.gradings),
        techniques=sorted(TECHNIQUES[technique].name for technique in techniques),
        sections=[section.name for each in result.reading.song.parts for section in each.sections],
        tuning=part.tuning.name,
        tempo=float(grading.tempo),
        tempo_assumed=grading.tempo_assumed,
        bars=len(part.bars),
        parts=len(result.gradings),
        climb=api.ClimbModel(
            steps=[round(grade.step, 2) for grade in grading.bars],
            beats=[float(bar.quarters / bar.metre.beat_quarters) for bar in part.bars],
        ),
        hardest=hardest_words(part, grading),
    )
