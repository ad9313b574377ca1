"""Way 8, a line with fewer notes: decorations, repeated and passing notes go, phrase by phrase; the first,
last and highest note of a phrase stay, and its cell."""

from collections.abc import Collection, Iterable
from dataclasses import replace
from fractions import Fraction
from itertools import pairwise

from clear_steps.core.easier.rewriting import Events
from clear_steps.core.easier.ways.scene import Choice, Option, Rewrite, Scene
from clear_steps.core.easier.ways.thinning import Stays, on_grid, thinned
from clear_steps.core.score import Bar, Event, Technique

_STEP = 2  # half tones
_ANYWHERE, _HALF = Fraction(0), Fraction(1, 2)  # beats


Edges = Collection[tuple[int, Fraction]]


def fewer_notes(edges: Edges) -> Choice:
    """From repeated notes to a note a bar; `edges` are the notes (bar, onset) that stay while they can, else
    come early, else are worth no more than others."""
    grids = (
        (_HALF, "only the notes on the half beats", _ANYWHERE),
        (Fraction(1), "only the notes on the beats", _HALF),
        (Fraction(2), "only the notes on every other beat", _HALF),
        (Fraction(4), "only the first note of the bar", _HALF),
    )
    return Choice(
        "rhythm",
        (
            Option("repeated", "a repeated note once, held", _with_edges(edges, _not_repeated, _ANYWHERE)),
            Option("passing", "no passing notes off the beat", _with_edges(edges, _not_passing, _ANYWHERE)),
            *(
                Option("fewer", says, _with_edges(own, on_grid(beats), finest))
                for beats, says, fine in grids
                for own, finest in ((edges, fine), (edges, None), ((), None))
            ),
        ),
        thins=True,
    )


def _with_edges(edges: Edges, stays: Stays, finest: Fraction | None) -> Rewrite:
    """What stays of a bar and the edges of its phrases: where they are if that is on so many beats, else
    early, in place of what stays before them. Of notes that slide their target is in place."""

    def in_place(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
        grid = None if finest is None else finest * bar.metre.beat_quarters
        own = (onset for at, onset in edges if at == index and grid is not None)
        return {*stays(scene, index, bar), *(onset for onset in own if not grid or onset % grid == 0)}

    thinner = thinned(in_place, arrived)

    def rewrite(scene: Scene, index: int) -> Events | None:
        events = thinner(scene, index)
        early = [onset for at, onset in edges if at == index]
        return _early(arrived(scene.bar(index)), events, early) if events and early else events

    return rewrite


def _early(bar: Bar, events: Events, edges: Iterable[Fraction]) -> Events:
    """What is left of a bar, with the edges that are gone in place of what is struck up to a beat before
    them."""
    made = dict(zip(replace(bar, events=events).onsets, events, strict=True))
    written = dict(zip(bar.onsets, bar.events, strict=True))
    for onset in sorted(at for at in edges if at in written and at not in made):
        before = max((at for at in made if at < onset and made[at].struck), default=None)
        if before is not None and onset - before <= bar.metre.beat_quarters:
            made[before] = replace(written[onset], quarters=made[before].quarters)
    return tuple(made[onset] for onset in sorted(made))


def arrived(bar: Bar) -> Bar:
    """Every note that a slide follows on its string as the note slid to: of a bend that became a slide the
    target is the tune."""
    events: list[Event] = []
    for event in bar.events:
        before = events[-1] if events else None
        slid = len(event.notes) == 1 and Technique.SLIDE in event.notes[0].techniques
        if before and slid and len(before.notes) == 1 and before.notes[0].string == event.notes[0].string:
            note = replace(before.notes[0], fret=event.notes[0].fret, finger=None)
            events[-1] = replace(before, quarters=before.quarters + event.quarters, notes=(note,))
        else:
            events.append(event)
    return replace(bar, events=tuple(events))


def _rows(scene: Scene, bar: Bar) -> list[tuple[Fraction, int]]:
    return [
        (onset, max(scene.part.pitch_of(note) for note in event.struck))
        for onset, event in zip(bar.onsets, bar.events, strict=True)
        if event.struck
    ]


def _not_repeated(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    """All but a note off the beat that is the one before it."""
    rows = _rows(scene, bar)
    beat = bar.metre.beat_quarters
    gone = {at for (_, before), (at, pitch) in pairwise(rows) if pitch == before and at % beat}
    return {at for at, _ in rows} - gone


def _not_passing(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    """All but notes off the beat a step away from both their neighbours, or repeated."""
    rows, beat = _rows(scene, bar), bar.metre.beat_quarters
    stays = _not_repeated(scene, index, bar)
    for (_, before), (at, pitch), (_, after) in zip(rows, rows[1:], rows[2:], strict=False):
        if at % beat and 0 < abs(pitch - before) <= _STEP and 0 < abs(after - pitch) <= _STEP:
            stays.discard(at)
    return stays
