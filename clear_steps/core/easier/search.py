"""From a target Step to edits: down the half-Step stairs, bar by bar, each result graded again.

A stair takes every bar that stands above it and gives it the proposal of least loss that brings it
down; where none does, the one that brings it furthest for what it loses. Every proposal is judged
by grading the whole part with it, by the same code as the original, since neighbours may be fingered
anew. At the end what was written is tidied.
"""

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from math import ceil

from clear_steps.core.easier.answer import Easier, Progress, StoppedError, Wish
from clear_steps.core.easier.approach import APPROACHES, Approach
from clear_steps.core.easier.edit import Change, Edit, applied, transposition, version_of
from clear_steps.core.easier.given import given_edits
from clear_steps.core.easier.heights import TOLERANCE, Height, Heights
from clear_steps.core.easier.kept import WEIGHTS, KeptSoFar
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.kinds.technique import without_ringing
from clear_steps.core.easier.layers import LAYERS, Layer
from clear_steps.core.easier.patterns import with_one_pattern
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.easier.refusing import blocking_bars
from clear_steps.core.easier.tidying import Tidier
from clear_steps.core.easier.ways import Way, Ways, is_lower
from clear_steps.core.easier.writing import Writing
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import bars_of_one_shape
from clear_steps.core.grade import Ability, Grader, GradeRequest, Grading, Ladder, grade_part
from clear_steps.core.score import Part, Song

_STAIR = 0.5
_ROUNDS = 12  # over the bars of a stair
_LESS_TO_REMEMBER = 0.01  # Steps that a figure less must bring
_MAKE_UP = 0.75  # Steps that bars go below what they must, for those that cannot
_MARGIN = 0.1  # the least by which bars are lowered for the song's sake


def easier(
    song: Song,
    part: Part,
    ladder: Ladder,
    target: float,
    request: GradeRequest = GradeRequest(),
    progress: Progress = lambda _: True,
) -> Easier:
    """The version of a part at a target Step that loses least; raises StoppedError."""
    return staircase(song, part, ladder, Wish((target,)), request, progress)[0]


def staircase(
    song: Song,
    part: Part,
    ladder: Ladder,
    wish: Wish,
    request: GradeRequest = GradeRequest(),
    progress: Progress = lambda _: True,
) -> tuple[Easier, ...]:
    """A version for every target, hardest first, each containing the edits of the one before; raises
    StoppedError."""
    targets = sorted(set(wish.targets), reverse=True)
    given = given_edits(song, part, ladder, wish, request)
    ability = Ability(request.player, wish.limits, ladder) if wish.limits else None
    heights = Heights(Grader(song, version_of(part, given), ladder, request), targets[-1], ability)
    search = _Search(part, heights, _Goal(targets[-1], wish.approach, given), progress)
    before = grade_part(song, part, ladder, request)
    if layer := wish.layer or APPROACHES[wish.approach].layer:
        search.take_layer(song, LAYERS[layer])
    found = []
    for target in targets:
        search.settle(target)
        found.append(search.result(target, before))
    return tuple(found)


def _stairs(start: float, target: float) -> list[float]:
    """Half Steps from just below the start down to the target; none where it is met already."""
    if start <= target + TOLERANCE:
        return []
    count = ceil((start - target) / _STAIR)
    return [target + _STAIR * number for number in range(count - 1, -1, -1)]


@dataclass(frozen=True, slots=True)
class _Goal:
    lowest: float  # of the targets
    approach: Approach
    given: tuple[Edit, ...]


