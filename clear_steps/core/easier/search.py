"""From a target Step to edits: down the half-Step stairs, bar by bar, each result graded again.

A stair takes every bar that stands above it and gives it the proposal of least loss that brings it
down, judged with its neighbours since they may be fingered anew; where none does, the one that
brings it furthest for what it loses. Then the whole part is graded afresh by the same code as the
original. At the end every edit that turned out not to be needed is taken away.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import partial
from math import ceil

from clear_steps.core.easier.edit import Change, Edit, applied, dependencies, refused_with, version_of
from clear_steps.core.easier.kept import Kept, KeptSoFar
from clear_steps.core.easier.kinds import KINDS, Kind
from clear_steps.core.grade import BarGrade, GradeRequest, Grading, Ladder, base_and_memory, grade_part, hand_tables
from clear_steps.core.score import Bar, Part, Song

TOLERANCE = 0.05  # reached means at most this above the target
_STAIR = 0.5
_TRIES_A_BAR = 6  # edits on top of one another before a bar is given up at a stair
_WORTHLESS = 0.05  # a proposal that lowers a bar by less is none
_LOSS_FLOOR = 0.5
_MARGIN = 0.1  # a bar graded with its neighbours alone may stand so much higher in the whole


class StoppedError(Exception):
    """The asker did not want to wait any longer."""


@dataclass(frozen=True, slots=True)
class Tried:
    """The best that one kind of edit could do for a blocking bar."""

    kind: str
    step: float


@dataclass(frozen=True, slots=True)
class Blocking:
    """A bar (index) that stays above the target, by what, and what was tried."""

    bar: int
    measure: str
    step: float
    tried: tuple[Tried, ...]


@dataclass(frozen=True, slots=True)
class Easier:
    """What the search found: edits, grades before and after, what was kept, or why not."""

    target: float
    reached: bool
    edits: tuple[Edit, ...]
    version: Part
    before: Grading
    after: Grading
    kept: Kept
    blocking: tuple[Blocking, ...]


Progress = Callable[[float], bool]
"""Called with the share done, 0 to 1; False stops the search."""


def easier(song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest = GradeRequest(), progress: Progress = lambda _: True) -> Easier:
    """The version of a part at a target Step that loses least; raises StoppedError."""
    search = _Search(song, part, ladder, target, request, progress)
    before = search.graded(part)
    for stair in _stairs(_highest(before), target):
        search.descend(stair)
    search.take_away_the_needless()
    after = search.graded(search.version)
    reached = search.reached(after)
    edits = tuple(search.edits)
    return Easier(target, reached, edits, search.version, before, after, search.scores.of(search.version), () if reached else search.blocking(after))


def _highest(grading: Grading) -> float:
    return max([grading.step, *(bar.step for bar in grading.bars)])


def _stairs(start: float, target: float) -> list[float]:
    """Half Steps from just below the start down to the target; none where it is met already."""
    if start <= target + TOLERANCE:
        return []
    count = ceil((start - target) / _STAIR)
    return [target + _STAIR * number for number in range(count - 1, -1, -1)]


@dataclass(frozen=True, slots=True)
class _Trial:
    kind: Kind
    changes: tuple[Change, ...]
    version: Part
    step: float
    loss: float


_Judge = Callable[[Part, int], BarGrade]


class _Search:
    """The version so far, with the edits that made it."""

    def __init__(self, song: Song, part: Part, ladder: Ladder, target: float, request: GradeRequest, progress: Progress) -> None:
        self._song, self._original, self._ladder, self.target, self._request, self._progress = song, part, ladder, target, request, progress
        self.scores = KeptSoFar(part)
        self._tables = hand_tables(part, ladder, request)
        self.version = part
        self.edits: list[Edit] = []
        self._start = _highest(self.graded(part))
        self._stair = target
        self._known_bars: dict[Bar, Bar] = {bar: bar for bar in part.bars}
        self._alone: dict[tuple[int, ...], BarGrade] = {}  # by the known bars' identity
        self._next_id = 1
        self._near = replace(request, hands=("medium",))
        self._near_tables = hand_tables(part, ladder, self._near)

    def graded(self, part: Part) -> Grading:
        """The whole part, by the same code as the original."""
        return grade_part(self._song, part, self._ladder, self._request, self._tables)

    def reached(self, grading: Grading, target: float | None = None) -> bool:
        """Whether every bar and the song stand at the target."""
        return _highest(grading) <= (self.target if target is None else target) + TOLERANCE

    def descend(self, stair: float) -> None:
        """Bring every bar, and then the song, down to a stair, as far as it goes."""
        self._stair = stair
        limits = [stair] * len(self.version.bars)
        grading = self.graded(self.version)
        for _ in range(8):
            if self.reached(grading, stair):
                return
            above = [bar for bar in grading.bars if bar.step > limits[bar.index] + TOLERANCE]
            if not above and grading.step > stair + TOLERANCE:
                # Bars are down, the song is not: what has to be remembered or lasts counts on top.
                excess = grading.step - stair
                highest = max(bar.step for bar in grading.bars)
                limits = [min(limit, max(highest - max(excess, _MARGIN), 1.0)) for limit in limits]
                above = [bar for bar in grading.bars if bar.step > limits[bar.index] + TOLERANCE]
            edits_before = len(self.edits)
            for bar in above:
                self._tell()
                self._lower(bar, limits[bar.index])
            if len(self.edits) == edits_before:
                return
            grading = self.graded(self.version)

    def _tell(self) -> None:
        depth = max(self._start - self.target, _STAIR)
        done = (self._start - self._stair - _STAIR / 2) / (depth + _STAIR)
        if not self._progress(min(max(done, 0.0), 0.95)):
            raise StoppedError

    def _lower(self, bar: BarGrade, limit: float) -> None:
        """Edits of one bar, one on top of another, until it stands at the limit."""
        before = bar
        judge = self._judge_of(bar)
        for _ in range(_TRIES_A_BAR):
            trials = self._trials(before, limit, judge)
            if not trials:
                return
            good = [trial for trial in trials if trial.step <= limit + TOLERANCE]
            chosen = min(good, key=lambda trial: (trial.loss, trial.step)) if good else max(trials, key=partial(_worth, before.step))
            before = self._take(chosen, before, judge)
            if before.step <= limit + TOLERANCE:
                return

    def _judge_of(self, bar: BarGrade) -> _Judge:
        """Fingered in the whole, a bar may stand higher than with its neighbours alone; then only the whole tells."""
        return self.in_place if bar.step <= self.in_place(self.version, bar.index).step + TOLERANCE else self._in_the_whole

    def _in_the_whole(self, part: Part, index: int) -> BarGrade:
        return self.graded(part).bars[index]

    def _trials(self, bar: BarGrade, limit: float, judge: _Judge) -> list[_Trial]:
        """Proposals that lower the bar and hang together, least loss first, until dearer ones cannot be chosen."""
        now = self.scores.of(self.version).overall
        proposed: list[tuple[float, int, int, Kind, tuple[Change, ...], Part]] = []
        for order, kind in enumerate(KINDS.values()):
            for changes in kind.propose(self.version, bar.index):
                version = self._made(changes, bar.index)
                if version is not None:
                    proposed.append((now - self.scores.of(version).overall, order, len(proposed), kind, changes, version))
        trials: list[_Trial] = []
        for loss, _, _, kind, changes, version in sorted(proposed, key=lambda entry: entry[:3]):
            if any(trial.step <= limit + TOLERANCE and trial.loss < loss for trial in trials):
                break
            step = judge(version, bar.index).step
            if step <= bar.step - _WORTHLESS:
                trials.append(_Trial(kind, changes, version, step, loss))
        return trials

    def _made(self, changes: Sequence[Change], index: int) -> Part | None:
        """The version with changes of one bar, equal bars being one object; None if they do not fit or hang together."""
        version = applied(self.version, changes)
        if version is None or not _well_formed(version, index):
            return None
        bar = self._known_bars.setdefault(version.bars[index], version.bars[index])
        return replace(version, bars=(*version.bars[:index], bar, *version.bars[index + 1 :]))

    def in_place(self, part: Part, index: int) -> BarGrade:
        """A bar graded between its neighbours, for the hand nearest the player's."""
        first, last = max(index - 1, 0), min(index + 2, len(part.bars))
        bars = part.bars[first:last]
        key = (index - first, first, *map(id, bars))
        if key not in self._alone:
            tempo = next((bar.tempo for bar in reversed(part.bars[: first + 1]) if bar.tempo), self._song.playing_tempo)
            song = replace(self._song, tempo=tempo, order=())
            plain = tuple(replace(bar, repeat_start=False, repeat_times=0, endings=(), tempo=bar.tempo if at else None) for at, bar in enumerate(bars))
            request = replace(self._near, practice_tempo=self._practice(tempo))
            excerpt = replace(part, bars=plain, sections=(), remarks=())
            self._alone[key] = grade_part(song, excerpt, self._ladder, request, self._near_tables).bars[index - first]
        return self._alone[key]

    def _practice(self, tempo: Fraction) -> Fraction | None:
        asked = self._request.practice_tempo
        return None if asked is None else asked * tempo / self._song.playing_tempo

    def _take(self, trial: _Trial, before: BarGrade, judge: _Judge) -> BarGrade:
        after = judge(trial.version, before.index)
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

    def take_away_the_needless(self) -> None:
        """Refuse each edit in turn, dearest first; what the target does not need stays refused."""
        grading = self.graded(self.version)
        if not self.reached(grading):
            return
        edits, version = self.edits, self.version
        # Judged by its neighbourhood an edit is quick to miss; where the whole then disagrees, all is done again by the whole.
        self._refuse_needless(_QuickLook(self, grading).still_reached)
        if not self.reached(self.graded(self.version)):
            self.edits, self.version = edits, version
            self._refuse_needless(lambda fewer, near: self.reached(self.graded(fewer)))

    def quick_song_step(self, part: Part, steps: Sequence[float], stamina: float) -> float:
        """The song's Step from its bars' Steps, without fingering anything anew."""
        return base_and_memory(self._song, part, steps, self._request.weighing) + stamina

    def _refuse_needless(self, still_reached: Callable[[Part, frozenset[int]], bool]) -> None:
        for edit in sorted(self.edits, key=lambda edit: -edit.loss):
            if edit not in self.edits:
                continue
            gone = refused_with(self.edits, [edit.id])
            fewer = [other for other in self.edits if other.id not in gone]
            touched = frozenset(bar for other in self.edits if other.id in gone for bar in other.bars)
            version = self._with_bars_of(fewer, touched)
            near = frozenset(bar + off for bar in touched for off in (-1, 0, 1) if 0 <= bar + off < len(version.bars))
            if still_reached(version, near):
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
        tried, judge = [], self._judge_of(bar)
        for kind in KINDS.values():
            versions = (self._made(changes, bar.index) for changes in kind.propose(self.version, bar.index))
            steps = [judge(version, bar.index).step for version in versions if version is not None]
            tried.append(Tried(kind.name, min(steps, default=bar.step)))
        return tuple(tried)


class _QuickLook:
    """Bars' Steps kept up to date by looking at the neighbourhood of what changed."""

    def __init__(self, search: _Search, grading: Grading) -> None:
        self._search, self._stamina = search, grading.stamina
        self._steps = [bar.step for bar in grading.bars]

    def still_reached(self, part: Part, near: frozenset[int]) -> bool:
        """Whether the target is still met with these bars changed; if so, their Steps are taken over."""
        steps = list(self._steps)
        for bar in near:
            steps[bar] = self._search.in_place(part, bar).step
        limit = self._search.target + TOLERANCE
        met = max(steps) <= limit and self._search.quick_song_step(part, steps, self._stamina) <= limit
        self._steps = steps if met else self._steps
        return met


def _worth(start: float, trial: _Trial) -> float:
    """Steps won for what is lost; a little loss is never worth endless much."""
    return (start - trial.step) / (trial.loss + _LOSS_FLOOR)


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
    return version, grade_part(song, version, ladder, request), KeptSoFar(part).of(version)
