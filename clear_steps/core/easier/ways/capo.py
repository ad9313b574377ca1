"""Way 2, a capo for open shapes: the chords re-voiced as open ones, not pitch by pitch, to sound
where the record does; names follow."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import plain, with_notes
from clear_steps.core.easier.roles import roles_of
from clear_steps.core.easier.wanted import name_at, names_in_force
from clear_steps.core.easier.ways.shapes import chord_at
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Event, Note, Part, Role
from clear_steps.core.score.chords import Chord, parse_chord, transposed_name
from clear_steps.core.score.strumming import ChordShape

_HIGHEST = 5  # frets; above it a capo leaves little neck (common practice, no source)
_OPEN_FRETS = 3  # the highest of an open shape
_LEAST_STRUMMED = 0.5  # of the bars, for it to be a song to strum
_A_CHORD = 3


def open_shapes_with_capo(part: Part, ladder: Ladder) -> tuple[int, tuple[Change, ...]] | None:
    """The lowest capo with which every chord of a strummed part has an open shape, and the changes of its
    bars; None where there is none, or no need of it."""
    roles = roles_of(part)
    strummed = sum(role is Role.STRUM for role in roles)
    if part.tuning.strings != 6 or not roles or strummed < _LEAST_STRUMMED * len(roles):
        return None
    chords = list(_chords(part))
    if not chords or any(chord is None for _, _, chord in chords) or _is_open_already(part):
        return None
    shapes = [row for row in ladder.chord_shapes if is_open(row) and not row.substitute]
    for capo in range(_HIGHEST + 1):
        apart = capo - part.capo
        found = {chord: _shape_of(chord, apart, shapes) for _, _, chord in chords if chord}
        if capo != part.capo and all(found.values()):
            known = {chord: shape for chord, shape in found.items() if shape}
            changes = tuple(_changes(part, known, apart))
            return (capo, changes) if changes else None
    return None


def is_open(shape: ChordShape) -> bool:
    """Whether a shape lies at the nut and lets a string ring."""
    frets = shape.by_string.values()
    return 0 in frets and max(frets) <= _OPEN_FRETS


def _is_open_already(part: Part) -> bool:
    frets = [
        [note.fret for note in event.notes] for _, _, event in part.events() if len(event.notes) >= _A_CHORD
    ]
    return all(0 in own and max(own) <= _OPEN_FRETS for own in frets)


def _chords(part: Part) -> Iterator[tuple[int, Fraction, Chord | None]]:
    """Bar, onset and chord of everything struck as a chord."""
    names = names_in_force(part.bars)
    for index, onset, event in part.events():
        if len(event.notes) >= _A_CHORD and not any(note.dead for note in event.notes):
            yield index, onset, chord_at(part, event, name_at(names[index], onset))


def _shape_of(chord: Chord, apart: int, shapes: Sequence[ChordShape]) -> ChordShape | None:
    """The open shape that sounds as the chord with a capo so many frets higher."""
    for shape in shapes:
        own = parse_chord(shape.chord)
        if own and ((own.root + apart) % 12, own.intervals) == (chord.root, chord.intervals):
            return shape
    return None


def _changes(part: Part, shapes: dict[Chord, ChordShape], apart: int) -> Iterator[Change]:
    names = names_in_force(part.bars)
    last: ChordShape | None = None
    for index, bar in enumerate(part.bars):
        events = []
        for onset, event in zip(bar.onsets, bar.events, strict=True):
            chord = chord_at(part, event, name_at(names[index], onset)) if event.notes else None
            last = shapes.get(chord, last) if chord else last
            events.append(_as_shape(part, event, last, apart))
        if tuple(events) != bar.events:
            yield Change(index, Fraction(0), bar.events, tuple(events))


def _as_shape(part: Part, event: Event, shape: ChordShape | None, apart: int) -> Event:
    """What is struck as the shape's strings; a single note as the shape's nearest, dead ones as they are."""
    named = replace(event, chord=transposed_name(event.chord, -apart) if event.chord else "")
    if not event.notes or shape is None or all(note.dead for note in event.notes):
        return named
    frets = shape.by_string
    if len(event.notes) < _A_CHORD:
        return _few(part, named, frets, apart)
    lowest = max(note.string for note in event.notes)
    full = lowest >= 5
    strings = [string for string in frets if full or string <= lowest]
    like = event.notes[-1]
    tied = all(note.tied for note in event.notes)
    notes = [replace(plain(like, string, frets[string]), tied=tied, optional=False) for string in strings]
    return with_notes(named, notes)


def _few(part: Part, event: Event, frets: dict[int, int], apart: int) -> Event:
    """One or two notes: the same pitches where they lie on the neck now, else the shape's string."""
    notes: list[Note] = []
    for note in event.notes:
        fret = note.fret - apart
        if fret < 0 or note.dead:
            fret = frets.get(note.string, 0) if not note.dead else note.fret
        notes.append(replace(note, fret=fret, finger=None))
    return with_notes(event, notes)
