"""Chords to strum: the harmony of each half bar as it is written, or named from what all parts play."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.easier.chordbook import ChordBook, shapes_sound_above
from clear_steps.core.easier.layers.lines import Bars
from clear_steps.core.easier.wanted import classes_between, half_bars, name_at, names_in_force
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Event, Note, Part, Song, Stroke
from clear_steps.core.score.chords import Chord, parse_chord
from clear_steps.core.score.tuning import is_bass

_QUALITIES = ("", "m", "7", "m7", "maj7")  # an ear names no more with certainty
_ROOT_WEIGHT = 3.0  # a chord whose root is the lowest note fits so much better
_OUTSIDE, _MISSING = 2.0, 0.5
_NEW_BASS = 7  # half tones: what lies so much higher than the bass before brings none of its own
_FIFTH = 7


@dataclass(frozen=True, slots=True)
class Heard:
    """How long each pitch class sounds in a stretch of a bar, and the lowest pitch of it."""

    weights: dict[int, float]
    lowest: float


def strum(song: Song, part: Part, book: ChordBook) -> Bars:
    """One shape a half bar, a down-stroke a beat; raises InvalidValueError on a bass."""
    if is_bass(part.tuning):
        raise InvalidValueError("tuning", part.tuning.name, "a guitar's, to strum chords on")
    namer = _Namer(song, shapes_sound_above(part))
    bars = []
    for index, bar in enumerate(part.bars):
        sounds = any(index < len(each.bars) and not each.bars[index].silent for each in song.parts)
        bars.append(tuple(_strummed(part, book, namer, index)) if sounds else bar.events)
    return tuple(bars)


class _Namer:
    """Names chords bar after bar: as they are written, else by ear, else as before."""

    def __init__(self, song: Song, half_tones: int) -> None:
        self._song, self._half_tones = song, half_tones
        self._written = [names_in_force(part.bars) for part in song.parts]
        self._before, self._bass = "", 0.0

    def name(self, index: int, start: Fraction, stop: Fraction) -> str:
        """The chord of a stretch of a bar (quarters)."""
        self._before = self._named(index, start, stop) or self._before or "E"
        return self._before

    def _named(self, index: int, start: Fraction, stop: Fraction) -> str:
        for names in self._written:
            if index < len(names) and parse_chord(written := name_at(names[index], start)):
                return written
        heard = heard_between(self._song, index, start, stop)
        if heard is None or (start > 0 and self._goes_on(heard)):
            return ""
        self._bass = heard.lowest
        return chord_name(heard, self._half_tones)

    def _goes_on(self, heard: Heard) -> bool:
        """Whether a half bar brings no bass of its own and nothing that is not in the chord before."""
        before = parse_chord(self._before)
        classes = {(pitch + self._half_tones) % 12 for pitch in before.classes} if before else set()
        return heard.lowest >= self._bass + _NEW_BASS and set(heard.weights) <= classes


def _strummed(part: Part, book: ChordBook, namer: _Namer, index: int) -> Iterator[Event]:
    bar = part.bars[index]
    beat, half = bar.metre.beat_quarters, bar.quarters / half_bars(bar)
    at, before = Fraction(0), ""
    while at < bar.quarters:
        length = min(beat, bar.quarters - at)
        if at % half == 0:
            name = namer.name(index, at, at + half)
            notes = _notes(book, name)
        yield Event(length, notes, stroke=Stroke.DOWN, chord=name if name != before else "")
        before = name
        at += length


def _notes(book: ChordBook, name: str) -> tuple[Note, ...]:
    chord = parse_chord(name)
    shape = book.shape(chord) if chord else None
    return tuple(Note(string, fret) for string, fret in sorted(shape.by_string.items())) if shape else ()


def heard_between(song: Song, index: int, start: Fraction, stop: Fraction) -> Heard | None:
    """What sounds in a stretch of a bar over all parts, ringing on included; None of silence."""
    rows = [
        row
        for part in song.parts
        if index < len(part.bars)
        for row in classes_between(part, part.bars[index], start, stop)
    ]
    weights: dict[int, float] = {}
    for row in rows:
        pitch = round(row.pitch) % 12
        weights[pitch] = weights.get(pitch, 0.0) + row.weight
    return Heard(weights, min(row.pitch for row in rows)) if rows else None


def chord_name(heard: Heard, half_tones: int = 0) -> str:
    """The chord that fits what is heard best, by its name `half_tones` below where it sounds."""

    def fit(chord: Chord) -> tuple[float, int]:
        classes = {(pitch + half_tones) % 12 for pitch in chord.classes}
        root = (chord.root + half_tones) % 12
        inside = sum(weight for pitch, weight in heard.weights.items() if pitch in classes)
        missing = sum(pitch not in heard.weights for pitch in classes - {(root + _FIFTH) % 12})
        outside = sum(heard.weights.values()) - inside
        rooted = round(heard.lowest) % 12 == root
        bonus = _ROOT_WEIGHT * rooted * max(heard.weights.values()) / 4
        return inside - _OUTSIDE * outside - _MISSING * missing + bonus, -len(chord.quality)

    return max(_CHORDS, key=fit).usual_name


_CHORDS = tuple(
    chord
    for root in ("C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B")
    for quality in _QUALITIES
    if (chord := parse_chord(root + quality))
)
