"""Chord shapes as a teacher draws them: strings, frets and fingers, wherever a new one comes."""

from collections.abc import Iterator
from dataclasses import dataclass

from clear_steps.core.grade import Grading
from clear_steps.core.score import Event, Note, Part, Technique

_FEWEST_STRINGS = 3  # fewer are an interval, unless a chord's name says otherwise
_WIDEST = 4  # frets a drawn shape spans at most: what lies farther is melody


@dataclass(frozen=True, slots=True)
class Shape:
    """A shape by string, the thinnest first: its fret (None = not sounded) and its finger ("" = none)."""

    name: str  # of the chord, empty where none is written
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


def shape_places(part: Part, grading: Grading) -> tuple[ShapePlace, ...]:
    """Every place where the hand takes a new shape, in written order."""
    places: list[ShapePlace] = []
    for index, bar in enumerate(part.bars):
        for number, event in enumerate(bar.events):
            shape = _shape_at(part, grading, index, number)
            if shape is None or (places and places[-1].shape.frets == shape.frets):
                continue
            if event.chord or len(event.struck) >= _FEWEST_STRINGS:
                places.append(ShapePlace(index, number, shape))
    return tuple(places)


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


def _shape_at(part: Part, grading: Grading, index: int, number: int) -> Shape | None:
    event = part.bars[index].events[number]
    frets: dict[int, int] = {}
    fingers: dict[int, str] = {}
    for at, note in _notes_of_the_chord(part.bars[index].events, number):
        if (
            note.dead
            or Technique.NATURAL_HARMONIC in note.techniques
            or note.string in frets
            or not _near(note.fret, frets)
        ):
            continue
        frets[note.string] = note.fret
        grip = grading.grips.get((index, at))
        if note.fret:
            fingers[note.string] = note.finger or (grip.finger_on(note.string) if grip else None) or ""
    together = event.chord and len(event.struck) >= 2
    if not any(frets.values()) or (len(frets) < _FEWEST_STRINGS and not together):
        return None
    strings = range(1, part.tuning.strings + 1)
    return Shape(
        event.chord, tuple(frets.get(s) for s in strings), tuple(fingers.get(s, "") for s in strings)
    )


def _notes_of_the_chord(events: tuple[Event, ...], number: int) -> Iterator[tuple[int, Note]]:
    """With their event: those struck here, and under a chord's name those up to the next name in the bar."""
    for at in range(number, len(events)):
        if at > number and (events[at].chord or not events[number].chord):
            return
        for note in events[at].struck:
            yield at, note


def _near(fret: int, frets: dict[int, int]) -> bool:
    pressed = [other for other in frets.values() if other]
    return not fret or all(abs(fret - other) < _WIDEST for other in pressed)
