"""Layers of a song, each a way to write the whole part: the melody, the bass, chords to strum."""

import itertools
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import plain, with_notes
from clear_steps.core.easier.kinds.texture import OPEN_SHAPES
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import STANDARD, Bar, Event, Note, Part, Song, Stroke
from clear_steps.core.score.ringing import BASS_STRING, ringing_in

_MOST_VOICES = 3  # more notes at once are a chord
_ROOT_WEIGHT = 3.0  # a chord whose root is the lowest note fits so much better


@dataclass(frozen=True, slots=True)
class Layer:
    """What the layer is called, in words, and the changes that make it, one a bar."""

    name: str
    does: str
    changes: Callable[[Song, Part], tuple[Change, ...]]


def _per_bar(part: Part, rewrite: Callable[[Bar], tuple[Event, ...]]) -> Iterator[Change]:
    for index, bar in enumerate(part.bars):
        events = rewrite(bar)
        if events != bar.events:
            yield Change(index, Fraction(0), bar.events, events)


def melody(_song: Song, part: Part) -> tuple[Change, ...]:
    """The top voice alone; where a bass moves under it, the bass strings are left out, else a line keeps all its strings."""

    def rewrite(bar: Bar) -> tuple[Event, ...]:
        upper = _has_two_voices(bar)
        return _joined(with_notes(event, _top(part, event, upper)) for event in bar.events)

    return tuple(_per_bar(part, rewrite))


def _has_two_voices(bar: Bar) -> bool:
    """A bass that rings under an upper voice, or is struck together with one some strings away."""
    together = any(
        any(note.string >= BASS_STRING and other.string < BASS_STRING and note.string - other.string >= 2 for note in event.notes for other in event.notes)
        and len(event.notes) <= _MOST_VOICES
        for event in bar.events
    )
    return together or any(row.guessed for row in ringing_in(bar))


def _top(part: Part, event: Event, upper: bool) -> list[Note]:
    notes = [note for note in event.notes if not note.dead and (not upper or note.string < BASS_STRING)]
    return [max(notes, key=part.pitch_of)] if notes else []


def bass(_song: Song, part: Part) -> tuple[Change, ...]:
    """The lowest note on the 4th to 6th strings alone."""

    def rewrite(bar: Bar) -> tuple[Event, ...]:
        return _joined(with_notes(event, _lowest(part, event)) for event in bar.events)

    return tuple(_per_bar(part, rewrite))


def _lowest(part: Part, event: Event) -> list[Note]:
    notes = [note for note in event.notes if note.string >= BASS_STRING and not note.dead]
    return [min(notes, key=part.pitch_of)] if notes else []


def _joined(events: Iterator[Event]) -> tuple[Event, ...]:
    """What falls silent between two notes belongs to the note before; a rest stays one at the bar's start."""
    joined: list[Event] = []
    for event in events:
        if joined and not event.notes and not event.remark and not event.chord:
            joined[-1] = replace(joined[-1], quarters=joined[-1].quarters + event.quarters)
        else:
            joined.append(event)
    return tuple(joined)


def strum(song: Song, part: Part) -> tuple[Change, ...]:
    """Open shapes, one a half bar, named from what all parts play; a down-stroke a beat. Raises InvalidValueError."""
    if part.tuning != STANDARD and _intervals(part) != _intervals(Part()):
        raise InvalidValueError("tuning", part.tuning.name, "the intervals of standard tuning, for which open shapes are known")
    changes, before = [], ""
    for index, bar in enumerate(part.bars):
        if all(index >= len(each.bars) or each.bars[index].silent for each in song.parts):
            continue
        events, before = _strummed(song, part, index, bar, before)
        changes.append(Change(index, Fraction(0), bar.events, events))
    return tuple(changes)


def _intervals(part: Part) -> list[int]:
    pitches = part.tuning.pitches
    return [a - b for a, b in itertools.pairwise(pitches)]


def _strummed(song: Song, part: Part, index: int, bar: Bar, before: str) -> tuple[tuple[Event, ...], str]:
    beat = bar.metre.beat_quarters
    halves = 2 if bar.metre.beats % 2 == 0 and bar.quarters >= 2 * beat else 1
    events: list[Event] = []
    at = Fraction(0)
    while at < bar.quarters:
        length = min(beat, bar.quarters - at)
        if at % (bar.quarters / halves) == 0 or not events:
            stop = at + bar.quarters / halves
            name = chord_name(weights_between(song, index, at, stop), part.capo) or before or "E"
        notes = _shape_notes(name)
        events.append(Event(length, notes, stroke=Stroke.DOWN, chord=name if name != before else ""))
        before = name
        at += length
    return tuple(events), before


def _shape_notes(name: str) -> tuple[Note, ...]:
    frets = OPEN_SHAPES[name]
    return tuple(plain(Note(1, 0), string, int(frets[-string])) for string in range(1, len(frets) + 1) if frets[-string] != "x")


def weights_between(song: Song, index: int, start: Fraction, stop: Fraction) -> tuple[dict[int, float], int | None]:
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


def chord_name(heard: tuple[dict[int, float], int | None], capo: int = 0) -> str:
    """The open shape that fits what is heard best, by its name at the capo; empty where nothing sounds."""
    weights, lowest = heard
    if not weights or lowest is None:
        return ""

    def fit(name: str) -> tuple[float, int]:
        classes, root = _shape_classes(name, capo)
        inside = sum(weight for pitch, weight in weights.items() if pitch in classes | {(root + 7) % 12})  # a fifth the shape leaves out belongs to it
        missing = sum(pitch not in weights for pitch in classes)
        outside = sum(weights.values()) - inside
        return inside - 2 * outside - 0.5 * missing + _ROOT_WEIGHT * (lowest % 12 == root) * max(weights.values()) / 4, -len(name)

    return max(OPEN_SHAPES, key=fit)


def _shape_classes(name: str, capo: int) -> tuple[set[int], int]:
    frets = OPEN_SHAPES[name]
    pitches = [STANDARD.open_pitch(len(frets) - at) + capo + int(fret) for at, fret in enumerate(frets) if fret != "x"]
    return {pitch % 12 for pitch in pitches}, pitches[0] % 12


LAYERS: dict[str, Layer] = {
    "melody": Layer("melody", "the melody alone", melody),
    "bass": Layer("bass-line", "the bass alone", bass),
    "strum": Layer("strum", "open chords to strum", strum),
}
