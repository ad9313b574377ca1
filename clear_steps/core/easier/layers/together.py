"""Layers combined: two lines at once, chords under the melody or over the bass, two guitars on one."""

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.easier.chordbook import ChordBook
from clear_steps.core.easier.kinds.bars import with_notes
from clear_steps.core.easier.layers.chords import strum
from clear_steps.core.easier.layers.lines import Bars, bass, joined, melody
from clear_steps.core.easier.roles import roles_of
from clear_steps.core.easier.voices import Voices, voices_of
from clear_steps.core.easier.wanted import half_bars
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.hand import places_of
from clear_steps.core.score import Bar, Event, Note, Part, Role, Song

_TWO_BASSES = 3  # quarters of a bar from which on it has two
_UPPER = 2  # notes of a chord over a bass, at least
_REACH_FRETS = 3  # between a melody or bass note and a fret of the shape beside it

Timed = dict[Fraction, Event]
"""A bar's events by their onset in quarters."""


def melody_and_bass(song: Song, part: Part, book: ChordBook) -> Bars:
    """The two outer voices, the inner ones left out."""
    return _merged(
        part, melody(song, part, book), bass(song, part, book), lambda _, upper, lower: _both(upper, lower)
    )


def melody_and_chords(song: Song, part: Part, book: ChordBook) -> Bars:
    """The melody, with the chord under it at every half bar, as far as the hand holds both."""

    def put(on_half: bool, line: Event | None, chord: Event | None) -> Event | None:
        if not chord or not on_half:
            return line
        return _with_shape(chord, line, lambda own, note: note.string > own.string)

    return _merged(part, melody(song, part, book), strum(song, part, book), put)


def bass_and_chords(song: Song, part: Part, book: ChordBook) -> Bars:
    """The bass on the strong beats, the chord above it on the beats between; where there is none the bass
    goes on."""

    def put(on_half: bool, line: Event | None, chord: Event | None) -> Event | None:
        if not chord or (on_half and line and line.notes):
            return line
        lowest = max((note.string for note in line.notes), default=0) if line else 0
        upper = [note for note in chord.notes if note.string < (lowest or len(part.tuning.pitches))]
        return with_notes(chord, upper) if len(upper) >= _UPPER else chord

    return _merged(part, bass(song, part, book), strum(song, part, book), put, _strong_beats)


def basses_lie_in_their_grips(part: Part) -> bool:
    """Whether bass and chords are one hand's: every bar begins with its own chord, and each bass note is one
    of the chord that is played with it, in the same grip."""
    return all(_in_its_grips(part, bar) for bar in part.bars if not bar.silent)


def _in_its_grips(part: Part, bar: Bar) -> bool:
    struck = [event.struck for event in bar.events if event.struck]
    for at, notes in enumerate(struck):
        if len(notes) > 1:
            continue
        later = (other for other in struck[at + 1 :] if len(other) > 1)
        chord = next(later, None) or next((other for other in struck[:at] if len(other) > 1), None)
        if chord is None or not _in_grip(part, notes[0], chord):
            return False
    return True


def _in_grip(part: Part, bass: Note, chord: Sequence[Note]) -> bool:
    classes = {part.pitch_of(note) % 12 for note in chord}
    elsewhere = any(note.string == bass.string and note.fret != bass.fret for note in chord)
    apart = [abs(note.fret - bass.fret) for note in chord if note.fret and bass.fret]
    return part.pitch_of(bass) % 12 in classes and not elsewhere and max(apart, default=0) <= _REACH_FRETS


def _strong_beats(bar: Bar) -> int:
    """How many beats of a bar carry its bass: the first, and the middle one of four or six."""
    return 2 if bar.metre.beats % 2 == 0 and bar.quarters >= _TWO_BASSES else 1


def one_part_of_two(song: Song, part: Part, _book: ChordBook) -> Bars:
    """A guitar's own part with what the others have and it leaves room for: their roots or their hook on the
    beats, and all of what they play where it is silent. Raises InvalidValueError where it is alone."""
    others = [other for other in song.parts if other != part]
    if not others:
        raise InvalidValueError("guitars", len(song.parts), "two or more, to be played as one")
    outer = [_Outer.of(part, other) for other in others]
    return tuple(
        _timed_out(bar, _with_others(part, index, [own for own in outer if index < len(own.part.bars)]))
        for index, bar in enumerate(part.bars)
    )


