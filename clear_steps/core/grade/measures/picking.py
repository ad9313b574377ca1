"""Picking: strings skipped and far strings struck at once, by the way the hand plucks."""

from collections.abc import Iterator
from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.measures.words import rate_words
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.score import Picking
from clear_steps.core.score.words import number_words, string_words

_A_STROKE = 3  # strings at once
_FAR = 2  # strings apart, from which the pick has to jump over one
_FAR_WORK = 2.0  # far strings at once: there and back again (from memory)
_STRUM_SHARE = 0.3  # going through a string that a finger mutes (from memory)
_FINGER_SHARE = 0.3  # fingers lie on their strings: a skip is a third of the pick's (from memory)


class _Skip(NamedTuple):
    work: float  # in skips of the pick
    far: bool  # strings at once that no pick can strike
    moment: Moment
    aimed: bool = False  # a single string between strokes


def _find(bar: PlayedBar, _: Ladder) -> Found[_Skip]:
    """With fingers skips count less, and far strings at once count nothing."""
    pick = 1 - bar.plucked
    share = pick + _FINGER_SHARE * bar.plucked
    skips = [_Skip(share, False, moment) for moment in _skipping(bar)]
    skips += [_Skip(share, False, moment, aimed=True) for moment in _aimed(bar)]
    if pick:
        for moment in bar.moments:
            apart = max((a - b for a, b in zip(moment.strings, moment.strings[1:], strict=False)), default=0)
            if apart > _FAR:
                skips.append(_Skip(pick * _FAR_WORK, True, moment))
            elif apart == _FAR:  # as in an octave: a fretting finger mutes it, and the pick goes through
                skips.append(_Skip(pick * _STRUM_SHARE, False, moment))
    return sorted(((skip.moment.sounding.onset_quarters, skip) for skip in skips), key=lambda entry: entry[0])


def _skipping(bar: PlayedBar) -> list[Moment]:
    """Picked notes, one at a time, that lie two strings or more from the one before."""
    skips = []
    before: tuple[int, ...] = ()
    for moment in bar.moments:
        if not moment.sounding.picked:
            continue
        strings = moment.sounding.strings
        if (
            before
            and len(strings) == 1
            and abs(strings[0] - before[0]) >= _FAR
            and all(abs(strings[0] - string) >= _FAR for string in before[1:])
        ):
            skips.append(moment)
        before = strings
    return skips


def _aimed(bar: PlayedBar) -> Iterator[Moment]:
    """Single strings between strokes: a bass before its strum, a run between two chords."""
    picked = [moment for moment in bar.moments if moment.sounding.picked]
    counts = [0, *(len(moment.strings) for moment in picked), 0]
    for moment, around in zip(picked, zip(counts, counts[1:], counts[2:], strict=False), strict=True):
        before, own, after = around
        if own == 1 and max(before, after) >= _A_STROKE:
            yield moment


def _rate(found: Found[_Skip], seconds: float) -> float:
    return sum(skip.work for _, skip in found) / seconds


def _weigh(found: Found[_Skip], window: Window, ladder: Ladder) -> float:
    """By string skips per second."""
    return ladder.curves["picking"].step(_rate(found, window.seconds))


def _tell(found: Found[_Skip], bar: PlayedBar, _: Ladder) -> Told:
    first = found[0][1].moment
    aimed = [skip for _, skip in found if skip.aimed]
    skips = [skip for _, skip in found if not skip.aimed]
    evidence = " ".join(
        [
            *([_counted(skips, "string skip", "to", bar)] if skips else []),
            *([_counted(aimed, "single string to find between strokes", "at", bar)] if aimed else []),
        ]
    )
    if bar.picking is Picking.PICK and any(skip.far for _, skip in found):
        evidence += (
            " Far strings at once cannot be struck with a bare pick: use the fingers too, or leave one out."
        )
    return Told(_rate(found, bar.seconds), Place(first.onset, first.strings), evidence)


def _counted(skips: list[_Skip], name: str, to: str, bar: PlayedBar) -> str:
    """`There are two string skips, the first to beat 2 on the 4th string.`"""
    first = skips[0].moment
    where = f"{to} {bar.beat_words(first.onset)} on the {string_words(first.strings)}"
    if len(skips) == 1:
        return f"There is one {name}, {where}."
    many = name.replace("skip", "skips").replace("string to", "strings to")
    return f"There are {number_words(len(skips))} {many}, the first {where}."


def _rung(ladder: Ladder, step: int) -> str:
    return f"up to {rate_words(ladder.curves['picking'], step)} string skips a second with a pick"


PICKING = Measure(
    name="picking",
    spoken="finding the strings",
    about="what the picking hand must find: strings skipped, far strings at once",
    unit="skips/s",
    sign="M2 3h12M2 8h12M2 13h12M5 3l5 10M7.5 12.5 10 13l.6-2.6",
    curves={"picking": "picking"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    of_the_score=True,
    said={"es": "la mano que pulsa"},
    helps={
        "en": "The picking hand alone, on open strings.",
        "es": "La mano que pulsa sola, con cuerdas al aire.",
    },
)
