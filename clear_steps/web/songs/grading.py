"""What is graded of a text, as JSON ready to be sent; done by the workers, so only values go in and out."""

import logging

from pydantic import BaseModel

from clear_steps.core.errors import ReadError
from clear_steps.core.score import TECHNIQUES
from clear_steps.formats.tabtext import (
    NO_METRE,
    NO_TUNING,
    TAKEN_FOR_TITLE,
    Reading,
    read_what_can_be,
    songs_in,
    spell_tempo,
)
from clear_steps.web.analysis.shown import Graded, analysis_of, graded, graded_reading, hardest_words
from clear_steps.web.current import ladder_of
from clear_steps.web.remembering import remembered
from clear_steps.web.schemas import problem_model
from clear_steps.web.songs import schemas as api
from clear_steps.web.whom import ANYBODY, Whom


@remembered(lambda _, answer: len(answer))
def analysis_json(text: str, whom: Whom, ladder: str) -> str:
    """The AnalysisModel of a text by a ladder's file; raises ReadError."""
    return analysis_of(graded(text, whom, ladder_of(ladder))).model_dump_json()


def preview_json(text: str, whom: Whom, ladder: str) -> str:
    """The PreviewModel of a text that need not be finished."""
    reading, problems = read_what_can_be(text)
    return api.PreviewModel(
        analysis=reading and analysis_of(graded_reading(reading, whom, ladder_of(ladder))),
        problems=[problem_model(problem, reading) for problem in problems],
        headings=reading and _headings(reading),
        songs=[title for title, _ in songs] if reading and len(songs := songs_in(text)) > 1 else [],
    ).model_dump_json()


def _headings(reading: Reading) -> api.HeadingsModel:
    """What the small fields over the preview show of the first part."""
    song, part = reading.song, reading.song.parts[0]
    guessed = {guess.what for guess in reading.guesses}
    tempo = "" if song.tempo is None else spell_tempo(song.tempo)
    return api.HeadingsModel(
        title=song.title,
        title_guessed=any(guess.taken == TAKEN_FOR_TITLE for guess in reading.guesses),
        tempo=tempo,
        tempo_guessed=song.tempo_is_assumed,
        time=str(part.bars[0].metre) if part.bars else "",
        time_guessed=NO_METRE in guessed,
        tuning=part.tuning.name,
        tuning_guessed=NO_TUNING in guessed,
        capo=part.capo,
    )


def card_or_problem(text: str, ladder: str) -> str:
    """What a song's card shows, whatever happens: a song that cannot be graded is no other song's affair."""
    try:
        return card_json(text, ladder)
    except Exception:
        logging.getLogger(__name__).exception("a song could not be graded")
        return problem_json("something went wrong on our side; the song is stored")


def problem_json(problem: str) -> str:
    """A card that says why a song has no grade."""
    return _Graded(grade=None, problem=problem).model_dump_json()


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
