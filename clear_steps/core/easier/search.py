"""From a target Step to a version: the best plan of one way, local changes where it does not reach, all of
it as edits that can be refused.

Every version is judged by grading it afresh, by the same code as the original.
"""

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise

from clear_steps.core.easier.answer import Blocking, Easier, Progress, StoppedError, Wish
from clear_steps.core.easier.approach import APPROACHES
from clear_steps.core.easier.edit import Edit, applied, transposition, version_of
from clear_steps.core.easier.given import given_edits
from clear_steps.core.easier.heights import Heights, heights_of
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.kinds.technique import without_ringing
from clear_steps.core.easier.layers import LAYERS, Layer
from clear_steps.core.easier.local import Local
from clear_steps.core.easier.planning import Planner
from clear_steps.core.easier.plans import Builder, Plan
from clear_steps.core.easier.refusing import blocking_bars
from clear_steps.core.easier.telling import write_down
from clear_steps.core.easier.trials import Planned, Trials
from clear_steps.core.easier.wanted import wanted_bars
from clear_steps.core.easier.ways import choices_of
from clear_steps.core.easier.writing import Writing
from clear_steps.core.grade import Ability, Grader, GradeRequest, Ladder, grade_part
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.core.score import Part, Song


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
    """A version for every target, hardest first, each giving up more than the one before; raises
    StoppedError."""
    targets = sorted(set(wish.targets), reverse=True)
    found = list[Easier]()
    for ceilings in (targets, [targets[-1]] * len(targets)):
        search = _Search(song, part, ladder, wish, request, progress)
        rows = [search.found(*own) for own in zip(targets, ceilings, strict=True)]
        found = _falling(search, rows)
        if all(harder.kept.overall >= lower.kept.overall for harder, lower in pairwise(found)):
            break
        # A bar that a version makes harder, as its target allows, is in the way of the next one: none does.
    return tuple(found)


def _falling(search: "_Search", found: list[Easier]) -> list[Easier]:
    """What keeps more at a lower Step serves the higher one as well, and so does anything where that is
    refused."""
    found = list(found)
    for harder in reversed(range(len(found) - 1)):
        lower = found[harder + 1]
        keeps_more = lower.kept.overall > found[harder].kept.overall
        if lower.reached and (keeps_more or not found[harder].reached):
            found[harder] = search.again(lower, found[harder])
    for harder, lower in enumerate(found[1:]):
        if lower.kept.overall > found[harder].kept.overall and search.is_harmless(
            found[harder], lower.target
        ):
            found[harder + 1] = search.again(found[harder], lower)
    return found


_STAIR = 1.0
_MOST_A_STAIR = 30.0  # points of what is kept that a stair may cost where the target is out of reach


