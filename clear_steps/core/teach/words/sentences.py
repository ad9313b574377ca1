"""From the segments of a chunk to sentences that can be said."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.figures import At
from clear_steps.core.score import Picking
from clear_steps.core.score.words import capital
from clear_steps.core.shapes import Kind
from clear_steps.core.teach.words.carried import carried
from clear_steps.core.teach.words.facts import LikeFact, MomentFact
from clear_steps.core.teach.words.held import held
from clear_steps.core.teach.words.lines import common_words, line
from clear_steps.core.teach.words.notes import Voice, spoken_words
from clear_steps.core.teach.words.rhythm import Rhythm, counts, place_words, rhythm_of, usual_to_the_beat
from clear_steps.core.teach.words.segments import Scene, Segment

_EASY = 14  # words, up to which clauses are put together


def sentences_of(
    segments: Sequence[Segment], scene: Scene, voice: Voice, told_to: At | None = None
) -> list[str]:
    """What a teacher says of a chunk; what lies before `told_to` was said with the chunk before."""
    first = segments[0].moments[0]
    expected: Fraction | None = first.start - first.onset  # of the bar
    found: list[str] = []
    voice.string_named = False
    moments = [moment for segment in segments for moment in segment.moments]
    voice.manner, said_of_all = common_words(moments, replace(voice, manner=frozenset()))
    if len(segments) == 1:
        voice.manner, said_of_all = frozenset(), ""
    for segment in segments:
        is_told = told_to is not None and segment.moments[0].at <= told_to
        if is_told and segment.whole and len(segments) > 1:
            name = voice.chord(segment.chord)
            found.append(voice.say("from-grip", name=name) if name else voice.say("from-there"))
        else:
            found += filter(None, [said_of_all])
            said_of_all = ""
            rhythm = rhythm_of(segment.moments, expected)
            found += _segment(segment, rhythm, scene, voice, is_told or not segment.begins)
        last = segment.moments[-1]
        expected = last.start if last.silent else None
    return [sentence(each) for each in packed(found)]


def _segment(segment: Segment, rhythm: Rhythm, scene: Scene, voice: Voice, goes_on: bool) -> Iterator[str]:
    is_grip = segment.grip is not None and segment.kind in (Kind.HELD, Kind.OPEN)
    if is_grip and segment.pattern is not None:
        yield from held(segment, rhythm.timings, voice, scene.part.picking is Picking.FINGERS, goes_on)
        return
    unit = rhythm.to_the_beat
    if not rhythm.counted and unit != voice.to_the_beat:
        voice.to_the_beat = unit
        yield _unit_words(unit, segment.moments[0], voice)
    if is_grip:
        yield from held(segment, rhythm.timings, voice, scene.part.picking is Picking.FINGERS, goes_on)
    elif segment.kind is Kind.CARRIED and any(len(moment.notes) > 1 for moment in segment.moments):
        yield from carried(segment, rhythm.timings, voice)
    else:
        yield from line(segment, rhythm.timings, voice)
    if rhythm.counted:
        yield from counts(segment.moments, voice.catalogue)


def _unit_words(unit: int, moment: MomentFact, voice: Voice) -> str:
    if unit == 3 and usual_to_the_beat(moment.metre) != 3:
        return voice.say("triplets")
    return voice.say("to-the-beat", count=unit)


def like_sentences(like: LikeFact, first: MomentFact, voice: Voice, several_bars: bool) -> list[str]:
    """That a chunk is an earlier one again, and where it is other."""
    said = [voice.say(f"like-{like.how}", name=like.name, by=abs(like.by), up=int(like.by > 0))]
    for moment in like.but:
        place = place_words(moment.onset, moment.metre, voice.catalogue)
        bar = moment.at.bar - first.at.bar + 1
        words = spoken_words(moment, voice)
        if several_bars:
            said.append(voice.say("but-in-bar", bar=bar, place=place, what=words))
        else:
            said.append(voice.say("but", place=place, what=words))
    return [sentence(each) for each in packed(said)]


def packed(clauses: Iterable[str]) -> list[str]:
    """Clauses put together to short sentences."""
    found: list[str] = []
    for clause in clauses:
        if found and _words(f"{found[-1]}; {clause}") <= _EASY:
            found[-1] += f"; {clause}"
        else:
            found.append(clause)
    return found


def _words(text: str) -> int:
    return len(text.split())


def sentence(phrase: str) -> str:
    """With a capital letter and a full stop."""
    return f"{capital(phrase)}."
