"""A plan as edits: one a bar and choice, each with the measure it lowers, what it does and what it costs."""

from itertools import count

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.heights import Height, Heights
from clear_steps.core.easier.plans import STRIKE, Builder, Plan, Stage
from clear_steps.core.easier.writing import Writing, effect_words, is_lowered, reason_words
from clear_steps.core.score import Bar

_OVER_BAR_LINES = frozenset({"push"})  # of neighbouring bars one edit: neither stands without the other
_HELD = "a note held over from what is gone is struck"


def write_down(writing: Writing, builder: Builder, plan: Plan, heights: Heights) -> None:
    """Add all that a plan does to what is written."""
    struck: dict[int, int] = {}
    for stage in builder.stages(plan):
        before, after = heights.of(stage.before), heights.of(stage.after)
        told = _Told(writing, before, after)
        numbers: dict[int, int] = {}
        for bars in _together(stage):
            kind = stage.kinds[bars[0]]
            changes = tuple(_change(stage, index) for index in bars)
            builds_on = [struck[index + 1] for index in bars if index + 1 in struck]
            says = stage.says.get(bars[0], "")
            number = writing.take_together(kind, changes, *told.words(bars, kind), says, builds_on)
            numbers |= dict.fromkeys(bars, number)
        struck = numbers if STRIKE in stage.kinds.values() else {}
        writing.version = stage.after


def _together(stage: Stage) -> list[list[int]]:
    """The bars of each edit: one, or those in a row between which something is moved over the bar line."""
    rows: list[list[int]] = []
    for index in sorted(stage.kinds):
        over = rows and stage.kinds[index] in _OVER_BAR_LINES and rows[-1][-1] == index - 1
        if over and stage.kinds[index - 1] in _OVER_BAR_LINES:
            rows[-1].append(index)
        else:
            rows.append([index])
    return rows


def _change(stage: Stage, index: int) -> Change:
    """What differs of a bar, from the first event that does to the last."""
    return change_between(index, stage.before.bars[index], stage.after.bars[index])


def change_between(index: int, before: Bar, after: Bar) -> Change:
    """What one writing of a bar has and another has not, as small as it can be."""
    old, new = before.events, after.events
    shortest = min(len(old), len(new))
    first = next(at for at in count() if at >= shortest or old[at] != new[at])
    last = next(
        at for at in count() if at >= shortest - first or old[len(old) - 1 - at] != new[len(new) - 1 - at]
    )
    start = before.onsets[first] if first < len(old) else before.onsets[-1]
    if first >= len(old) or first >= len(new) or last >= len(old) - first or last >= len(new) - first:
        first, last, start = 0, 0, before.onsets[0]
    return Change(index, start, old[first : len(old) - last], new[first : len(new) - last])


class _Told:
    """Why and to what effect, for edits of one stage."""

    def __init__(self, writing: Writing, before: tuple[Height, ...], after: tuple[Height, ...]) -> None:
        self._number = writing.original.bar_number
        self._before, self._after = before, after

    def words(self, bars: list[int], kind: str) -> tuple[str, str]:
        """Reason and effect, of the bar that falls most."""
        index = max(bars, key=lambda at: self._before[at].grade.step - self._after[at].grade.step)
        own = (self._before[index], self._after[index])
        effect = effect_words(self._number(index), *own)
        if kind == STRIKE:
            return f"Bar {self._number(index)}: {_HELD}.", effect
        if is_lowered(*own):
            limit = f" The limit here: {own[0].limit}." if own[0].limit else ""
            return reason_words(self._number(index), *own) + limit, effect
        return self._of_others(index), effect

    def _of_others(self, index: int) -> str:
        """A bar that is easy enough changes with its neighbours, or with the bars of its pattern."""
        number = self._number(index)
        for near in (index - 1, index + 1):
            if 0 <= near < len(self._before) and is_lowered(self._before[near], self._after[near]):
                return f"Bar {number}: it makes room for bar {self._number(near)}."
        return f"Bar {number}: as the other bars of its pattern, so that there is one to learn."
