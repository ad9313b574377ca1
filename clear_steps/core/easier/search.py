"""From a target Step to edits: down the half-Step stairs, bar by bar, each result graded again.

A stair takes every bar that stands above it and gives it the proposal of least loss that brings it
down; where none does, the one that brings it furthest for what it loses. Every proposal is judged
by grading the whole part with it, by the same code as the original, since neighbours may be fingered
anew. At the end what was written is tidied.
"""

import itertools
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from math import ceil

from clear_steps.core.easier.answer import Easier, Progress, StoppedError, Wish
from clear_steps.core.easier.approach import APPROACHES, Approach
from clear_steps.core.easier.edit import Change, Edit, applied, transposition, version_of
from clear_steps.core.easier.given import given_edits
from clear_steps.core.easier.heights import TOLERANCE, Height, Heights
from clear_steps.core.easier.kept import WEIGHTS, KeptSoFar
from clear_steps.core.easier.kinds import KINDS, Kind
from clear_steps.core.easier.kinds.technique import without_ringing
from clear_steps.core.easier.layers import LAYERS, Layer
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.easier.refusing import blocking_bars
from clear_steps.core.easier.tidying import Tidier
from clear_steps.core.easier.writing import Writing
from clear_steps.core.grade import Ability, Grader, GradeRequest, Grading, Ladder, grade_part
from clear_steps.core.score import Part, Song

_STAIR = 0.5
_ROUNDS = 12  # over the bars of a stair
_MOST_EDITS = 6  # on top of one another before a bar is given up at a stair
_BEAM = 3  # ways kept at every depth
_WORTHLESS = 0.05  # a proposal that lowers a bar by less is none, unless that is all there is to go
_LOSS_FLOOR = 0.5
_LESS_TO_REMEMBER = 0.01  # Steps that a figure less must bring
_SLACK = 1e-9
_MARGIN = 0.1  # the least by which bars are lowered for the song's sake


def easier(song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest = GradeRequest(), progress: Progress = lambda _: True) -> Easier:
    """The version of a part at a target Step that loses least; raises StoppedError."""
    return staircase(song, part, ladder, Wish((target,)), request, progress)[0]


