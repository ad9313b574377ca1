"""Notes over a grip that are not of it: where they come, and what stops them."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from fractions import Fraction
from itertools import groupby

from clear_steps.core.score.techniques import HARMONICS
from clear_steps.core.teach.words.facts import MomentFact, NoteFact
from clear_steps.core.teach.words.notes import Voice
from clear_steps.core.teach.words.rhythm import place_words
from clear_steps.core.teach.words.segments import Held, Segment


def others_words(own: Held, cell: int, voice: Voice, is_known: bool) -> Iterator[str]:
    """Notes that are not the grip's, those that every bar has told once; nothing where the pattern had them
    before."""
    places: dict[tuple[Fraction, tuple[NoteFact, ...]], list[list[int]]] = {}
    others = [other_notes(moment, own.segment) for moment in own.moments]
    for notes, group in groupby(range(len(own.moments)), key=lambda at: others[at]):
        which = list(group)
        if notes:
            places.setdefault((own.moments[which[0]].onset, notes), []).append(which)
    bars = {moment.at.bar for moment in own.moments}
    every = {key for key, found in places.items() if {own.moments[at].at.bar for at, *_ in found} == bars}
    before, voice.others = voice.others, _signature(every) if len(every) == len(places) and cell else None
    if is_known and voice.others is not None and before is not None:
        if voice.others == before:
            return
        if before and not voice.others:
            yield voice.say("without-others")
    for key, found in places.items():
        said = spots_words(own, key[1], voice)
        in_all = len(bars) > 1 and key in every
        for which in found[: 1 if in_all else None]:
            words = _where(own, which, cell, said, voice, bar=not in_all)
            yield voice.say("each-bar", what=words) if in_all else words


def _signature(found: Iterable[tuple[Fraction, tuple[NoteFact, ...]]]) -> frozenset[tuple[object, ...]]:
    return frozenset((onset, *((note.string, note.fret) for note in notes)) for onset, notes in found)


def other_notes(moment: MomentFact, segment: Segment) -> tuple[NoteFact, ...]:
    if segment.grip is None or moment.held:
        return ()
    grip = segment.grip.frets
    return tuple(
        replace(note, techniques=frozenset(), half_tones=None, released=False, picking=None)
        for note in moment.notes
        if not note.dead and grip.get(note.string, 0) != note.fret and not note.techniques & HARMONICS
    )


def spots_words(own: Held, notes: Sequence[NoteFact], voice: Voice) -> str:
    """`2 at 3 with the little finger`; a finger that the grip has already is not named."""
    fingers = set((own.segment.grip.fingers or {}).values()) if own.segment.grip else set()
    spots = []
    for note in notes:
        values: dict[str, str | int] = {"string": note.string, "fret": note.fret}
        if not note.fret:
            spots.append(voice.say("string-open", string=note.string))
        elif note.finger and note.finger not in fingers:
            spots.append(voice.say("finger-at", finger=voice.say(f"finger-{note.finger}"), **values))
        else:
            spots.append(voice.say("at", **values))
    return voice.catalogue.listed(spots)


def _where(own: Held, which: Sequence[int], cell: int, said: str, voice: Voice, bar: bool) -> str:
    """`the last time 2nd at 3`, `in bar two 1st open on beat 3`; `bar`: which of several is said."""
    first = own.moments[which[0]]
    in_bar = [moment for moment in own.moments if moment.at.bar == first.at.bar]
    times = len(own.moments if bar else in_bar) // cell if cell else 0
    if times > 1 and which[0] // cell == which[-1] // cell == times - 1:
        return voice.say("last-time", what=said)
    place = place_words(first.onset, first.metre, voice.catalogue)
    if bar and own.moments[-1].at.bar != own.moments[0].at.bar:
        number = first.at.bar - own.moments[0].at.bar + 1
        return voice.say("in-bar", bar=number, place=place, what=said)
    return voice.say("at-place", place=place, what=said)
