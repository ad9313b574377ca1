"""The answer to a target: up to three different ways, best first; and before them what needs no rewriting."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from clear_steps.core.easier.answer import Easier, Progress, StoppedError, Wish
from clear_steps.core.easier.approach import Approach
from clear_steps.core.easier.laws import Pair, renamed
from clear_steps.core.easier.layers.together import basses_lie_in_their_grips
from clear_steps.core.easier.playing import sentence
from clear_steps.core.easier.roles import roles_of
from clear_steps.core.easier.search import staircase
from clear_steps.core.easier.setups import SetupWish
from clear_steps.core.easier.ways.capo import open_shapes_with_capo
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import GradeRequest, Ladder
from clear_steps.core.score import Part, Role, Song

MOST_WAYS = 3
_OTHER = 0.25  # of the bars that either changes, for two ways to be different
BASS_AND_CHORD = "bass+strum"
_WHOLE = 95.0  # per cent of the rhythm
# Kinds of edit that leave a place or a shape.
_PLACES = frozenset({"place", "chord", "thin", "bend-fret", "bend-slide", "tap", "tap-low", "skip"})
_VOICES = frozenset({Role.PICKED, Role.CHORD_MELODY})


@dataclass(frozen=True, slots=True)
class Way:
    """One way down: its name, what it was asked with, what was found for every target, and for the first of
    them what a teacher would say."""

    name: str
    wish: Wish
    found: tuple[Easier, ...]
    sentence: str

    @property
    def easiest(self) -> Easier:
        """The version at the lowest target."""
        return self.found[-1]


def ways(
    song: Song,
    part: Part,
    ladder: Ladder,
    wish: Wish,
    request: GradeRequest = GradeRequest(),
    progress: Progress = lambda _: True,
) -> tuple[Way, ...]:
    """Up to three ways that differ, what keeps most at the lowest target first; those that meet it before
    those that do not, and of these what comes nearest. Raises StoppedError."""
    offered = list(_offered(part, ladder, wish))
    tried: list[Way] = []
    for number, (name, own) in enumerate(offered):
        if tried and not _may_differ(own, tried[0].easiest):
            continue
        try:
            found = staircase(song, part, ladder, own, request, _share(progress, number, len(offered)))
        except InvalidValueError:
            if own == wish:
                raise  # what was asked for cannot be had; another way of it is only not offered
            continue
        if own != wish and own.layer == BASS_AND_CHORD and not basses_lie_in_their_grips(found[-1].version):
            continue  # no hand plays it so; until the search chooses grips it is not offered
        # A layer knows few shapes: where it would call a written chord by another name it is no way.
        if own == wish or not renamed(Pair(part, found[-1].version, shapes=ladder.chord_shapes)):
            tried.append(Way(name, own, found, sentence(part, found[-1].edits)))
    return tuple(_different(part, sorted(_worth_showing(tried), key=_best_first)))


def _worth_showing(tried: Sequence[Way]) -> Iterator[Way]:
    """The first, which is what was asked for, and of the others all that change something."""
    return (way for number, way in enumerate(tried) if not number or way.easiest.edits)


def _best_first(way: Way) -> tuple[bool, float, float]:
    """What meets the target by what it keeps, before what does not by how near it comes."""
    own = way.easiest
    hardest = max([own.after.step, *(bar.step for bar in own.after.bars)])
    return not own.reached, 0.0 if own.reached else hardest, -own.kept.overall


def _offered(part: Part, ladder: Ladder, wish: Wish) -> Iterator[tuple[str, Wish]]:
    """Names and wishes of what may be tried: what was asked, and where nothing special was, other ways."""
    yield "as it is written, with less", wish
    if wish.layer or wish.setup or wish.approach is not Approach.SOUND:
        return
    roles = set(roles_of(part))
    if open_shapes_with_capo(part, ladder):
        yield "open shapes with a capo", replace(wish, setup=SetupWish.OPEN_SHAPES)
    yield "the rhythm kept", replace(wish, approach=Approach.GROOVE)
    if roles & _VOICES:
        yield "the melody alone", replace(wish, layer="melody")
    if roles - {Role.STRUM, Role.BASS}:
        yield "chords to strum", replace(wish, approach=Approach.STRUM)
    if roles & (_VOICES | {Role.STRUM}):
        yield "bass and chord", replace(wish, layer=BASS_AND_CHORD)
    if roles & {Role.STRUM, Role.LINE, Role.RIFF}:
        yield "the places kept", replace(wish, approach=Approach.SHAPES)


def _may_differ(wish: Wish, found: Easier) -> bool:
    """Whether an approach can lead elsewhere than what was found without one: a rhythm that was kept is kept
    already, places that were left are left already, and where all there is does not reach, less does not."""
    if not found.reached and wish.approach in (Approach.GROOVE, Approach.SHAPES):
        return False
    if wish.approach is Approach.GROOVE:
        return found.kept.rhythm < _WHOLE
    if wish.approach is Approach.SHAPES:
        return any(edit.kind in _PLACES for edit in found.edits)
    return True


def _share(progress: Progress, number: int, count: int) -> Callable[[float], bool]:
    def own(done: float) -> bool:
        if not progress((number + done) / count):
            raise StoppedError
        return True

    return own


def _different(part: Part, ordered: Sequence[Way]) -> Iterator[Way]:
    """Of ways in their order, those that differ from all that came before, at most three."""
    taken: list[Way] = []
    for way in ordered:
        if len(taken) < MOST_WAYS and all(
            differ(part, way.easiest.version, own.easiest.version) for own in taken
        ):
            taken.append(way)
            yield way


def differ(part: Part, one: Part, other: Part) -> bool:
    """Whether two versions differ in a quarter of the bars that either changes."""
    rows = list(zip(part.bars, one.bars, other.bars, strict=True))
    if (one.tuning, one.capo) != (other.tuning, other.capo):
        return True
    changed = [(a, b) for own, a, b in rows if own.events != a.events or own.events != b.events]
    return sum(a.events != b.events for a, b in changed) >= max(_OTHER * len(changed), 1)
