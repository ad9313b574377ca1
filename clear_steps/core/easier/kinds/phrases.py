"""Fewer things to remember, simpler lines: octaves, walking basses, last-time variations, percussion,
tuplets."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import each, plain, top_fret, whole_bar, with_notes
from clear_steps.core.score import ARRIVING, Bar, Event, Note, Part, Technique
from clear_steps.core.score.tuning import bass_from

_OCTAVE_FRETS = 12
_STRAIGHT = {3: 2, 5: 4, 6: 4, 7: 4}  # notes to the beat, and to how many they are straightened
_MOST_DIFFERENT = Fraction(1, 2)  # of a bar's onsets, for it to be called a variation


def another_octave(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A bar twelve frets lower where all of it lies from the 12th fret on; or higher, where the frets are
    narrower, if the hand gets there."""
    bar = part.bars[index]
    notes = [note for event in bar.events for note in event.notes if not note.dead]
    if not notes or any(Technique.NATURAL_HARMONIC in note.techniques for note in notes):
        return
    if all(note.fret >= _OCTAVE_FRETS for note in notes):
        yield whole_bar(bar, index, [_moved(event, -_OCTAVE_FRETS) for event in bar.events])
    elif all(0 < note.fret <= top_fret(part, index) - _OCTAVE_FRETS for note in notes):
        yield whole_bar(bar, index, [_moved(event, _OCTAVE_FRETS) for event in bar.events])


def _moved(event: Event, frets: int) -> Event:
    return with_notes(
        event,
        [note if note.dead else replace(note, fret=note.fret + frets, finger=None) for note in event.notes],
    )


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
    """An alternating or walking bass as the bar's first bass note, on the first beat and the middle of the
    bar."""
    bar = part.bars[index]
    first = next((note for event in bar.events for note in event.struck if _is_bass(part, note)), None)
    if first is None:
        return
    strong = {Fraction(0), bar.quarters / 2} if bar.metre.beats % 2 == 0 else {Fraction(0)}
    changes = []
    for onset, event in zip(bar.onsets, bar.events, strict=True):
        basses = [note for note in event.struck if _is_bass(part, note)]
        if not basses or (onset in strong and basses[0].string == first.string):
            continue
        others = [note for note in event.notes if note not in basses]
        kept = [*others, plain(first, first.string, first.fret)] if onset in strong else others
        if len({note.string for note in kept}) == len(kept):
            changes.append(Change(index, onset, (event,), (with_notes(event, kept),)))
    if changes:
        yield tuple(changes)


def _is_bass(part: Part, note: Note) -> bool:
    return note.string >= bass_from(part.tuning.strings) and not note.dead


def percussion_out(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Percussive hits left out."""
    yield from each(
        part, index, lambda event: (with_notes(event, [note for note in event.notes if not note.dead]),)
    )


def like_before(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A bar that varies an earlier one, played as that one was: less to remember; where a phrase ends it must
    end as that one does."""
    bar, closes = part.bars[index], _closes(part, index)
    for earlier in reversed(part.bars[:index]):
        fits = earlier.metre == bar.metre and earlier.quarters == bar.quarters and not _begins_tied(earlier)
        if fits and _varies(earlier, bar) and (not closes or _end(earlier) == _end(bar)):
            yield whole_bar(bar, index, earlier.events)
            return


def _closes(part: Part, index: int) -> bool:
    """Whether a section, an ending, a repeat or the song ends with the bar, or silence follows it."""
    bar, following = part.bars[index], part.bars[index + 1 : index + 2]
    signs = bar.endings or bar.repeat_times or bar.double_bar
    return bool(
        signs
        or not following
        or following[0].silent
        or any(section.first_bar == index + 1 for section in part.sections)
    )


def _end(bar: Bar) -> tuple[Fraction, set[tuple[int, int]]]:
    """When and where the last notes of a bar are struck."""
    struck = (
        (onset, _places(event)) for onset, event in zip(bar.onsets, bar.events, strict=True) if event.struck
    )
    return max(struck, key=lambda row: row[0], default=(bar.quarters, set()))


def _varies(earlier: Bar, bar: Bar) -> bool:
    before = dict(zip(earlier.onsets, earlier.events, strict=True))
    same = sum(
        onset in before and _places(before[onset]) == _places(event)
        for onset, event in zip(bar.onsets, bar.events, strict=True)
    )
    named, wanted = _chords(earlier), _chords(bar)
    other_chord = any(named.get(onset, name) != name for onset, name in wanted.items())
    alike = same >= _MOST_DIFFERENT * len(bar.events)
    return earlier.events != bar.events and not bar.silent and alike and not other_chord


def _chords(bar: Bar) -> dict[Fraction, str]:
    return {onset: event.chord for onset, event in zip(bar.onsets, bar.events, strict=True) if event.chord}


def _places(event: Event) -> set[tuple[int, int]]:
    return {(note.string, note.fret) for note in event.notes}


def _begins_tied(bar: Bar) -> bool:
    return any(note.tied or note.techniques & ARRIVING for note in bar.events[0].notes)


def straightened(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Tuplets of a beat straightened: three as two halves, more as four quarters of the beat; the three
    eighths of a 6/8 beat are none."""
    bar = part.bars[index]
    rows = list(zip(bar.onsets, bar.events, strict=True))
    changes: list[Change] = []
    for at, (onset, _) in enumerate(rows):
        for count, straight in _STRAIGHT.items():
            tuplet = tuple(event for _, event in rows[at : at + count])
            if (
                len(tuplet) == count
                and onset % bar.metre.beat_quarters == 0
                and _fills(tuplet, bar.metre.beat_quarters)
            ):
                kept = [tuplet[round(place * count / straight)] for place in range(straight)]
                length = bar.metre.beat_quarters / straight
                changes.append(
                    Change(
                        index,
                        onset,
                        tuplet,
                        tuple(replace(_unslurred(event), quarters=length) for event in kept),
                    )
                )
    if changes:
        yield tuple(changes)


def _fills(tuplet: Sequence[Event], beat: Fraction) -> bool:
    length = beat / len(tuplet)
    divides_evenly = length.denominator & (length.denominator - 1) == 0  # written without a tuplet's digit
    return not divides_evenly and all(
        event.quarters == length and not any(note.tied for note in event.notes) for event in tuplet
    )


def _unslurred(event: Event) -> Event:
    return replace(
        event, notes=tuple(replace(note, techniques=note.techniques - ARRIVING) for note in event.notes)
    )


def breath_before(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """The last note before the bar left out, then the last two: time for the hand to move."""
    before = part.bars[index - 1] if index else None
    if (
        before is None
        or any(note.tied for note in part.bars[index].events[0].notes)
        or _begins_tied(part.bars[index])
    ):
        return
    for count in (1, 2):
        last = before.events[-count:]
        rests = tuple(with_notes(event, ()) for event in last)
        if len(before.events) > (count if before.pickup else count + 1) and all(
            event.notes for event in last
        ):
            yield (Change(index - 1, before.onsets[-count], last, rests),)