@dataclass(frozen=True, slots=True)
class _Outer:
    """Another guitar, and of every event the note that counts most: its root where it lies lower, its tune
    where it lies higher."""

    part: Part
    notes: tuple[tuple[Note | None, ...], ...]

    @classmethod
    def of(cls, part: Part, other: Part) -> "_Outer":
        lower = _mean_pitch(other) < _mean_pitch(part)
        roles = [Role.BASS if lower and role is not Role.STRUM else role for role in roles_of(other)]
        rows = voices_of(other, other.bars, roles)
        return cls(other, tuple(tuple(_first(each, lower) for each in row) for row in rows))


def _first(voices: Voices, lower: bool) -> Note | None:
    return (voices.bass or voices.tune) if lower else (voices.tune or voices.bass)


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
    part: Part,
    first: Bars,
    second: Bars,
    put: Callable[[bool, Event | None, Event | None], Event | None],
    halves: Callable[[Bar], int] = half_bars,
) -> Bars:
    """Two layers on the onsets of both; `put` makes one event of what starts together, told whether a half
    bar (or a whole one, by `halves`) begins there."""
    bars = []
    for bar, above, below in zip(part.bars, first, second, strict=True):
        a, b, half = _timed(above), _timed(below), bar.quarters / halves(bar)
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


def _with_others(part: Part, index: int, outer: Sequence[_Outer]) -> Timed:
    """The bar's own events with a note of the others on each beat where one hand holds both; where it is
    silent what they play."""
    bar = part.bars[index]
    own = _timed(bar.events)
    made = dict(own)
    for other in outer:
        theirs = other.part.bars[index]
        for onset, event, note in zip(theirs.onsets, theirs.events, other.notes[index], strict=True):
            if onset >= bar.quarters or not event.struck:
                continue
            if not own[max(at for at in own if at <= onset)].notes:
                made[onset] = _on(part, other.part, event)
            elif note and onset % bar.metre.beat_quarters == 0:
                now = made[onset] if onset in made else _held(made[max(at for at in made if at <= onset)])
                if added := _beside(part, now.notes, other.part.pitch_of(note)):
                    made[onset] = with_notes(now, [*now.notes, added])
    return made


def _on(part: Part, other: Part, event: Event) -> Event:
    """What another guitar plays as far as this one has the places: its own where the two are tuned alike."""
    if (part.tuning, part.capo) == (other.tuning, other.capo):
        return replace(event, chord="")
    added: list[Note] = []
    for note in sorted(event.struck, key=other.pitch_of):
        found = _beside(part, added, other.pitch_of(note))
        added += [found] if found else []
    return with_notes(Event(event.quarters), added)


def _held(event: Event) -> Event:
    """What goes on sounding of an event while something else is struck."""
    notes = (replace(note, tied=True, techniques=frozenset(), bend=None) for note in event.notes)
    return Event(Fraction(0), tuple(notes))


def _mean_pitch(part: Part) -> float:
    pitches = [part.pitch_of(note) for _, _, event in part.events() for note in event.struck]
    return sum(pitches) / len(pitches) if pitches else 0.0


def _beside(part: Part, held: Sequence[Note], pitch: int) -> Note | None:
    """A place for a pitch within reach of everything held, on a free string; the nearest."""
    used = {note.string for note in held}
    pressed = [note.fret for note in held if note.fret]
    sounding = {part.pitch_of(note) for note in held}
    notes = [
        Note(spot.string, spot.fret)
        for spot in places_of(pitch, part.tuning, part.capo)
        if spot.string not in used
        and pitch not in sounding
        and all(_within_reach(note, Note(spot.string, spot.fret)) for note in held)
    ]
    middle = sum(pressed) / len(pressed) if pressed else 0.0
    return min(notes, key=lambda note: (abs(note.fret - middle) if note.fret else 0, note.fret), default=None)
