"""Bars struck at fewer of their onsets: what every way that thins a rhythm is made of."""

from collections.abc import Callable, Collection
from fractions import Fraction

from clear_steps.core.easier.rewriting import Events, struck_at, struck_onsets
from clear_steps.core.easier.ways.scene import Rewrite, Scene
from clear_steps.core.score import Bar

Stays = Callable[[Scene, int, Bar], Collection[Fraction]]
"""The onsets of a bar (by index) that stay, of those at which it is struck."""
_STRONG = -1  # metrical weight of the bar's start and its middle


def thinned(stays: Stays, heard: Callable[[Bar], Bar] = lambda bar: bar) -> Rewrite:
    """The bar, or what is heard of it, struck where something stays or was given back, at its first note at
    least."""

    def rewrite(scene: Scene, index: int) -> Events | None:
        bar = heard(scene.bar(index))
        struck = list(struck_onsets(bar))
        own = stays(scene, index, bar)
        kept = {at for at in struck if at in own or at in scene.more_at(index)} or set(struck[:1])
        fewer = len(kept) < sum(bool(event.struck) for event in scene.bar(index).events)
        return struck_at(bar, kept) if fewer else None

    return rewrite


def on_grid(beats: Fraction) -> Stays:
    """What falls on every so many beats; of beats of three eighths their long and short for half beats."""

    def stays(_: Scene, index: int, bar: Bar) -> set[Fraction]:
        beat = bar.metre.beat_quarters
        if beat.numerator % 3 == 0 and beats < 1:
            return {at for at in struck_onsets(bar) if at % beat in (0, beat * 2 / 3)}
        return {at for at in struck_onsets(bar) if at % (beat * beats) == 0}

    return stays


def on_beats(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    """What falls on a beat."""
    return {at for at in struck_onsets(bar) if at % bar.metre.beat_quarters == 0}


def on_strong_beats(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    """What falls on the bar's start and its middle."""
    begins = scene.part.starts_at(index)
    return {at for at in struck_onsets(bar) if bar.metre.weight_at(begins + at) >= _STRONG}


def once_a_bar(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    """What falls on the bar's start."""
    return {Fraction(0)}


def carrying(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    """What carries the tune of the original."""
    return {note.at for note in scene.wanted[index].tune if note.carries}
