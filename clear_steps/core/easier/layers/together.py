"""Layers combined: two lines at once, chords under the melody or over the bass, two guitars on one."""

import itertools
from collections.abc import Callable, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.kinds.bars import with_notes
from clear_steps.core.easier.layers.chords import strum
from clear_steps.core.easier.layers.lines import Bars, bass, joined, melody
from clear_steps.core.easier.wanted import half_bars
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.hand import places_of
from clear_steps.core.score import Bar, Event, Note, Part, Song

_REACH_FRETS = 3  # between a melody or bass note and a fret of the shape beside it

Timed = dict[Fraction, Event]
"""A bar's events by their onset in quarters."""


def melody_and_bass(song: Song, part: Part) -> Bars:
    """The two outer voices, the inner ones left out."""
    return _merged(part, melody(song, part), bass(song, part), lambda _, upper, lower: _both(upper, lower))


def melody_and_chords(song: Song, part: Part) -> Bars:
    """The melody, with the chord under it at every half bar, as far as the hand holds both."""

    def put(on_half: bool, line: Event | None, chord: Event | None) -> Event | None:
        if not chord or not on_half:
            return line
        return _with_shape(chord, line, lambda own, note: note.string > own.string)

    return _merged(part, melody(song, part), strum(song, part), put)


def bass_and_chords(song: Song, part: Part) -> Bars:
    """The bass where it moves, the chord over it on the beats between."""

    def put(on_half: bool, line: Event | None, chord: Event | None) -> Event | None:
        if line and line.notes and not on_half:
            return line
        return _with_shape(chord, line, lambda own, note: note.string < own.string) if chord else line

    return _merged(part, bass(song, part), strum(song, part), put)


def one_part_of_two(song: Song, part: Part) -> Bars:
    """The line of the guitar that carries the tune with the outer notes of the others; raises
    InvalidValueError for another guitar."""
    if len(song.parts) < 2:
        raise InvalidValueError("guitars", len(song.parts), "two or more, to be played as one")
    carrier = carries_the_tune(song)
    if _notes(part) != _notes(carrier):
        raise InvalidValueError("part", part.name, f"{carrier.name}, which carries the tune")
    bars = []
    for index, bar in enumerate(part.bars):
        others = [
            (other, other.bars[index])
            for other in song.parts
            if other is not carrier and index < len(other.bars)
        ]
        bars.append(_timed_out(bar, _with_others(part, bar, others)))
    return tuple(bars)


def _notes(part: Part) -> list[list[tuple[Note, ...]]]:
    return [[event.notes for event in bar.events] for bar in part.bars]


def carries_the_tune(song: Song) -> Part:
    """The part whose top notes move most and lie highest; the first of equals."""
    return max(song.parts, key=_tunefulness)


def _tunefulness(part: Part) -> float:
    """Mean top pitch in half tones, and a half tone for every per cent of onsets that move by a step or a
    small leap and stand alone."""
    tops = [
        (max(part.pitch_of(note) for note in event.struck), len(event.struck))
        for _, _, event in part.events()
        if event.struck
    ]
    if not tops:
        return 0.0
    moving = sum(0 < abs(b[0] - a[0]) <= 7 and b[1] == 1 for a, b in itertools.pairwise(tops))
    return sum(top for top, _ in tops) / len(tops) + 50.0 * moving / len(tops)


def _merged(
    part: Part, first: Bars, second: Bars, put: Callable[[bool, Event | None, Event | None], Event | None]
) -> Bars:
    """Two layers on the onsets of both; `put` makes one event of what starts together, told whether a half
    bar begins there."""
    bars = []
    for bar, above, below in zip(part.bars, first, second, strict=True):
        a, b, half = _timed(above), _timed(below), bar.quarters / half_bars(bar)
        together = {at: put(at % half == 0, a.get(at), b.get(at)) for at in sorted({*a, *b})}
        bars.append(_timed_out(bar, {at: event for at, event in together.items() if event}))
    return tuple(bars)


def _timed(events: Sequence[Event]) -> Timed:
    bar = Bar(events=tuple(events))
    return dict(zip(bar.onsets, events, strict=True))


