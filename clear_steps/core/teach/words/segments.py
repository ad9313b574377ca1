"""What of every stretch lies in a chunk: what is told together."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from clear_steps.core.changes import Moves, moves, with_fingers_of_the_path
from clear_steps.core.score import Part
from clear_steps.core.score.chords import parse_chord
from clear_steps.core.shapes import Grip, Kind, Pattern, Shapes, read_shapes
from clear_steps.core.teach.chunks.chunk import Chunk
from clear_steps.core.teach.words.facts import Grips, MomentFact, moment_facts
from clear_steps.core.teach.words.rhythm import Timing

STRUM = 3  # strings at once


@dataclass(frozen=True, slots=True)
class Segment:
    """Moments of one stretch, or of one place of a grip with a name that is carried. `entered`: how the hand
    comes to it, where it begins here; `moved`: frets from the place before; `whole`: all of the stretch is
    here; `begins`: its first moment is."""

    kind: Kind
    name: str
    grip: Grip | None
    pattern: Pattern | None
    moments: tuple[MomentFact, ...]
    before: str = ""  # what the stretch before is called
    entered: Moves | None = None
    moved: int = 0
    whole: bool = True
    begins: bool = True

    @property
    def chord(self) -> str:
        """Its name where it is a chord's; a place of the hand, a run, an interval have words of their own."""
        return self.name if parse_chord(self.name) else ""


@dataclass(frozen=True, slots=True)
class Held:
    """A grip being told: its moments without what was said of all."""

    segment: Segment
    moments: tuple[MomentFact, ...]
    timings: tuple[Timing, ...]

    @property
    def strummed(self) -> bool:
        """Whether nothing but chords is struck."""
        return all(len(moment.notes) >= STRUM for moment in self.moments)


class Scene:
    """A part with all that is told of it."""

    def __init__(self, part: Part, grips: Grips) -> None:
        self.part = part
        self.shapes = with_fingers_of_the_path(read_shapes(part), grips)
        self.facts = moment_facts(part, grips)
        self._segments = list(_segments(self.shapes, moves(self.shapes, grips), self.facts))

    def of(self, chunk: Chunk) -> tuple[Segment, ...]:
        """What of the part lies in a chunk."""
        return tuple(_clipped(self._segments, chunk))

    def moments(self, chunk: Chunk) -> tuple[MomentFact, ...]:
        """All that is done in a chunk."""
        return tuple(moment for segment in self.of(chunk) for moment in segment.moments)


def _segments(
    shapes: Shapes, entered: Sequence[Moves], facts: dict[tuple[int, int], MomentFact]
) -> Iterator[Segment]:
    """Of the whole part; what is done to notes that ring on lies with what was struck before it."""
    places = [(moment.bar, moment.index) for moment in shapes.moments]
    begins = 0
    rows = list(facts)
    for number, stretch in enumerate(shapes.stretches):
        moves_in = entered[number - 1] if number else None
        before = shapes.stretches[number - 1].name if number else ""
        named = stretch.kind is Kind.CARRIED and parse_chord(stretch.places[0].name) is not None
        starts = [place.first for place in stretch.places] if named else [stretch.first]
        for index in range(len(starts)):
            last = starts[index + 1] - 1 if index + 1 < len(starts) else stretch.last
            after = rows.index(places[last + 1], begins) if last + 1 < len(places) else len(rows)
            own = tuple(facts[row] for row in rows[begins:after])
            begins = after
            if named:
                place, old = stretch.places[index], stretch.places[index - 1]
                moved = _lowest(place.grip) - _lowest(old.grip) if index else 0
                name = old.name if index else before
                yield Segment(Kind.HELD, place.name, place.grip, stretch.pattern, own, name, None, moved)
            else:
                yield Segment(
                    stretch.kind, stretch.name, stretch.grip, stretch.pattern, own, before, moves_in
                )


def _lowest(grip: Grip) -> int:
    return min((fret for fret in grip.frets.values() if fret), default=0)


def _clipped(segments: Sequence[Segment], chunk: Chunk) -> Iterator[Segment]:
    for segment in segments:
        own = tuple(moment for moment in segment.moments if chunk.first <= moment.at <= chunk.last)
        if not own:
            continue
        begins = own[0] is segment.moments[0]
        whole = len(own) == len(segment.moments)
        entered = segment.entered if begins else None
        moved = segment.moved if begins else 0
        yield Segment(
            segment.kind,
            segment.name,
            segment.grip,
            segment.pattern,
            own,
            segment.before,
            entered,
            moved,
            whole,
            begins,
        )
