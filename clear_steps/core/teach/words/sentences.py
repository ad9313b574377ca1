"""From facts to sentences: short ones, each of at most thirty words."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from fractions import Fraction
from itertools import groupby
from typing import NamedTuple

from clear_steps.core.figures import At
from clear_steps.core.score import Metre, Stroke, Technique
from clear_steps.core.score.words import capital, count_sign
from clear_steps.core.teach.words.facts import ChunkFacts, MomentFact, NoteFact
from clear_steps.core.teach.words.names import Names, chord_in
from clear_steps.core.teach.words.phrases import Phrases

MOST_WORDS = 30
_ROOM = 6  # words that may be put before and behind a chord
_SAID_AT_ONCE = 3  # techniques of one note
_SHAPE = 2  # notes that are a shape which can be moved


Told = dict[str, tuple[NoteFact, ...]]
"""Chords by their names as they were told: one that comes again is only named."""


class Spoken(NamedTuple):
    """What is said of the notes that are struck at a moment."""

    at: At
    words: str


def sentences_of(
    chunks: Sequence[ChunkFacts], phrases: Phrases, names: Names = Names.LETTERS
) -> tuple[tuple[str, ...], ...]:
    """What a teacher says of every chunk of a part, in the order written."""
    told: Told = {}
    return tuple(tuple(_chunk(facts, phrases, names, told)) for facts in chunks)


def spoken(facts: ChunkFacts, phrases: Phrases, names: Names = Names.LETTERS) -> tuple[Spoken, ...]:
    """Every moment of a chunk by itself, to be read while it sounds."""
    return tuple(Spoken(moment.at, "; ".join(_whole(moment, phrases, names))) for moment in facts.moments)


def _chunk(facts: ChunkFacts, phrases: Phrases, names: Names, told: Told) -> list[str]:
    if facts.like:
        return list(_like(facts, phrases, names))
    found = [_begins(facts, phrases)]
    if facts.common:
        found.append(phrases.all_of_it([phrases.technique(each) for each in sorted(facts.common)]))
    moments = [_without(moment, facts) for moment in facts.moments]
    found += _packed(_moments(moments, phrases, names, told))
    found += _counts(facts, phrases)
    found += _hands(facts, phrases)
    return [sentence(each) for each in found]


def _begins(facts: ChunkFacts, phrases: Phrases) -> str:
    return phrases.begins(phrases.beat(facts.begins, facts.counts[0][0]), facts.number)


def _like(facts: ChunkFacts, phrases: Phrases, names: Names) -> Iterator[str]:
    assert facts.like
    like = facts.like
    if like.elsewhere:
        yield sentence(_begins(facts, phrases))
    yield sentence(phrases.like(like.name, like.how, like.by))
    if like.elsewhere:
        yield from map(sentence, _counts(facts, phrases))
    for moment in like.but:
        metre, onset = _place(facts, moment)
        beat = phrases.beat(onset, metre)
        first = facts.moments[0].at.bar
        where = phrases.in_bar(beat, facts.number + moment.at.bar - first) if facts.several_bars else beat
        for number, phrase in enumerate(_whole(replace(moment, chord=""), phrases, names)):
            yield sentence(phrases.but(where, phrase) if not number else phrase)


def _place(facts: ChunkFacts, moment: MomentFact) -> tuple[Metre, Fraction]:
    """The metre a moment stands in, and where."""
    number = moment.at.bar - facts.moments[0].at.bar
    metre, onsets = facts.counts[number]
    own = [each for each in facts.moments if each.at.bar == moment.at.bar]
    return metre, onsets[[each.at for each in own].index(moment.at)]


def _without(moment: MomentFact, facts: ChunkFacts) -> MomentFact:
    """Without the techniques that all have: they are said once."""
    notes = tuple(replace(note, techniques=note.techniques - facts.common) for note in moment.notes)
    return replace(moment, notes=notes)


class _Said(NamedTuple):
    """A phrase as it goes on within a sentence, and as it begins one: there its string is named."""

    going_on: str
    beginning: str


def _moments(moments: Sequence[MomentFact], phrases: Phrases, names: Names, told: Told) -> Iterator[_Said]:
    """The phrases of every moment, equal ones that follow each other said with how often."""
    string: int | None = None  # that goes on without being said
    before: MomentFact | None = None
    for moment, count in _runs(moments):
        by = _moved_by(before, moment)
        if moment.chord and told.get(moment.chord) == moment.notes:
            again = [phrases.again(chord_in(moment.chord, names))]
            found = [_twice(each) for each in _with_more(again, moment, frozenset(), phrases)]
        elif by:
            shape = [f"{_named(moment, names)}{phrases.moved_shape(by)}"]
            found = [_twice(each) for each in _with_more(shape, moment, frozenset(), phrases)]
        else:
            found = [_twice(each) for each in _whole(moment, phrases, names)]
            if string and len(moment.notes) == 1 and moment.notes[0].string == string:
                named = found[0].beginning
                found[0] = _Said(named.removeprefix(phrases.strings([string])).lstrip(", "), named)
        if moment.chord:
            told[moment.chord] = moment.notes
        if count > 1 and len(found) > 1:
            found.append(_twice(phrases.times(phrases.all_of_that(), count)))
        elif count > 1:
            found[-1] = _Said(*(phrases.times(each, count) for each in found[-1]))
        string = moment.notes[0].string if len(moment.notes) == 1 else None
        before = moment
        yield from found


def _twice(phrase: str) -> _Said:
    return _Said(phrase, phrase)


def _runs(moments: Sequence[MomentFact]) -> list[tuple[MomentFact, int]]:
    """Equal moments that follow one another, and how many they are; a name that is not written anew goes
    on."""
    found: list[tuple[MomentFact, int]] = []
    for moment in moments:
        last, count = found[-1] if found else (None, 0)
        goes_on = last and last.notes == moment.notes and last.stopped == moment.stopped
        if last and goes_on and moment.chord in ("", last.chord):
            found[-1] = (last, count + 1)
        else:
            found.append((moment, 1))
    return found


def _moved_by(before: MomentFact | None, moment: MomentFact) -> int:
    """Frets by which the shape before has moved; 0 where it is another."""
    if before is None or len(moment.notes) < _SHAPE or len(before.notes) != len(moment.notes):
        return 0
    steps = set()
    for one, other in zip(before.notes, moment.notes, strict=True):
        if not one.fret or not other.fret or replace(one, fret=other.fret) != other:
            return 0
        steps.add(other.fret - one.fret)
    return steps.pop() if len(steps) == 1 else 0


def _whole(moment: MomentFact, phrases: Phrases, names: Names) -> list[str]:
    """A moment said in full; a chord of many words goes on in a sentence of its own."""
    rows: dict[tuple[object, ...], list[NoteFact]] = {}
    every = frozenset.intersection(*(note.techniques for note in moment.notes))
    every = every if len(moment.notes) > 1 or len(every) > _SAID_AT_ONCE else frozenset()
    for note in moment.notes:
        own = replace(note, techniques=note.techniques - every)
        rows.setdefault(own.manner, []).append(own)
    pairs = [_alike(own, phrases) for own in rows.values()]
    said, also = [phrase for phrase, _ in pairs], [more for _, more in pairs if more]
    found: list[str] = []
    while said:
        count = len(said)
        while count > 1 and _words(phrases.with_(said[:count])) > MOST_WORDS - _ROOM:
            count -= 1
        phrase = phrases.with_(said[:count])
        found.append(phrases.on_top(phrase) if found else f"{_named(moment, names)}{phrase}")
        said = said[count:]
    found += also
    return _with_more(found, moment, every, phrases)


def _with_more(
    found: list[str], moment: MomentFact, every: frozenset[Technique], phrases: Phrases
) -> list[str]:
    """What is done to all of a moment, what stays down and what is stopped with it, in a sentence of its own
    where it is too much."""
    more = []
    if every:
        more.append(phrases.every_one(len(moment.notes), [phrases.technique(each) for each in sorted(every)]))
    if moment.staying:
        more.append(phrases.stays(moment.staying))
    if moment.stopped:
        more.append(phrases.stopped(moment.stopped))
    for phrase in more:
        if _words(found[-1]) + _words(phrase) <= MOST_WORDS - _ROOM // 2:
            found[-1] += f", {phrase}"
        else:
            found.append(phrase)
    return found


def _named(moment: MomentFact, names: Names) -> str:
    """The chord's name before what it is."""
    return f"{chord_in(moment.chord, names)}: " if moment.chord else ""


