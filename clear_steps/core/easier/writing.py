"""The version being written: the edits taken so far, and what they make of the original."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import replace

from clear_steps.core.easier.edit import (
    Change,
    Edit,
    applied,
    dependencies,
    refused_with,
    version_of,
)
from clear_steps.core.easier.heights import TOLERANCE, Height
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.score import Part
from clear_steps.core.score.moving import moved_events


class Writing:
    """Edits in the order they were taken; those settled belong to what was asked for, or to a harder
    version of the staircase."""

    def __init__(self, original: Part, given: Sequence[Edit], scores: KeptSoFar) -> None:
        self.original, self.scores = original, scores
        self.edits: list[Edit] = [
            edit for edit in given if edit.setup
        ]  # compared through its transposition it loses nothing
        self.version = version_of(original, self.edits)
        for edit in given[len(self.edits) :]:
            self._add(edit)
        self.settle()

    def settle(self) -> None:
        """What stands now stays."""
        self.settled = frozenset(edit.id for edit in self.edits)

    @property
    def kept(self) -> float:
        """What is kept of the whole, in per cent, as the search weighs it."""
        return self.scores.overall(self.version)

    def take(
        self, kind: str, changes: Iterable[Change], reason: str, effect: Callable[[Change], str]
    ) -> None:
        """Add changes, an edit each, so that each can be refused alone."""
        for change in changes:
            number = max((edit.id for edit in self.edits), default=0) + 1
            self._add(
                Edit(
                    number, kind, (change,), reason, effect(change), 0.0, dependencies(self.edits, (change,))
                )
            )

    def _add(self, edit: Edit) -> None:
        version = applied(self.version, edit.changes)
        assert version is not None  # what is taken was made of this very text
        loss = self.scores.overall(self.version) - self.scores.overall(version)
        self.edits.append(replace(edit, loss=loss))
        self.version = version

    def take_proposed(self, proposed: Proposed, before: Height, after: Height, stair: float) -> None:
        """Add what a kind of edit proposed for a bar, saying why and to what effect; a bar at the stair
        already is lowered for the song."""
        number = self.original.bar_number(before.grade.index)
        evidence = before.grade.findings[before.measure].evidence
        past = f" The limit here: {before.limit}." if before.limit else ""
        if before.level <= stair + TOLERANCE:
            past += " Easy enough by itself; the song as a whole was not."
        effect = _effect(number, before, after)
        self.take(
            proposed.kind.name,
            proposed.changes,
            f"Bar {number}: {evidence[:1].lower()}{evidence[1:]}{past}",
            lambda _: effect,
        )
        self.version = proposed.version

    def drop_last(self, proposals: Proposals) -> bool:
        """Refuse the last edit that is not settled; False where there is none."""
        last = next((edit for edit in reversed(self.edits) if edit.id not in self.settled), None)
        if last is not None:
            self.edits, self.version = self.without([last], proposals)
        return last is not None

    def fork(self, edits: Iterable[Edit], version: Part) -> "Writing":
        """Another attempt from these edits and the version they make; what is settled stays so."""
        other = Writing(self.original, (), self.scores)
        other.edits, other.version, other.settled = list(edits), version, self.settled
        return other

    def become(self, other: "Writing") -> None:
        """Go on from an attempt."""
        self.edits, self.version = other.edits, other.version

    def without(self, refused: Iterable[Edit], proposals: Proposals) -> tuple[list[Edit], Part]:
        """The other edits that do not build on these, and the version they make; bars not touched stay the
        objects they are."""
        gone = refused_with(self.edits, [edit.id for edit in refused])
        fewer = [other for other in self.edits if other.id not in gone]
        touched = {bar for other in self.edits if other.id in gone for bar in other.bars}
        made = proposals.known(
            version_of(self.original, [other for other in fewer if touched & set(other.bars)])
        )
        return fewer, replace(
            self.version,
            bars=tuple(made.bars[at] if at in touched else bar for at, bar in enumerate(self.version.bars)),
        )

    def with_softer(
        self,
        edits: Sequence[Edit],
        change: Change,
        version: Part,
        height: Callable[[Part, int], Height],
        proposals: Proposals,
    ) -> list[Edit]:
        """All edits, these with another change of their own bars, by which they make the version."""
        softer: dict[int, Edit] = {}
        for edit in edits:
            (bar,) = edit.bars
            harder = self.without([edit], proposals)[1]
            loss = self.scores.overall(harder) - self.scores.overall(version)
            effect = _effect(self.original.bar_number(bar), height(harder, bar), height(version, bar))
            softer[edit.id] = replace(edit, changes=(replace(change, bar=bar),), effect=effect, loss=loss)
        return [softer.get(edit.id, edit) for edit in self.edits]

    def like(
        self, model: int, others: Mapping[int, int], proposals: Proposals
    ) -> tuple[list[Edit], Part] | None:
        """The edits, and the version they make, if other bars (each with the frets it lies above) that were
        of one shape in the original got the edits of one; None where what is settled differs."""
        settled = version_of(self.original, [edit for edit in self.edits if edit.id in self.settled])
        for other, frets in others.items():
            if settled.bars[other].events != moved_events(settled.bars[model].events, frets):
                return None
        kept = [edit for edit in self.edits if edit.id in self.settled or not set(edit.bars) & set(others)]
        made = self.fork(kept, proposals.known(version_of(self.original, kept)))
        own = [edit for edit in self.edits if edit.bars == (model,) and edit.id not in self.settled]
        for other, frets in others.items():
            if not all(made._take_over(edit, other, frets) for edit in own):
                return None
        return made.edits, proposals.known(made.version)

    def _take_over(self, own: Edit, bar: int, frets: int) -> bool:
        """An edit made in another bar of the same shape; whether the notes it asks for are there."""
        first, number = self.original.bar_number(own.bars[0]), self.original.bar_number(bar)
        effect = f"bar {number}: {own.effect.partition(': ')[2]} in bar {first}"
        moved = [change.elsewhere(bar, frets) for change in own.changes]
        changes = [change for change in moved if change]
        if len(changes) < len(moved):
            return False
        same = "the same bar as" if not frets else "the shape of"
        self.take(
            own.kind,
            changes,
            f"Bar {number}: {same} bar {first}, so the same change.",
            lambda _: effect,
        )
        return True


def _effect(number: int, before: Height, after: Height) -> str:
    """What an edit does to a bar: its Step, and the measure that falls most."""
    old, new = before.grade.findings, after.grade.findings
    name = max(old, key=lambda measure: old[measure].step - new[measure].step)
    return (
        f"bar {number}: Step {before.grade.step:.1f} to {after.grade.step:.1f}; {name} {old[name].step:.1f}"
        f" to {new[name].step:.1f}"
    )
