"""Ways 11 and 12, what needs no rewriting: slower with all the notes, a section alone, another part, two
players in turn."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise

from clear_steps.core.easier.heights import TOLERANCE
from clear_steps.core.easier.playing import bars_words
from clear_steps.core.grade import GradeRequest, Grading, Ladder, grade_part
from clear_steps.core.score import Bar, Event, Part, Song
from clear_steps.core.score.words import number_words

_TURNS = (2, 4, 1)  # bars: a call and an answer are mostly two
_SLOWEST = Fraction(3, 10)  # of the marked tempo; below it a tune falls apart (from memory)


@dataclass(frozen=True, slots=True)
class Otherwise:
    """An answer that changes no note: in words, and the Step it has."""

    words: str
    step: float


def without_rewriting(
    song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest = GradeRequest()
) -> tuple[Otherwise, ...]:
    """What meets a target as it is written: slower first, then a section looped, another part, two players
    in turn."""
    return (
        *_slower(song, part, ladder, target, request),
        *_a_section(song, part, ladder, target, request),
        *_another_part(song, part, ladder, target, request),
        *_in_turn(song, part, ladder, target, request),
    )


def _is_met(grading: Grading, target: float) -> bool:
    return max([grading.step, *(bar.step for bar in grading.bars)]) <= target + TOLERANCE


def _slower(
    song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest
) -> Iterator[Otherwise]:
    """The fastest whole tempo at which all the notes meet it."""
    marked = request.practice_tempo or song.playing_tempo

    def graded(tempo: int) -> Grading:
        return grade_part(song, part, ladder, replace(request, practice_tempo=Fraction(tempo)))

    low, high = int(marked * _SLOWEST), int(marked)
    if low < 1 or _is_met(graded(high), target) or not _is_met(graded(low), target):
        return
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if _is_met(graded(middle), target) else (low, middle)
    share = round(100 * low / marked)
    yield Otherwise(
        f"All the notes, slower: at {low} instead of {float(marked):g} ({share} %)", graded(low).step
    )


def _a_section(
    song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest
) -> Iterator[Otherwise]:
    """Of several sections the longest that meets it by itself."""
    starts = [section.first_bar for section in part.sections]
    found = []
    for section, (start, stop) in zip(part.sections, pairwise([*starts, len(part.bars)]), strict=True):
        bars = part.bars[start:stop]
        if len(bars) < len(part.bars) and any(not bar.silent for bar in bars):
            alone = replace(part, bars=bars, sections=(), remarks=(), readings=())
            grading = grade_part(replace(song, parts=(alone,), order=()), alone, ladder, request)
            if _is_met(grading, target):
                found.append((len(bars), -start, section.name, (start, stop), grading.step))
    if found:
        _, _, name, (start, stop), step = max(found)
        yield Otherwise(f"Only {name}, looped: {bars_words(part, range(start, stop))}", step)


def _another_part(
    song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest
) -> Iterator[Otherwise]:
    """The hardest of the other parts that meets it."""
    others = [own for own in song.parts if own is not part]
    gradings = [(own, grade_part(song, own, ladder, request)) for own in others]
    met = [(grading.step, own.name) for own, grading in gradings if _is_met(grading, target)]
    if met:
        step, name = max(met)
        yield Otherwise(f"Another part instead: {name or 'the other guitar'}, as written", step)


def _in_turn(
    song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest
) -> Iterator[Otherwise]:
    """Two players, call and answer: the commonest turns in which each meets it."""
    for turn in (each for each in _TURNS if each < len(part.bars)):
        gradings = []
        for own in range(2):
            bars = (bar if index // turn % 2 == own else _resting(bar) for index, bar in enumerate(part.bars))
            alone = replace(part, bars=tuple(bars))
            gradings.append(grade_part(replace(song, parts=(alone,)), alone, ladder, request))
        if all(_is_met(grading, target) for grading in gradings):
            what = "a bar each" if turn == 1 else f"{number_words(turn)} bars each"
            yield Otherwise(
                f"Two players in turn, {what}: one begins, the other answers",
                max(grading.step for grading in gradings),
            )
            return


def _resting(bar: Bar) -> Bar:
    return replace(bar, events=(Event(bar.quarters),))