def _alike(notes: Sequence[NoteFact], phrases: Phrases) -> tuple[str, str]:
    """Notes of one moment that have all but the string in common, and what is too much for one sentence."""
    strings, manner = [note.string for note in notes], phrases.manner(notes[0])
    phrase = ", ".join([phrases.place(strings, notes[0]), *manner])
    if _words(phrase) <= MOST_WORDS - _ROOM:
        return phrase, ""
    first, rest = manner[:_SAID_AT_ONCE], manner[_SAID_AT_ONCE:]
    return ", ".join([phrases.place(strings, notes[0]), *first]), phrases.also(strings, rest)


def _packed(said: Iterable[_Said]) -> list[str]:
    """Phrases put together as far as they fit into sentences."""
    found: list[str] = []
    for phrase in said:
        if found and _words(f"{found[-1]}; {phrase.going_on}") <= MOST_WORDS:
            found[-1] += f"; {phrase.going_on}"
        else:
            found.append(phrase.beginning)
    return found


def _counts(facts: ChunkFacts, phrases: Phrases) -> Iterator[str]:
    """What is counted aloud, a sentence a bar; beats on which nothing is struck stand in brackets."""
    for number, (metre, onsets) in enumerate(facts.counts):
        signs = list(_signs(metre, onsets, phrases))
        for start in range(0, max(len(signs), 1), MOST_WORDS - 8):
            words = " ".join(signs[start : start + MOST_WORDS - 8]) or "-"
            yield phrases.count(words, number == 0 or start > 0)


