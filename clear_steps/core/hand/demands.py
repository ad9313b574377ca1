"""What the score asks of the fretting hand, moment by moment."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from types import MappingProxyType
from typing import NamedTuple

from clear_steps.core.score import Bar, Event, Finger, Note, Technique
from clear_steps.core.shapes import Grip as Held
from clear_steps.core.shapes.ringing import Ringing, Texture


# Spot, Shape and Links are keys of every table: a tuple is hashed and compared many times faster than a
# dataclass.
class Spot(NamedTuple):
    """A string pressed (or touched) at a fret above the capo."""

    string: int
    fret: int


School = tuple[tuple[int, Finger], ...]
"""Fingers by string."""


class Shape(NamedTuple):
    """Spots to be pressed at once, and open strings that sound and may not lie under a barre."""

    spots: tuple[Spot, ...]  # by fret, then thickest string first
    open_strings: frozenset[int]
    pinned: tuple[tuple[int, Finger], ...] = ()  # (string, finger)
    bent: frozenset[int] = frozenset()  # strings that a finger bends
    position: int | None = None  # pinned
    schools: tuple[School, ...] = ()  # fingers taught for it
    loose: bool = False  # other fingers than those are no mistake

    @property
    def is_plain_note(self) -> bool:
        """One spot and nothing more to it: its string makes no difference to the hand."""
        bare = not self.pinned and not self.bent and self.position is None
        return bare and len(self.spots) == 1 and not self.schools

    @property
    def untaught(self) -> "Shape":
        """The same as if nothing were taught for it."""
        return self._replace(schools=(), loose=False) if self.schools else self

    @property
    def gripped(self) -> "Shape":
        """What decides which grips there are and how they move: what is taught adds none to a single spot."""
        return self.untaught if len(self.spots) == 1 else self


class Links(NamedTuple):
    """How an event hangs on the one before, by string."""

    raised: tuple[int, ...] = ()  # hammer-on: a higher finger
    lowered: tuple[int, ...] = ()  # pull-off: a lower finger
    slid: tuple[int, ...] = ()  # the same finger
    kept: tuple[int, ...] = ()  # still held: the same finger on the same spot


@dataclass(frozen=True, slots=True)
class Demand:
    """One moment in which the fretting hand presses something; the onset counts from the bar's start."""

    event: int
    onset: Fraction
    onset_quarters: float
    shape: Shape
    links: Links


@dataclass(frozen=True, slots=True)
class Tapped:
    """A moment in which the picking hand taps, or slides what it has tapped."""

    event: int
    onset: Fraction
    spot: Spot
    slid: bool


Leaving = tuple[tuple[Note, bool], ...]
"""What sounded last, each note with whether the picking hand holds it: all that the next event must know."""


@dataclass(frozen=True, slots=True)
class BarDemands:
    """What one bar asks of both hands on the neck, and what it leaves sounding."""

    demands: tuple[Demand, ...]
    taps: tuple[Tapped, ...]
    leaving: Leaving
    textures: frozenset[Texture]  # that say what rings where nothing is written
    over: frozenset[int]  # the events under which a fretted note of another voice rings on


def is_fretted(note: Note) -> bool:
    """Whether a note needs a finger on the string: no open or dead one, and none struck by tapping."""
    return note.fret > 0 and not note.dead and Technique.TAP not in note.techniques


_NO_STRINGS: frozenset[int] = frozenset()
_IN_PART = 2  # notes of a chord at least
_NO_LINKS = Links()


def demands_of_bar(
    bar: Bar,
    ringing: Sequence[Ringing],
    before: Leaving = (),
    following: Bar | None = None,
    taught: Mapping[int, Held] = MappingProxyType({}),
) -> BarDemands:
    """Every moment of a bar at which a hand must press; `ringing` is what rings on into each event, `before`
    what the last sounding event left, `taught` the grips held, by event."""
    demands: list[Demand] = []
    taps: list[Tapped] = []
    for index, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
        if not event.notes and not ringing[index].notes and not ringing[index].grip:
            continue
        held, notes, tapped, links = ringing[index].notes, event.notes, _NO_STRINGS, _NO_LINKS
        ahead = ringing[index].grip or _rest_of_chord(bar, index, taught)
        if held or ahead or any(note.techniques or note.tied for note in event.notes):
            sounded = {note.string: (note, tapped) for note, tapped in before}
            tapped = frozenset(note.string for note in event.notes if _is_tapped(note, sounded))
            taps += [
                Tapped(index, onset, Spot(n.string, n.fret), Technique.SLIDE in n.techniques)
                for n in event.notes
                if n.string in tapped and not n.tied
            ]
            notes = (*(note for note in event.notes if note.string not in tapped), *held, *ahead)
            links = _links(event.notes, held, sounded, tapped)
        spots = {Spot(note.string, note.fret) for note in notes if is_fretted(note)}
        if event.notes:
            spots.update(_set_ahead(bar, index, following, tapped))
            before = tuple((note, note.string in tapped) for note in (*event.notes, *held))
        if spots:
            shape = _shape(spots, notes, event, taught.get(index))
            demands.append(Demand(index, onset, bar.ticks[index] / bar.ticks_a_quarter, shape, links))
    textures = frozenset(texture for row in ringing for texture in row.guessed)
    over = frozenset(
        index for index, row in enumerate(ringing) if not row.broken and any(map(is_fretted, row.notes))
    )
    return BarDemands(tuple(demands), tuple(taps), before, textures, over)


