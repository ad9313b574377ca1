"""The version being written: the edits taken so far, and what they make of the original."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace

from clear_steps.core.easier.edit import (
    Change,
    Edit,
    applied,
    dependencies,
    version_of,
)
from clear_steps.core.easier.heights import Height
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.proposals import Proposed
from clear_steps.core.score import Part
from clear_steps.core.score.words import bar_words, capital, uncapital

_SEEN = 0.05  # Steps


class Writing:
    """Edits in the order they were taken."""

    def __init__(self, original: Part, given: Sequence[Edit], scores: KeptSoFar) -> None:
        self.original, self.scores = original, scores
        self.edits: list[Edit] = [
            edit for edit in given if edit.setup
        ]  # compared through its transposition it loses nothing
        self.version = version_of(original, self.edits)
        for edit in given[len(self.edits) :]:
            self._add(edit)

    def take(
        self,
        kind: str,
        changes: Iterable[Change],
        reason: str,
        effect: Callable[[Change], str],
        says: str = "",
    ) -> None:
        """Add changes, an edit each, so that each can be refused alone."""
        for change in changes:
            self.take_together(kind, (change,), reason, effect(change), says)

    def take_together(
        self,
        kind: str,
        changes: tuple[Change, ...],
        reason: str,
        effect: str,
        says: str = "",
        after: Sequence[int] = (),
    ) -> int:
        """Add changes as one edit, which builds on those of the same notes and on some more; its number."""
        number = max((edit.id for edit in self.edits), default=0) + 1
        builds_on = tuple(sorted({*dependencies(self.edits, changes), *after}))
        self._add(Edit(number, kind, changes, reason, effect, 0.0, builds_on, says=says))
        return number

    def _add(self, edit: Edit) -> None:
        version = applied(self.version, edit.changes)
        assert version is not None  # what is taken was made of this very text
        loss = self.scores.overall(self.version) - self.scores.overall(version)
        self.edits.append(replace(edit, loss=loss))
        self.version = version

    def take_proposed(self, proposed: Proposed, before: Height, after: Height) -> None:
        """Add what a kind of edit proposed for a bar, saying why and to what effect."""
        number = self.original.bar_number(before.grade.index)
        limit = f" The limit here: {before.limit}." if before.limit else ""
        effect = effect_words(number, before, after)
        self.take(
            proposed.kind.name,
            proposed.changes,
            reason_words(number, before, after) + limit,
            lambda _: effect,
        )
        self.version = proposed.version


def reason_words(number: int, before: Height, after: Height) -> str:
    """Why a bar is changed: what the measure that this lowers most had found there."""
    name = _most_lowered(before, after)
    evidence = before.grade.findings[name].evidence
    return f"{capital(bar_words(number))}: {uncapital(evidence)}"


def effect_words(number: int, before: Height, after: Height) -> str:
    """What a change does to a bar: its Step, and the measure that falls most."""
    old, new = before.grade.findings, after.grade.findings
    name = _most_lowered(before, after)
    steps = f"Step {before.grade.step:.1f} to {after.grade.step:.1f}"
    measure = f"{name.replace('_', ' ')} {old[name].step:.1f} to {new[name].step:.1f}"
    return f"{bar_words(number)}: {steps}; {measure}"


def is_lowered(before: Height, after: Height) -> bool:
    """Whether a measure of the bar falls by more than can be seen."""
    name = _most_lowered(before, after)
    fall = before.grade.findings[name].step - after.grade.findings[name].step
    return fall > _SEEN or before.grade.step - after.grade.step > _SEEN


def _most_lowered(before: Height, after: Height) -> str:
    """By what it adds to the bar's Step: a low measure that falls far lowers nothing."""
    old, new = before.grade.findings, after.grade.findings
    return max(old, key=lambda name: max(old[name].step, 1.0) ** 3 - max(new[name].step, 1.0) ** 3)
