"""Way 4, pushes onto the beat: what is struck early and held over is struck on the beat instead."""

from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.rewriting import Events, lasting
from clear_steps.core.easier.ways.scene import Choice, Option, Scene, Scope
from clear_steps.core.score import Bar, Event, Part

_EARLY = Fraction(1, 2)  # of a beat, at most


def pushes() -> Choice:
    """All of the song's, or none: a push is one thing to learn."""
    return Choice(
        "pushes", (Option("push", "change chords on the beat, not before it", onto_the_beat),), Scope.SONG
    )


def onto_the_beat(scene: Scene, index: int) -> Events | None:
    """The bar without the push it ends with, struck where the last bar's is held over, pushes within it moved
    to their beat."""
    part, bar = scene.part, scene.bar(index)
    events = list(bar.events)
    if index and is_pushed_over(part, index - 1):
        name = part.bars[index - 1].events[-1].chord
        events[0] = replace(lasting(events[0], events[0].quarters), chord=events[0].chord or name)
    if is_pushed_over(part, index) and len(events) > 1:
        events[-2:] = [replace(events[-2], quarters=events[-2].quarters + events[-1].quarters)]
    events = _within(replace(bar, events=tuple(events)))
    return tuple(events) if tuple(events) != bar.events else None


def is_pushed_over(part: Part, index: int) -> bool:
    """Whether a bar ends with something struck within half a beat of the bar line and held over it."""
    bar, following = part.bars[index], part.bars[index + 1 : index + 2]
    if not bar.events or not following or not following[0].events:
        return False
    last, first = bar.events[-1], following[0].events[0]
    early = last.quarters <= _EARLY * bar.metre.beat_quarters and len(bar.events) > 1
    return bool(early and last.struck and first.notes and not first.struck and bar.events[-2].notes)


def _within(bar: Bar) -> list[Event]:
    """Struck early within the bar and held over a beat: struck on it."""
    beat, found = bar.metre.beat_quarters, list[Event]()
    for onset, event in zip(bar.onsets, bar.events, strict=True):
        to_beat = -onset % beat
        early = 0 < to_beat <= _EARLY * beat and event.quarters > to_beat
        another = bool(found) and bool(found[-1].notes) and _places(found[-1]) != _places(event)
        if event.struck and early and another:
            found[-1] = replace(found[-1], quarters=found[-1].quarters + to_beat)
            found.append(replace(event, quarters=event.quarters - to_beat))
        else:
            found.append(event)
    return found


def _places(event: Event) -> set[tuple[int, int]]:
    return {(note.string, note.fret) for note in event.notes}
