"""Which notes still sound, and hold their finger, when the next ones start."""

from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score.song import Bar, Note, Part
from clear_steps.core.score.techniques import Technique

BASS_STRING = 4  # the 4th string and thicker carry a bass (by string, never by pitch)


@dataclass(frozen=True, slots=True)
class Ringing:
    """Notes held over into an event, and whether the bar's texture alone says so."""

    notes: tuple[Note, ...]
    guessed: bool = False


_SILENCE = Ringing(())


def ringing_notes(part: Part, guess_texture: bool = True) -> tuple[tuple[Ringing, ...], ...]:
    """For every event of every bar, the earlier notes of the bar that still ring.

    A note under `let ring` rings to the next note on its own string; a bass under other voices
    to the next bass. For the hand both end with the bar at the latest: there the grip is renewed.
    """
    return tuple(ringing_in(bar, guess_texture) for bar in part.bars)


def ringing_in(bar: Bar, guess_texture: bool = True) -> tuple[Ringing, ...]:
    """For every event of a bar, the earlier notes of it that still ring."""
    basses = _basses(bar) if guess_texture else frozenset()
    if not basses and not any(Technique.LET_RING in event.techniques for event in bar.events):
        return (_SILENCE,) * len(bar.events)
    held: dict[int, tuple[Note, bool]] = {}  # string -> note, whether a guess
    rows = []
    for index, event in enumerate(bar.events):
        for note in event.notes:
            held.pop(note.string, None)
        if any(note.string >= BASS_STRING for note in event.struck):
            held = {string: entry for string, entry in held.items() if not entry[1]}
        if not event.notes:
            held = {
                string: entry
                for string, entry in held.items()
                if not entry[1] and Technique.LET_RING in event.techniques
            }
        rows.append(
            Ringing(tuple(note for note, _ in held.values()), any(guess for _, guess in held.values()))
        )
        for note in event.notes:
            if note.dead or Technique.STACCATO in event.techniques:
                continue
            if Technique.LET_RING in event.techniques:
                held[note.string] = (note, False)
            elif (index, note.string) in basses:
                held[note.string] = (note, True)
    return tuple(rows)


def _basses(bar: Bar) -> frozenset[tuple[int, int]]:
    """(event, string) of the notes that the texture says ring on, if there are at least two."""
    beat = bar.metre.beat_quarters
    found = set()
    events = bar.events
    for index, (onset, event) in enumerate(zip(bar.onsets, events, strict=True)):
        following = events[index + 1].notes if index + 1 < len(events) else ()
        if len(event.notes) == 1 and not (
            following and abs(following[0].string - event.notes[0].string) >= 2
        ):
            continue  # a line that goes on nearby, by far the most
        low = [note for note in event.struck if note.string >= BASS_STRING]
        if not low or Technique.PALM_MUTE in event.techniques:
            continue
        for note in low:
            others = [other for other in event.notes if other is not note] or following
            apart = bool(others) and all(abs(other.string - note.string) >= 2 for other in others)
            if apart and (onset / beat).denominator == 1:
                found.add((index, note.string))
    return frozenset(found) if len(found) >= 2 else frozenset()


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
