"""Which notes still sound, and hold their finger, when the next ones start: as written, or as the texture
says."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from clear_steps.core.score.playing import Picking
from clear_steps.core.score.song import Bar, Event, Note, Part
from clear_steps.core.score.techniques import Technique
from clear_steps.core.score.tuning import bass_from, is_bass
from clear_steps.core.shapes.moments import HAND_FRETS, Moment
from clear_steps.core.shapes.reading import shapes_in
from clear_steps.core.shapes.stretch import Shapes
from clear_steps.core.shapes.taught import around_bars

_LEAST_EVENTS, _LEAST_STRINGS = 4, 3  # of a broken chord (from memory)
_LEAST_QUARTERS = Fraction(2)  # quick notes that pass over three strings are a line (from memory)
_MOST_AT_ONCE = 2  # notes struck together within one; three and more are a strum
_SHORTEST = Fraction(1, 4)  # quicker notes do not ring into one another
_LEAST_BASSES, _LEAST_DRONES = 2, 3
_TOUCHED = frozenset({Technique.NATURAL_HARMONIC})
_BREAKS = frozenset({Technique.PALM_MUTE, Technique.STACCATO})
_UNHELD = frozenset(
    {
        Technique.HAMMER_ON,
        Technique.PULL_OFF,
        Technique.SLIDE,
        Technique.SHIFT_SLIDE,
        Technique.NATURAL_HARMONIC,
        Technique.TAP,
    }
)


class Texture(StrEnum):
    """What rings unsaid."""

    BROKEN_CHORD = "a broken chord"
    BASS = "a bass under other voices"
    DRONE = "a drone"


@dataclass(frozen=True, slots=True)
class Hearing:
    """What of a part decides which textures may be guessed."""

    strings: int = 6
    guesses: bool = True
    bare_pick: bool = False


def hearing_of(part: Part) -> Hearing:
    """Nothing is guessed on a bass guitar, nor where the teacher says that it rings as written."""
    guesses = not is_bass(part.tuning) and not part.rings_as_written
    return Hearing(part.tuning.strings, guesses, part.picking is Picking.PICK)


@dataclass(frozen=True, slots=True)
class Ringing:
    """Notes held over into an event, the textures that say so where nothing is written; of a broken chord
    what of its grip is down besides."""

    notes: tuple[Note, ...]
    guessed: frozenset[Texture] = frozenset()
    broken: bool = False
    grip: tuple[Note, ...] = ()


_SILENCE = Ringing(())


def ringing_notes(part: Part, guess: bool = True) -> tuple[tuple[Ringing, ...], ...]:
    """For every event of every bar, the earlier notes of the bar that still ring.

    A note under `let ring` rings to the next note on its own string; the notes of a broken chord to the
    change of grip; a bass under other voices to the next bass. For the hand all end with the bar at the
    latest: there the grip is renewed.
    """
    hearing = hearing_of(part) if guess else Hearing(part.tuning.strings, guesses=False)
    return tuple(
        ringing_in(bar, hearing, shapes_in(bar, part.tuning, around.chord))
        for bar, around in zip(part.bars, around_bars(part.bars), strict=True)
    )


def ringing_in(bar: Bar, hearing: Hearing, seen: Shapes) -> tuple[Ringing, ...]:
    """For every event of a bar, the earlier notes of it that still ring; `seen` is the bar alone."""
    guesses = _guesses(bar, hearing, seen)
    if not guesses.any and not any(map(_is_let_ring, bar.events)):
        return (_SILENCE,) * len(bar.events)
    low = bass_from(hearing.strings)
    held: dict[int, tuple[Note, Texture | None]] = {}  # string -> note, and the texture that keeps it
    written: set[Note] = set()  # what is said to ring is no guess, whatever texture it stands in
    rows = []
    for index, event in enumerate(bar.events):
        for string in (*(note.string for note in event.notes), *event.stopped):
            held.pop(string, None)
        new_grip = index in guesses.grips and guesses.grips.get(index - 1) is not guesses.grips[index]
        held = {
            string: entry
            for string, entry in held.items()
            if not (
                (entry[1] is Texture.BASS and any(note.string >= low for note in event.struck))
                or (entry[1] is Texture.BROKEN_CHORD and new_grip)
                or (entry[1] and _out_of_reach(entry[0], event))
                or (not event.notes and not (entry[1] is None and Technique.LET_RING in event.techniques))
            )
        }
        kept = tuple(note for note, _ in held.values())
        strings = {note.string for note in (*kept, *event.notes)}
        grip = tuple(note for note in guesses.grips.get(index, ()) if note.string not in strings)
        unsaid = ((note, texture) for note, texture in held.values() if note not in written)
        guessed = frozenset(texture for _, texture in unsaid if texture)
        rows.append(Ringing(kept, guessed, index in guesses.grips, grip))
        for note in event.notes:
            own = event.techniques_of(note)
            if note.dead or own & _TOUCHED or Technique.STACCATO in own:
                continue  # over a harmonic the finger has left already
            if Technique.LET_RING in own:
                written.add(note)
            else:
                written.discard(note)
            if index in guesses.grips:
                held[note.string] = (note, Texture.BROKEN_CHORD)
            elif Technique.LET_RING in own:
                held[note.string] = (note, None)
            elif texture := guesses.voices.get((index, note.string)):
                held[note.string] = (note, texture)
    return tuple(rows)


def _is_let_ring(event: Event) -> bool:
    return any(Technique.LET_RING in event.techniques_of(note) for note in event.notes)


def _out_of_reach(held: Note, event: Event) -> bool:
    """Whether no hand holds it on under what is struck: then it is let go."""
    frets = [held.fret, *(note.fret for note in event.notes if note.fret)]
    return held.fret > 0 and max(frets) - min(frets) >= HAND_FRETS


@dataclass(frozen=True, slots=True)
class _Guesses:
    """By event the grip of its broken chord, or by event and string what rings on."""

    grips: dict[int, tuple[Note, ...]]
    voices: dict[tuple[int, int], Texture]

    @property
    def any(self) -> bool:
        return bool(self.grips or self.voices)


_NO_GUESSES = _Guesses({}, {})


def _guesses(bar: Bar, hearing: Hearing, seen: Shapes) -> _Guesses:
    if not hearing.guesses:
        return _NO_GUESSES
    grips = _broken_chords(seen)
    if hearing.bare_pick and all(len(event.notes) < 2 for event in bar.events):
        return _Guesses(grips, {})  # else a pick that plays a line
    return _Guesses(grips, _drones(bar) | _basses(bar, hearing))


def _broken_chords(seen: Shapes) -> dict[int, tuple[Note, ...]]:
    """The grip by event of every broken chord: a grip held while its strings are struck one after another."""
    grips: dict[int, tuple[Note, ...]] = {}
    for moments in seen.gripped:
        for run in _runs(moments):
            if _is_chord(run) and _comes_back(run):
                notes = {note.string: note for moment in run for note in moment.event.notes}
                grip = tuple(notes[string] for string in sorted(notes, reverse=True))
                grips |= dict.fromkeys(range(run[0].index, run[-1].index + 1), grip)
    return grips


def _runs(moments: Sequence[Moment]) -> Iterator[list[Moment]]:
    """Moments that may ring, one after the other: over a rest nothing does."""
    run: list[Moment] = []
    for moment in moments:
        follows = run and run[-1].onset + run[-1].event.quarters == moment.onset
        if run and not (follows and _may_ring(moment.event)):
            yield run
            run = []
        if _may_ring(moment.event):
            run.append(moment)
    if run:
        yield run


def _is_chord(run: Sequence[Moment]) -> bool:
    """Whether there is enough of it; an open string at every other note is a drone."""
    places = Counter((note.string, note.fret) for moment in run for note in moment.event.notes)
    strings = [string for (string, fret), count in places.items() if fret or 2 * count < len(run)]
    lasts = sum((moment.event.quarters for moment in run), Fraction(0))
    return len(run) >= _LEAST_EVENTS and len(strings) >= _LEAST_STRINGS and lasts >= _LEAST_QUARTERS


def _comes_back(run: Sequence[Moment]) -> bool:
    """Whether a string is struck again, or the chord has a name: notes that only pass may be a melody."""
    strings = [note.string for moment in run for note in moment.event.notes]
    return len(strings) > len(set(strings)) or any(moment.chord for moment in run)


def _may_ring(event: Event) -> bool:
    written = event.techniques.union(*(note.techniques for note in event.notes))
    plain = not written & _BREAKS and not event.stopped and event.quarters >= _SHORTEST
    return (
        plain
        and len(event.notes) <= _MOST_AT_ONCE
        and not any(note.dead or note.bend or note.techniques & _UNHELD for note in event.notes)
    )


def _drones(bar: Bar) -> dict[tuple[int, int], Texture]:
    """An open string struck again and again under a voice that moves."""
    places = [
        (index, note.string, note.fret) for index, event in enumerate(bar.events) for note in event.struck
    ]
    found: dict[tuple[int, int], Texture] = {}
    for drone in {string for _, string, fret in places if fret == 0}:
        own = [(index, fret) for index, string, fret in places if string == drone]
        moving = {(string, fret) for _, string, fret in places if string != drone and fret}
        if len(own) >= _LEAST_DRONES and not any(fret for _, fret in own) and len(moving) > 1:
            found |= {(index, drone): Texture.DRONE for index, _ in own}
    return found


def _basses(bar: Bar, hearing: Hearing) -> dict[tuple[int, int], Texture]:
    """Notes of the lower strings that start on a beat while others sound two strings away or more."""
    beat, lowest = bar.metre.beat_quarters, bass_from(hearing.strings)
    found = {}
    events = bar.events
    for index, (onset, event) in enumerate(zip(bar.onsets, events, strict=True)):
        following = events[index + 1].notes if index + 1 < len(events) else ()
        if len(event.notes) == 1 and not (
            following and abs(following[0].string - event.notes[0].string) >= 2
        ):
            continue  # a line that goes on nearby, by far the most
        low = [
            note
            for note in event.struck
            if note.string >= lowest and Technique.PALM_MUTE not in event.techniques_of(note)
        ]
        for note in low:
            others = [other for other in event.notes if other is not note] or following
            apart = bool(others) and all(abs(other.string - note.string) >= 2 for other in others)
            if apart and (onset / beat).denominator == 1:
                found[index, note.string] = Texture.BASS
    return found if len(found) >= _LEAST_BASSES else {}


def sounding_quarters(part: Part) -> tuple[tuple[tuple[Fraction, ...], ...], ...]:
    """How long every note of every event sounds, in quarters: to the next onset or as it rings."""
    rows = []
    for bar, ringing in zip(part.bars, ringing_notes(part), strict=True):
        lengths = [[event.quarters for _ in event.notes] for event in bar.events]
        for later, row in enumerate(ringing):
            for note in row.notes:
                home = max(i for i in range(later) if note in bar.events[i].notes)
                at = bar.events[home].notes.index(note)
                lengths[home][at] = sum(
                    (event.quarters for event in bar.events[home : later + 1]), Fraction(0)
                )
        rows.append(tuple(tuple(row) for row in lengths))
    return tuple(rows)