def _timed_out(bar: Bar, timed: Timed) -> tuple[Event, ...]:
    """Events by onset as a bar: each lasts to the next; what is silent between belongs to the note before."""
    onsets = sorted(timed)
    if not onsets or onsets[0] > 0:
        timed, onsets = {Fraction(0): Event(Fraction(0)), **timed}, [Fraction(0), *onsets]
    ends = [*onsets[1:], bar.quarters]
    return joined(replace(timed[at], quarters=end - at) for at, end in zip(onsets, ends, strict=True))


def _both(upper: Event | None, lower: Event | None) -> Event | None:
    """What starts in either; a string that both want is the upper one's."""
    if not upper or not upper.notes:
        return lower or upper
    if not lower:
        return upper
    strings = {note.string for note in upper.notes}
    return with_notes(upper, [*upper.notes, *(note for note in lower.notes if note.string not in strings)])


def _with_shape(chord: Event, line: Event | None, beside: Callable[[Note, Note], bool]) -> Event:
    """A chord as struck with a note of the line: what of its shape lies beside the note and within reach of
    it."""
    own = line.notes[0] if line and line.notes else None
    if line is None or own is None:
        return chord
    held = [note for note in chord.notes if beside(own, note) and _within_reach(own, note)]
    return replace(
        line,
        notes=tuple(sorted([own, *held], key=lambda note: note.string)),
        stroke=chord.stroke if held else None,
        chord=chord.chord,
    )


def _within_reach(own: Note, note: Note) -> bool:
    return not note.fret or not own.fret or abs(own.fret - note.fret) <= _REACH_FRETS


def _with_others(part: Part, bar: Bar, others: Sequence[tuple[Part, Bar]]) -> Timed:
    """The bar's own line with a note of the other parts on each beat where one hand holds both; where only
    they strike, it is played alone."""
    line = {
        onset: with_notes(event, _tune_of(part, event))
        for onset, event in zip(bar.onsets, bar.events, strict=True)
    }
    for onset, pitch in _outer_notes(part, bar, others).items():
        event = line.get(onset, Event(Fraction(0)))
        if added := _beside(part, event.notes, pitch):
            line[onset] = with_notes(event, [*event.notes, added])
    return line


def _tune_of(part: Part, event: Event) -> list[Note]:
    notes = [note for note in event.notes if not note.dead]
    return [max(notes, key=part.pitch_of)] if notes else []


def _outer_notes(part: Part, bar: Bar, others: Sequence[tuple[Part, Bar]]) -> dict[Fraction, int]:
    """What the other parts put to a bar's line on each beat: the lowest pitch of those that lie under it, the
    highest of those over it."""
    own = _mean_pitch(part, bar)
    found: dict[Fraction, int] = {}
    for other, beside in others:
        outermost = min if _mean_pitch(other, beside) < own else max
        for onset, event in zip(beside.onsets, beside.events, strict=True):
            pitches = [other.pitch_of(note) for note in event.struck if not note.dead]
            if pitches and onset % bar.metre.beat_quarters == 0 and onset < bar.quarters:
                found[onset] = outermost([*pitches, found.get(onset, pitches[0])])
    return found


def _mean_pitch(part: Part, bar: Bar) -> float:
    pitches = [part.pitch_of(note) for event in bar.events for note in event.struck]
    return sum(pitches) / len(pitches) if pitches else 0.0


def _beside(part: Part, line: Sequence[Note], pitch: int) -> Note | None:
    """A place for a pitch, or for the same an octave nearer, within reach of the line's note and on the side
    where it sounds; the nearest."""
    own = line[0] if line else None
    nearer = 12 if own and part.pitch_of(own) > pitch else -12
    for midi in (pitch, pitch + nearer):
        notes = [Note(spot.string, spot.fret) for spot in places_of(midi, part.tuning, part.capo)]
        if own:
            notes = [
                note
                for note in notes
                if _within_reach(own, note) and (note.string - own.string) * (part.pitch_of(own) - midi) > 0
            ]
        if notes:
            return min(
                notes, key=lambda note: (abs(note.fret - own.fret) if own and note.fret else 0, note.fret)
            )
    return None
