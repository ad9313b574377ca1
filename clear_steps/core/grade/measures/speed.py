"""Speed: notes per second over one beat, fretting and picking hand apart."""

from collections.abc import Iterator

from clear_steps.core.grade.finding import Finding, Place, nothing
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.score import Stroke

UNIT = "notes/s"
_SLACK = 1e-9  # a note a whole beat on stands in the next window
# Down-strokes alone, or one finger again and again, are harder above four a second (from memory).
_SAME_AGAIN, _SLOW_S = 1.2, 0.25
_SKIP_WORK = 0.25  # a string skipped puts back a quarter of a stroke
_Actions = list[tuple[Moment, float]]


def speed(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The busier hand over its busiest beat."""
    hands = (("fretting", _fretting(bar), "fretting hand"), ("picking", _picking(bar), "picking hand"))
    found = [
        (ladder.curves[f"{hand}_speed"].step(rate), rate, moment, words)
        for hand, actions, words in hands
        for rate, moment in _busiest(actions, bar)
    ]
    if not found:
        return nothing(UNIT)
    step, rate, moment, words = max(found, key=lambda entry: entry[0])
    evidence = f"From {bar.beat_words(moment.onset)} the {words} has {rate:.1f} notes a second to play."
    return Finding(step, rate, UNIT, Place(moment.onset, moment.strings), evidence)


def _busiest(actions: _Actions, bar: PlayedBar) -> Iterator[tuple[float, Moment]]:
    """The highest rate over a window of one beat that opens at an action, by running sums.

    A beat shorter than a quarter counts as one. Where the action after the window comes late, the
    time until it counts: one long note is not a note a beat.
    """
    quarter_seconds = bar.beat_seconds / float(bar.bar.metre.beat_quarters)
    window = max(float(bar.bar.metre.beat_quarters), 1.0)
    onsets = [moment.sounding.onset_quarters for moment, _ in actions] + [float(bar.bar.quarters)]
    best, best_moment, total, stop, count = 0.0, None, 0.0, 0, len(actions)
    for start, (moment, work) in enumerate(actions):
        first = onsets[start]
        while stop < count and onsets[stop] < first + window - _SLACK:
            total += actions[stop][1]
            stop += 1
        rate = total / max(window, onsets[stop] - first)
        if rate > best:
            best, best_moment = rate, moment
        total -= work
    if best_moment is not None:
        yield best / quarter_seconds, best_moment


def _fretting(bar: PlayedBar) -> _Actions:
    """Moments at which the fretting hand does something: sets, lifts or moves a finger."""
    actions: _Actions = []
    before: object = None
    for moment in bar.moments:
        presses = moment.grip.presses if moment.grip else ()
        if presses is not before and presses != before and (presses or before):
            actions.append((moment, 1.0))
        before = presses
    return actions


def _picking(bar: PlayedBar) -> _Actions:
    actions: _Actions = []
    before: int | None = None
    last: Moment | None = None
    for moment in bar.moments:
        struck = moment.sounding.struck
        if not moment.sounding.picked:
            continue
        skipped = len(struck) == 1 and before is not None and abs(struck[0].string - before) >= 2
        again = last is not None and _same_again(last, moment)
        actions.append((moment, (1.0 + _SKIP_WORK * skipped) * (_SAME_AGAIN if again else 1.0)))
        before = struck[0].string if len(struck) == 1 else None
        last = moment
    return actions


def _same_again(before: Moment, after: Moment) -> bool:
    """A quick stroke as the one before it: down again, or by the same finger again, as written."""
    if after.seconds - before.seconds > _SLOW_S:
        return False
    fingers = [{note.picking for note in moment.sounding.struck} for moment in (before, after)]
    by_finger = len(fingers[0]) == 1 and fingers[0] == fingers[1] and None not in fingers[0]
    return by_finger or before.event.stroke is after.event.stroke is Stroke.DOWN
