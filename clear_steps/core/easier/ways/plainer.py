"""Way 9, plainer technique: what is done to notes, done with less."""

from dataclasses import replace

from clear_steps.core.easier.kinds.phrases import percussion_out
from clear_steps.core.easier.kinds.technique import (
    bend_to_fret,
    bend_to_slide,
    harmonic_to_plain,
    leave_out,
    picked,
    ring_out,
    slurred,
    smaller_bend,
    tap_to_fretted,
    whammy_to_bend,
)
from clear_steps.core.easier.rewriting import Events
from clear_steps.core.easier.ways.scene import Choice, Option, Scene, first_of, one_after_another
from clear_steps.core.score import Technique

_DECORATED = frozenset({Technique.GRACE, Technique.TRILL, Technique.TREMOLO, Technique.FREE_TREMOLO})


def hammered_and_picked() -> Choice:
    """Slurs picked or picked notes slurred, whichever is easier at that speed."""
    return Choice(
        "slurs",
        (
            Option("slur", "hammer the second of two picked notes", first_of(slurred)),
            Option("pick", "pick every note, no slurs", first_of(picked)),
        ),
    )


def bends() -> Choice:
    """Bends smaller, then as slides to their target, then the target fretted."""
    return Choice(
        "bends",
        (
            Option("release", "hold the bend, no release", first_of(smaller_bend)),
            Option("bend-slide", "slide to the bend's target", first_of(bend_to_slide)),
            Option("bend-fret", "fret the note the bend goes to", first_of(bend_to_fret)),
        ),
    )


def unsaid() -> tuple[Choice, ...]:
    """What costs next to nothing, each by itself: optional notes, stops, ringing."""
    return (
        Choice("optional", (Option("optional", "leave out the notes in brackets", _optional_out),)),
        Choice("stops", (Option("let-sound", "let the strokes sound, no stops", _not_stopped),)),
        Choice("ringing", (Option("ring", "the strings need not ring on", first_of(ring_out)),)),
    )


def ornaments() -> Choice:
    """Muted hits, then all that decorates."""
    return Choice(
        "ornaments",
        (
            Option("percussion", "leave out the muted hits", first_of(percussion_out)),
            Option(
                "decorations",
                "no grace notes, trills or tremolo",
                one_after_another(first_of(percussion_out), _undecorated),
            ),
            Option("leave-out", "plain notes: no mutes, vibrato or trills", first_of(leave_out)),
        ),
    )


def unusual() -> Choice:
    """Taps, harmonics and the bar as plain notes."""
    plain = one_after_another(first_of(whammy_to_bend), first_of(harmonic_to_plain), first_of(tap_to_fretted))
    lower = one_after_another(first_of(harmonic_to_plain), first_of(tap_to_fretted, 1))
    return Choice(
        "unusual",
        (
            Option("tap", "fret the tapped notes, plain notes for harmonics", plain),
            Option("tap-low", "the tapped notes an octave lower", lower),
        ),
    )


def _not_stopped(scene: Scene, index: int) -> Events | None:
    """Without staccato."""
    events = scene.bar(index).events
    made = tuple(replace(event, techniques=event.techniques - {Technique.STACCATO}) for event in events)
    return made if made != events else None


def _optional_out(scene: Scene, index: int) -> Events | None:
    events = scene.bar(index).events
    if not any(note.optional for event in events for note in event.notes):
        return None
    made = tuple(
        replace(event, notes=tuple(note for note in event.notes if not note.optional)) for event in events
    )
    return made if any(event.notes for event in made) else None


def _undecorated(scene: Scene, index: int) -> Events | None:
    bar = scene.bar(index)
    made = tuple(
        replace(event, techniques=event.techniques - _DECORATED) if event.techniques & _DECORATED else event
        for event in bar.events
    )
    return made if made != bar.events else None
