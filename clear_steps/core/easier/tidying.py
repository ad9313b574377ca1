"""What the search does once a target is met or given up: nothing that is not needed, nothing that does
harm."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from clear_steps.core.easier.edit import grouped, refused_with
from clear_steps.core.easier.heights import TOLERANCE, Heights
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.kinds.rhythm import beats_alone
from clear_steps.core.easier.patterns import Reach, with_one_pattern
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.easier.returning import give_notes_back
from clear_steps.core.easier.writing import Writing
from clear_steps.core.score import Part
from clear_steps.core.score.moving import moved_events

_WORTH_MORE = 0.05  # points of what is kept
_SLACK = 1e-9


class Tidier:
    """Goes over a version from its beginning on, at each target of a staircase; what harder versions have
    stays."""

    def __init__(
        self, writing: Writing, heights: Heights, proposals: Proposals, shapes: Mapping[int, tuple[int, int]]
    ) -> None:
        self._shapes = shapes  # by bar: the first that it is, and by how many frets moved
        self._writing, self._heights, self._proposals = writing, heights, proposals
        self._began, self._began_step = heights.of(writing.version), heights.graded(writing.version).step
        self._target = 0.0

    def tidy(self, target: float, reach: Reach) -> None:
        """Without what the target does not need, by shorter ways, recurring bars and patterns alike,
        nothing harder than it was."""
        self._target = target
        self._take_away_the_needless()
        if self._take_shorter_ways():
            self._take_away_the_needless()
        if self._keep_the_beat_alone_where_that_is_better():
            self._take_away_the_needless()
        if self._bring_recurring_together():
            self._take_away_the_needless(together=True)
        if self._reached(self._writing.version) and (
            holding := with_one_pattern(self._writing, self._proposals, reach)
        ):
            self._take_away_the_needless(together=True, spared=holding)
        give_notes_back(self._writing, self._heights, self._proposals, target)
        self._take_back_the_harmful()

    def _reached(self, version: Part) -> bool:
        return self._heights.reached(version, self._target)

    def _take_away_the_needless(self, together: bool = False, spared: frozenset[int] = frozenset()) -> None:
        """Refuse each edit in turn, or with the same edits of other bars, dearest first; what the target
        does not need stays refused."""
        writing = self._writing
        if not self._reached(writing.version):
            return
        hand = self._heights.graded(writing.version).hand
        for edits in sorted(
            grouped(writing.edits, together), key=lambda edits: -sum(edit.loss for edit in edits)
        ):
            gone = refused_with(writing.edits, [edit.id for edit in edits])
            if gone.isdisjoint(writing.settled | spared) and all(edit in writing.edits for edit in edits):
                fewer, version = writing.without(edits, self._proposals)
                at_a_glimpse = (
                    self._heights.glimpsed(version, bar, hand).level for edit in edits for bar in edit.bars
                )
                if max(at_a_glimpse, default=0.0) <= self._target + TOLERANCE and self._reached(version):
                    writing.edits, writing.version = fewer, version
                    hand = self._heights.graded(version).hand

    def _take_shorter_ways(self) -> bool:
        """Where edits lie on one another, one proposal for the bar as written may do as well and lose
        less."""
        if not self._reached(self._writing.version):
            return False
        found, writing = False, self._writing
        fixed = {bar for edit in writing.edits if edit.id in writing.settled for bar in edit.bars}
        stacked = {bar for edit in writing.edits if edit.builds_on for bar in edit.bars} - fixed
        for index in sorted(stacked):
            bars = writing.version.bars
            as_written = replace(
                writing.version, bars=(*bars[:index], writing.original.bars[index], *bars[index + 1 :])
            )
            shorter = [
                entry
                for entry in self._proposals.of(as_written, index)
                if entry.kept > writing.kept + _WORTH_MORE
            ]
            chosen = next(
                (
                    entry
                    for entry in sorted(shorter, key=lambda entry: -entry.kept)
                    if self._reached(entry.version)
                ),
                None,
            )
            if chosen:
                writing.edits, writing.version = (
                    [edit for edit in writing.edits if index not in edit.bars],
                    as_written,
                )
                writing.take_proposed(
                    chosen,
                    self._heights.at(as_written, index),
                    self._heights.at(chosen.version, index),
                    self._target,
                )
                found = True
        return found

    def _keep_the_beat_alone_where_that_is_better(self) -> bool:
        """The notes on the beat instead of all edits of this target, where that meets it and keeps more, or
        meets it at all."""
        writing = self._writing
        unsettled = [edit for edit in writing.edits if edit.id not in writing.settled]
        kept = writing.kept if self._reached(writing.version) else 0.0
        fewer, version = writing.without(unsettled, self._proposals)
        taken: list[Proposed] = []
        for index in sorted({bar for edit in unsettled for bar in edit.bars}):
            changes = beats_alone(version, index)
            made = self._proposals.made(version, changes, index) if changes else None
            if made is not None:
                taken.append(Proposed(KINDS["rhythm"], changes, made, writing.scores.overall(made)))
                version = made
        if not taken or taken[-1].kept <= kept + _WORTH_MORE or not self._reached(version):
            return False
        writing.edits, writing.version = fewer, writing.without(unsettled, self._proposals)[1]
        for proposed in taken:
            index = proposed.changes[0].bar
            writing.take_proposed(
                proposed,
                self._heights.at(writing.version, index),
                self._heights.at(proposed.version, index),
                self._target,
            )
        return True

    def _bring_recurring_together(self) -> bool:
        """Bars of one shape in the original have one in the version where that still meets the target: what
        keeps most of what they became."""
        writing, changed = self._writing, False
        for bars in self._recurring():
            if not self._reached(writing.version) or self._are_of_one_shape(bars):
                continue
            tried = (writing.like(model, self._apart(model, bars), self._proposals) for model in bars)
            made = sorted(
                (entry for entry in tried if entry), key=lambda entry: -writing.scores.overall(entry[1])
            )
            found = next((entry for entry in made if self._reached(entry[1])), None)
            if found:
                writing.edits, writing.version = found
                changed = True
        return changed

    def _recurring(self) -> list[list[int]]:
        """Bars (indexes) of one shape, where there are several."""
        groups: dict[int, list[int]] = {}
        for index, (first, _) in self._shapes.items():
            groups.setdefault(first, []).append(index)
        return [group for group in groups.values() if len(group) > 1]

    def _apart(self, model: int, bars: Sequence[int]) -> dict[int, int]:
        """By how many frets the others lie above the model."""
        return {bar: self._shapes[bar][1] - self._shapes[model][1] for bar in bars if bar != model}

    def _are_of_one_shape(self, bars: Sequence[int]) -> bool:
        own = self._writing.version.bars
        (first, *others) = bars
        apart = self._apart(first, bars)
        return all(own[bar].events == moved_events(own[first].events, apart[bar]) for bar in others)

    def _take_back_the_harmful(self) -> None:
        """The last edits are refused until neither the song nor a bar stands higher for them."""
        while not self._harmless() and self._writing.drop_last(self._proposals):
            pass

    def _harmless(self) -> bool:
        """Whether neither the song nor any bar stands above where it began, bars at the target aside:
        fingers change with their neighbours."""
        bars = zip(self._heights.of(self._writing.version), self._began, strict=True)
        song_step = self._heights.graded(self._writing.version).step
        return song_step <= self._began_step + _SLACK and all(
            bar.level <= max(own.level, self._target + TOLERANCE) + _SLACK for bar, own in bars
        )
