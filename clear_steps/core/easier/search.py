"""From a target Step to edits: down the half-Step stairs, bar by bar, each result graded again.

A stair takes every bar that stands above it and gives it the proposal of least loss that brings it
down; where none does, the one that brings it furthest for what it loses. Every proposal is judged
by grading the whole part with it, by the same code as the original, since neighbours may be fingered
anew. At the end every edit that turned out not to be needed is taken away.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial
from math import ceil

from clear_steps.core.easier.answer import Blocking, Easier, Progress, StoppedError, Tried, Wish
from clear_steps.core.easier.approach import APPROACHES, Approach
from clear_steps.core.easier.edit import Change, Edit, applied, dependencies, refused_with, transposition, version_of
from clear_steps.core.easier.given import given_edits
from clear_steps.core.easier.kept import Kept, KeptSoFar
from clear_steps.core.easier.kinds import KINDS, Kind
from clear_steps.core.easier.kinds.technique import without_ringing
from clear_steps.core.easier.layers import LAYERS, Layer
from clear_steps.core.grade import BarGrade, Grader, GradeRequest, Grading, Ladder, grade_part
from clear_steps.core.score import Bar, Part, Song

TOLERANCE = 0.05  # reached means at most this above the target
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
    search = _Search(song, part, ladder, _Goal(targets[-1], wish.approach, given), request, progress)
    before = grade_part(song, part, ladder, request)
    if layer := wish.layer or APPROACHES[wish.approach].layer:
        search.take_layer(song, LAYERS[layer])
    found = []
    for target in targets:
        search.settle(target)
        found.append(search.result(target, before))
    return tuple(found)


def _highest(grading: Grading) -> float:
    return max([grading.step, *(bar.step for bar in grading.bars)])


def _stairs(start: float, target: float) -> list[float]:
    """Half Steps from just below the start down to the target; none where it is met already."""
    if start <= target + TOLERANCE:
        return []
    count = ceil((start - target) / _STAIR)
    return [target + _STAIR * number for number in range(count - 1, -1, -1)]


@dataclass(frozen=True, slots=True)
class _Proposed:
    kind: Kind
    changes: tuple[Change, ...]
    version: Part
    kept: float  # of the whole, in per cent


@dataclass(frozen=True, slots=True)
class _Trial:
    proposed: _Proposed
    step: float  # of the bar

    @property
    def kept(self) -> float:
        return self.proposed.kept


@dataclass(frozen=True, slots=True)
class _Goal:
    lowest: float  # of the targets
    approach: Approach
    given: tuple[Edit, ...]


class _Search:
    """The version so far, with the edits that made it."""

    def __init__(self, song: Song, part: Part, ladder: Ladder, goal: _Goal, request: GradeRequest, progress: Progress) -> None:
        self.target = self._lowest = goal.lowest
        self._original, self._progress, approach = part, progress, goal.approach
        half_tones = transposition(goal.given)
        self._kinds = {name: kind for name, kind in KINDS.items() if name not in APPROACHES[approach].without}
        self._settled = frozenset(edit.id for edit in goal.given)  # and of edits that a harder version of the staircase has
        self.scores = KeptSoFar(part, APPROACHES[approach].weights, half_tones)
        self._plain_scores = KeptSoFar(part, half_tones=half_tones)
        self.edits: list[Edit] = [edit for edit in goal.given if edit.setup]  # compared through its transposition it loses nothing
        self.version = version_of(part, self.edits)
        for edit in goal.given[len(self.edits) :]:
            version = applied(self.version, edit.changes)
            assert version is not None  # made of this very text
            self.edits.append(replace(edit, loss=self.scores.of(self.version).overall - self.scores.of(version).overall))
            self.version = version
        self._grader = Grader(song, self.version, ladder, request)
        self._began = self.graded(self.version)
        self._start = _highest(self._began)
        self._stair = self.target
        self._known_bars: dict[Bar, Bar] = {bar: bar for bar in part.bars}
        self._next_id = len(self.edits) + 1

    def take_layer(self, song: Song, layer: Layer) -> None:
        """Begin with a layer of the music, an edit a bar."""
        for change in self._dry_where_harder(layer.changes(song, self._original)):
            version = applied(self.version, (change,))
            assert version is not None  # layers are made of the part itself
            loss = self.scores.of(self.version).overall - self.scores.of(version).overall
            number = self._original.bar_number(change.bar)
            self.edits.append(Edit(self._next_id, layer.name, (change,), f"asked for: {layer.does}", f"bar {number}: {layer.does}", loss))
            self._next_id += 1
            self.version = version
        self.version = self._known(self.version)
        self._settled = frozenset(edit.id for edit in self.edits)

    def _dry_where_harder(self, changes: Sequence[Change]) -> list[Change]:
        """A note left out no longer stops the ones that ring: where that makes a bar harder, they need not ring on."""
        version = applied(self.version, changes)
        assert version is not None
        graded = self.graded(version)
        harder = {change.bar for change in changes if graded.bars[change.bar].step > self._began.bars[change.bar].step}
        dry = [replace(change, after=tuple(without_ringing(event) for event in change.after)) for change in changes]
        return [other if change.bar in harder else change for change, other in zip(changes, dry, strict=True)]

    def settle(self, target: float) -> None:
        """Down the stairs to a target, then without what it does not need; what harder versions have stays."""
        self.target = target
        for stair in _stairs(_highest(self.graded(self.version)), target):
            self.descend(stair)
        self.take_away_the_needless()
        if self.take_shorter_ways():
            self.take_away_the_needless()
        self._give_back_the_harmful()
        self._settled = frozenset(edit.id for edit in self.edits)

    def result(self, target: float, before: Grading) -> Easier:
        """What stands now, as an answer."""
        after = self.graded(self.version)
        reached = self.reached(after)
        blocking = () if reached else self.blocking(after)
        return Easier(target, reached, tuple(self.edits), self.version, before, after, self._plain_scores.of(self.version), blocking)

    def graded(self, part: Part) -> Grading:
        """The whole part, by the same code as the original."""
        return self._grader.grade(part)

    def reached(self, grading: Grading, target: float | None = None) -> bool:
        """Whether every bar and the song stand at the target."""
        return _highest(grading) <= (self.target if target is None else target) + TOLERANCE

    def descend(self, stair: float) -> None:
        """Bring every bar, and then the song, down to a stair, as far as it goes."""
        self._stair = stair
        ceiling = stair
        for _ in range(_ROUNDS):
            grading = self.graded(self.version)
            if self.reached(grading, stair):
                return
            above = [bar for bar in grading.bars if bar.step > stair + TOLERANCE]
            if not above:
                # Bars are down as far as they go, the song is not: what has to be remembered or lasts counts on top.
                highest = max(bar.step for bar in grading.bars)
                ceiling = max(min(ceiling, highest) - max(grading.step - stair, _MARGIN), 1.0)
                above = [bar for bar in grading.bars if bar.step > ceiling + TOLERANCE]
            edits_before = len(self.edits)
            for bar in above:
                self._tell()
                self._lower(bar, min(ceiling, stair))
            if len(self.edits) == edits_before and not any(bar.step > stair + TOLERANCE for bar in above) and self._remember_less(stair):
                continue
            if len(self.edits) == edits_before and (ceiling == stair or ceiling <= 1.0):
                return
            ceiling = stair if len(self.edits) > edits_before else ceiling

    def _remember_less(self, stair: float) -> bool:
        """Play a varied bar as it was before, where that loses least and brings the song down; whether one was found."""
        kind = self._kinds["variation"]
        now = self.graded(self.version)
        found: list[_Proposed] = []
        for index in range(len(self.version.bars)):
            made = ((changes, self._made(self.version, changes, index)) for changes in kind.propose(self.version, index))
            found += [_Proposed(kind, changes, version, self.scores.of(version).overall) for changes, version in made if version is not None]
        for proposed in sorted(found, key=lambda proposed: -proposed.kept):
            grading = self.graded(proposed.version)
            if grading.step <= now.step - _LESS_TO_REMEMBER and max(bar.step for bar in grading.bars) <= stair + TOLERANCE:
                self._take(proposed, now.bars[proposed.changes[0].bar])
                return True
        return False

    def _tell(self) -> None:
        depth = max(self._start - self._lowest, _STAIR)
        done = (self._start - self._stair - _STAIR / 2) / (depth + _STAIR)
        if not self._progress(min(max(done, 0.0), 0.95)):
            raise StoppedError

    def _lower(self, bar: BarGrade, limit: float) -> None:
        """Edits of one bar, one on top of another, until it stands at the limit."""
        before = bar
        for _ in range(_TRIES_A_BAR):
            trials = self._trials(before, limit)
            if not trials:
                return
            good = [trial for trial in trials if trial.step <= limit + TOLERANCE]
            now = self.scores.of(self.version).overall
            chosen = min(good, key=lambda trial: (-trial.kept, trial.step)) if good else max(trials, key=partial(_worth, before.step, now))
            before = self._take(chosen.proposed, before)
            if before.step <= limit + TOLERANCE:
                return

    def _trials(self, bar: BarGrade, limit: float) -> list[_Trial]:
        """Proposals that lower the bar and hang together, least loss first, until dearer ones cannot be chosen."""
        trials: list[_Trial] = []
        now, plain_now = self.scores.of(self.version).overall, self._plain_scores.of(self.version).overall
        for proposed in sorted(self._proposed(self.version, bar.index), key=lambda proposed: -proposed.kept):
            if any(trial.step <= limit + TOLERANCE and trial.kept > proposed.kept for trial in trials):
                break
            if proposed.kept > now + _SLACK or self._plain_scores.of(proposed.version).overall > plain_now + _SLACK:
                continue  # what gives nothing up is no step down: along a staircase nothing comes back
            step = self.graded(proposed.version).bars[bar.index].step
            if step <= bar.step - _WORTHLESS:
                trials.append(_Trial(proposed, step))
        return trials

    def _give_back_the_harmful(self) -> None:
        """Where the target is not met, the last edits are refused until neither the song nor a bar stands higher for them."""
        while not self.reached(self.graded(self.version)) and not self._harmless(self.graded(self.version)):
            last = next((edit for edit in reversed(self.edits) if edit.id not in self._settled), None)
            if last is None:
                return
            self.edits = [edit for edit in self.edits if edit is not last]
            self.version = self._with_bars_of(self.edits, frozenset(last.bars))

    def _harmless(self, grading: Grading) -> bool:
        """Whether neither the song nor any bar stands above where it began, bars at the target aside: fingers change with their neighbours."""
        bars = zip(grading.bars, self._began.bars, strict=True)
        return grading.step <= self._began.step + _SLACK and all(bar.step <= max(own.step, self.target + TOLERANCE) + _SLACK for bar, own in bars)

    def _proposed(self, version: Part, index: int) -> Iterator[_Proposed]:
        """What every kind proposes for a bar, where it hangs together."""
        for kind in self._kinds.values():
            for changes in kind.propose(version, index):
                made = self._made(version, changes, index)
                if made is not None:
                    yield _Proposed(kind, changes, made, self.scores.of(made).overall)

    def _made(self, version: Part, changes: Sequence[Change], index: int) -> Part | None:
        """The version with changes of one bar, equal bars being one object; None if they do not fit or hang together."""
        made = applied(version, changes)
        if made is None or not all(_well_formed(made, change.bar) for change in changes):
            return None
        touched = {change.bar for change in changes}
        bars = tuple(self._known_bars.setdefault(bar, bar) if at in touched else bar for at, bar in enumerate(made.bars))
        return replace(made, bars=bars)

    def _take(self, trial: _Proposed, before: BarGrade) -> BarGrade:
        after = self.graded(trial.version).bars[before.index]
        number = self._original.bar_number(before.index)
        finding = before.findings[before.hardest_measure]
        reason = f"Bar {number}: {finding.evidence[:1].lower()}{finding.evidence[1:]}"
        effect = _effect(number, before, after)
        for change in trial.changes:  # an edit each, so that each can be refused alone
            version = applied(self.version, (change,))
            assert version is not None  # the trial applied all of them
            loss = self.scores.of(self.version).overall - self.scores.of(version).overall
            self.edits.append(Edit(self._next_id, trial.kind.name, (change,), reason, effect, loss, dependencies(self.edits, (change,))))
            self._next_id += 1
            self.version = version
        self.version = trial.version
        return after

    def take_shorter_ways(self) -> bool:
        """Where edits lie on one another, one proposal for the bar as written may do as well and lose less."""
        if not self.reached(self.graded(self.version)):
            return False
        found = False
        fixed = {bar for edit in self.edits if edit.id in self._settled for bar in edit.bars}
        stacked = {bar for edit in self.edits if edit.builds_on for bar in edit.bars} - fixed
        for index in sorted(stacked):
            others = [edit for edit in self.edits if index not in edit.bars]
            as_written = replace(self.version, bars=(*self.version.bars[:index], self._original.bars[index], *self.version.bars[index + 1 :]))
            now = self.scores.of(self.version).overall
            shorter = [entry for entry in self._proposed(as_written, index) if entry.kept > now + _WORTHLESS]
            chosen = next((entry for entry in sorted(shorter, key=lambda entry: -entry.kept) if self.reached(self.graded(entry.version))), None)
            if chosen:
                before = self.graded(as_written).bars[index]
                self.edits, self.version = others, as_written
                self._take(chosen, before)
                found = True
        return found

    def take_away_the_needless(self) -> None:
        """Refuse each edit in turn, dearest first; what the target does not need stays refused."""
        if not self.reached(self.graded(self.version)):
            return
        for edit in sorted(self.edits, key=lambda edit: -edit.loss):
            if edit not in self.edits or edit.id in self._settled:
                continue
            gone = refused_with(self.edits, [edit.id])
            fewer = [other for other in self.edits if other.id not in gone]
            version = self._with_bars_of(fewer, frozenset(bar for other in self.edits if other.id in gone for bar in other.bars))
            if self.reached(self.graded(version)):
                self.edits, self.version = fewer, version

    def _with_bars_of(self, edits: Sequence[Edit], touched: frozenset[int]) -> Part:
        """The version with some bars made afresh by these edits; the others stay the objects they are."""
        made = self._known(version_of(self._original, [edit for edit in edits if touched & set(edit.bars)]))
        return replace(self.version, bars=tuple(made.bars[at] if at in touched else bar for at, bar in enumerate(self.version.bars)))

    def _known(self, version: Part) -> Part:
        return replace(version, bars=tuple(self._known_bars.setdefault(bar, bar) for bar in version.bars))

    def blocking(self, grading: Grading) -> tuple[Blocking, ...]:
        """Bars above the target, with the best that each kind could still do.

        Where all bars meet it and only the song does not, the hardest bars and what comes on top of them.
        """
        above = [bar for bar in grading.bars if bar.step > self.target + TOLERANCE]
        if above:
            return tuple(Blocking(bar.index, bar.hardest_measure, bar.step, self._tried(bar)) for bar in above)
        on_top = "memory" if grading.memory >= grading.stamina else "stamina"
        peak = [grading.bars[index] for index in grading.peak_bars]
        return tuple(Blocking(bar.index, on_top, bar.step, self._tried(bar)) for bar in peak)

    def _tried(self, bar: BarGrade) -> tuple[Tried, ...]:
        tried = []
        for kind in self._kinds.values():
            versions = (self._made(self.version, changes, bar.index) for changes in kind.propose(self.version, bar.index))
            steps = [self.graded(version).bars[bar.index].step for version in versions if version is not None]
            tried.append(Tried(kind.name, min(steps, default=bar.step)))
        return tuple(tried)


def _worth(start: float, kept: float, trial: _Trial) -> float:
    """Steps won for what is lost; a little loss is never worth endless much."""
    return (start - trial.step) / (kept - trial.kept + _LOSS_FLOOR)


def _well_formed(part: Part, index: int) -> bool:
    """No tie in the bar or into the next one has lost the note it holds on; no two notes share a string."""
    bars = part.bars[max(index - 1, 0) : index + 2]
    before: dict[int, int] = {}
    for at, bar in enumerate(bars):
        for event in bar.events:
            frets = {note.string: note.fret for note in event.notes}
            hangs = any(note.tied and before.get(note.string) != note.fret for note in event.notes)
            if len(frets) < len(event.notes) or (hangs and (at > 0 or index == 0)):
                return False
            before = frets
    return part.bars[index].quarters == sum(event.quarters for event in part.bars[index].events)


def _effect(number: int, before: BarGrade, after: BarGrade) -> str:
    """What the edit does to the bar: its Step, and the measure that falls most."""
    name = max(before.findings, key=lambda measure: before.findings[measure].step - after.findings[measure].step)
    a, b = before.findings[name].step, after.findings[name].step
    return f"bar {number}: Step {before.step:.1f} to {after.step:.1f}; {name} {a:.1f} to {b:.1f}"


def compared(song: Song, part: Part, ladder: Ladder, edits: Sequence[Edit], refused: Sequence[int], request: GradeRequest) -> tuple[Part, Grading, Kept]:
    """The version with some edits refused, fingered and graded anew, and what it keeps."""
    version = version_of(part, edits, refused)
    return version, grade_part(song, version, ladder, request), KeptSoFar(part, half_tones=transposition(edits, refused)).of(version)
