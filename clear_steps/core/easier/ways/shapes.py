"""Way 1, shapes: one familiar table of easier shapes, the same shape at every return of the chord."""

from collections.abc import Sequence
from dataclasses import replace

from clear_steps.core.easier.chordbook import ChordBook, Frets, Shape, shapes_sound_above
from clear_steps.core.easier.kinds.bars import plain, with_notes
from clear_steps.core.easier.rewriting import Events
from clear_steps.core.easier.wanted import name_at, names_in_force
from clear_steps.core.easier.ways.scene import Choice, Option, Rewrite, Scene, Scope
from clear_steps.core.score import Event, Note, Part
from clear_steps.core.score.chords import Chord, chord_of, parse_chord

_A_CHORD = 3  # notes; fewer are a dyad or a line
_THIN_STRINGS = 3
_OPEN_FRETS = 3  # the highest of an open shape
_SPREAD = 3  # frets from the lowest to the highest


def shapes() -> Choice:
    """From the table; with stated substitutes; without a string out of reach; the thin strings alone; one
    less."""
    return Choice(
        "shapes",
        (
            Option("chord", "smaller shapes", from_table(substitutes=False)),
            Option("chord", "smaller shapes, and easier chords in their place", from_table(substitutes=True)),
            Option("thin", "without the string that stretches the hand", _nearer),
            Option("chord", "smaller shapes, of other chords the three thin strings", _smaller_or_thin),
            Option("thin", "only the three thin strings of each chord, and the bass note", _thin(3)),
            Option("thin", "only the two thin strings of each chord, and the bass note", _thin(2)),
        ),
        Scope.SONG,
    )


def from_table(substitutes: bool) -> Rewrite:
    """Every chord that lies higher or is fuller than a shape of the table as that shape."""

    def rewrite(scene: Scene, index: int) -> Events | None:
        bar, names = scene.bar(index), names_in_force(scene.part.bars)[index]
        events = []
        for onset, event in zip(bar.onsets, bar.events, strict=True):
            chord = chord_at(scene.part, event, name_at(names, onset))
            shape = shape_for(scene, chord, event, substitutes) if chord else None
            events.append(_as_shape(scene.part, event, shape) if shape else event)
        return tuple(events) if tuple(events) != bar.events else None

    return rewrite


def _smaller_or_thin(scene: Scene, index: int) -> Events | None:
    """The shapes of the table, and of chords that it does not make easier their thin strings."""
    bar, made = scene.bar(index), from_table(substitutes=False)(scene, index)
    pairs = zip(bar.events, made or bar.events, strict=True)
    events = tuple(now if now != was or _is_open(was) else _thinner(was, _THIN_STRINGS) for was, now in pairs)
    return events if events != bar.events else None


def _is_open(event: Event) -> bool:
    frets = [note.fret for note in event.notes]
    return 0 in frets and max(frets) <= _OPEN_FRETS


def chord_at(part: Part, event: Event, name: str) -> Chord | None:
    """The chord of an event as a shape is named: by the name that holds, else by what it strikes."""
    named = parse_chord(name) if name else None
    sounding = [part.pitch_of(note) - shapes_sound_above(part) for note in event.notes if not note.dead]
    if named:
        return named if {pitch % 12 for pitch in sounding} <= named.classes else None
    return chord_of(sounding) if len(sounding) >= _A_CHORD else None


def shape_for(scene: Scene, chord: Chord, event: Event, substitutes: bool) -> Shape | None:
    """The shape to play a chord with, where it is easier than what is played."""
    shape = ChordBook(scene.part.tuning, scene.ladder.chord_shapes).shape(chord, substitutes)
    own = {note.string: note.fret for note in event.notes}
    return shape if shape and _effort(shape.by_string) < _effort(own) else None


def _effort(frets: Frets) -> tuple[bool, int, int]:
    """What makes a shape easier: no barre (as many fretted strings as fingers), fewer strings pressed, nearer
    the nut."""
    pressed = [fret for fret in frets.values() if fret]
    return len(pressed) > 4, len(pressed), max(pressed, default=0)


def _as_shape(part: Part, event: Event, shape: Shape) -> Event:
    """The event's own strings of the shape; a bass note alone as the shape's, where that is the same note."""
    frets = shape.by_string
    own = [note for note in event.notes if not note.dead]
    if len(own) == 1:
        return _bass_note(part, event, own[0], frets)
    if not own:
        return event
    lowest = max(note.string for note in own)
    full = lowest >= max(frets)
    strings = [string for string in frets if full or string <= max(lowest, _THIN_STRINGS)]
    notes = [plain(_like(event, string), string, frets[string]) for string in strings]
    name = shape.substitute if event.chord and shape.substitute else event.chord
    tied = all(note.tied for note in event.notes)
    made = with_notes(event, [replace(note, tied=tied, optional=False) for note in notes])
    return replace(made, chord=name)


def _like(event: Event, string: int) -> Note:
    return next((note for note in event.notes if note.string == string), event.notes[-1])


def _bass_note(part: Part, event: Event, own: Note, frets: Frets) -> Event:
    pitch = part.pitch_of(own) % 12
    same = [
        string
        for string, fret in frets.items()
        if (part.tuning.open_pitch(string) + part.capo + fret) % 12 == pitch and string > _THIN_STRINGS
    ]
    if not same or own.tied:
        return event
    string = max(same)
    return with_notes(event, [plain(own, string, frets[string])])


def _thin(count: int) -> Rewrite:
    """Of full shapes the thin strings; what is struck alone, as a bass, stays."""

    def rewrite(scene: Scene, index: int) -> Events | None:
        bar = scene.bar(index)
        made = tuple(_thinner(event, count) for event in bar.events)
        return made if made != bar.events else None

    return rewrite


def _thinner(event: Event, count: int) -> Event:
    thin = sorted(event.notes, key=lambda note: note.string)[:count]
    if len(event.notes) < _A_CHORD or len(thin) == len(event.notes):
        return event
    return with_notes(event, thin)


def _nearer(scene: Scene, index: int) -> Events | None:
    """Shapes that spread over many frets without the note that makes it so."""
    bar = scene.bar(index)
    made = tuple(_without_far(event) for event in bar.events)
    return made if made != bar.events else None


def _without_far(event: Event) -> Event:
    """Without the outermost note if that is the one that is far from the rest; a string within a chord is
    not left out of a strum."""
    pressed = sorted(note.fret for note in event.notes if note.fret)
    if len(event.notes) < _A_CHORD or not pressed or pressed[-1] - pressed[0] < _SPREAD:
        return event
    by_string = sorted(event.notes, key=lambda note: note.string)
    nearer = [
        rest
        for rest in (by_string[1:], by_string[:-1])
        if _reach(rest) < pressed[-1] - pressed[0] and _reach(rest) < _SPREAD
    ]
    return with_notes(event, nearer[-1]) if nearer else event


def _reach(notes: Sequence[Note]) -> int:
    pressed = [note.fret for note in notes if note.fret]
    return max(pressed, default=0) - min(pressed, default=0)
