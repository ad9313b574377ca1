"""Way 2, a capo for open shapes: the chords re-voiced as open ones, not pitch by pitch, to sound
where the record does; names follow."""

from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.chordbook import ChordBook, Frets, Shape, shapes_sound_above
from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import plain, with_notes
from clear_steps.core.easier.roles import roles_of
from clear_steps.core.easier.wanted import name_at, names_in_force
from clear_steps.core.easier.ways.shapes import chord_at
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Event, Note, Part, Role, Tuning
from clear_steps.core.score.chords import Chord, transposed_name
from clear_steps.core.score.strumming import ChordShape

_HIGHEST = 5  # frets; above it a capo leaves little neck (common practice, no source)
_OPEN_FRETS = 3  # the highest of an open shape
_LEAST_STRUMMED = 0.5  # of the bars, for it to be a song to strum
_A_CHORD = 3
_FULL_FROM = 5  # a chord whose lowest string is this is struck whole


def open_shapes_with_capo(part: Part, ladder: Ladder) -> tuple[int, tuple[Change, ...]] | None:
    """The lowest capo with which every chord of a strummed part has an open shape, and the changes of its
    bars; None where there is none, or no need of it."""
    roles = roles_of(part)
    strummed = sum(role is Role.STRUM for role in roles)
    if not roles or strummed < _LEAST_STRUMMED * len(roles) or _is_open_already(part):
        return None
    for capo in range(_HIGHEST + 1):
        if capo != part.capo and (changes := open_chords_on(part, ladder, part.tuning, capo)):
            return capo, changes
    return None


def open_chords_on(part: Part, ladder: Ladder, tuning: Tuning, capo: int) -> tuple[Change, ...] | None:
    """The changes that make every chord of a part an open shape that sounds the same on another neck; None
    where one has none there, or nothing is a chord."""
    chords = list(_chords(part))
    if not chords or any(chord is None for _, _, chord in chords):
        return None
    neck = replace(part, tuning=tuning, capo=capo)
    apart = shapes_sound_above(neck) - shapes_sound_above(part)
    book = ChordBook(tuning, [row for row in ladder.chord_shapes if is_open(row)])
    found = {chord: book.written(chord.moved(-apart)) for _, _, chord in chords if chord}
    if not all(found.values()):
        return None
    return (
        tuple(_changes(part, neck, {chord: shape for chord, shape in found.items() if shape}, apart)) or None
    )


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


def _changes(part: Part, neck: Part, shapes: dict[Chord, Shape], apart: int) -> Iterator[Change]:
    names = names_in_force(part.bars)
    last: Shape | None = None
    for index, bar in enumerate(part.bars):
        events = []
        for onset, event in zip(bar.onsets, bar.events, strict=True):
            chord = chord_at(part, event, name_at(names[index], onset)) if event.notes else None
            last = shapes.get(chord, last) if chord else last
            named = replace(event, chord=transposed_name(event.chord, -apart) if event.chord else "")
            events.append(_as_shape(part, neck, named, last))
        if tuple(events) != bar.events:
            yield Change(index, Fraction(0), bar.events, tuple(events))


def _as_shape(part: Part, neck: Part, event: Event, shape: Shape | None) -> Event:
    """What is struck as the shape's strings; a single note as the shape's nearest, dead ones as they are."""
    if not event.notes or shape is None or all(note.dead for note in event.notes):
        return event
    frets = shape.by_string
    if len(event.notes) < _A_CHORD:
        return _few(part, neck, event, frets)
    lowest = max(note.string for note in event.notes)
    full = lowest >= _FULL_FROM
    strings = [string for string in frets if full or string <= lowest]
    like = event.notes[-1]
    tied = all(note.tied for note in event.notes)
    notes = [replace(plain(like, string, frets[string]), tied=tied, optional=False) for string in strings]
    return with_notes(event, notes)


def _few(part: Part, neck: Part, event: Event, frets: Frets) -> Event:
    """One or two notes: the same pitches where they lie on their strings now, else the shape's string."""
    notes: list[Note] = []
    for note in event.notes:
        fret = part.pitch_of(note) - neck.tuning.open_pitch(note.string) - neck.capo
        if fret < 0 or note.dead:
            fret = frets.get(note.string, 0) if not note.dead else note.fret
        notes.append(replace(note, fret=fret, finger=None))
    return with_notes(event, notes)
