"""One grip moved along or across in words: what it is, its places in order, what lies between."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import groupby
from typing import NamedTuple

from clear_steps.core.score import Technique
from clear_steps.core.teach.words.facts import MomentFact
from clear_steps.core.teach.words.lines import common_manner, common_words, manner_words, without
from clear_steps.core.teach.words.notes import (
    Voice,
    done_words,
    fret_words,
    gathered,
    more_words,
    strings_words,
    together,
)
from clear_steps.core.teach.words.repeats import runs
from clear_steps.core.teach.words.rhythm import Timing
from clear_steps.core.teach.words.segments import Segment

_LONGEST_CELL = 8
_TWO = 2  # strings of a plain power chord
_FEWEST_ALIKE = 2
_WITH_LAST = 2  # places at the end, the last with nothing before it
_WITH_BOTH = ("sixth", "third")  # said by both frets: they are not always one shape


class _Token(NamedTuple):
    moment: MomentFact
    timing: Timing
    between: bool  # an open string, a dead stroke


def carried(segment: Segment, timings: Sequence[Timing], voice: Voice) -> Iterator[str]:
    """What is said of an interval that is moved."""
    common, said_of_all = common_words(segment.moments, voice)
    places = [each for each in segment.moments if not _is_between(each)] or list(segment.moments)
    of_places = common_manner(places, every=True) - common - voice.manner
    tokens = [
        _Token(
            without(moment, common if _is_between(moment) else common | of_places),
            timing,
            _is_between(moment),
        )
        for moment, timing in zip(segment.moments, timings, strict=True)
    ]
    between, message = _between(tokens)
    shown = [token for token in tokens if not token.between]
    of_opens: frozenset[Technique] = frozenset()
    if not between:
        of_opens = common_manner([token.moment for token in tokens if token.between]) - voice.manner
        shown = [
            token._replace(moment=without(token.moment, of_opens)) if token.between else token
            for token in tokens
        ]
    voice.strings = places[0].strings
    head = _kind(segment, places[0], voice, told=False)
    if of_places:
        head = ", ".join([head, *manner_words(of_places, voice)])
    if of_opens:
        head = ", ".join([head, voice.say("opens-done", manner=", ".join(manner_words(of_opens, voice)))])
    *pieces, last = _all_places(shown, segment, voice)
    if message == "before-all-but-last":
        last = voice.say("last", what=last)
    begun, *rest = gathered([*pieces, last])
    yield voice.say("places", what=head, place=begun)
    yield from rest
    if between:
        done = tuple(moment.notes for moment in between)
        what = voice.say("same") if voice.between == done else _between_words(between, voice)
        voice.between = done
        yield voice.say(message, what=what)
    if said_of_all:
        yield said_of_all


def _all_places(tokens: Sequence[_Token], segment: Segment, voice: Voice) -> Iterator[str]:
    """A piece a place; cells that come again in one."""
    for run in runs([_key(token) for token in tokens], _LONGEST_CELL, least=2):
        own = tokens[run.first : run.first + run.length]
        said = list(_places(own, segment, voice))
        if run.times == 1:
            yield from said
        elif run.length == 1:
            yield voice.repeated(said[0], run.times)
        else:
            yield from said
            yield voice.say("those-again", count=run.length, times=run.times)


def _is_between(moment: MomentFact) -> bool:
    return moment.is_dead or (len(moment.notes) == 1 and not any(moment.frets.values()))


def _between(tokens: Sequence[_Token]) -> tuple[list[MomentFact], str]:
    """What comes before each place alike, and the message that says so; empty where it does not."""
    groups = [list(group) for _, group in groupby(tokens, key=lambda token: token.between)]
    alike, places = groups[::2], groups[1::2]
    if len(alike) < _FEWEST_ALIKE or len(alike) != len(places) or not groups[0][0].between:
        return [], ""
    if any(_done(group) != _done(groups[0]) for group in alike):
        return [], ""
    if any(len(group) > 1 for group in places[:-1]) or len(places[-1]) > _WITH_LAST:
        return [], ""
    message = "before-each" if len(places[-1]) == 1 else "before-all-but-last"
    return [token.moment for token in groups[0]], message


def _done(tokens: Sequence[_Token]) -> tuple[object, ...]:
    return tuple((token.moment.notes, token.moment.step) for token in tokens)


def _between_words(moments: Sequence[MomentFact], voice: Voice) -> str:
    said = []
    common = common_manner(moments)
    for notes, group in groupby(moments, key=lambda moment: without(moment, common).notes):
        count = len(list(group))
        words = _open_words(replace(moments[0], notes=notes), voice)
        said.append(voice.repeated(words, count) if count > 1 else words)
    return ", ".join([*said, *manner_words(common, voice)])


def _open_words(moment: MomentFact, voice: Voice) -> str:
    """What lies between two places: an open string, dead strokes."""
    note = moment.notes[0]
    if len(moment.notes) > 1:
        said = voice.say("dead-strings", strings=strings_words(moment.strings, voice))
    else:
        said = voice.say("dead-string" if note.dead else "the-open", string=note.string)
    return done_words(said, note, voice)


def _key(token: _Token) -> tuple[object, ...]:
    return token.moment.notes, token.moment.more, token.moment.held, token.timing


def _places(tokens: Sequence[_Token], segment: Segment, voice: Voice) -> Iterator[str]:
    """The places of a run, with what they are where the strings change."""
    for token in tokens:
        moment = token.moment
        if token.between:
            words = _open_words(moment, voice)
        elif moment.held:
            words = voice.say("held-on", what=", ".join(fret_words(note, voice) for note in moment.notes))
        else:
            words = _place(moment, segment, voice)
            if len(moment.notes) > 1 and moment.strings != voice.strings:
                voice.strings = moment.strings
                words = voice.say("places", what=_kind(segment, moment, voice, told=True), place=words)
        words = voice.timed(words, moment, token.timing)
        yield ", ".join([words, *more_words(moment, voice)])


def _kind(segment: Segment, moment: MomentFact, voice: Voice, told: bool) -> str:
    """`power chords on the 6th`, `sixths on strings 3 and 1`; `on the 5th` once it is told."""
    strings = moment.strings
    frets = set(moment.frets.values())
    name = segment.name.replace(" ", "-")
    pair = strings_words(strings, voice)
    if len(frets) == 1 and name == "power-chord":
        return voice.say("one-finger-flat", strings=pair, told=int(told))
    if name == "power-chord":
        message = "power-chords-on" if len(strings) == _TWO else "wide-power-chords-on"
        return voice.say(message, string=strings[0], told=int(told))
    return voice.say(f"{name}s-on", strings=pair, told=int(told))


def _place(moment: MomentFact, segment: Segment, voice: Voice) -> str:
    """`5`; `4 and 3` where both frets are to be said; string by string what is no place of it."""
    if len(moment.notes) == 1 or any(note.dead for note in moment.notes):
        return together(moment, voice) if len(moment.notes) > 1 else _alone(moment, voice)
    manner = {note.manner for note in moment.notes}
    if len(manner) > 1:
        return together(moment, voice)
    lowest = moment.notes[0]
    plain = replace(lowest, pinned=False, finger="")
    if not any(note.fret for note in moment.notes):
        return fret_words(plain, voice)
    if segment.name in _WITH_BOTH:
        frets = voice.catalogue.listed(
            str(note.fret) if note.fret else voice.say("open") for note in moment.notes
        )
        return fret_words(plain, voice).replace(str(lowest.fret), frets, 1) if lowest.fret else frets
    return fret_words(plain, voice)


def _alone(moment: MomentFact, voice: Voice) -> str:
    (note,) = moment.notes
    return voice.say("short-string", string=note.string, what=fret_words(replace(note, pinned=False), voice))
