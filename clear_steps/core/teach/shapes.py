"""Chord shapes as a teacher draws them: strings, frets and fingers, wherever a new one comes."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from clear_steps.core.changes import PathGrips
from clear_steps.core.shapes import Grip, Moment, Shapes, Stretch

_FEWEST_STRINGS = 3  # fewer are an interval, unless a chord's name says otherwise
_OPEN = "0"


@dataclass(frozen=True, slots=True)
class Shape:
    """A shape by string, the thinnest first: its fret (None = not sounded) and its finger ("" = none)."""

    name: str  # of the chord as held, empty where it has none
    frets: tuple[int | None, ...]
    fingers: tuple[str, ...]

    @property
    def first_fret(self) -> int:
        """The lowest fret pressed, 1 where none is."""
        return min((fret for fret in self.frets if fret), default=1)


@dataclass(frozen=True, slots=True)
class ShapePlace:
    """Where a shape comes that the one before was not: indices of bar and event."""

    bar: int
    event: int
    shape: Shape


def shape_places(seen: Shapes, grips: PathGrips, strings: int) -> tuple[ShapePlace, ...]:
    """Every place where the hand takes a new shape, in written order."""
    places: list[ShapePlace] = []
    for stretch in seen.stretches:
        for first, grip, name in _grips(seen, stretch):
            begins = seen.moments[first]
            fewest = _FEWEST_STRINGS - bool(begins.chord)
            if not any(grip.frets.values()) or len(grip.frets) < fewest:
                continue
            fingers = _fingers(seen.moments[first : stretch.last + 1], grip, grips)
            shape = Shape(
                name,
                tuple(grip.frets.get(string) for string in range(1, strings + 1)),
                tuple(fingers.get(string, "") for string in range(1, strings + 1)),
            )
            if not places or places[-1].shape.frets != shape.frets:
                places.append(ShapePlace(begins.bar, begins.index, shape))
    return tuple(places)


def _grips(seen: Shapes, stretch: Stretch) -> Iterator[tuple[int, Grip, str]]:
    """With moment and name; of a shape that is carried the first, and those whose chord is written."""
    for place in stretch.places:
        written = seen.moments[place.first].chord
        if written or place is stretch.places[0]:
            yield place.first, place.grip, written or place.name
    if stretch.grip and not stretch.places:
        yield stretch.first, stretch.grip, stretch.name


def _fingers(moments: tuple[Moment, ...], grip: Grip, grips: PathGrips) -> Mapping[int, str]:
    """By string as the school that agrees most with the path and with all that is written, strings that are
    not struck too; as the path where none is taught so."""
    path: dict[int, str] = {}
    written: dict[int, str] = {}
    for moment in moments:
        own = grips.get((moment.bar, moment.index))
        for note in moment.event.struck:
            if own and note.fret and grip.frets.get(note.string) == note.fret:
                path.setdefault(note.string, own.finger_on(note.string) or "")
                if note.finger:
                    written[note.string] = note.finger

    def agrees(school: Mapping[int, str]) -> int:
        return sum(school[string] == finger for string, finger in path.items())

    taught = [school for school in grip.schools if written.items() <= school.items()]
    school = max(taught, key=agrees, default=path)
    return {string: finger for string, finger in school.items() if finger != _OPEN}


def shapes(places: tuple[ShapePlace, ...]) -> tuple[Shape, ...]:
    """Each shape once, in the order they come; what is part of another of its name is not drawn, nor
    one without a name that is part of any."""
    found = list(dict.fromkeys(place.shape for place in places))
    return tuple(
        shape
        for at, shape in enumerate(found)
        if not any(_covers(other, shape, number < at) for number, other in enumerate(found) if number != at)
    )


def _covers(other: Shape, shape: Shape, before: bool) -> bool:
    """Whether drawing the other shows the shape too; of two alike the one that comes before."""
    if shape.name == other.name and shape.frets == other.frets:
        return before
    if not other.name or shape.name not in ("", other.name):
        return False
    return all(fret in (None, there) for fret, there in zip(shape.frets, other.frets, strict=True))
