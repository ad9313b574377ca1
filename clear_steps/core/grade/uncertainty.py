"""How far the Step may be off, where the teacher was not sure or leaves a choice: a range beside the Step."""

from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.step import Grader, GradeRequest, Grading
from clear_steps.core.score import Bar, Event, Part, Song
from clear_steps.core.score.words import number_words

_TEMPO_OFF = Fraction(15, 100)  # how far a guessed tempo may be off either way (from memory)


@dataclass(frozen=True, slots=True)
class StepRange:
    """The song's Step at its lowest and highest, and what was not sure; equal where everything was."""

    low: float
    high: float
    reasons: tuple[str, ...]


def step_range(
    song: Song, part: Part, ladder: Ladder, grading: Grading, request: GradeRequest = GradeRequest()
) -> StepRange:
    """From the grading at hand: slower and without what is doubtful or optional, up to faster with all of
    it."""
    reasons = []
    doubtful = [bar for bar in part.bars if bar.uncertain]
    if doubtful:
        notes = sum(note.uncertain for bar in doubtful for event in bar.events for note in event.notes)
        rhythm = sum(any(event.uncertain for event in bar.events) for bar in doubtful)
        reasons += [f"{number_words(notes)} note{'s are' if notes > 1 else ' is'} uncertain"] if notes else []
        reasons += (
            [f"the rhythm of {number_words(rhythm)} bar{'s is' if rhythm > 1 else ' is'} uncertain"]
            if rhythm
            else []
        )
    optional = sum(note.optional for _, _, event in part.events() for note in event.notes)
    reasons += (
        [f"{number_words(optional)} note{'s are' if optional > 1 else ' is'} optional"] if optional else []
    )
    if song.tempo_is_assumed:
        reasons.append("the tempo is assumed")
    if not reasons:
        return StepRange(grading.step, grading.step, ())
    surest = replace(part, bars=tuple(map(_at_least, part.bars)))
    steps = [grading.step]
    for factor in (1 - _TEMPO_OFF, 1 + _TEMPO_OFF) if song.tempo_is_assumed else (Fraction(1),):
        retimed = replace(song, tempo=song.playing_tempo * factor)
        practice = request.practice_tempo and request.practice_tempo * factor
        grader = Grader(retimed, part, ladder, replace(request, practice_tempo=practice))
        steps += [grader.grade(part).step, grader.grade(surest).step]
    return StepRange(min(steps), max(steps), tuple(reasons))


def _at_least(bar: Bar) -> Bar:
    """The bar without its uncertain and its optional notes; where the rhythm is uncertain it is not
    counted."""
    in_time = not any(event.uncertain for event in bar.events)
    return replace(bar, events=tuple(_surely(event, in_time) for event in bar.events))


def _surely(event: Event, in_time: bool) -> Event:
    notes = tuple(note for note in event.notes if not (note.uncertain or note.optional))
    if len(notes) == len(event.notes) and in_time:
        return event
    return replace(
        event,
        notes=notes,
        techniques=event.techniques if notes else frozenset(),
        free=event.free or not in_time,
    )
