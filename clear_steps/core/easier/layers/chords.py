"""Chords to strum: the harmony of each half bar named from all parts, as open shapes."""

import re
from collections import Counter
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.easier.kinds.texture import OPEN_SHAPES
from clear_steps.core.easier.layers.lines import Bars
from clear_steps.core.easier.wanted import half_bars
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import STANDARD, Bar, Event, Note, Part, Song, Stroke

# Where no open shape has the harmony, the easiest on four strings (common practice, no source).
STRUMMED_SHAPES = {**OPEN_SHAPES, "F": "xx3211", "Fm": "xx3111", "Bm": "xx4432", "Gm": "xx5333"}
# Root, minor, seventh; what colours a chord (sixths, ninths, fourths, another bass) is left to the shape,
# diminished and augmented ones to the ear.
_CHORD = re.compile(
    r"(?P<root>[A-G][#b]?)(?P<minor>m(?!aj))?(?P<seventh>7)?(?:maj7?|add\d+|sus[24]?|\d+)*(?:/[A-G][#b]?)?"
)
_ROOT_WEIGHT = 3.0  # a chord whose root is the lowest note fits so much better


def strum(song: Song, part: Part) -> Bars:
    """Open shapes, one a half bar, named from what all parts play; a down-stroke a beat. Raises
    InvalidValueError."""
    shapes = _Shapes.on(part)
    bars, before = [], ""
    for index, bar in enumerate(part.bars):
        events = bar.events
        if any(index < len(each.bars) and not each.bars[index].silent for each in song.parts):
            events, before = _strummed(song, shapes, index, bar, before)
        bars.append(events)
    return tuple(bars)


@dataclass(frozen=True, slots=True)
class _Shapes:
    """The open shapes on an instrument: how far above standard tuning they sound, and the strings that have
    to be left out."""

    half_tones: int
    unlike: frozenset[int]

    @classmethod
    def on(cls, part: Part) -> "_Shapes":
        """All strings but one must be tuned like standard, as a whole higher or lower; raises
        InvalidValueError."""
        apart = [own - usual for own, usual in zip(part.tuning.pitches, STANDARD.pitches, strict=False)]
        usual, count = Counter(apart).most_common(1)[0]
        if part.tuning.strings != STANDARD.strings or count < STANDARD.strings - 1:
            raise InvalidValueError(
                "tuning",
                part.tuning.name,
                "standard tuning, or one that differs in a single string, for which open shapes are known",
            )
        return cls(
            usual + part.capo,
            frozenset(string for string, offset in enumerate(apart, start=1) if offset != usual),
        )

    def notes(self, name: str) -> tuple[Note, ...]:
        frets = STRUMMED_SHAPES[name]
        strings = (
            string
            for string in range(1, len(frets) + 1)
            if frets[-string] != "x" and string not in self.unlike
        )
        return tuple(Note(string, int(frets[-string])) for string in strings)


def _strummed(
    song: Song, shapes: _Shapes, index: int, bar: Bar, before: str
) -> tuple[tuple[Event, ...], str]:
    beat, halves = bar.metre.beat_quarters, half_bars(bar)
    events: list[Event] = []
    at = Fraction(0)
    while at < bar.quarters:
        length = min(beat, bar.quarters - at)
        if at % (bar.quarters / halves) == 0 or not events:
            stop = at + bar.quarters / halves
            name = (
                written_chord(song, index, at)
                or chord_name(weights_between(song, index, at, stop), shapes.half_tones)
                or before
                or "E"
            )
        notes = shapes.notes(name)
        events.append(Event(length, notes, stroke=Stroke.DOWN, chord=name if name != before else ""))
        before = name
        at += length
    return tuple(events), before


def written_chord(song: Song, index: int, start: Fraction) -> str:
    """The shape of the chord that is written over a place of a bar, in any part; empty where none is or it
    has no such shape."""
    found: list[tuple[Fraction, str]] = []
    for part in song.parts:
        bar = part.bars[index] if index < len(part.bars) else Bar()
        found += [
            (onset, event.chord)
            for onset, event in zip(bar.onsets, bar.events, strict=True)
            if event.chord and onset <= start
        ]
    name = max(found, key=lambda row: row[0], default=(start, ""))[1]
    match = _CHORD.fullmatch(name)
    shape = f"{match['root']}{match['minor'] or ''}" if match else ""
    return next(
        (
            known
            for known in (f"{shape}{(match and match['seventh']) or ''}", shape)
            if known in STRUMMED_SHAPES
        ),
        "",
    )


def weights_between(
    song: Song, index: int, start: Fraction, stop: Fraction
) -> tuple[dict[int, float], int | None]:
    """How long each pitch class sounds in a stretch of a bar, over all parts, and the lowest pitch of it."""
    weights: dict[int, float] = {}
    lowest: int | None = None
    for part in song.parts:
        if index >= len(part.bars):
            continue
        bar = part.bars[index]
        for onset, event in zip(bar.onsets, bar.events, strict=True):
            lasting = min(onset + event.quarters, stop) - max(onset, start)
            for note in event.notes:
                if lasting > 0 and not note.dead:
                    pitch = part.pitch_of(note)
                    weights[pitch % 12] = weights.get(pitch % 12, 0.0) + float(lasting)
                    lowest = pitch if lowest is None else min(lowest, pitch)
    return weights, lowest


def chord_name(heard: tuple[dict[int, float], int | None], half_tones: int = 0) -> str:
    """The open shape that fits what is heard best, by its name `half_tones` below where it sounds; empty
    where nothing sounds."""
    weights, lowest = heard
    if not weights or lowest is None:
        return ""

    def fit(name: str) -> tuple[float, int]:
        classes, root = _shape_classes(name, half_tones)
        inside = sum(
            weight for pitch, weight in weights.items() if pitch in classes | {(root + 7) % 12}
        )  # a fifth the shape leaves out belongs to it
        missing = sum(pitch not in weights for pitch in classes)
        outside = sum(weights.values()) - inside
        return inside - 2 * outside - 0.5 * missing + _ROOT_WEIGHT * (lowest % 12 == root) * max(
            weights.values()
        ) / 4, -len(name)

    return max(STRUMMED_SHAPES, key=fit)


def _shape_classes(name: str, half_tones: int) -> tuple[set[int], int]:
    frets = STRUMMED_SHAPES[name]
    pitches = [
        STANDARD.open_pitch(len(frets) - at) + half_tones + int(fret)
        for at, fret in enumerate(frets)
        if fret != "x"
    ]
    return {pitch % 12 for pitch in pitches}, pitches[0] % 12
