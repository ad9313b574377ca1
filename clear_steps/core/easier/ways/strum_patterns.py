"""Way 3, one strum pattern a section, from the small library that comes with the ladder."""

import itertools
from collections.abc import Collection, Iterable
from dataclasses import replace
from fractions import Fraction
from functools import partial

from clear_steps.core.easier.rewriting import Events, struck_at, struck_onsets
from clear_steps.core.easier.ways.scene import Choice, Option, Scene
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Bar, Event, Stroke
from clear_steps.core.score.strumming import StrumPattern

_SAID = 1.0  # weight of a change that must be struck


def patterns(ladder: Ladder) -> Choice:
    """The song's own strokes on the beat, then the library's patterns, fullest first."""
    return Choice(
        "pattern",
        (
            Option("own-beats", "strum only the strokes on the beat", _own_on_the_beat),
            *(
                Option("pattern", f"strum {pattern.says}", partial(_to_pattern, pattern))
                for pattern in ladder.strum_patterns
            ),
        ),
        thins=True,
    )


def _own_on_the_beat(scene: Scene, index: int) -> Events | None:
    bar = scene.bar(index)
    beat = bar.metre.beat_quarters
    return _struck(scene, index, [onset for onset in struck_onsets(bar) if onset % beat == 0])


def _to_pattern(pattern: StrumPattern, scene: Scene, index: int) -> Events | None:
    """Another pattern is none where it does not belong: between the beats for what is struck there, on them
    for all else."""
    bar = scene.bar(index)
    if bar.pickup or pattern.off_the_beat != is_between_beats(bar):
        return None
    return _struck(scene, index, [at for at in pattern.onsets(bar.metre) if at < bar.quarters])


def is_between_beats(bar: Bar) -> bool:
    """Whether nothing is struck on a beat."""
    return bool(bar.events) and all(onset % bar.metre.beat_quarters for onset in struck_onsets(bar))


def _struck(scene: Scene, index: int, onsets: Iterable[Fraction]) -> Events | None:
    """The bar struck at these onsets and where a chord changes; None where that is no less than it has."""
    bar = scene.bar(index)
    changes = {change.at for change in scene.wanted[index].changes if change.weight >= _SAID and change.at}
    wanted = {*onsets, *changes, *scene.more_at(index)}
    if not wanted or bar.silent:
        return None
    events = struck_at(_gathered(bar, wanted), wanted, fill=_fills(bar))
    struck = sum(bool(event.struck) for event in events)
    if struck >= sum(bool(event.struck) for event in bar.events) or not struck:
        return None
    return tuple(_on_the_beat_down(bar, events))


def _gathered(bar: Bar, onsets: Collection[Fraction]) -> Bar:
    """A bass note whose chord falls away is struck with the chord: one stroke has all of it."""
    rows = list(zip(bar.onsets, bar.events, strict=True))
    events: list[Event] = []
    for number, (_, event) in enumerate(rows):
        gone = itertools.takewhile(lambda row: row[0] not in onsets, rows[number + 1 :])
        chord = next((other for _, other in gone if len(other.struck) > 1), None)
        if len(event.struck) == 1 and chord and not any(note.dead for note in chord.notes):
            own = {note.string for note in event.notes}
            notes = [*event.notes, *(note for note in chord.notes if note.string not in own)]
            event = replace(
                event, notes=tuple(sorted(notes, key=lambda note: note.string)), stroke=chord.stroke
            )
        events.append(event)
    return replace(bar, events=tuple(events))


def _fills(bar: Bar) -> bool:
    """Whether silences are short enough for a beat to be struck in them; a stop is meant."""
    return all(event.quarters < bar.metre.beat_quarters for event in bar.events if not event.notes)


def _on_the_beat_down(bar: Bar, events: Events) -> Iterable[Event]:
    onset = Fraction(0)
    for event in events:
        down = event.stroke and onset % bar.metre.beat_quarters == 0
        yield replace(event, stroke=Stroke.DOWN) if down else event
        onset += event.quarters
