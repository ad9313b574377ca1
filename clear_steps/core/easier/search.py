"""From a target Step to edits: down the half-Step stairs, bar by bar, each result graded again.

A stair takes every bar that stands above it and gives it the proposal of least loss that brings it
down; where none does, the one that brings it furthest for what it loses. Every proposal is judged
by grading the whole part with it, by the same code as the original, since neighbours may be fingered
anew. At the end what was written is tidied.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from math import ceil

from clear_steps.core.easier.answer import Blocking, Easier, Progress, StoppedError, Tried, Wish
from clear_steps.core.easier.approach import APPROACHES, Approach
from clear_steps.core.easier.edit import Change, Edit, applied, transposition, version_of
from clear_steps.core.easier.given import given_edits
from clear_steps.core.easier.heights import TOLERANCE, Height, Heights
from clear_steps.core.easier.kept import WEIGHTS, Kept, KeptSoFar
from clear_steps.core.easier.kinds import KINDS, Kind
from clear_steps.core.easier.kinds.technique import without_ringing
from clear_steps.core.easier.layers import LAYERS, Layer
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.easier.tidying import Tidier
from clear_steps.core.easier.writing import Writing
from clear_steps.core.grade import Ability, Grader, GradeRequest, Grading, Ladder, grade_part
from clear_steps.core.score import Part, Song

_STAIR = 0.5
_ROUNDS = 12  # over the bars of a stair
_TRIES_A_BAR = 6  # edits on top of one another before a bar is given up at a stair
_WORTHLESS = 0.05  # a proposal that lowers a bar by less is none
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
class _Trial:
    proposed: Proposed
    level: float  # of the bar, at a glimpse

    @property
    def kept(self) -> float:
        return self.proposed.kept


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
        self._tidier = Tidier(self._writing, heights, self._proposals)
        self._began = heights.of(self.version)
        self._start = heights.highest(self.version)
        self._tried_levels: dict[tuple[int, ...], float] = {}  # of a bar between its neighbours, each by its identity

    @property
    def version(self) -> Part:
        """What the edits taken so far make of the original."""
        return self._writing.version

    def take_layer(self, song: Song, layer: Layer) -> None:
        """Begin with a layer of the music, an edit a bar."""
        original = self._writing.original
        changes = self._dry_where_harder(layer.changes(song, original))
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
        blocking = () if reached else self._blocking()
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
        before, taken = bar, list[Proposed]()
        while len(taken) < _TRIES_A_BAR and before.level > limit + TOLERANCE and (found := self._best(before, limit)):
            proposed, after = found
            self._writing.take_proposed(proposed, before, after, self._stair)
            taken.append(proposed)
            before = after
        return taken

    def _best(self, bar: Height, limit: float) -> tuple[Proposed, Height] | None:
        """Of the trials that reach the limit what keeps most, else what is worth most; graded in full, and the next where that does not lower the bar."""
        trials, now = self._trials(bar, limit), self._writing.kept
        while trials:
            good = [trial for trial in trials if trial.level <= limit + TOLERANCE]
            chosen = min(good, key=lambda trial: (-trial.kept, trial.level)) if good else max(trials, key=partial(_worth, bar.level, now))
            after = self._heights.at(chosen.proposed.version, bar.grade.index)
            if after.level <= bar.level - _WORTHLESS:
                return chosen.proposed, after
            trials.remove(chosen)
        return None

    def _trials(self, bar: Height, limit: float) -> list[_Trial]:
        """Proposals that lower the bar and hang together, least loss first, until dearer ones cannot be chosen."""
        trials: list[_Trial] = []
        index, now, plain_now = bar.grade.index, self._writing.kept, self._plain_scores.of(self.version).overall
        hand = self._heights.graded(self.version).hand
        for proposed in sorted(self._proposals.of(self.version, index, partial(_can_lower, bar)), key=lambda proposed: -proposed.kept):
            if any(trial.level <= limit + TOLERANCE and trial.kept > proposed.kept for trial in trials):
                break
            if proposed.kept > now + _SLACK or self._plain_scores.of(proposed.version).overall > plain_now + _SLACK:
                continue  # what gives nothing up is no step down: along a staircase nothing comes back
            surroundings = tuple(map(id, proposed.version.bars[max(index - 1, 0) : index + 2]))
            if self._tried_levels.get(surroundings, 0.0) > bar.level - _WORTHLESS:
                continue
            level = self._heights.glimpsed(proposed.version, index, hand).level
            self._tried_levels[surroundings] = level
            if level <= bar.level - _WORTHLESS:
                trials.append(_Trial(proposed, level))
        return trials

    def _blocking(self) -> tuple[Blocking, ...]:
        """Bars above the target, with the best that each kind could still do.

        Where all bars meet it and only the song does not, the hardest bars and what comes on top of them.
        """
        bars, grading = self._heights.of(self.version), self._heights.graded(self.version)
        above = [bar for bar in bars if bar.level > self._target + TOLERANCE]
        if above:
            return tuple(Blocking(bar.grade.index, bar.measure, bar.step, self._tried(bar), bar.limit) for bar in above)
        on_top = "memory" if grading.memory >= grading.stamina else "stamina"
        return tuple(Blocking(index, on_top, bars[index].step, self._tried(bars[index])) for index in grading.peak_bars)

    def _tried(self, bar: Height) -> tuple[Tried, ...]:
        tried = []
        for kind in self._proposals.kinds.values():
            versions = (proposed.version for proposed in self._proposals.of_kind(kind, self.version, bar.grade.index))
            lowest = min((self._heights.at(version, bar.grade.index) for version in versions), key=lambda height: height.level, default=bar)
            tried.append(Tried(kind.name, lowest.grade.findings[bar.measure].step if bar.limit else lowest.grade.step))
        return tuple(tried)


def _can_lower(bar: Height, kind: Kind) -> bool:
    """Whether what a kind leaves as it is does not hold the bar up by itself."""
    return bar.measure not in kind.leaves if bar.limit else bar.grade.step_of(kind.leaves) <= bar.level - _WORTHLESS


def _worth(start: float, kept: float, trial: _Trial) -> float:
    """Steps won for what is lost; a little loss is never worth endless much."""
    return (start - trial.level) / (kept - trial.kept + _LOSS_FLOOR)


@dataclass(frozen=True, slots=True)
class Compared:
    """A version fingered and graded anew, and what it keeps of the whole and of every bar (per cent)."""

    version: Part
    grading: Grading
    kept: Kept
    kept_by_bar: tuple[float, ...]


def compared(song: Song, part: Part, ladder: Ladder, edits: Sequence[Edit], refused: Sequence[int], request: GradeRequest) -> Compared:
    """The version with some edits refused."""
    version = version_of(part, edits, refused)
    scores = KeptSoFar(part, half_tones=transposition(edits, refused))
    return Compared(version, grade_part(song, version, ladder, request), scores.of(version), scores.by_bar(version))