def _signs(metre: Metre, onsets: Sequence[Fraction], phrases: Phrases) -> Iterator[str]:
    said = -1  # the beat that was named last
    for onset in onsets:
        beat, part = divmod(onset / metre.beat_quarters, 1)
        if part and beat != said:
            yield f"({int(beat) + 1})"
        said = int(beat)
        sign = count_sign(onset, metre)
        yield phrases.sign(sign) if sign else f"+{part.numerator}/{part.denominator}"


def _hands(facts: ChunkFacts, phrases: Phrases) -> Iterator[str]:
    """Strokes and picking fingers, where they are written for every moment."""
    moments = facts.moments
    if all(moment.stroke for moment in moments):
        for start in range(0, len(moments), MOST_WORDS - 6):
            yield phrases.strokes(_by_beat(facts, moments[start : start + MOST_WORDS - 6]))
    elif all(moment.picking for moment in moments):
        for start in range(0, len(moments), 12):
            yield phrases.picking([moment.picking for moment in moments[start : start + 12]])


def _by_beat(facts: ChunkFacts, moments: Sequence[MomentFact]) -> list[list[Stroke]]:
    def beat(moment: MomentFact) -> tuple[int, int]:
        metre, onset = _place(facts, moment)
        return moment.at.bar, int(onset / metre.beat_quarters)

    return [[row.stroke for row in rows if row.stroke] for _, rows in groupby(moments, key=beat)]


def _words(text: str) -> int:
    return len(text.split())


def sentence(phrase: str) -> str:
    """With a capital letter and a full stop."""
    return f"{capital(phrase)}."
