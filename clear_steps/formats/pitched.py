"""Music as other formats tell it, before it lies on a neck: notes with onsets and lengths, some with a string
and fret."""

from dataclasses import dataclass, field
from fractions import Fraction

from clear_steps.core.errors import Guess
from clear_steps.core.score import Bend, Finger, Metre, PickingFinger, Song, Stroke, Technique, Tuning


@dataclass(frozen=True, slots=True)
class PitchedNote:
    """A note of a measure; `onset` and `quarters` from the measure's start, `spot` (string, fret) where the
    file says it."""

    onset: Fraction
    quarters: Fraction
    midi: int
    spot: tuple[int, int] | None = None
    tied: bool = False
    techniques: frozenset[Technique] = frozenset()  # its own
    words: frozenset[Technique] = frozenset()  # of all that starts with it
    own_words: frozenset[str] = frozenset()
    bend: Bend | None = None
    finger: Finger | None = None
    picking: PickingFinger | None = None
    stroke: Stroke | None = None
    optional: bool = False
    uncertain: bool = False


@dataclass
class PitchedMeasure:
    """One written measure."""

    metre: Metre
    # what it holds; a short one is filled with a rest, unless it is a pickup or a repeat cuts it
    length: Fraction
    notes: list[PitchedNote] = field(default_factory=list)
    texts: list[tuple[Fraction, str]] = field(default_factory=list)
    chords: list[tuple[Fraction, str]] = field(default_factory=list)
    section: str = ""
    tempo: Fraction | None = None
    repeat_start: bool = False
    repeat_times: int = 0
    endings: tuple[int, ...] = ()
    double_bar: bool = False
    pickup: bool = False


@dataclass
class PitchedPart:
    """One instrument's measures; no tuning where the file names none."""

    name: str
    measures: list[PitchedMeasure]
    tuning: Tuning | None = None
    capo: int = 0
    at_pitch: bool = False  # the file says in which octave it sounds


@dataclass
class PitchedSong:
    """A file's music, with what could not be taken over so far."""

    title: str
    parts: list[PitchedPart]
    guesses: list[Guess] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)

    def guessed(self, what: str, taken: str) -> None:
        """Note a guess; these files have no lines that a teacher would look for."""
        self.guesses.append(Guess(0, 0, what, taken))


@dataclass(frozen=True, slots=True)
class Imported:
    """What a file became, and what was read, guessed and not placed on the way; `text` is what goes into the
    editor, `changed` how the song in it differs from the one that was read."""

    song: Song
    read: tuple[str, ...]
    guesses: tuple[Guess, ...] = ()
    not_placed: tuple[str, ...] = ()
    text: str = ""
    changed: tuple[str, ...] = ()

    @property
    def guessed(self) -> tuple[str, ...]:
        """The guesses in words."""
        return tuple(map(str, self.guesses))
