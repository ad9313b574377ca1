"""What the hand that strikes does over a grip: strokes by the beat, strings in turn."""

from collections.abc import Collection, Sequence
from dataclasses import replace
from itertools import groupby

from clear_steps.core.score import PickingFinger, Stroke
from clear_steps.core.teach.words.facts import MomentFact, NoteFact
from clear_steps.core.teach.words.lines import manner_words
from clear_steps.core.teach.words.notes import FRET, Voice, done_alike, done_words, fret_words, said_of
from clear_steps.core.teach.words.others import other_notes, spots_words
from clear_steps.core.teach.words.rhythm import Timing, place_words
from clear_steps.core.teach.words.segments import STRUM, Held

_STROKES = {Stroke.DOWN: "down", Stroke.UP: "up"}


def struck_words(
    own: Held,
    which: Sequence[int],
    voice: Voice,
    plucked: bool,
    all_through: bool = False,
    other: bool = False,
) -> list[str]:
    """What is struck; `all_through`: again and again; `other`: what is not the grip's is said with it."""
    moments = [own.moments[at] for at in which]
    timings = [own.timings[at] for at in which]
    if own.strummed:
        one = len(moments) == 1
        return [_one_stroke(moments[0], voice, all_through)] if one else _strokes(moments, voice)
    return _strings_told(own, moments, timings, voice, plucked, other)


def _one_stroke(moment: MomentFact, voice: Voice, all_through: bool) -> str:
    stroke = _stroke(moment, voice)
    beats = moment.beats
    if all_through and beats <= 1:
        return voice.say("every-off-beat" if moment.off_beat else "every-beat", stroke=stroke)
    if beats > 1 and beats.denominator == 1:
        return voice.say("one-stroke", stroke=stroke, beats=int(beats))
    return stroke


def _strokes(moments: Sequence[MomentFact], voice: Voice) -> list[str]:
    """Strokes, those of a beat together; one alone is on the beat going down, and between going up."""
    said = []
    beats = groupby(moments, key=lambda each: (each.at.bar, each.onset // each.metre.beat_quarters))
    for _, group in beats:
        beat = list(group)
        words = "-".join(_stroke(moment, voice) for moment in beat)
        first = beat[0]
        if first.off_beat and _direction(first) is Stroke.DOWN:
            place = place_words(first.onset, first.metre, voice.catalogue)
            words = voice.say("at-place", place=place, what=words)
        said.append(words)
    return said


def _direction(moment: MomentFact) -> Stroke:
    return moment.stroke or (Stroke.DOWN if moment.onset.denominator == 1 else Stroke.UP)


def _stroke(moment: MomentFact, voice: Voice) -> str:
    said = voice.say(_STROKES[_direction(moment)])
    manner = _manner_of_all(moment, voice)
    if moment.is_dead:
        said = voice.say("dead-stroke", stroke=said)
    return " ".join([said, *manner])


def _manner_of_all(moment: MomentFact, voice: Voice) -> list[str]:
    sounding = [note.techniques for note in moment.notes if not note.dead]
    every = frozenset.intersection(*sounding) if sounding else frozenset()
    frets = {note.fret for note in moment.notes if not note.dead}
    return manner_words(every - voice.manner, voice, str(min(frets, default=0)))


def _strings_told(
    own: Held,
    moments: Sequence[MomentFact],
    timings: Sequence[Timing],
    voice: Voice,
    plucked: bool,
    other: bool,
) -> list[str]:
    said: list[str] = []
    together = False  # said once: from then on `and` says it
    others = [other_notes(moment, own.segment) if other else () for moment in moments]
    keys = [(_struck(moment), *key) for moment, *key in zip(moments, timings, others, strict=True)]
    for _, group in groupby(range(len(moments)), key=lambda at: keys[at]):
        first, *again = group
        moment, timing = moments[first], timings[first]
        strings = {note.string for note in others[first]}
        words = _plucked_words(moment, own, voice, plucked and not said, not together, strings)
        together = together or len(moment.notes) > 1
        if again:
            words = voice.repeated(words, len(again) + 1)
        said.append(voice.timed(words, moment, timing if said else replace(timing, place=None)))
    if plucked and len(said) > 1:
        said[0:2] = [voice.say("then", first=said[0], rest=said[1])]
    letters = _letters(moments, voice)
    return [*said, voice.say("with-fingers", fingers=letters)] if letters else said


def _struck(moment: MomentFact) -> object:
    """What is said of it: what is stopped is known."""
    return moment.held, tuple((note.string, note.dead, note.manner) for note in moment.notes)


def _plucked_words(
    moment: MomentFact, own: Held, voice: Voice, thumb: bool, together: bool, others: Collection[int]
) -> str:
    """`6`, `thumb 6`, `5 and 1 together`, `strum`."""
    if moment.held:
        done = [fret_words(note, voice) for note in moment.notes]
        return voice.say("held-on", what=", ".join(done)) if done else voice.say("wait")
    if len(moment.notes) >= STRUM:
        return " ".join([voice.say("strum"), *_manner_of_all(moment, voice)])
    if not others and len(moment.notes) > 1 and done_alike(moment.notes):
        said = voice.catalogue.listed(str(note.string) for note in moment.notes)
        said = voice.say("pinch", strings=said) if together else said
        said = voice.say("thumb", string=said) if thumb else said
        return done_words(said, moment.notes[0], voice)
    strings = voice.catalogue.listed(
        spots_words(own, [note], voice) if note.string in others else _string_words(note, voice)
        for note in moment.notes
    )
    if len(moment.notes) > 1 and together:
        strings = voice.say("pinch", strings=strings)
    return voice.say("thumb", string=strings) if thumb else strings


def _string_words(note: NoteFact, voice: Voice) -> str:
    """The string alone: what is stopped there is known; what is done to it, with the fret it is done to."""
    if note.dead:
        return done_words(voice.say("dead-string", string=note.string), note, voice)
    if any(FRET in said_of(each, voice) for each in note.techniques) or note.released:
        return voice.say("string-done", string=note.string, what=fret_words(note, voice))
    return done_words(str(note.string), note, voice)


def _letters(moments: Sequence[MomentFact], voice: Voice) -> str:
    """The fingers written for the notes after the bass, where each string has its own."""
    found: dict[PickingFinger | None, int] = {}
    for moment in moments:
        for note in moment.notes:
            finger = note.picking
            if finger in (None, PickingFinger.THUMB):
                continue
            if found.setdefault(finger, note.string) != note.string:
                return ""
    if len(found) < 2:
        return ""
    return voice.catalogue.listed(voice.say(f"picking-{each}") for each in found)
