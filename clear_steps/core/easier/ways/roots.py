"""Way 5, root riff and hook: power chords and doublings to roots in place; then the accented and the moving
notes only, in their own rhythm."""

from collections.abc import Iterator, Sequence
from fractions import Fraction

from clear_steps.core.easier.rewriting import Events, only_notes, struck_onsets
from clear_steps.core.easier.voices import is_power_chord
from clear_steps.core.easier.ways.scene import Choice, Option, Scene
from clear_steps.core.easier.ways.thinning import (
    carrying,
    on_beats,
    on_strong_beats,
    once_a_bar,
    thinned,
)
from clear_steps.core.score import Bar, Event, Note, Technique

_FINEST = Fraction(1, 2)  # of a beat, that a repeated note may be


def thinner_texture() -> Choice:
    """Root and fifth of a fuller chord, then the root, or what moves, alone."""
    return Choice(
        "texture",
        (
            Option("root-fifth", "root and fifth, two strings", _root_and_fifth),
            Option("root", "the root alone, one string", _root_alone),
        ),
    )


def thinner_riff() -> Choice:
    """Fewer strokes, the riff's own: repeats of a note first, then all that is neither accented nor moves."""
    return Choice(
        "rhythm",
        (
            Option("repeats", "leave out the quick repeats of a note", thinned(_without_quick_repeats)),
            Option(
                "moving",
                "only the notes that move or are accented, and the beats",
                thinned(_moving_and_beats),
            ),
            Option("moving", "only the notes that move or are accented", thinned(_moving)),
            Option("beats", "only the notes on the beat", thinned(on_beats)),
            Option("half-bars", "only the notes on 1 and in the middle of the bar", thinned(on_strong_beats)),
            Option("once", "only the first note of the bar", thinned(once_a_bar)),
        ),
        thins=True,
    )


def _root_and_fifth(scene: Scene, index: int) -> Events | None:
    part, bar = scene.part, scene.bar(index)

    def lowest_two(_: int, event: Event) -> Sequence[Note]:
        fuller = len(event.notes) > 2 and is_power_chord(part, event.notes)
        return sorted(event.notes, key=part.pitch_of)[:2] if fuller else event.notes

    made = only_notes(bar, lowest_two)
    return made if made != bar.events else None


def _root_alone(scene: Scene, index: int) -> Events | None:
    """What carries the riff; dead notes and what is held stay as they are."""
    voices, bar = scene.voices(index), scene.bar(index)
    kept_strings = {each.tune.string for each in voices if each.tune}
    made = only_notes(
        bar,
        lambda number, event: (
            [tune]
            if (tune := voices[number].tune)
            else [note for note in event.notes if note.dead or (note.tied and note.string in kept_strings)]
        ),
    )
    return made if made != bar.events else None


def _without_quick_repeats(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    grid = bar.metre.beat_quarters * _FINEST
    return {at for at in struck_onsets(bar) if at % grid == 0} | carrying(scene, index, bar)


def _moving_and_beats(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    return carrying(scene, index, bar) | on_beats(scene, index, bar)


def _moving(scene: Scene, index: int, bar: Bar) -> set[Fraction]:
    """Where accents are written they say what moves; the first note stays."""
    first = set(list(struck_onsets(bar))[:1])
    return first | (set(_accented(bar)) or carrying(scene, index, bar))


def _accented(bar: Bar) -> Iterator[Fraction]:
    for onset, event in zip(bar.onsets, bar.events, strict=True):
        if any(Technique.ACCENT in event.techniques_of(note) for note in event.struck):
            yield onset