class _Search:
    """The strategy: which bar, which proposal, and when to stop."""

    def __init__(self, part: Part, heights: Heights, goal: _Goal, progress: Progress) -> None:
        self._target = self._lowest = self._stair = goal.lowest
        self._heights, self._progress = heights, progress
        half_tones, weights, without = (
            transposition(goal.given),
            APPROACHES[goal.approach].weights,
            APPROACHES[goal.approach].without,
        )
        scores = KeptSoFar(part, weights, half_tones)
        self._plain_scores = scores if weights is WEIGHTS else KeptSoFar(part, half_tones=half_tones)
        proposals = Proposals(
            part, {name: kind for name, kind in KINDS.items() if name not in without}, scores
        )
        self._writing = Writing(part, goal.given, scores)
        self._proposals, self._ways = proposals, Ways(part, heights, proposals, scores, self._plain_scores)
        self._writing.version = self._proposals.known(self.version)
        self._shapes = bars_of_one_shape(part, coming_back(part))
        self._tidier = Tidier(self._writing, heights, self._proposals, self._shapes)
        self._began = heights.of(self.version)
        self._start = heights.highest(self.version)

    @property
    def version(self) -> Part:
        """What the edits taken so far make of the original."""
        return self._writing.version

    def take_layer(self, song: Song, layer: Layer) -> None:
        """Begin with a layer of the music, an edit a bar."""
        original = self._writing.original
        # Made of what is given first: bars filled, bends taken off, other places.
        changes = self._dry_where_harder(
            layer.changes(_with_version(song, original, self.version), self.version)
        )
        self._writing.take(
            layer.name,
            changes,
            f"asked for: {layer.does}",
            lambda change: f"bar {original.bar_number(change.bar)}: {layer.does}",
        )
        self._writing.version = self._proposals.known(self.version)
        self._writing.settle()

    def _dry_where_harder(self, changes: Sequence[Change]) -> list[Change]:
        """A note left out no longer stops the ones that ring: where that makes a bar harder, they need not
        ring on."""
        version = applied(self.version, changes)
        assert version is not None  # layers are made of the part itself
        graded = self._heights.graded(version)
        harder = {
            change.bar
            for change in changes
            if graded.bars[change.bar].step > self._began[change.bar].grade.step
        }
        dry = [
            replace(change, after=tuple(without_ringing(event) for event in change.after))
            for change in changes
        ]
        return [other if change.bar in harder else change for change, other in zip(changes, dry, strict=True)]

    def settle(self, target: float) -> None:
        """Down the stairs to a target, then without what it does not need; what harder versions have
        stays."""
        self._target = target
        for stair in _stairs(self._heights.highest(self.version), target):
            self._descend(stair)
        if self._heights.reached(self.version, target):
            with_one_pattern(self._writing, self._proposals, self._reaches_with)
        self._tidier.tidy(target, self._reaches_with)
        self._writing.settle()

    def result(self, target: float, before: Grading) -> Easier:
        """What stands now, as an answer."""
        reached = self._heights.reached(self.version, self._target)
        blocking = (
            () if reached else blocking_bars(self.version, self._target, self._heights, self._proposals)
        )
        after, kept = self._heights.graded(self.version), self._plain_scores.of(self.version)
        return Easier(
            target, reached, tuple(self._writing.edits), self.version, before, after, kept, blocking
        )

    def _reaches_with(self, made: Writing, steady: Sequence[int]) -> bool:
        """Whether a writing meets the target, at need with other things given up than the rhythm of some
        bars."""
        own, self._writing, self._ways.steady = self._writing, made, frozenset(steady)
        self._descend(self._target)
        self._writing, self._ways.steady = own, frozenset()
        return self._heights.reached(made.version, self._target)

    def _descend(self, stair: float) -> None:
        """Bring every bar, and then the song, down to a stair, as far as it goes."""
        self._stair = stair
        stuck: set[int] = set()  # bars that go no further down for the song's sake
        for _ in range(_ROUNDS):
            if self._heights.reached(self.version, stair):
                return
            before, limit = self.version, stair
            above = [bar for bar in self._heights.of(before) if bar.level > stair + TOLERANCE]
            for_the_song = not above
            if for_the_song:
                above, limit = self._highest_of_the_others(stair, stuck)
            self._lower_each(above, limit)
            if self.version is before and not for_the_song:
                return
            if self.version is before and self._remember_less(stair):
                continue
            if not above:
                return
            if for_the_song:
                stuck |= {
                    bar.grade.index
                    for bar in above
                    if self.version.bars[bar.grade.index] is before.bars[bar.grade.index]
                }

    def _highest_of_the_others(self, stair: float, stuck: Collection[int]) -> tuple[list[Height], float]:
        """Bars are down as far as they must, the song is not: what has to be remembered or lasts counts on
        top. Which to lower, and how far.

        Were all bars as low as the stair without what is on top, the song would stand at it. What stuck
        bars lack of that the others make up for by a little more than a stair at most: no tune is given up
        for a bar that nothing can be done about.
        """
        grading = self._heights.graded(self.version)
        others = [bar for bar in self._heights.of(self.version) if bar.grade.index not in stuck]
        highest = max((bar.level for bar in others), default=1.0)
        lowest = max(
            stair - grading.memory - grading.stamina - (_MAKE_UP if stair == self._target else 0.0), 1.0
        )
        limit = max(highest - min(max(grading.step - stair, _MARGIN), _STAIR), lowest)
        return [bar for bar in others if bar.level > limit + TOLERANCE], limit

    def _lower_each(self, above: Iterable[Height], limit: float) -> None:
        """Bars of one shape are edited together: what served the first of them is tried on the next."""
        served: dict[int, tuple[int, list[Proposed]]] = {}  # by the first: which bar, and what was taken
        for bar in above:
            self._tell()
            index = bar.grade.index
            first, _ = self._shapes[index]
            if first in served:
                bar = self._like(bar, limit, *served[first])
            served.setdefault(first, (index, self._lower(bar, limit)))

    def _like(self, bar: Height, limit: float, model: int, taken: Sequence[Proposed]) -> Height:
        """The bar with the edits of one of its shape, as far as they fit and lower it too."""
        index = bar.grade.index
        frets = self._shapes[index][1] - self._shapes[model][1]
        for proposed in taken:
            moved = [change.elsewhere(change.bar + index - model, frets) for change in proposed.changes]
            changes = tuple([change for change in moved if change])
            if len(changes) < len(moved):
                break
            version = self._proposals.made(self.version, changes, index)
            after = self._heights.at(version, index) if version else bar
            if version is None or not is_lower(after.level, bar.level, limit):
                break
            self._writing.take_proposed(
                replace(proposed, changes=changes, version=version), bar, after, self._stair
            )
            bar = after
        return bar

    def _remember_less(self, stair: float) -> bool:
        """Play a varied bar as it was before, where that loses least and brings the song down; whether one
        was found."""
        kind, step = KINDS["variation"], self._heights.graded(self.version).step
        found = [
            proposed
            for index in range(len(self.version.bars))
            for proposed in self._proposals.of_kind(kind, self.version, index)
        ]
        for proposed in sorted(found, key=lambda proposed: -proposed.kept):
            heights = self._heights.of(proposed.version)
            lighter = self._heights.graded(proposed.version).step <= step - _LESS_TO_REMEMBER
            if lighter and max(bar.level for bar in heights) <= stair + TOLERANCE:
                index = proposed.changes[0].bar
                self._writing.take_proposed(
                    proposed, self._heights.at(self.version, index), heights[index], stair
                )
                return True
        return False

    def _tell(self) -> None:
        depth = max(self._start - self._lowest, _STAIR)
        done = (self._start - self._stair - _STAIR / 2) / (depth + _STAIR)
        if not self._progress(min(max(done, 0.0), 0.95)):
            raise StoppedError

    def _lower(self, bar: Height, limit: float) -> list[Proposed]:
        """Edits of one bar, one on top of another, until it stands at the limit; what was taken."""
        way = next(self._ways.best_first(self.version, bar, limit), None)
        if way is None and limit == self._stair:  # for its own sake, not the song's
            way = self._afresh(bar, limit)
        return self._take(way, bar.grade.index) if way else []

    def _afresh(self, bar: Height, limit: float) -> Way | None:
        """Where what was done to a bar at higher stairs leads no further: a way to the limit from the bar
        as it was, which takes its place."""
        index, writing = bar.grade.index, self._writing
        own = [edit for edit in writing.edits if edit.bars == (index,) and edit.id not in writing.settled]
        if not own:
            return None
        fewer, version = writing.without(own, self._proposals)
        begun = self._heights.at(version, index)
        way = next(self._ways.best_first(version, begun, limit), None)
        if way is None or self._heights.at(way.version, index).level > limit + TOLERANCE:
            return None
        writing.edits, writing.version = fewer, version
        return way

    def _take(self, way: Way, index: int) -> list[Proposed]:
        before = self._heights.at(self.version, index)
        for proposed in way.taken:
            after = self._heights.at(proposed.version, index)
            self._writing.take_proposed(proposed, before, after, self._stair)
            before = after
        return list(way.taken)


def _with_version(song: Song, original: Part, version: Part) -> Song:
    """The song with a version in place of its part; chord names hold for their own tuning and capo, and go
    where those change."""
    parts = tuple(version if part == original else part for part in song.parts)
    if (version.tuning, version.capo) != (original.tuning, original.capo):
        parts = tuple(map(_without_names, parts))
    return replace(song, parts=parts)


def _without_names(part: Part) -> Part:
    return replace(
        part,
        bars=tuple(
            replace(bar, events=tuple(replace(event, chord="") for event in bar.events)) for bar in part.bars
        ),
    )
