"""From a target Step to a version: the best plan of one way, local changes where it does not reach, all of
it as edits that can be refused.

Every version is judged by grading it afresh, by the same code as the original.
"""

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise

from clear_steps.core.easier.answer import Easier, Progress, StoppedError, Wish
from clear_steps.core.easier.approach import APPROACHES, ApproachRow
from clear_steps.core.easier.edit import Edit, applied, transposition, version_of
from clear_steps.core.easier.given import given_edits
from clear_steps.core.easier.heights import TOLERANCE, Heights, heights_of
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.kinds.technique import without_ringing
from clear_steps.core.easier.layers import LAYERS, Layer
from clear_steps.core.easier.local import Local
from clear_steps.core.easier.planning import Planned, Planner
from clear_steps.core.easier.plans import Builder, Plan
from clear_steps.core.easier.refusing import blocking_bars
from clear_steps.core.easier.telling import write_down
from clear_steps.core.easier.wanted import wanted_bars
from clear_steps.core.easier.ways import choices_of
from clear_steps.core.easier.writing import Writing
from clear_steps.core.grade import Ability, Grader, GradeRequest, Ladder, grade_part
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
    search = _Search(song, part, ladder, wish, request, progress)
    found = [search.found(target) for target in sorted(set(wish.targets), reverse=True)]
    steps = list(pairwise(range(len(found))))
    for harder, easiest in reversed(steps):
        # What keeps more at a lower Step serves the higher one as well, and so does anything where that is
        # refused.
        if found[easiest].reached and (
            found[easiest].kept.overall > found[harder].kept.overall or not found[harder].reached
        ):
            found[harder] = search.again(found[easiest], found[harder])
    for harder, easiest in steps:
        if found[easiest].kept.overall > found[harder].kept.overall:
            found[easiest] = search.again(found[harder], found[easiest])
    return tuple(found)


_STAIR = 0.5
_MOST_A_STAIR = 20.0  # points of what is kept that a stair may cost where the target is out of reach


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
            self._take_layer(song, writing, LAYERS[layer])
        self._begun = writing.edits
        self._builder = self._builder_of(writing.version, ladder, row, wish.layer or row.layer)
        lowest = min(wish.targets)
        levels = heights_of(self._before, part, lowest, self._ability)
        began = [max(bar.level, lowest + TOLERANCE) for bar in levels]
        self._planner = Planner(self._builder, self._heights, self._scores, began, self._tell)
        self._local = Local(self._builder, self._heights, self._scores, self._planner, row.without)
        self._plan: Plan = self._builder.nothing()
        self._highest_before = self._heights.highest(self._builder.part)

    def _builder_of(self, version: Part, ladder: Ladder, row: ApproachRow, layer: str) -> Builder:
        wanted = wanted_bars(version, LAYERS[layer].role if layer else None)
        choices = {
            role: tuple(choice for choice in own if choice.name not in row.without)
            for role, own in choices_of(version, wanted, ladder).items()
        }
        return Builder(version, wanted, choices, ladder)

    def _take_layer(self, song: Song, writing: Writing, layer: Layer) -> None:
        """Begin with a layer of the music, an edit a bar, made of what is given first."""
        changes = layer.changes(_with_version(song, self._original, writing.version), writing.version)
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

    def found(self, target: float) -> Easier:
        """The version at a target, no milder anywhere than the one before it."""
        planned = self._planner.lowered(self._plan, target)
        if not planned.reached:
            planned = self._local.lowered(planned, target)
        if not planned.reached:
            planned = self._worth_its_loss(planned, target)
        self._plan, self._highest_before = planned.plan, planned.highest
        version, edits = self._written(planned)
        reached = self._heights.reached(version, target)
        proposals = self._local.proposals
        blocking = () if reached else blocking_bars(version, target, self._heights, proposals)
        return Easier(
            target,
            reached,
            tuple(edits),
            version,
            self._before,
            self._heights.graded(version),
            self._plain.of(version),
            blocking,
        )

    def again(self, found: Easier, instead_of: Easier) -> Easier:
        """What was found for another target, for this one."""
        reached = self._heights.reached(found.version, instead_of.target)
        blocking = () if reached else instead_of.blocking
        return replace(found, target=instead_of.target, reached=reached, blocking=blocking)

    def _worth_its_loss(self, planned: Planned, target: float) -> Planned:
        """An unreachable target guts no song: down half-Step stairs to the lowest Step there is, as long as
        what a stair wins is worth what it loses."""
        lowest = max(planned.highest, target)
        stair = self._highest_before - _STAIR
        found = self._planner.judged(self._plan, self._highest_before)
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


def _without_names(part: Part) -> Part:
    bars = (replace(bar, events=tuple(replace(event, chord="") for event in bar.events)) for bar in part.bars)
    return replace(part, bars=tuple(bars))
