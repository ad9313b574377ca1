"""The one table of techniques.

Reader, writer, API enumeration, ladder rows, evidence and the legend on screen all derive from it.
"""

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction


class Technique(StrEnum):
    """Everything a hand can do to a note besides picking and stopping it."""

    HAMMER_ON = "hammer_on"
    PULL_OFF = "pull_off"
    SLIDE = "slide"
    SHIFT_SLIDE = "shift_slide"
    SLIDE_IN_BELOW = "slide_in_below"
    SLIDE_IN_ABOVE = "slide_in_above"
    SLIDE_OUT_UP = "slide_out_up"
    SLIDE_OUT_DOWN = "slide_out_down"
    BEND_QUARTER = "bend_quarter"
    BEND_HALF = "bend_half"
    BEND_WHOLE = "bend_whole"
    BEND_ONE_AND_HALF = "bend_one_and_half"
    BEND_TWO = "bend_two"
    RELEASE = "release"
    PRE_BEND = "pre_bend"
    UNISON_BEND = "unison_bend"
    VIBRATO = "vibrato"
    TRILL = "trill"
    GRACE = "grace"
    PALM_MUTE = "palm_mute"
    DEAD = "dead"
    LET_RING = "let_ring"
    STACCATO = "staccato"
    ACCENT = "accent"
    TREMOLO = "tremolo"
    FREE_TREMOLO = "free_tremolo"
    NATURAL_HARMONIC = "natural_harmonic"
    TOUCHED_HARMONIC = "touched_harmonic"
    ARTIFICIAL_HARMONIC = "artificial_harmonic"
    PINCH_HARMONIC = "pinch_harmonic"
    TAP = "tap"
    SLAP = "slap"
    RAKE = "rake"
    WHAMMY_DIP = "whammy_dip"
    PICK_AND_FINGERS = "pick_and_fingers"


class Writing(StrEnum):
    """How a technique is written in tab text."""

    PREFIX = "prefix"  # a sign before the fret, on the string
    SUFFIX = "suffix"  # a sign after the fret, on the string
    AROUND = "around"  # around or instead of the fret
    WORD = "word"  # a word on the `how` line; holds for all notes of the event
    BEND = "bend"  # named by the interval of a `b`


class Hand(StrEnum):
    """The hand whose work a technique is."""

    FRETTING = "fretting"
    PICKING = "picking"


@dataclass(frozen=True, slots=True)
class TechniqueRow:
    """One row: the name as a teacher says it (`plural` for counting), its writing and sign."""

    technique: Technique
    name: str
    plural: str
    writing: Writing
    sign: str
    hand: Hand
    unpicked: bool = False  # the note sounds without the picking hand


_T, _W, _F, _P = Technique, Writing, Hand.FRETTING, Hand.PICKING

