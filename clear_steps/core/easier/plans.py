"""A plan: for every bar the options chosen, and what they make of a part."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.easier.rewriting import Events, dangles, dangling, struck_again
from clear_steps.core.easier.wanted import WantedBar
from clear_steps.core.easier.ways.scene import Choice, Option, Scene
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Bar, Part, Role

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
    """What one choice made of the part: the option's kind by bar, and the part before and after."""

    kinds: Mapping[int, str]
    before: Part
    after: Part


class Builder:
    """Makes versions of plans; equal bars in equal surroundings are one object, so that each is judged
    once."""

    def __init__(
        self,
        part: Part,
        wanted: Sequence[WantedBar],
        choices: Mapping[Role, Sequence[Choice]],
        ladder: Ladder,
    ) -> None:
        self._bars: dict[Bar, Bar] = {}
        self.part = self.known(part)
        self._wanted, self._ladder = wanted, ladder
        self.roles = [row.role for row in wanted]
        self.choices = [choices[row.role] for row in wanted]  # by bar
        self._stages = max((len(own) for own in self.choices), default=0)
        self._written: dict[tuple[object, ...], Bar] = {}
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
        part = self.part
        for stage in range(self._stages):
            part = self._after(part, plan, stage)[0]
        return part

    def stages(self, plan: Plan) -> Iterator[Stage]:
        """How a version comes about: what each choice makes, and what had to be struck again for it first."""
        part = self.part
        for stage in range(self._stages):
            after, struck = self._after(part, plan, stage)
            if struck is not part:
                again = {
                    index: STRIKE
                    for index, (a, b) in enumerate(zip(part.bars, struck.bars, strict=True))
                    if a is not b
                }
                yield Stage(again, part, struck)
            changed = {
                index: option.kind
                for index, (a, b) in enumerate(zip(struck.bars, after.bars, strict=True))
                if a is not b and (option := self.option(plan, index, stage))
            }
            if changed:
                yield Stage(changed, struck, after)
            part = after

    def option(self, plan: Plan, index: int, stage: int) -> Option | None:
        """What is chosen for a bar at a stage."""
        choices = self.choices[index]
        number = plan[index].options[stage] if stage < len(choices) else 0
        return choices[stage].options[number - 1] if number else None

    def _after(self, part: Part, plan: Plan, stage: int) -> tuple[Part, Part]:
        """What a choice makes, and of what: notes held over from one that is no longer there are struck
        first."""
        made = self._rewritten(part, plan, stage)
        if made is part:
            return part, part
        lost = [index for index in self._lost(made) if index not in self._held]
        if not lost:
            return made, part
        again = {
            index: struck_again(made_before(part, made, index), index, _name_before(part, index))
            for index in lost
        }
        struck = self._with(part, again)
        return self._rewritten(struck, plan, stage), struck

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

    def _rewritten(self, part: Part, plan: Plan, stage: int) -> Part:
        more = {index: row.more for index, row in enumerate(plan) if row.more}
        scene = Scene(part, self._wanted, self._ladder, more)
        events: dict[int, Bar] = {}
        for index in range(len(part.bars)):
            option = self.option(plan, index, stage)
            if option is not None:
                bar = self._bar(scene, index, option, plan[index].more)
                if bar is not part.bars[index]:
                    events[index] = bar
        if not events:
            return part
        return replace(part, bars=tuple(events.get(at, bar) for at, bar in enumerate(part.bars)))

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
