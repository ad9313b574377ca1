"""A plan: for every bar the options chosen, and what they make of a part."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.easier.rewriting import Events, dangles, dangling, struck_again
from clear_steps.core.easier.wanted import WantedBar
from clear_steps.core.easier.ways.scene import Choice, Option, Scene
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Bar, Part, Role
from clear_steps.core.score.words import beat_words

STRIKE = "strike"  # the kind of edit that strikes what was held


@dataclass(frozen=True, slots=True)
class Row:
    """What is chosen for a bar: of every choice of its role the number of an option, 0 for none; and onsets
    that are given back."""

    options: tuple[int, ...]
    more: frozenset[Fraction] = frozenset()

    def with_option(self, choice: int, option: int) -> "Row":
        """The row with another option of one choice."""
        return replace(self, options=(*self.options[:choice], option, *self.options[choice + 1 :]))


Plan = tuple[Row, ...]
"""A row a bar."""


@dataclass(frozen=True, slots=True)
class Stage:
    """What one choice made of the part: by bar the option's kind and what it says, and the part before and
    after."""

    kinds: Mapping[int, str]
    says: Mapping[int, str]
    before: Part
    after: Part


@dataclass(frozen=True, slots=True)
class _Step:
    """A stage: what stood before, the same with what had to be struck, and what the choice made of it."""

    before: Part
    struck: Part
    after: Part


def _differing(one: Part, other: Part) -> list[int]:
    pairs = enumerate(zip(one.bars, other.bars, strict=True))
    return [index for index, (a, b) in pairs if a is not b]


class Builder:
    """Makes versions of plans; equal bars in equal surroundings are one object, so that each is judged
    once."""

    def __init__(
        self,
        part: Part,
        wanted: Sequence[WantedBar],
        choices: Mapping[Role, Sequence[Choice]],
        ladder: Ladder,
        refused: Collection[tuple[int, str]] = (),
    ) -> None:
        self._refused = refused  # bars (indexes) and the kinds that leave them alone
        self._bars: dict[Bar, Bar] = {}
        self.part = self.known(part)
        self._wanted, self._ladder = wanted, ladder
        self.roles = [row.role for row in wanted]
        self.choices = [choices[row.role] for row in wanted]  # by bar
        self._stages = max((len(own) for own in self.choices), default=0)
        self._written: dict[tuple[object, ...], Bar] = {}
        self._settled: tuple[Plan, list[_Step]] = ((), [])
        self._held = set(dangling(part))  # as it came
        self._hanging: dict[tuple[int, int], bool] = {}  # by a bar and the one before it

    def known(self, part: Part) -> Part:
        """The part with every bar the object that equal bars are."""
        return replace(part, bars=tuple(self._bars.setdefault(bar, bar) for bar in part.bars))

    def nothing(self) -> Plan:
        """The plan that leaves everything as it is."""
        return tuple(Row((0,) * len(own)) for own in self.choices)

    def made(self, plan: Plan) -> Part:
        """The version of a plan."""
        steps = self._steps(plan)
        return steps[-1].after if steps else self.part

    @property
    def settled(self) -> Plan:
        """The plan that others are made as variations of."""
        return self._settled[0]

    def settle(self, plan: Plan) -> None:
        """Plans that follow are variations of this one: what they share with it is not made again."""
        if plan is not self._settled[0]:
            self._settled = (plan, self._steps(plan) if plan else [])

    def _steps(self, plan: Plan) -> list["_Step"]:
        """What every choice makes, of what; what lies far from rows that differ from the settled plan's is
        taken from there."""
        own, steps = self._settled
        if plan is own:
            return steps
        rows = zip(plan, own, strict=False)
        differ = {index for index, (a, b) in enumerate(rows) if a is not b and a != b} if own else None
        part, made = self.part, list[_Step]()
        for stage in range(self._stages):
            known = steps[stage] if differ is not None else None
            made.append(self._after(part, plan, stage, known, differ or set()))
            part = made[-1].after
        return made

    def stages(self, plan: Plan) -> Iterator[Stage]:
        """How a version comes about: what each choice makes, and what had to be struck again for it first."""
        for stage, step in enumerate(self._steps(plan)):
            if step.struck is not step.before:
                again = dict.fromkeys(_differing(step.before, step.struck), STRIKE)
                yield Stage(again, {}, step.before, step.struck)
            changed = {
                index: option
                for index in _differing(step.struck, step.after)
                if (option := self.option(plan, index, stage))
            }
            if changed:
                kinds = {index: option.kind for index, option in changed.items()}
                says = {index: self._said(plan, index, stage) for index in changed}
                yield Stage(kinds, says, step.struck, step.after)

    def _said(self, plan: Plan, index: int, stage: int) -> str:
        """What an option says to a student, and where more is struck than it says."""
        option, more = self.option(plan, index, stage), sorted(plan[index].more)
        says = option.says if option else ""
        if not more or not self.choices[index][stage].thins:
            return says
        return f"{says}, and on {' and '.join(beat_words(at, self.part.bars[index].metre) for at in more)}"

    def option(self, plan: Plan, index: int, stage: int) -> Option | None:
        """What is chosen for a bar at a stage."""
        choices = self.choices[index]
        number = plan[index].options[stage] if stage < len(choices) else 0
        option = choices[stage].options[number - 1] if number else None
        return None if option and (index, option.kind) in self._refused else option

    def _after(self, part: Part, plan: Plan, stage: int, known: "_Step | None", differ: set[int]) -> "_Step":
        """What a choice makes, and of what: notes held over from one that is no longer there are struck
        first."""
        rows: Sequence[int] = range(len(part.bars))
        if known:
            fresh = self._otherwise(plan, stage, differ)
            if part is not known.before:
                pairs = zip(part.bars, known.before.bars, strict=True)
                fresh |= {index for index, (own, other) in enumerate(pairs) if own is not other}
            around = {index + apart for index in fresh for apart in (-1, 0, 1)}
            rows = sorted(around.intersection(rows))
            if not rows:
                return known
        made = self._rewritten(part, plan, stage, known.after if known else part, rows)
        lost = [index for index in self._lost(made) if index not in self._held]
        if not lost:
            return _Step(part, part, made)
        again = {
            index: struck_again(made_before(part, made, index), index, _name_before(part, index))
            for index in lost
        }
        struck = self._with(part, again)
        return _Step(part, struck, self._rewritten(struck, plan, stage, struck, range(len(part.bars))))

    def _otherwise(self, plan: Plan, stage: int, differ: set[int]) -> set[int]:
        """Of the bars in which a plan differs from the settled one, those that do so at a stage."""
        settled = self._settled[0]
        return {
            index
            for index in differ
            if plan[index].more != settled[index].more
            or plan[index].options[stage : stage + 1] != settled[index].options[stage : stage + 1]
        }

    def _lost(self, made: Part) -> Iterator[int]:
        """Bars (indexes) in which a tie has lost its note."""
        before: Bar | None = None
        for index, bar in enumerate(made.bars):
            key = (id(before), id(bar))
            if key not in self._hanging:
                self._hanging[key] = dangles(before, bar)
            if self._hanging[key]:
                yield index
            before = bar

    def _rewritten(self, part: Part, plan: Plan, stage: int, others: Part, rows: Sequence[int]) -> Part:
        """Some bars of a part written anew, or as they are; the others as they are known."""
        more = {index: row.more for index, row in enumerate(plan) if row.more}
        scene = Scene(part, self._wanted, self._ladder, more)
        bars = list(others.bars)
        for index in rows:
            option = self.option(plan, index, stage)
            bars[index] = self._bar(scene, index, option, plan[index].more) if option else part.bars[index]
        changed = any(a is not b for a, b in zip(bars, part.bars, strict=True))
        return replace(part, bars=tuple(bars)) if changed else part

    def _bar(self, scene: Scene, index: int, option: Option, more: frozenset[Fraction]) -> Bar:
        around = tuple(map(id, scene.part.bars[max(index - 1, 0) : index + 2]))
        key = (id(option), index, around, more)
        if key not in self._written:
            bar = scene.bar(index)
            made = option.rewrite(scene, index)
            written = bar if made is None or made == bar.events else replace(bar, events=made)
            fits = written.quarters == bar.quarters and (bar.silent or not written.silent)
            self._written[key] = self._bars.setdefault(written, written) if fits else bar
        return self._written[key]

    def _with(self, part: Part, events: Mapping[int, Events]) -> Part:
        bars = list(part.bars)
        for index, own in events.items():
            bar = replace(bars[index], events=own)
            bars[index] = self._bars.setdefault(bar, bar)
        return replace(part, bars=tuple(bars))


def _name_before(part: Part, index: int) -> str:
    """The chord name that came with what a bar is held over from."""
    events = part.bars[index - 1].events if index else ()
    return events[-1].chord if events else ""


def made_before(part: Part, made: Part, index: int) -> Part:
    """The part with the bar before one as it was made: what is held from there into the one as it is."""
    bars = list(part.bars)
    if index:
        bars[index - 1] = made.bars[index - 1]
    return replace(part, bars=tuple(bars))


def same(plan: Plan, bars: Sequence[int], row: Row) -> Plan:
    """The plan with one row for several bars."""
    own = set(bars)
    return tuple(row if index in own else old for index, old in enumerate(plan))
