"""What a player sees of a part: stretches that one grip, one place of the hand or no finger makes."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise

from clear_steps.core.shapes.moments import Moment
from clear_steps.core.shapes.patterns import Pattern


class Kind(StrEnum):
    """What the hand does over a stretch."""

    HELD = "held"  # one grip is kept while the other hand plays
    CARRIED = "carried"  # one grip is moved along or across
    POSITION = "position"  # a line within the reach of one place of the hand
    OPEN = "open"  # no finger is needed


@dataclass(frozen=True, slots=True)
class Grip:
    """Strings (1 the thinnest) with their frets, open ones 0, and the fingers taught for them, one row a
    school, the commonest first: `1` to `4`, `T`, and 0 for open strings."""

    frets: Mapping[int, int]
    schools: tuple[Mapping[int, str], ...] = ()
    loose: bool = False  # fingers of a place of the hand: other ones are no mistake

    @property
    def fingers(self) -> Mapping[int, str] | None:
        """As the commonest school has them; none where none are taught."""
        return self.schools[0] if self.schools else None


@dataclass(frozen=True, slots=True)
class Place:
    """Where a grip that is carried lies, from a moment (index) on."""

    first: int
    grip: Grip
    name: str


@dataclass(frozen=True, slots=True)
class Stretch:
    """From one moment to another (indexes, both in it); `name` as held, counted from the capo, `written` as
    the teacher wrote it; no grip of a position. `places` of what is carried."""

    first: int
    last: int
    kind: Kind
    name: str = ""
    written: str = ""
    grip: Grip | None = None
    places: tuple[Place, ...] = ()
    pattern: Pattern | None = None
    voices: bool = False  # a melody and a bass of its own, in one place of the hand


@dataclass(frozen=True, slots=True)
class Shapes:
    """A part as it is seen: every place where something is struck, and the stretches they make, in order,
    each moment in exactly one."""

    moments: tuple[Moment, ...]
    stretches: tuple[Stretch, ...]

    @property
    def gripped(self) -> Iterator[tuple[Moment, ...]]:
        """The moments of every grip, wherever it is carried to."""
        for stretch in self.stretches:
            starts = [place.first for place in stretch.places[1:]]
            if stretch.grip:
                for first, end in pairwise([stretch.first, *starts, stretch.last + 1]):
                    yield self.moments[first:end]

    @property
    def recognised(self) -> dict[tuple[int, int], str]:
        """By bar and event (indexes) where a grip begins that has a name nobody wrote."""
        begins = [
            (stretch.first, stretch.name)
            for stretch in self.stretches
            if stretch.grip and not stretch.written  # harmonics are drawn as what they are
        ]
        return {(self.moments[at].bar, self.moments[at].index): name for at, name in begins if name}
