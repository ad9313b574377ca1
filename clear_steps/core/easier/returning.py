"""Of what a plainer rhythm leaves out, the notes that the target can bear come back, one at a time."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change, Edit, grouped
from clear_steps.core.easier.heights import TOLERANCE, Heights
from clear_steps.core.easier.kinds.rhythm import lasting
from clear_steps.core.easier.patterns import bars_of_one_pattern
from clear_steps.core.easier.proposals import Proposals
from clear_steps.core.easier.writing import Writing
from clear_steps.core.score import Bar, Event, Part

_KIND = "rhythm"
_WORTH = 0.01  # points of what is kept that a note must bring


def give_notes_back(writing: Writing, heights: Heights, proposals: Proposals, target: float) -> None:
    """Soften what this target has thinned, the same in bars that were thinned alike; what is strummed or
    picked in one pattern keeps it."""
    if not heights.reached(writing.version, target):
        return
    patterned, hand = bars_of_one_pattern(writing.original), heights.graded(writing.version).hand
    for edits in grouped(writing.edits, together=True):
        ids = {edit.id for edit in edits}
        built_upon = any(ids & set(edit.builds_on) for edit in writing.edits)
        if (
            edits[0].kind == _KIND
            and not built_upon
            and writing.settled.isdisjoint(ids)
            and patterned.isdisjoint(bar for edit in edits for bar in edit.bars)
        ):
            while softer := _softer(
                writing, [edit for edit in writing.edits if edit.id in ids], heights, proposals, target, hand
            ):
                writing.edits, writing.version = softer
                hand = heights.graded(writing.version).hand


def _softer(
    writing: Writing, edits: Sequence[Edit], heights: Heights, proposals: Proposals, target: float, hand: int
) -> tuple[list[Edit], Part] | None:
    """The edits and the version with the note back that keeps most, in every bar of these; None where the
    target bears none."""
    bars = [edit.changes[0].bar for edit in edits]
    made = [
        (softer, _made(writing, edits, softer, proposals))
        for softer in _with_one_more(edits[0].changes[0], bars, writing.original, writing.version)
    ]
    tried = [(softer, version, writing.scores.overall(version)) for softer, version in made if version]
    for softer, version, kept in sorted(tried, key=lambda entry: -entry[2]):
        if kept < writing.kept + _WORTH:
            break
        if all(
            heights.glimpsed(version, bar, hand).level <= target + TOLERANCE for bar in bars
        ) and heights.reached(version, target):
            return writing.with_softer(
                edits, softer, version, lambda part, bar: heights.glimpsed(part, bar, hand), proposals
            ), version
    return None


def _made(writing: Writing, edits: Sequence[Edit], softer: Change, proposals: Proposals) -> Part | None:
    """The version with a softer change in every bar; None where it does not hang together."""
    version: Part | None = writing.version
    for edit in edits:
        own = edit.changes[0]
        version = (
            proposals.made(version, (replace(own, before=own.after, after=softer.after),), own.bar)
            if version
            else None
        )
    return version


def _with_one_more(change: Change, bars: Sequence[int], original: Part, version: Part) -> Iterator[Change]:
    """The change with one more of the notes it leaves out, between two stronger ones that sound in all its
    bars: no stub off the beat."""
    before, after = _by_onset(change.start, change.before), _by_onset(change.start, change.after)
    if any(event.struck and not (onset in before and before[onset].struck) for onset, event in after.items()):
        return  # it moves notes
    stay = {onset for onset, event in after.items() if event.struck or onset == change.start}
    for onset, event in before.items():
        if (
            event.struck
            and onset not in stay
            and all(_stands_between(onset, original, version, bar) for bar in bars)
        ):
            starts = sorted(stay | {onset})
            rows = zip(starts, [*starts[1:], change.stop], strict=True)
            softer = tuple(
                replace(_row(start, starts, before, after), quarters=stop - start) for start, stop in rows
            )
            if softer != change.before:  # that would be no edit
                yield replace(change, after=softer)


def _row(
    start: Fraction, starts: Sequence[Fraction], before: dict[Fraction, Event], after: dict[Fraction, Event]
) -> Event:
    """What stands at an onset: the note as written where the one before it is there too, else without a
    slur into it."""
    changed = after.get(start)
    if changed and (
        start not in before
        or [(n.string, n.fret) for n in changed.notes] != [(n.string, n.fret) for n in before[start].notes]
    ):
        return changed
    came_from = max((other for other in before if other < start), default=None)
    return before[start] if came_from in starts else changed or lasting(before[start], before[start].quarters)


def _by_onset(start: Fraction, events: Sequence[Event]) -> dict[Fraction, Event]:
    onsets = {}
    for event in events:
        onsets[start] = event
        start += event.quarters
    return onsets


def _stands_between(onset: Fraction, original: Part, version: Part, index: int) -> bool:
    """Whether the nearest stronger notes of the bar as written, on both sides, sound in the version."""
    begins, metre = original.starts_at(index), original.bars[index].metre
    written, sounding = _struck(original.bars[index]), _struck(version.bars[index])
    stronger = [
        other for other in written if metre.weight_at(begins + other) > metre.weight_at(begins + onset)
    ]
    last, following = (
        max((o for o in stronger if o < onset), default=None),
        min((o for o in stronger if o > onset), default=None),
    )
    return all(other in sounding for other in (last, following) if other is not None)


def _struck(bar: Bar) -> set[Fraction]:
    return {onset for onset, event in zip(bar.onsets, bar.events, strict=True) if event.struck}
