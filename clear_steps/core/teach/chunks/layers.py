"""A chunk learnt layer by layer: the bass, the melody, both; the notes before what is done to them."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from enum import StrEnum

from clear_steps.core.figures.columns import stream_of
from clear_steps.core.figures.voices import voices
from clear_steps.core.score import Event, Part, Technique
from clear_steps.core.teach.chunks.chunk import Chunk, struck_in, within, written_once

# Learnt once the notes are there.
AFTERWARDS = frozenset(
    {Technique.TREMOLO, Technique.FREE_TREMOLO, Technique.SLAP, Technique.PALM_MUTE, Technique.DEAD}
)


class Layer(StrEnum):
    """What of a chunk is played; the whole of it last."""

    BASS = "bass"
    MELODY = "melody"
    NOTES = "notes"
    ALL = "all"


def voice_strings(part: Part) -> tuple[frozenset[int], frozenset[int]]:
    """The strings of the melody and of the bass; both empty where it is one voice, or one is strummed."""
    found = voices(stream_of(written_once(part)))
    return (frozenset(found[0]), frozenset(found[1])) if len(found) == 2 else (frozenset(), frozenset())


def layers(part: Part, chunks: Sequence[Chunk]) -> tuple[tuple[Layer, ...], ...]:
    """For every chunk the layers it is learnt in."""
    melody, bass = voice_strings(part)
    rows = struck_in(part)
    found: list[tuple[Layer, ...]] = []
    for chunk in chunks:
        events = [row.event for row in within(chunk, rows)]
        struck = [{note.string for note in event.struck} for event in events]
        techniques = {each for event in events for note in event.struck for each in event.techniques_of(note)}
        alone = any(strings & melody and not strings & bass for strings in struck)
        if alone and any(strings & bass for strings in struck):  # else one moves with the other: chords
            found.append((Layer.BASS, Layer.MELODY, Layer.ALL))
        elif techniques & AFTERWARDS:
            found.append((Layer.NOTES, Layer.ALL))
        else:
            found.append((Layer.ALL,))
    return tuple(found)


def with_layer(part: Part, layer: Layer) -> Part:
    """The part with one layer alone."""
    melody, bass = voice_strings(part)
    ways: dict[Layer, Callable[[Event], Event]] = {
        Layer.BASS: lambda event: _on(event, bass),
        Layer.MELODY: lambda event: _on(event, melody),
        Layer.NOTES: _plainly,
        Layer.ALL: lambda event: event,
    }
    way = ways[layer]
    bars = (replace(bar, events=tuple(map(way, bar.events))) for bar in part.bars)
    return replace(part, bars=tuple(bars))


def _on(event: Event, strings: frozenset[int]) -> Event:
    return replace(event, notes=tuple(note for note in event.notes if note.string in strings))


def _plainly(event: Event) -> Event:
    """Without dead notes, and nothing done to those that sound."""
    notes = tuple(
        replace(note, techniques=note.techniques - AFTERWARDS) for note in event.notes if not note.dead
    )
    return replace(event, notes=notes, techniques=event.techniques - AFTERWARDS)