class _Search:
    """One way down, target after target."""

    def __init__(
        self, song: Song, part: Part, ladder: Ladder, wish: Wish, request: GradeRequest, progress: Progress
    ) -> None:
        self._original, self._progress, self._told = part, progress, 0
        self._targets = sorted(set(wish.targets), reverse=True)
        row = APPROACHES[wish.approach]
        given = given_edits(song, part, ladder, wish, request)
        self._ability = Ability(request.player, wish.limits, ladder) if wish.limits else None
        grader = Grader(song, version_of(part, given), ladder, request)
        self._heights = Heights(grader, min(wish.targets), self._ability)
        self._plain = KeptSoFar(part, half_tones=transposition(given))
        self._scores = KeptSoFar(part, row.lean, transposition(given)) if row.lean else self._plain
        self._before = grade_part(song, part, ladder, request)
        writing = Writing(part, given, self._plain)
        if layer := wish.layer or row.layer:
            chosen = _with_parts(song, part, wish.with_parts)
            self._take_layer(chosen, writing, LAYERS[layer], ladder)
        self._begun = writing.edits
        self._builder = self._builder_of(writing.version, ladder, wish)
        lowest = min(wish.targets)
        levels = heights_of(self._before, part, lowest, self._ability)
        began = [bar.level for bar in levels]
        self._trials = Trials(self._builder, self._heights, self._scores, began)
        self._planner = Planner(self._trials, self._tell)
        self._local = Local(self._trials, row.without, wish.refused)
        self._plan: Plan = self._builder.nothing()
        self._highest_before = self._heights.highest(self._builder.part)

    def _builder_of(self, version: Part, ladder: Ladder, wish: Wish) -> Builder:
        row = APPROACHES[wish.approach]
        layer = wish.layer or row.layer
        wanted = wanted_bars(version, LAYERS[layer].role if layer else None)
        choices = {
            role: tuple(choice for choice in own if choice.name not in row.without)
            for role, own in choices_of(version, wanted, ladder).items()
        }
        return Builder(version, wanted, choices, ladder, wish.refused)

    def _take_layer(self, song: Song, writing: Writing, layer: Layer, ladder: Ladder) -> None:
        """Begin with a layer of the music, an edit a bar, made of what is given first."""
        versions = _with_version(song, self._original, writing.version)
        changes = layer.changes(versions, writing.version, ladder.chord_shapes)
        # A note left out no longer stops the ones that ring: where that makes a bar harder, they need not.
        version, began = applied(writing.version, changes), self._heights.graded(writing.version)
        assert version is not None  # layers are made of the part itself
        after = self._heights.graded(version)
        harder = {row.index for row, was in zip(after.bars, began.bars, strict=True) if row.step > was.step}
        dry = (
            replace(change, after=tuple(without_ringing(event) for event in change.after))
            if change.bar in harder
            else change
            for change in changes
        )
        writing.take(
            layer.name,
            dry,
            f"asked for: {layer.does}",
            lambda change: f"bar {self._original.bar_number(change.bar)}: {layer.does}",
            layer.does,
        )

    def found(self, target: float, ceiling: float) -> Easier:
        """The version at a target, no milder anywhere than the one before it; no bar is made harder than it
        was, unless it stays below the ceiling."""
        self._trials.ceiling = ceiling
        planned = self._planner.lowered(self._plan, target)
        if not planned.reached:
            planned = self._local.lowered((self._trials.judged(self._plan, target), planned), target)
        lowest = planned
        if not planned.reached:
            planned = replace(self._worth_its_loss(planned, target), reached=False)
        self._plan, self._highest_before = planned.plan, planned.highest
        version, edits = self._written(planned)
        blocking = () if planned.reached else self._proof(lowest, target)
        return Easier(
            target,
            planned.reached,
            tuple(edits),
            version,
            self._before,
            self._heights.graded(version),
            self._plain.of(version),
            blocking,
            max(lowest.highest, 1.0),
        )

    def _proof(self, lowest: Planned, target: float) -> tuple[Blocking, ...]:
        return blocking_bars(lowest, target, self._trials, self._planner, self._local.proposals)

    def again(self, found: Easier, instead_of: Easier) -> Easier:
        """What was found for another target, for this one."""
        reached = self._heights.reached(found.version, instead_of.target)
        blocking = () if reached else instead_of.blocking
        return replace(found, target=instead_of.target, reached=reached, blocking=blocking)

    def is_harmless(self, found: Easier, target: float) -> bool:
        """Whether no bar of a version stands above both its old Step and a target."""
        self._trials.ceiling = target
        return self._trials.is_reached(found.version, HARDEST_STEP)

    def _worth_its_loss(self, planned: Planned, target: float) -> Planned:
        """An unreachable target guts no song: down whole-Step stairs to the lowest Step there is, as long as
        what a stair wins is worth what it loses."""
        lowest = max(planned.highest, target)
        stair = self._highest_before - _STAIR
        found = self._trials.judged(self._plan, self._highest_before)
        if not found.reached:  # it makes a bar harder than this target allows
            found = self._trials.judged(self._builder.nothing(), HARDEST_STEP)
        while stair > lowest - _STAIR:
            step = max(stair, lowest)
            tried = self._planner.lowered(found.plan, step)
            if not tried.reached or found.kept - tried.kept > _MOST_A_STAIR:
                break
            found, stair = tried, stair - _STAIR
        return found

    def _written(self, planned: Planned) -> tuple[Part, Sequence[Edit]]:
        writing = Writing(self._original, (), self._plain)
        writing.edits, writing.version = list(self._begun), self._builder.part
        write_down(writing, self._builder, planned.plan, self._heights)
        self._local.write_down(writing, planned)
        return writing.version, writing.edits

    def _tell(self) -> None:
        self._told += 1
        if not self._progress(min(0.95, 1 - 1 / (1 + self._told / 20))):
            raise StoppedError


def _with_version(song: Song, original: Part, version: Part) -> Song:
    """The song with a version in place of its part; chord names hold for their own tuning and capo, and go
    where those change."""
    parts = tuple(version if part == original else part for part in song.parts)
    if (version.tuning, version.capo) != (original.tuning, original.capo):
        parts = tuple(map(_without_names, parts))
    return replace(song, parts=parts)


def _with_parts(song: Song, part: Part, chosen: frozenset[int] | None) -> Song:
    """The song with the part itself and those that are chosen."""
    if chosen is None:
        return song
    own = (each for index, each in enumerate(song.parts) if each == part or index in chosen)
    return replace(song, parts=tuple(own))


def _without_names(part: Part) -> Part:
    bars = (replace(bar, events=tuple(replace(event, chord="") for event in bar.events)) for bar in part.bars)
    return replace(part, bars=tuple(bars))
