"""When what is told comes: said beside a note where it does not go on as before.

Notes go on evenly, beat by beat or two to the beat (three where the beat is dotted) unless something else is
said. A note that lasts longer says so in whole beats; else the next one says its place.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import groupby

from clear_steps.core.score import Metre
from clear_steps.core.score.words import count_sign
from clear_steps.core.teach.words.catalogue import Catalogue
from clear_steps.core.teach.words.facts import MomentFact

_IRREGULAR = Fraction(2, 5)  # of the moments: with more it is counted as a whole
_FEW = 3
_LONG = 2  # beats, from which on a note says how long it lasts


@dataclass(frozen=True, slots=True)
class Timing:
    """What a moment says of its time: its `place` where it does not come as expected, after a `rest` or not;
    for how many `beats` it lasts."""

    place: Fraction | None = None
    rest: bool = False
    beats: int = 0


@dataclass(frozen=True, slots=True)
class Rhythm:
    """How the moments of a chunk are timed: so many `to_the_beat`; `counted` where saying it note by note
    would be too much."""

    to_the_beat: int
    timings: tuple[Timing, ...]
    counted: bool = False


def usual_to_the_beat(metre: Metre) -> int:
    """What needs no word."""
    return 3 if metre.beat_quarters.numerator % 3 == 0 else 2


def rhythm_of(moments: Sequence[MomentFact], expected: Fraction | None) -> Rhythm:
    """The rhythm of what is told note by note; `expected`: when its first is, in quarters from the part's
    start; none where whatever comes first is said."""
    unit = _unit(moments)
    timings = _timings(moments, unit, moments[0].start if expected is None else expected)
    told = sum(timing != Timing() for timing in timings[1:])
    if told >= _FEW and told > _IRREGULAR * len(moments):
        return Rhythm(unit, (Timing(),) * len(moments), counted=True)
    return Rhythm(unit, timings)


def _unit(moments: Sequence[MomentFact]) -> int:
    """How many to the beat most of the moments are that are not a beat long, the usual before others."""
    usual = usual_to_the_beat(moments[0].metre)
    parts = [moment.beats for moment in moments if moment.beats < 1 and not moment.silent]
    counts = Counter(part.denominator for part in parts if part.numerator == 1)
    return max(counts, key=lambda unit: (counts[unit], unit == usual), default=usual)


def _timings(moments: Sequence[MomentFact], unit: int, expected: Fraction) -> tuple[Timing, ...]:
    found: list[Timing] = []
    rest = False
    for moment in moments:
        place = None if moment.start == expected else moment.onset
        whole = moment.beats.denominator == 1 and not moment.off_beat and not moment.silent
        lasts = moment.beats if whole else Fraction(1, unit)
        found.append(Timing(place, rest and place is not None, int(lasts) if lasts >= _LONG else 0))
        expected = moment.start + lasts * moment.metre.beat_quarters
        rest = moment.silent > 0
    return tuple(found)


def place_words(onset: Fraction, metre: Metre, catalogue: Catalogue) -> str:
    """`beat 3`, `the & of 2`, `the 2nd fifth of beat 1`."""
    beat, part = divmod(onset / metre.beat_quarters, 1)
    number = int(beat) + 1
    if not part:
        return catalogue.say("beat", beat=number)
    sign = count_sign(onset, metre)
    if sign:
        return catalogue.say(f"part-{sign if sign != '&' else 'and'}", beat=number)
    share, of = part.numerator + 1, part.denominator
    return catalogue.say("part-of-beat", share=share, of=of, beat=number)


def counts(moments: Sequence[MomentFact], catalogue: Catalogue) -> list[str]:
    """What is counted aloud, a phrase a bar, bars that count alike once; beats on which nothing is struck
    stand in brackets."""
    bars = [list(group) for _, group in groupby(moments, key=lambda moment: moment.at.bar)]
    said = [" ".join(_signs(bar, catalogue)) for bar in bars]
    if len(set(said)) == 1:
        return [catalogue.say("count" if len(said) == 1 else "count-each", counts=said[0])]
    return [
        catalogue.say("count" if not number else "count-next", counts=words)
        for number, words in enumerate(said)
    ]


def _signs(moments: Sequence[MomentFact], catalogue: Catalogue) -> list[str]:
    found = []
    named = -1  # the beat that was said last
    for moment in moments:
        beat, part = divmod(moment.onset / moment.metre.beat_quarters, 1)
        if part and beat != named:
            found.append(f"({int(beat) + 1})")
        named = int(beat)
        sign = count_sign(moment.onset, moment.metre)
        spoken = f"sign-{'and' if sign == '&' else sign}"
        if not sign:
            found.append(catalogue.say("sign-part", share=part.numerator + 1, of=part.denominator))
        else:
            found.append(sign if sign.isdigit() else catalogue.say(spoken))
    return found
