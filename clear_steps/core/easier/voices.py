"""Which notes carry the tune and which the bass: traced through a bar by string, finger, register and
contour, never simply the highest of each onset.

All limits from memory.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from clear_steps.core.score import Bar, Event, Note, Part, PickingFinger, Role
from clear_steps.core.score.tuning import bass_from

_FIFTH, _OCTAVE = 7, 12
_MELODY_FINGERS = frozenset({PickingFinger.MIDDLE, PickingFinger.RING, PickingFinger.LITTLE})
_MELODY_STRINGS = 2  # the thinnest that are picked in a bar


@dataclass(frozen=True, slots=True)
class Voices:
    """The note of an event that carries the tune, and the one that carries the bass."""

    tune: Note | None = None
    bass: Note | None = None

    @property
    def notes(self) -> tuple[Note, ...]:
        """Both, thinnest string first."""
        own = [note for note in (self.tune, self.bass) if note]
        return tuple(sorted(own, key=lambda note: note.string))


def voices_of(part: Part, bars: Sequence[Bar], roles: Sequence[Role]) -> tuple[tuple[Voices, ...], ...]:
    """For every event of every bar; none of what is only held on."""
    return tuple(traced(part, bar, role) for bar, role in zip(bars, roles, strict=True))


def traced(part: Part, bar: Bar, role: Role) -> tuple[Voices, ...]:
    """The voices of every event of a bar that has a role."""
    return _TRACED[role](part, bar)


def _struck(event: Event) -> list[Note]:
    """What sounds anew with a pitch."""
    return [note for note in event.struck if not note.dead]


def _lowest_only(part: Part, bar: Bar) -> tuple[Voices, ...]:
    """Of strums: no top string is a tune; the lowest note is the bass, where it lies on a thick string."""
    low = bass_from(part.tuning.strings)
    rows = ([note for note in _struck(event) if note.string >= low] for event in bar.events)
    return tuple(Voices(bass=min(row, key=part.pitch_of, default=None)) for row in rows)


def _roots(part: Part, bar: Bar) -> tuple[Voices, ...]:
    """Of a riff: the root, which is the lowest; over a lowest note that stays, what moves above it."""
    rows = [sorted(_struck(event), key=part.pitch_of) for event in bar.events]
    pairs = [row for row in rows if len(row) > 1]
    lowest = {part.pitch_of(row[0]) for row in pairs}
    above = {part.pitch_of(row[-1]) - part.pitch_of(row[0]) for row in pairs}
    moves_above = bool(pairs) and len(lowest) == 1 and len(above) > 1
    if moves_above:
        return tuple(Voices(row[-1] if row else None, row[0] if len(row) > 1 else None) for row in rows)
    return tuple(Voices(row[0] if row else None) for row in rows)


def _every_note(part: Part, bar: Bar) -> tuple[Voices, ...]:
    """Of a line, or a bass: all of it; of two notes at once a line is the upper, a bass the lower."""
    return tuple(Voices(max(_struck(event), key=part.pitch_of, default=None)) for event in bar.events)


def _lowest_as_tune(part: Part, bar: Bar) -> tuple[Voices, ...]:
    return tuple(Voices(min(_struck(event), key=part.pitch_of, default=None)) for event in bar.events)


def _two_voices(part: Part, bar: Bar) -> tuple[Voices, ...]:
    """Of picked pieces and chord melodies: a melody over a bass, each note to the voice it lies nearer."""
    low = bass_from(part.tuning.strings)
    upper = [note for event in bar.events for note in _struck(event) if note.string < low]
    lower = [note for event in bar.events for note in _struck(event) if note.string >= low]
    if not lower or not upper:
        return _every_note(part, bar) if upper else _lowest_only(part, bar)
    last_upper, last_lower = max(map(part.pitch_of, upper)), min(map(part.pitch_of, lower))
    voices = []
    for event in bar.events:
        above, below = _split(part, event, last_upper, last_lower)
        tune = max(above, key=part.pitch_of, default=None)
        bass = min(below, key=part.pitch_of, default=None)
        last_upper = part.pitch_of(tune) if tune else last_upper
        last_lower = part.pitch_of(bass) if bass else last_lower
        voices.append(Voices(tune, bass))
    return tuple(voices)


def _split(part: Part, event: Event, last_upper: int, last_lower: int) -> tuple[list[Note], list[Note]]:
    """What of an event belongs to the upper voice, what to the bass: by finger where it is written, by the
    half of the strings, and of single notes on thick strings by what they lie nearer to."""
    above: list[Note] = []
    below: list[Note] = []
    for note in _struck(event):
        pitch = part.pitch_of(note)
        if note.picking:
            is_bass = note.picking is PickingFinger.THUMB
        else:
            near_bass = abs(pitch - last_lower) <= abs(pitch - last_upper)
            is_bass = note.string >= bass_from(part.tuning.strings) and near_bass
        (below if is_bass else above).append(note)
    return above, below


def _picked(part: Part, bar: Bar) -> tuple[Voices, ...]:
    """Of one grip broken: the melody is what the outer fingers pick, or what lies on the thinnest strings of
    it; what is between fills."""
    voices = _two_voices(part, bar)
    tunes = [each.tune for each in voices if each.tune]
    if bar.has_picking_fingers and any(note.picking in _MELODY_FINGERS for note in tunes):
        carrying = [note for note in tunes if note.picking in _MELODY_FINGERS or not note.picking]
    else:
        strings = sorted({note.string for note in tunes})
        inner = strings[_MELODY_STRINGS:] if len(strings) > _MELODY_STRINGS else []
        carrying = [note for note in tunes if note.string not in inner]
    return tuple(Voices(each.tune if each.tune in carrying else None, each.bass) for each in voices)


_TRACED = {
    Role.STRUM: _lowest_only,
    Role.RIFF: _roots,
    Role.PICKED: _picked,
    Role.LINE: _every_note,
    Role.CHORD_MELODY: _two_voices,
    Role.BASS: _lowest_as_tune,
}


def is_power_chord(part: Part, notes: Sequence[Note]) -> bool:
    """Whether notes are a root with its fifth or octave and nothing else."""
    pitches = sorted(part.pitch_of(note) for note in notes)
    above = {(pitch - pitches[0]) % _OCTAVE for pitch in pitches[1:]}
    return bool(above) and above <= {0, _FIFTH}


def moves(voices: Sequence[Voices]) -> tuple[bool, ...]:
    """Whether the tune of an event is another place than the one struck before it; the first one moves, a
    return to the bar's commonest place (a pedal) does not."""
    own = [(each.tune.string, each.tune.fret) if each.tune else None for each in voices]
    counted = Counter(place for place in own if place)
    pedal = next((place for place, times in counted.most_common(1) if times > 2 and len(counted) > 1), None)
    last: tuple[int, int] | None = None
    moving = []
    for place in own:
        moving.append(place is not None and place != last and (place != pedal or last is None))
        last = place or last
    return tuple(moving)
