"""What a grip is called: by the chord its strings sound, as held, counted from the capo."""

from collections.abc import Mapping

from clear_steps.core.score import Part, Tuning
from clear_steps.core.score.chords import Chord, chord_of, parse_chord
from clear_steps.core.score.tuning import raised_half_tones
from clear_steps.core.score.words import ordinal

_FULL = 3  # pitch classes from which a chord is known by ear alone


def heard(frets: Mapping[int, int], tuning: Tuning) -> Chord | None:
    """The chord that a grip sounds, named for its tuning as if nothing were raised."""
    raised = raised_half_tones(tuning)
    return chord_of(tuning.open_pitch(string) + fret - raised for string, fret in frets.items())


def is_sure(chord: Chord) -> bool:
    """Whether so much of it sounds that nothing else may be meant."""
    return len(chord.intervals) >= _FULL


def sounding_name(name: str, part: Part) -> str | None:
    """The chord that sounds where a capo or a tuning moves the one that is held; None where it is the same,
    or no chord."""
    chord = parse_chord(name)
    moved = part.capo + raised_half_tones(part.tuning)
    return chord.moved(moved).usual_name if chord and moved % 12 else None


def index_fret(frets: list[int]) -> int:
    """The fret under the index finger of a line, open strings among its frets; 0 where nothing is stopped."""
    stopped = [fret for fret in frets if fret]
    if not stopped:
        return 0
    return 1 if 0 in frets and min(stopped) <= 2 else min(stopped)


def position_name(frets: list[int]) -> str:
    """`5th position`; empty where nothing is stopped."""
    lowest = index_fret(frets)
    return f"{ordinal(lowest)} position" if lowest else ""