def staircase(
    song: Song, part: Part, ladder: Ladder, wish: Wish, request: GradeRequest = GradeRequest(), progress: Progress = lambda _: True
) -> tuple[Easier, ...]:
    """A version for every target, hardest first, each containing the edits of the one before; raises StoppedError."""
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
class _Way:
    """Proposals taken for a bar, one on top of another, what they make, and the bar's height then, at a glimpse."""

    taken: tuple[Proposed, ...]
    version: Part
    kept: float
    height: Height

    @property
    def level(self) -> float:
        return self.height.level


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
        half_tones, weights, without = transposition(goal.given), APPROACHES[goal.approach].weights, APPROACHES[goal.approach].without
        scores = KeptSoFar(part, weights, half_tones)
        self._plain_scores = scores if weights is WEIGHTS else KeptSoFar(part, half_tones=half_tones)
        self._writing = Writing(part, goal.given, scores)
        self._proposals = Proposals(part, {name: kind for name, kind in KINDS.items() if name not in without}, scores)
        self._writing.version = self._proposals.known(self.version)
        self._tidier = Tidier(self._writing, heights, self._proposals)
        self._began = heights.of(self.version)
        self._start = heights.highest(self.version)
        self._glimpses: dict[tuple[int, ...], Height] = {}  # of a bar between its neighbours, each by its identity, at its tempo
        self._tempo_changes = list(itertools.accumulate(bar.tempo is not None for bar in part.bars))  # up to each bar

    @property
    def version(self) -> Part:
        """What the edits taken so far make of the original."""
        return self._writing.version

    def take_layer(self, song: Song, layer: Layer) -> None:
        """Begin with a layer of the music, an edit a bar."""
        original = self._writing.original
        # Made of what is given first: bars filled, bends taken off, other places.
        changes = self._dry_where_harder(layer.changes(_with_version(song, original, self.version), self.version))
        self._writing.take(layer.name, changes, f"asked for: {layer.does}", lambda change: f"bar {original.bar_number(change.bar)}: {layer.does}")
        self._writing.version = self._proposals.known(self.version)
        self._writing.settle()

    def _dry_where_harder(self, changes: Sequence[Change]) -> list[Change]:
        """A note left out no longer stops the ones that ring: where that makes a bar harder, they need not ring on."""
        version = applied(self.version, changes)
        assert version is not None  # layers are made of the part itself
        graded = self._heights.graded(version)
        harder = {change.bar for change in changes if graded.bars[change.bar].step > self._began[change.bar].grade.step}
        dry = [replace(change, after=tuple(without_ringing(event) for event in change.after)) for change in changes]
        return [other if change.bar in harder else change for change, other in zip(changes, dry, strict=True)]

    def settle(self, target: float) -> None:
        """Down the stairs to a target, then without what it does not need; what harder versions have stays."""
        self._target = target
        for stair in _stairs(self._heights.highest(self.version), target):
            self._descend(stair)
        self._tidier.tidy(target)
        self._writing.settle()

    def result(self, target: float, before: Grading) -> Easier:
        """What stands now, as an answer."""
        reached = self._heights.reached(self.version, self._target)
        blocking = () if reached else blocking_bars(self.version, self._target, self._heights, self._proposals)
        after, kept = self._heights.graded(self.version), self._plain_scores.of(self.version)
        return Easier(target, reached, tuple(self._writing.edits), self.version, before, after, kept, blocking)

    def _descend(self, stair: float) -> None:
        """Bring every bar, and then the song, down to a stair, as far as it goes."""
        self._stair = ceiling = stair
        for _ in range(_ROUNDS):
            if self._heights.reached(self.version, stair):
                return
            bars = self._heights.of(self.version)
            above = [bar for bar in bars if bar.level > stair + TOLERANCE]
            if not above:
                # Bars are down as far as they go, the song is not: what has to be remembered or lasts counts on top.
                highest = max(bar.level for bar in bars)
                ceiling = max(min(ceiling, highest) - max(self._heights.graded(self.version).step - stair, _MARGIN), 1.0)
                above = [bar for bar in bars if bar.level > ceiling + TOLERANCE]
            edits_before = len(self._writing.edits)
            self._lower_each(above, min(ceiling, stair))
            if len(self._writing.edits) == edits_before and not any(bar.level > stair + TOLERANCE for bar in above) and self._remember_less(stair):
                continue
            if len(self._writing.edits) == edits_before and (ceiling == stair or ceiling <= 1.0):
                return
            ceiling = stair if len(self._writing.edits) > edits_before else ceiling

    def _lower_each(self, above: Iterable[Height], limit: float) -> None:
        """Bars that recur are edited together: what served the first of equals is tried on the next."""
        served: dict[int, tuple[int, list[Proposed]]] = {}  # by the identity of the bar: index and what was taken
        for bar in above:
            self._tell()
            index = bar.grade.index
            key = id(self.version.bars[index])
            if key in served:
                bar = self._like(bar, *served[key])
            served.setdefault(key, (index, self._lower(bar, limit)))

    def _like(self, bar: Height, first: int, taken: Sequence[Proposed]) -> Height:
        """The bar with the edits of its equal, as far as they fit and lower it too."""
        index = bar.grade.index
        for proposed in taken:
            changes = tuple(replace(change, bar=change.bar + index - first) for change in proposed.changes)
            version = self._proposals.made(self.version, changes, index)
            after = self._heights.at(version, index) if version else bar
            if version is None or after.level > bar.level - _WORTHLESS:
                break
            self._writing.take_proposed(replace(proposed, changes=changes, version=version), bar, after, self._stair)
            bar = after
        return bar

    def _remember_less(self, stair: float) -> bool:
        """Play a varied bar as it was before, where that loses least and brings the song down; whether one was found."""
        kind, step = KINDS["variation"], self._heights.graded(self.version).step
        found = [proposed for index in range(len(self.version.bars)) for proposed in self._proposals.of_kind(kind, self.version, index)]
        for proposed in sorted(found, key=lambda proposed: -proposed.kept):
            heights = self._heights.of(proposed.version)
            lighter = self._heights.graded(proposed.version).step <= step - _LESS_TO_REMEMBER
            if lighter and max(bar.level for bar in heights) <= stair + TOLERANCE:
                index = proposed.changes[0].bar
                self._writing.take_proposed(proposed, self._heights.at(self.version, index), heights[index], stair)
                return True
        return False

    def _tell(self) -> None:
        depth = max(self._start - self._lowest, _STAIR)
        done = (self._start - self._stair - _STAIR / 2) / (depth + _STAIR)
        if not self._progress(min(max(done, 0.0), 0.95)):
            raise StoppedError

    def _lower(self, bar: Height, limit: float) -> list[Proposed]:
        """Edits of one bar, one on top of another, until it stands at the limit; what was taken."""
        ways = self._ways(bar, limit)
        good = [way for way in ways if way.level <= limit + TOLERANCE]
        worth = partial(_worth, bar.level, self._writing.kept)
        for way in sorted(good, key=lambda way: (-way.kept, way.level)) if good else sorted(ways, key=worth, reverse=True):
            if _is_lower(self._heights.at(way.version, bar.grade.index).level, bar.level, limit):  # graded in full before it is taken
                before = bar
                for proposed in way.taken:
                    after = self._heights.at(proposed.version, bar.grade.index)
                    self._writing.take_proposed(proposed, before, after, self._stair)
                    before = after
                return list(way.taken)
        return []

    def _ways(self, bar: Height, limit: float) -> list[_Way]:
        """A beam over edits on top of one another: the ways of the first depth at which one reaches the limit, else of the last."""
        index, worth = bar.grade.index, partial(_worth, bar.level, self._writing.kept)
        hand = self._heights.graded(self.version).hand
        ways = [_Way((), self.version, self._writing.kept, bar)]
        for _ in range(_MOST_EDITS):
            grown: dict[tuple[int, ...], _Way] = {}
            for made in (made for way in ways for made in self._grown(way, index, hand, limit)):
                grown.setdefault(_surroundings(made.version, index), made)  # the first has the smaller edits
            if not grown:
                break
            ways = list(grown.values())
            if any(way.level <= limit + TOLERANCE for way in ways):
                break
            ways = sorted(ways, key=worth, reverse=True)[:_BEAM]
        return [way for way in ways if way.taken]

    def _grown(self, way: _Way, index: int, hand: int, limit: float) -> list[_Way]:
        """Proposals on top of a way that lower the bar and hang together, least loss first, until dearer ones cannot be chosen."""
        grown: list[_Way] = []
        plain_now = self._plain_scores.overall(way.version)
        for proposed in sorted(self._proposals.of(way.version, index, partial(_can_lower, way.height)), key=lambda proposed: -proposed.kept):
            if any(made.level <= limit + TOLERANCE and made.kept > proposed.kept for made in grown):
                break
            if proposed.kept > way.kept + _SLACK or self._plain_scores.overall(proposed.version) > plain_now + _SLACK:
                continue  # what gives nothing up is no step down: along a staircase nothing comes back
            key = (self._tempo_changes[index], *_surroundings(proposed.version, index))
            if key not in self._glimpses:
                self._glimpses[key] = self._heights.glimpsed(proposed.version, index, hand)
            height = self._glimpses[key]
            if _is_lower(height.level, way.level, limit):
                grown.append(_Way((*way.taken, proposed), proposed.version, proposed.kept, height))
        return grown


