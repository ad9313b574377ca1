"""What a way sees of a song, and what it may choose: options in order, each of which writes a bar anew."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from fractions import Fraction

from clear_steps.core.easier.edit import Change, applied
from clear_steps.core.easier.rewriting import Events
from clear_steps.core.easier.voices import Voices, voices_of
from clear_steps.core.easier.wanted import WantedBar
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Bar, Part, Role

_NO_MORE: frozenset[Fraction] = frozenset()


@dataclass(frozen=True, slots=True)
class Scene:
    """A part as it stands, what of its original must survive, the tables, and onsets that are struck besides
    what an option says (by bar)."""

    part: Part
    wanted: Sequence[WantedBar]
    ladder: Ladder
    more: Mapping[int, frozenset[Fraction]] = field(default_factory=dict)

    def bar(self, index: int) -> Bar:
        """A bar as it stands."""
        return self.part.bars[index]

    def role(self, index: int) -> Role:
        """What the bar is for its player."""
        return self.wanted[index].role

    def voices(self, index: int) -> tuple[Voices, ...]:
        """Tune and bass of every event of a bar as it stands."""
        return voices_of(self.part, (self.bar(index),), (self.role(index),))[0]

    def more_at(self, index: int) -> frozenset[Fraction]:
        """Onsets of a bar given back."""
        return self.more.get(index, _NO_MORE)


Rewrite = Callable[[Scene, int], Events | None]
"""The events of a bar (by index) written anew; None where there is nothing to do."""


class Scope(StrEnum):
    """Which bars choose together."""

    RHYTHM = "the bars of one rhythm"
    SECTION = "a section"
    SONG = "the song"


@dataclass(frozen=True, slots=True)
class Option:
    """One thing to do: the kind its edits have, what it says to a student, and how it writes a bar."""

    kind: str
    says: str
    rewrite: Rewrite


@dataclass(frozen=True, slots=True)
class Choice:
    """Options of which one is taken, or none; mildest first."""

    name: str
    options: tuple[Option, ...]
    scope: Scope = Scope.RHYTHM
    ordered: bool = True  # a later one gives up more
    thins: bool = False  # it strikes at fewer onsets, some of which can be given back


Kind = Callable[[Part, int], Iterator[tuple[Change, ...]]]


def first_of(kind: Kind, number: int = 0) -> Rewrite:
    """The bar with what a kind of edit proposes first, or as its n-th."""

    def rewrite(scene: Scene, index: int) -> Events | None:
        proposed = list(kind(scene.part, index))
        made = applied(scene.part, proposed[number]) if number < len(proposed) else None
        return made.bars[index].events if made else None

    return rewrite


def one_after_another(*rewrites: Rewrite) -> Rewrite:
    """Several rewritings of a bar, each of what the one before made."""

    def rewrite(scene: Scene, index: int) -> Events | None:
        changed = False
        for each in rewrites:
            events = each(scene, index)
            if events is not None:
                scene, changed = with_bar(scene, index, events), True
        return scene.bar(index).events if changed else None

    return rewrite


def with_bar(scene: Scene, index: int, events: Events) -> Scene:
    """The scene with a bar written anew."""
    bars = list(scene.part.bars)
    bars[index] = replace(bars[index], events=events)
    return replace(scene, part=replace(scene.part, bars=tuple(bars)))
