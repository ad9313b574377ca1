"""Fewer things to remember, simpler lines: octaves, walking basses, last-time variations, percussion, tuplets."""

from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import each, plain, whole_bar, with_notes
from clear_steps.core.score import ARRIVING, Bar, Event, Note, Part, Technique
from clear_steps.core.score.ringing import BASS_STRING

_OCTAVE_FRETS = 12
_MOST_DIFFERENT = Fraction(1, 2)  # of a bar's onsets, for it to be called a variation


def octave_lower(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A bar high on the neck twelve frets lower, where all of it lies from the 12th fret on."""
    notes = [note for event in part.bars[index].events for note in event.notes if not note.dead]
    if not notes or any(note.fret < _OCTAVE_FRETS or Technique.NATURAL_HARMONIC in note.techniques for note in notes):
        return

    def lower(event: Event) -> tuple[Event, ...]:
        return (with_notes(event, [note if note.dead else replace(note, fret=note.fret - _OCTAVE_FRETS, finger=None) for note in event.notes]),)

    yield whole_bar(part.bars[index], index, [made for event in part.bars[index].events for made in lower(event)])


def octaves_to_line(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A line doubled in octaves as a single line: the upper note alone."""

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        sounding = [note for note in event.notes if not note.dead]
        pitches = {part.pitch_of(note) % 12 for note in sounding}
        if len(sounding) < 2 or len(pitches) > 1:
            return None
        return (with_notes(event, [max(sounding, key=part.pitch_of)]),)

    yield from each(part, index, rewrite)


def root_on_strong_beats(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """An alternating or walking bass as the bar's first bass note, on the first beat and the middle of the bar."""
    bar = part.bars[index]
    first = next((note for event in bar.events for note in event.struck if _is_bass(note)), None)
    if first is None:
        return
    strong = {Fraction(0), bar.quarters / 2} if bar.metre.beats % 2 == 0 else {Fraction(0)}
    changes = []
    for onset, event in zip(bar.onsets, bar.events, strict=True):
        basses = [note for note in event.struck if _is_bass(note)]
        if not basses or (onset in strong and basses[0].string == first.string):
            continue
        others = [note for note in event.notes if note not in basses]
        kept = [*others, plain(first, first.string, first.fret)] if onset in strong else others
        if len({note.string for note in kept}) == len(kept):
            changes.append(Change(index, onset, (event,), (with_notes(event, kept),)))
    if changes:
        yield tuple(changes)


def _is_bass(note: Note) -> bool:
    return note.string >= BASS_STRING and not note.dead


def percussion_out(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Percussive hits left out."""
    yield from each(part, index, lambda event: (with_notes(event, [note for note in event.notes if not note.dead]),))


def like_before(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A bar that varies an earlier one, played as that one was: less to remember."""
    bar = part.bars[index]
    for earlier in reversed(part.bars[:index]):
        if earlier.metre == bar.metre and earlier.quarters == bar.quarters and _varies(earlier, bar) and not _begins_tied(earlier):
            yield whole_bar(bar, index, earlier.events)
            return


def _varies(earlier: Bar, bar: Bar) -> bool:
    before = dict(zip(earlier.onsets, earlier.events, strict=True))
    same = sum(onset in before and _places(before[onset]) == _places(event) for onset, event in zip(bar.onsets, bar.events, strict=True))
    return earlier.events != bar.events and not bar.silent and same >= _MOST_DIFFERENT * len(bar.events)


def _places(event: Event) -> set[tuple[int, int]]:
    return {(note.string, note.fret) for note in event.notes}


def _begins_tied(bar: Bar) -> bool:
    return any(note.tied or note.techniques & ARRIVING for note in bar.events[0].notes)


def straightened(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Triplets of a beat straightened: the first and the last, in halves."""
    bar = part.bars[index]
    beat = bar.metre.beat_quarters
    rows = list(zip(bar.onsets, bar.events, strict=True))
    changes = []
    for at in range(len(rows) - 2):
        onset, third = rows[at][0], [event for _, event in rows[at : at + 3]]
        if onset % beat == 0 and all(event.quarters == beat / 3 for event in third) and all(not note.tied for event in third for note in event.notes):
            halves = tuple(replace(_unslurred(event), quarters=beat / 2) for event in (third[0], third[2]))
            changes.append(Change(index, onset, tuple(third), halves))
    if changes:
        yield tuple(changes)


def _unslurred(event: Event) -> Event:
    return replace(event, notes=tuple(replace(note, techniques=note.techniques - ARRIVING) for note in event.notes))


def breath_before(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """The last note before the bar left out, then the last two: time for the hand to move."""
    before = part.bars[index - 1] if index else None
    if before is None or any(note.tied for note in part.bars[index].events[0].notes) or _begins_tied(part.bars[index]):
        return
    for count in (1, 2):
        last = before.events[-count:]
        rests = tuple(with_notes(event, ()) for event in last)
        if len(before.events) > count + 1 and all(event.notes for event in last):
            yield (Change(index - 1, before.onsets[-count], last, rests),)