def _with_version(song: Song, original: Part, version: Part) -> Song:
    """The song with a version in place of its part; chord names hold for their own tuning and capo, and go where those change."""
    parts = tuple(version if part == original else part for part in song.parts)
    if (version.tuning, version.capo) != (original.tuning, original.capo):
        parts = tuple(map(_without_names, parts))
    return replace(song, parts=parts)


def _without_names(part: Part) -> Part:
    return replace(part, bars=tuple(replace(bar, events=tuple(replace(event, chord="") for event in bar.events)) for bar in part.bars))


def _surroundings(version: Part, index: int) -> tuple[int, ...]:
    """A bar between its neighbours, by the identity of each."""
    return tuple(map(id, version.bars[max(index - 1, 0) : index + 2]))


def _is_lower(level: float, before: float, limit: float) -> bool:
    """Whether a bar is brought down by enough to be worth an edit, or to the limit."""
    return level <= before - _WORTHLESS or level <= limit + TOLERANCE < before


def _can_lower(bar: Height, kind: Kind) -> bool:
    """Whether what a kind leaves as it is does not hold the bar up by itself."""
    return bar.measure not in kind.leaves if bar.limit else bar.grade.step_of(kind.leaves) <= bar.level - _WORTHLESS


def _worth(start: float, kept: float, way: _Way) -> float:
    """Steps won for what is lost; a little loss is never worth endless much."""
    return (start - way.level) / (kept - way.kept + _LOSS_FLOOR)
