"""Speed: notes per second over one, two and four beats, fretting and picking hand apart."""

from collections import Counter
from collections.abc import Iterator, Sequence
from math import ceil
from operator import sub
from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window, window_of
from clear_steps.core.grade.measures.words import rate_words
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.score import Stroke

_SLACK = 1e-9  # a note a whole beat on stands in the next window
# A burst is easier than a stretch: what a rate counts that holds for so many beats (from memory).
_BURSTS = ((1, 0.75, "for one beat"), (2, 0.9, "for two beats"), (4, 1.0, "for four beats"))
_ALL_THROUGH = "all through the bar"
# Down-strokes alone, or one finger again and again, are harder above four a second (from memory).
_SAME_AGAIN, _SLOW_S = 1.2, 0.25
_CROSSING_WORK, _SKIP_WORK = 0.15, 0.25  # to the next string, and over one: shares of a stroke (from memory)
_ANOTHER_FINGER = 0.95  # on another string another finger is ready (from memory)
_HANDS = ("fretting", "picking")
_WORTH_TELLING = 1.05  # so much more work than notes
_AGAIN, _CROSSING = "the same stroke again and again", "on other strings in turn"


class _Action(NamedTuple):
    hand: str
    work: float  # in strokes
    moment: Moment
    more: str = ""  # why it is more work than a stroke


class _Busy(NamedTuple):
    """So many notes a second of one hand from a moment on, and the work they are in strokes a second; its
    Step by how long it holds."""

    step: float
    notes: float
    work: float
    hand: str
    moment: Moment
    words: str


class _Rate(NamedTuple):
    """Work and notes a quarter from an action (index) on."""

    work: float
    notes: float
    first: int


def _find(bar: PlayedBar, _: Ladder) -> Found[_Action]:
    return [(action.moment.sounding.onset_quarters, action) for action in (*_fretting(bar), *_picking(bar))]


def _weigh(found: Found[_Action], window: Window, ladder: Ladder) -> float:
    """The busier hand over its busiest beats."""
    return max(busy.step for busy in _busiest(found, window, ladder))


def _tell(found: Found[_Action], bar: PlayedBar, ladder: Ladder) -> Told:
    busy = max(_busiest(found, window_of(bar), ladder), key=lambda each: each.step)
    more = ""
    if busy.work > _WORTH_TELLING * busy.notes:
        causes = Counter(action.more for _, action in found if action.hand == busy.hand and action.more)
        more = f", {causes.most_common(1)[0][0]}"
    evidence = (
        f"From {bar.beat_words(busy.moment.onset)} the {busy.hand} hand has {busy.notes:.1f} notes a second"
        f" to play, {busy.words}{more}."
    )
    return Told(busy.notes, Place(busy.moment.onset, busy.moment.strings), evidence)


def _busiest(found: Found[_Action], window: Window, ladder: Ladder) -> Iterator[_Busy]:
    """For each hand and length of burst the highest rate; a bar that is no longer than one counts in full.

    A beat shorter than a quarter counts as one.
    """
    beat, length = max(window.beat_quarters, 1.0), window.quarters
    for hand in _HANDS:
        actions = [entry for entry in found if entry[1].hand == hand]
        if not actions:
            continue
        curve = ladder.curves[f"{hand}_speed"]
        onsets, works = [at for at, _ in actions], [action.work for _, action in actions]
        bursts = [(beats * beat, share, words) for beats, share, words in _BURSTS if beats * beat < length]
        all_through = 0.0
        if len(bursts) < len(_BURSTS):
            all_through = sum(works) / length
            work, notes = (each / length / window.quarter_seconds for each in (sum(works), len(works)))
            yield _Busy(curve.step(work), notes, work, hand, actions[0][1].moment, _ALL_THROUGH)
        closest = min(map(sub, onsets[1:], onsets), default=length)
        for burst, share, words in bursts:
            if share * max(works) * ceil(burst / closest) / burst < all_through:
                continue  # an even stream: no burst of it counts for more
            most = _most(onsets, works, length, burst)
            work, notes = (each / window.quarter_seconds for each in (most.work, most.notes))
            moment = actions[most.first][1].moment
            yield _Busy(curve.step(share * work), notes, work, hand, moment, words)


def _most(onsets: Sequence[float], works: Sequence[float], length: float, burst: float) -> _Rate:
    """The most strokes a quarter over bursts that open at an action, by running sums.

    One long note is not a note a beat: where it is alone, the time until the next counts.
    """
    best = _Rate(0.0, 0.0, 0)
    total, stop, count = 0.0, 0, len(onsets)
    for start, first in enumerate(onsets):
        end = first + burst - _SLACK
        while stop < count and onsets[stop] < end:
            total += works[stop]
            stop += 1
        lasts = burst if stop > start + 1 else max((onsets[stop] if stop < count else length) - first, burst)
        if total / lasts > best.work:
            best = _Rate(total / lasts, (stop - start) / lasts, start)
        total -= works[start]
    return best


def _fretting(bar: PlayedBar) -> Iterator[_Action]:
    """Moments at which a finger is set anew or must leave its string; the others stay where they are."""
    return (_Action("fretting", 1.0, moment) for moment in bar.moments if moment.change.works)


def _picking(bar: PlayedBar) -> Iterator[_Action]:
    before: int | None = None
    last: Moment | None = None
    for moment in bar.moments:
        struck = moment.sounding.struck
        if not moment.sounding.picked:
            continue
        apart = abs(struck[0].string - before) if len(struck) == 1 and before is not None else 0
        again = last is not None and _same_again(last, moment)
        crossing = (0.0, _CROSSING_WORK)[apart] if apart < 2 else _SKIP_WORK
        if again:
            work = (1.0 + crossing) * _SAME_AGAIN
        elif apart:
            work = (1.0 + crossing) * (1 - bar.plucked) + _ANOTHER_FINGER * bar.plucked
        else:
            work = 1.0
        yield _Action("picking", work, moment, _AGAIN if again else _CROSSING * (work > 1))
        before = struck[0].string if len(struck) == 1 else None
        last = moment


def _same_again(before: Moment, after: Moment) -> bool:
    """A quick stroke as the one before it: down again, or by the same finger again, as written."""
    if after.seconds - before.seconds > _SLOW_S:
        return False
    fingers = [{note.picking for note in moment.sounding.struck} for moment in (before, after)]
    by_finger = len(fingers[0]) == 1 and fingers[0] == fingers[1] and None not in fingers[0]
    return by_finger or before.event.stroke is after.event.stroke is Stroke.DOWN


def _rung(ladder: Ladder, step: int) -> str:
    fretting, strokes = (rate_words(ladder.curves[f"{hand}_speed"], step) for hand in _HANDS)
    return f"up to {fretting} notes a second for the fretting hand, {strokes} strokes for the picking hand"


SPEED = Measure(
    name="speed",
    spoken="the speed",
    about="notes per second, fretting and picking hand apart",
    unit="notes/s",
    sign="M3 3l5 5-5 5M8.5 3l5 5-5 5",
    curves={"fretting_speed": "fretting hand", "picking_speed": "picking hand"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    said={"es": "la velocidad"},
    helps={
        "en": "Small movements close to the strings, with a click, slowly first.",
        "es": "Movimientos pequeños cerca de las cuerdas, con metrónomo, primero despacio.",
    },
)
