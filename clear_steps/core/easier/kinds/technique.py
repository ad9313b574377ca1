"""Plainer technique: bends, slurs, taps, harmonics, ornaments."""

from collections.abc import Callable, Iterator
from dataclasses import replace
from fractions import Fraction
from functools import partial

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import each, plain, whole_bar, with_notes, without
from clear_steps.core.score import ARRIVING, Bend, Event, Note, Part, Technique

_QUICK = Fraction(1, 2)  # quarters before a slide that stands for a bend
_OWN_ORNAMENTS = {
    Technique.VIBRATO,
    Technique.SLIDE_IN_ABOVE,
    Technique.SLIDE_IN_BELOW,
    Technique.SLIDE_OUT_DOWN,
    Technique.SLIDE_OUT_UP,
}
# What a whole event may lose without losing a note; let ring, accent and staccato ask little and stay.
_SHARED_ORNAMENTS = {
    Technique.TREMOLO,
    Technique.FREE_TREMOLO,
    Technique.TRILL,
    Technique.RAKE,
    Technique.WHAMMY_DIP,
    Technique.PALM_MUTE,
    Technique.SLAP,
    Technique.PINCH_HARMONIC,
    Technique.ARTIFICIAL_HARMONIC,
    Technique.PICK_AND_FINGERS,
    Technique.PRE_BEND,
    Technique.SHIFT_SLIDE,
    Technique.GRACE,
}


