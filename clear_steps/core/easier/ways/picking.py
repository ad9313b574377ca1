"""Way 6, melody and one bass: picked pieces and chord melodies keep the melody where it is and a bass on the
strong beats; inner notes go first."""

from dataclasses import replace
from fractions import Fraction
from math import ceil

from clear_steps.core.easier.kinds.bars import with_notes
from clear_steps.core.easier.kinds.broken import struck_together
from clear_steps.core.easier.rewriting import Events, only_notes
from clear_steps.core.easier.ways.scene import Choice, Option, Rewrite, Scene, first_of
from clear_steps.core.easier.ways.thinning import on_grid, thinned
from clear_steps.core.score import Event, Note

_STRONG = -1  # metrical weight of the bar's start and its middle


def fewer_voices() -> Choice:
    """Inner notes out, then the bass thinner, then the melody with a bass a bar, at last the melody alone."""
    return Choice(
        "texture",
        (
            Option("one-inner", "melody, bass and one note between", _voices(inner=1)),
            Option("inner", "melody and bass, nothing between", _voices(inner=0)),
            Option("bass-strong", "melody, and a bass note on 1 and 3", _voices(bass_from=_STRONG)),
            Option("bass-once", "melody, and one bass note a bar", _voices(bass_from=0)),
            Option("melody-alone", "the melody alone", _voices(bass_from=1)),
        ),
    )


def slower_pattern() -> Choice:
    """The picking pattern at half its speed: what lies between its halves of the beat, then its beats."""
    return Choice(
        "rhythm",
        (
            Option(
                "half-speed",
                "the pattern at half speed: only what falls on the half beats",
                thinned(on_grid(Fraction(1, 2))),
            ),
            Option("beats", "only what falls on the beats", thinned(on_grid(Fraction(1)))),
            Option("onto-beats", "every melody note on its beat, with the bass", _onto_beats),
            Option(
                "half-bars",
                "only what falls on 1 and in the middle of the bar",
                thinned(on_grid(Fraction(2))),
            ),
        ),
        thins=True,
    )


def struck_as_one() -> Choice:
    """The broken chord struck together: the hand holds the shape either way."""
    return Choice(
        "broken", (Option("together", "strike the notes of each beat together", first_of(struck_together)),)
    )


def _onto_beats(scene: Scene, index: int) -> Events | None:
    """Of every beat its melody note and its bass note together on it; nothing where a beat has two melody
    notes, or something is held on."""
    bar, voices, beat = scene.bar(index), scene.voices(index), scene.bar(index).metre.beat_quarters
    if any(note.tied for event in bar.events for note in event.notes):
        return None
    events: list[Event] = []
    for number in range(ceil(bar.quarters / beat)):
        inside = [at for at, onset in enumerate(bar.onsets) if onset // beat == number]
        tunes = [voices[at].tune for at in inside if voices[at].tune]
        basses = [voices[at].bass for at in inside if voices[at].bass]
        if len(tunes) > 1:
            return None
        quarters = min(beat, bar.quarters - number * beat)
        notes = {note.string: note for note in (*basses[:1], *tunes) if note}
        if notes or not events:
            like = bar.events[inside[0]] if inside else Event(quarters)
            chord = next((bar.events[at].chord for at in inside if bar.events[at].chord), "")
            events.append(with_notes(replace(like, quarters=quarters, chord=chord), notes.values()))
        else:
            events[-1] = replace(events[-1], quarters=events[-1].quarters + quarters)
    return tuple(events) if len(events) < sum(bool(event.struck) for event in bar.events) else None


def _voices(inner: int = 0, bass_from: int = -99) -> Rewrite:
    """The melody, the bass from a metrical weight on, and of what lies between so many notes at once."""

    def rewrite(scene: Scene, index: int) -> Events | None:
        bar, voices = scene.bar(index), scene.voices(index)
        begins = scene.part.starts_at(index)
        if not any(each.tune for each in voices):
            return None  # a bass alone is all there is

        def choose(number: int, event: Event) -> list[Note]:
            own = voices[number]
            strong = bar.metre.weight_at(begins + bar.onsets[number]) >= bass_from
            kept = [note for note in (own.tune, own.bass if strong else None) if note]
            between = [note for note in bar.events[number].struck if note not in own.notes and not note.dead]
            if kept and inner and len(bar.events[number].struck) > 2:
                kept += between[:inner]
            held = [note for note in bar.events[number].notes if note.tied and not bar.events[number].struck]
            return sorted(kept or held, key=lambda note: note.string)

        made = only_notes(bar, choose)
        return made if made != bar.events and any(event.notes for event in made) else None

    return rewrite