def _shape(spots: set[Spot], notes: tuple[Note, ...], event: Event, taught: Held | None) -> Shape:
    schools = _schools(spots, taught) if taught else ()
    shape = _bare_shape(spots, notes, event)
    return shape._replace(schools=schools, loose=taught.loose) if taught and schools else shape


def _bare_shape(spots: set[Spot], notes: tuple[Note, ...], event: Event) -> Shape:
    if len(spots) == len(notes) == 1 and not notes[0].finger and not notes[0].bend and event.position is None:
        return Shape(tuple(spots), _NO_STRINGS, (), _NO_STRINGS)
    return Shape(
        tuple(sorted(spots, key=lambda spot: (spot.fret, -spot.string))),
        frozenset(note.string for note in notes if note.fret == 0 and not note.dead),
        tuple((note.string, note.finger) for note in event.notes if note.finger and is_fretted(note)),
        frozenset(note.string for note in notes if note.bend and note.bend.half_tones),
        event.position,
    )


def _schools(spots: set[Spot], taught: Held) -> tuple[School, ...]:
    """The fingers that each school of a grip has on those of the spots that are its own; a place of the hand
    has none for a note with which another rings on."""
    own = sorted(string for string, fret in spots if taught.frets.get(string) == fret)
    if not own or (taught.loose and len(spots) > 1):
        return ()
    ways = (tuple((string, Finger(school[string])) for string in own) for school in taught.schools)
    return tuple(dict.fromkeys(ways))


def _is_tapped(note: Note, sounded: dict[int, tuple[Note, bool]]) -> bool:
    """Tapped itself, or the tapped note before it slid or held on."""
    if Technique.TAP in note.techniques:
        return True
    goes_on = note.tied or Technique.SLIDE in note.techniques
    return goes_on and note.string in sounded and sounded[note.string][1]


def begins_with_pull_off(bar: Bar) -> bool:
    """Whether the bar before has to set fingers for its first notes."""
    return any(Technique.PULL_OFF in note.techniques for event in bar.events[:1] for note in event.notes)


def _set_ahead(bar: Bar, event: int, following: Bar | None, tapped: frozenset[int]) -> tuple[Spot, ...]:
    """Fingers already down for the pull-offs that follow; one from a tap binds none."""
    later = bar.events[event + 1 : event + 2] or (following.events[:1] if following else ())
    pulled = (
        [note for note in later[0].notes if Technique.PULL_OFF in note.techniques and is_fretted(note)]
        if later
        else []
    )
    if not pulled:
        return ()
    sounding = {note.string: note for note in bar.events[event].notes if note.string not in tapped}
    return tuple(
        Spot(note.string, note.fret)
        for note in pulled
        if note.string in sounding
        and is_fretted(sounding[note.string])
        and sounding[note.string].fret > note.fret
    )


def _rest_of_chord(bar: Bar, index: int, taught: Mapping[int, Held]) -> tuple[Note, ...]:
    """Where a chord is struck in part, beside the whole of it: what the hand holds of it all the same. A bass
    and its strum are parts of a grip whose fingers are taught: it holds all that is struck of it in the
    bar."""
    event, held = bar.events[index], taught.get(index)
    around = [
        other
        for other in (*bar.events[max(index - 1, 0) : index], *bar.events[index + 1 : index + 2])
        if not _is_bent_or_dead(other)
    ]
    if held and not held.loose and any(_is_bass_and_strum(event, other, held) for other in around):
        every = {
            note.string: note
            for at, other in enumerate(bar.events)
            if taught.get(at) == held
            for note in other.notes
            if held.frets.get(note.string) == note.fret
        }
        return tuple(every[string] for string in sorted(every.keys() - {note.string for note in event.notes}))
    own = {(note.string, note.fret) for note in event.notes}
    for other in around if len(own) >= _IN_PART else ():
        if own < {(note.string, note.fret) for note in other.notes}:
            return tuple(note for note in other.notes if (note.string, note.fret) not in own)
    return ()


def _is_bass_and_strum(event: Event, other: Event, held: Held) -> bool:
    few, many = sorted((event.notes, other.notes), key=len)
    whole = all(held.frets.get(note.string) == note.fret for note in (*few, *many))
    return whole and len(few) < _IN_PART <= len(many)


def _is_bent_or_dead(event: Event) -> bool:
    return any(note.dead or note.bend for note in event.notes)


def _links(
    notes: tuple[Note, ...],
    held: tuple[Note, ...],
    before: dict[int, tuple[Note, bool]],
    tapped: frozenset[int],
) -> Links:
    own = tuple(note for note in notes if note.string not in tapped)

    def arriving(technique: Technique) -> tuple[int, ...]:
        return tuple(
            note.string
            for note in own
            if technique in note.techniques
            and is_fretted(note)
            and note.string in before
            and not before[note.string][1]
            and is_fretted(before[note.string][0])
        )

    kept = tuple(note.string for note in (*held, *(note for note in own if note.tied)) if is_fretted(note))
    return Links(arriving(Technique.HAMMER_ON), arriving(Technique.PULL_OFF), arriving(Technique.SLIDE), kept)