def leave_out(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Tremolo as plain notes, pinched harmonics as plain notes; vibrato, mutes, trills and dead notes left
    out."""

    def rewrite(event: Event) -> tuple[Event, ...]:
        notes = [without(note, _OWN_ORNAMENTS) for note in event.notes if not note.dead]
        bent = any(note.bend for note in notes)
        shared = event.techniques - _SHARED_ORNAMENTS - (set() if bent else {Technique.UNISON_BEND})
        lighter = with_notes(event, notes)
        return (replace(lighter, techniques=shared) if notes else lighter,)

    yield from each(part, index, rewrite)


def ring_out(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Strings need not ring on, all through the bar: ringing that comes and goes note by note is harder to
    keep in mind than either."""
    bar = part.bars[index]
    dry = tuple(map(without_ringing, bar.events))
    if dry != bar.events:
        yield whole_bar(bar, index, dry)


def without_ringing(event: Event) -> Event:
    """The event with its notes stopped at the next."""
    return replace(event, techniques=event.techniques - {Technique.LET_RING})


def picked(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Hammer-ons, pull-offs and slides as picked notes."""
    yield from each(
        part,
        index,
        lambda event: (replace(event, notes=tuple(without(note, ARRIVING) for note in event.notes)),),
    )


def slurred(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Fast picked notes in pairs on one string: the second hammered on or pulled off."""
    bar, changes, free = part.bars[index], [], True
    for onset, before, event in zip(bar.onsets[1:], bar.events, bar.events[1:], strict=False):
        technique = _slur_between(before, event) if free else None
        free = technique is None  # a pair, then the next one is picked again
        if technique:
            note = replace(event.notes[0], techniques=event.notes[0].techniques | {technique}, picking=None)
            changes.append(Change(index, onset, (event,), (replace(event, notes=(note,), stroke=None),)))
    if changes:
        yield tuple(changes)


def _slur_between(before: Event, event: Event) -> Technique | None:
    if (
        len(before.struck) != 1
        or len(event.struck) != 1
        or before.quarters > Fraction(1, 2)
        or before.techniques | event.techniques
    ):
        return None
    a, b = before.struck[0], event.struck[0]
    if a.string != b.string or a.fret == b.fret or a.bend or b.bend or b.techniques or a.dead:
        return None
    return Technique.HAMMER_ON if b.fret > a.fret else Technique.PULL_OFF


def bend_to_fret(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """The fret that sounds like the bend's target; a release is left out."""

    def straight(note: Note) -> Note:
        if note.bend is None:
            return note
        target = note.fret + round(note.bend.half_tones)
        bare = without(replace(note, bend=None), ARRIVING if note.bend.half_tones >= 1 else ())
        return bare if note.tied or target > part.highest_fret else replace(bare, fret=target, finger=None)

    yield from each(part, index, lambda event: (_unbent(event, [straight(note) for note in event.notes]),))


def bend_to_slide(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """The fretted note, then a quick slide to the bend's target: after half its time, an eighth at most."""

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        bent = event.struck[0] if len(event.notes) == 1 and event.struck else None
        if (
            bent is None
            or bent.bend is None
            or bent.bend.half_tones < 1
            or bent.fret + round(bent.bend.half_tones) > part.highest_fret
        ):
            return None
        early = min(event.quarters / 2, _QUICK)
        if early < Fraction(1, 8):
            return None
        start = _unbent(
            replace(event, quarters=early), [without(replace(bent, bend=None), {Technique.VIBRATO})]
        )
        arrival = plain(bent, bent.string, bent.fret + round(bent.bend.half_tones))
        arrival = replace(
            arrival,
            techniques=frozenset({Technique.SLIDE}) | (bent.techniques & {Technique.VIBRATO}),
            picking=None,
        )
        return (start, Event(event.quarters - early, (arrival,), start.techniques, free=event.free))

    yield from each(part, index, rewrite)


def smaller_bend(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Bends without their release; then bends of more than a whole tone as whole-tone bends from a higher
    fret."""

    def held(note: Note) -> Note:
        return (
            replace(note, bend=replace(note.bend, released=False))
            if note.bend and note.bend.released and note.bend.half_tones
            else note
        )

    def nearer(note: Note) -> Note:
        if note.bend is None or note.bend.half_tones <= 2 or note.tied:
            return held(note)
        up = int(note.bend.half_tones) - 2
        return (
            replace(note, fret=note.fret + up, bend=Bend(note.bend.half_tones - up), finger=None)
            if note.fret + up <= part.highest_fret
            else note
        )

    for change in (held, nearer):
        yield from each(part, index, partial(_with_each, change))


def whammy_to_bend(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A dip of the whammy bar as a half-tone bend up from the fret below: it comes from under the note as
    well."""

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        dipped = event.struck[0] if len(event.notes) == 1 and event.struck else None
        if (
            Technique.WHAMMY_DIP not in event.techniques
            or dipped is None
            or dipped.bend
            or dipped.dead
            or dipped.fret < 2
        ):
            return None
        bent = replace(without(dipped, ARRIVING), fret=dipped.fret - 1, bend=Bend(Fraction(1)), finger=None)
        return (replace(event, notes=(bent,), techniques=event.techniques - {Technique.WHAMMY_DIP}),)

    yield from each(part, index, rewrite)


def _with_each(change: Callable[[Note], Note], event: Event) -> tuple[Event, ...]:
    return (replace(event, notes=tuple(map(change, event.notes))),)


def _unbent(event: Event, notes: list[Note]) -> Event:
    lighter = with_notes(event, notes)
    return (
        lighter
        if any(note.bend for note in notes)
        else replace(lighter, techniques=event.techniques - {Technique.PRE_BEND, Technique.UNISON_BEND})
    )


def harmonic_to_plain(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A natural harmonic as the plain note of the same pitch, on its own string."""

    def plainer(note: Note) -> Note:
        if Technique.NATURAL_HARMONIC not in note.techniques:
            return note
        fret = part.pitch_of(note) - part.tuning.open_pitch(note.string) - part.capo
        while fret > 12:
            fret -= 12
        return plain(note, note.string, fret)

    def rewrite(event: Event) -> tuple[Event, ...]:
        return (
            replace(
                with_notes(event, map(plainer, event.notes)),
                techniques=event.techniques - {Technique.TOUCHED_HARMONIC},
            ),
        )

    yield from each(part, index, rewrite)


def tap_to_fretted(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Tapped notes fretted by the left hand; then an octave lower on the thicker strings."""

    def fretted(note: Note) -> Note:
        return without(note, {Technique.TAP}) if Technique.TAP in note.techniques else note

    def lower(note: Note) -> Note:
        if Technique.TAP not in note.techniques:
            return without(note, {Technique.PULL_OFF, Technique.HAMMER_ON})
        return plain(note, note.string, note.fret - 12) if note.fret >= 12 else fretted(note)

    if not any(Technique.TAP in note.techniques for event in part.bars[index].events for note in event.notes):
        return
    yield from each(part, index, lambda event: (replace(event, notes=tuple(map(fretted, event.notes))),))
    yield from each(part, index, lambda event: (replace(event, notes=tuple(map(lower, event.notes))),))