_ROWS: tuple[TechniqueRow, ...] = (
    TechniqueRow(_T.HAMMER_ON, "hammer-on", "hammer-ons", _W.PREFIX, "h", _F, unpicked=True),
    TechniqueRow(_T.PULL_OFF, "pull-off", "pull-offs", _W.PREFIX, "p", _F, unpicked=True),
    TechniqueRow(_T.SLIDE, "slide", "slides", _W.PREFIX, "/", _F, unpicked=True),
    TechniqueRow(
        _T.SHIFT_SLIDE, "slide with the target picked", "slides with the target picked", _W.WORD, "ss", _F
    ),
    TechniqueRow(_T.SLIDE_IN_BELOW, "slide in from below", "slides in from below", _W.PREFIX, "//", _F),
    TechniqueRow(_T.SLIDE_IN_ABOVE, "slide in from above", "slides in from above", _W.PREFIX, "\\\\", _F),
    TechniqueRow(_T.SLIDE_OUT_UP, "slide out upwards", "slides out upwards", _W.SUFFIX, "/", _F),
    TechniqueRow(_T.SLIDE_OUT_DOWN, "slide out downwards", "slides out downwards", _W.SUFFIX, "\\", _F),
    TechniqueRow(_T.BEND_QUARTER, "quarter-tone bend", "quarter-tone bends", _W.BEND, "b", _F),
    TechniqueRow(_T.BEND_HALF, "half-tone bend", "half-tone bends", _W.BEND, "b", _F),
    TechniqueRow(_T.BEND_WHOLE, "whole-tone bend", "whole-tone bends", _W.BEND, "b", _F),
    TechniqueRow(_T.BEND_ONE_AND_HALF, "bend of one and a half", "bends of one and a half", _W.BEND, "b", _F),
    TechniqueRow(_T.BEND_TWO, "two-tone bend", "two-tone bends", _W.BEND, "b", _F),
    TechniqueRow(_T.RELEASE, "bend release", "bend releases", _W.SUFFIX, "r", _F),
    TechniqueRow(_T.PRE_BEND, "pre-bend", "pre-bends", _W.WORD, "pb", _F),
    TechniqueRow(_T.UNISON_BEND, "unison bend", "unison bends", _W.WORD, "ub", _F),
    TechniqueRow(_T.VIBRATO, "vibrato", "notes with vibrato", _W.SUFFIX, "~", _F),
    TechniqueRow(_T.TRILL, "trill", "trills", _W.WORD, "tr", _F),
    TechniqueRow(_T.GRACE, "grace note", "grace notes", _W.WORD, "gr", _F),
    TechniqueRow(_T.PALM_MUTE, "palm-muted note", "palm-muted notes", _W.WORD, "PM", _P),
    TechniqueRow(_T.DEAD, "dead note", "dead notes", _W.AROUND, "x", _F),
    TechniqueRow(_T.LET_RING, "note left to ring", "notes left to ring", _W.WORD, "lr", _F),
    TechniqueRow(_T.STACCATO, "staccato", "staccatos", _W.WORD, "stac", _F),
    TechniqueRow(_T.ACCENT, "accent", "accents", _W.WORD, "acc", _P),
    TechniqueRow(_T.TREMOLO, "tremolo picking", "tremolo-picked notes", _W.WORD, "trem", _P),
    TechniqueRow(
        _T.FREE_TREMOLO, "tremolo as fast as it goes", "tremolos as fast as it goes", _W.WORD, "tremf", _P
    ),
    TechniqueRow(_T.NATURAL_HARMONIC, "natural harmonic", "natural harmonics", _W.AROUND, "<", _F),
    TechniqueRow(_T.TOUCHED_HARMONIC, "touched harmonic", "touched harmonics", _W.WORD, "touch", _F),
    TechniqueRow(_T.ARTIFICIAL_HARMONIC, "artificial harmonic", "artificial harmonics", _W.WORD, "ah", _P),
    TechniqueRow(_T.PINCH_HARMONIC, "pinch harmonic", "pinch harmonics", _W.WORD, "pinch", _P),
    TechniqueRow(_T.TAP, "tap", "taps", _W.PREFIX, "t", _P, unpicked=True),
    TechniqueRow(_T.SLAP, "slap", "slaps", _W.WORD, "slap", _P),
    TechniqueRow(_T.RAKE, "rake", "rakes", _W.WORD, "rake", _P),
    TechniqueRow(_T.WHAMMY_DIP, "whammy dip", "whammy dips", _W.WORD, "dip", _P),
    TechniqueRow(_T.PICK_AND_FINGERS, "pick and fingers", "pick-and-fingers notes", _W.WORD, "pf", _P),
)
TECHNIQUES: dict[Technique, TechniqueRow] = {row.technique: row for row in _ROWS}

HOW_WORDS: dict[str, Technique] = {row.sign: row.technique for row in _ROWS if row.writing is Writing.WORD}
# Settings of the hand for as long as they last, no demands that add up note by note.
SETTINGS = frozenset({_T.PALM_MUTE, _T.LET_RING})
UNPICKED = frozenset(row.technique for row in _ROWS if row.unpicked)
HARMONICS = frozenset({_T.NATURAL_HARMONIC, _T.TOUCHED_HARMONIC, _T.ARTIFICIAL_HARMONIC, _T.PINCH_HARMONIC})
ARRIVING = frozenset(
    {_T.HAMMER_ON, _T.PULL_OFF, _T.SLIDE}
)  # they reach their note from the one before on its string

# Widest bend, in half tones, that each row still names (common practice, no source).
_BEND_ROWS = (
    (Fraction(3, 4), _T.BEND_QUARTER),
    (Fraction(5, 4), _T.BEND_HALF),
    (Fraction(9, 4), _T.BEND_WHOLE),
    (Fraction(13, 4), _T.BEND_ONE_AND_HALF),
)


def bend_technique(half_tones: Fraction) -> Technique:
    """The row of a bend by its interval in half tones."""
    return next((technique for widest, technique in _BEND_ROWS if half_tones <= widest), _T.BEND_TWO)
