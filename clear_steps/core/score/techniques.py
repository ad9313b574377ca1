"""The one table of techniques.

Reader, writer, API enumeration, ladder rows, evidence and the legend on screen all derive from it.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
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


class Drawing(StrEnum):
    """How a technique is drawn on the tab; the page has one way for each, whatever the technique."""

    SLUR = "slur"  # an arc from the note before on the string, with a letter
    SLIDE = "slide"  # a line from the note before, with an arc: the target is not picked
    SHIFT = "shift"  # a line from the note before alone: the target is picked
    IN_UP = "in_up"  # a short line rising into the note
    IN_DOWN = "in_down"
    OUT_UP = "out_up"  # a short line rising from the note
    OUT_DOWN = "out_down"
    BEND = "bend"  # an arrow up from the note to its figure
    RELEASE = "release"  # the arrow comes back
    PRE_BEND = "pre_bend"  # the arrow goes straight up: bent before it sounds
    WAVE = "wave"  # a wavy line over the strings from the note on
    SHORT_WAVE = "short_wave"  # its letters, then the wave
    DIP = "dip"  # a notch over the strings, with its depth
    SMALL = "small"  # the number small, its head struck through
    CROSS = "cross"  # a cross for the number
    ANGLES = "angles"  # the number between angles, its head a diamond
    DIAMOND = "diamond"  # its words over the strings, its head a diamond
    DOT = "dot"  # a dot at the head
    WEDGE = "wedge"  # a wedge at the head
    STROKES = "strokes"  # strokes through the stem
    BEFORE = "before"  # its letter before the number
    WORDS = "words"  # its words over all notes it holds for, with a line to the last


class Hand(StrEnum):
    """The hand whose work a technique is."""

    FRETTING = "fretting"
    PICKING = "picking"


@dataclass(frozen=True, slots=True)
class TechniqueRow:
    """One row: the name as a teacher says it (`plural` for counting), how it is written (`sign`) and drawn
    (`words`: what stands there, where that is not the sign)."""

    technique: Technique
    name: str
    plural: str
    writing: Writing
    sign: str
    hand: Hand
    drawing: Drawing
    words: str = ""
    unpicked: bool = False  # the note sounds without the picking hand
    said: Mapping[str, str] = field(
        default_factory=dict, compare=False
    )  # by language; `{fret}`: there it goes

    def said_in(self, language: str) -> str:
        """What a teacher says of a note that is played so; in English, else by its name, where the language
        has nothing."""
        return self.said.get(language) or self.said.get(_ENGLISH) or self.name

    @property
    def drawn_words(self) -> str:
        """What is written at its drawing, nothing where the drawing says it all."""
        return self.words or (self.sign if self.drawing in _LETTERED else "")


_ENGLISH = "en"
_LETTERED = frozenset(
    {Drawing.SLUR, Drawing.SHORT_WAVE, Drawing.DIAMOND, Drawing.BEFORE, Drawing.DIP, Drawing.WORDS}
)
_T, _W, _D, _F, _P = Technique, Writing, Drawing, Hand.FRETTING, Hand.PICKING

_ROWS: tuple[TechniqueRow, ...] = (
    TechniqueRow(
        _T.HAMMER_ON,
        "hammer-on",
        "hammer-ons",
        _W.PREFIX,
        "h",
        _F,
        _D.SLUR,
        unpicked=True,
        said={"en": "hammer to {fret}", "es": "ligado al {fret}"},
    ),
    TechniqueRow(
        _T.PULL_OFF,
        "pull-off",
        "pull-offs",
        _W.PREFIX,
        "p",
        _F,
        _D.SLUR,
        unpicked=True,
        said={"en": "pull off to {fret}", "es": "tirón al {fret}"},
    ),
    TechniqueRow(
        _T.SLIDE,
        "slide",
        "slides",
        _W.PREFIX,
        "/",
        _F,
        _D.SLIDE,
        unpicked=True,
        said={"en": "slide to {fret}", "es": "desliza al {fret}"},
    ),
    TechniqueRow(
        _T.SHIFT_SLIDE,
        "slide with the target picked",
        "slides with the target picked",
        _W.WORD,
        "ss",
        _F,
        _D.SHIFT,
        said={"en": "slide to {fret} and pick it", "es": "desliza al {fret} y púlsalo"},
    ),
    TechniqueRow(
        _T.SLIDE_IN_BELOW,
        "slide in from below",
        "slides in from below",
        _W.PREFIX,
        "//",
        _F,
        _D.IN_UP,
        said={"en": "slide into {fret} from below", "es": "entra al {fret} desde abajo"},
    ),
    TechniqueRow(
        _T.SLIDE_IN_ABOVE,
        "slide in from above",
        "slides in from above",
        _W.PREFIX,
        "\\\\",
        _F,
        _D.IN_DOWN,
        said={"en": "slide into {fret} from above", "es": "entra al {fret} desde arriba"},
    ),
    TechniqueRow(
        _T.SLIDE_OUT_UP,
        "slide out upwards",
        "slides out upwards",
        _W.SUFFIX,
        "/",
        _F,
        _D.OUT_UP,
        said={"en": "slide out upwards", "es": "sal deslizando hacia arriba"},
    ),
    TechniqueRow(
        _T.SLIDE_OUT_DOWN,
        "slide out downwards",
        "slides out downwards",
        _W.SUFFIX,
        "\\",
        _F,
        _D.OUT_DOWN,
        said={"en": "slide out downwards", "es": "sal deslizando hacia abajo"},
    ),
    TechniqueRow(_T.BEND_QUARTER, "quarter-tone bend", "quarter-tone bends", _W.BEND, "b", _F, _D.BEND),
    TechniqueRow(_T.BEND_HALF, "half-tone bend", "half-tone bends", _W.BEND, "b", _F, _D.BEND),
    TechniqueRow(_T.BEND_WHOLE, "whole-tone bend", "whole-tone bends", _W.BEND, "b", _F, _D.BEND),
    TechniqueRow(
        _T.BEND_ONE_AND_HALF, "bend of one and a half", "bends of one and a half", _W.BEND, "b", _F, _D.BEND
    ),
    TechniqueRow(_T.BEND_TWO, "two-tone bend", "two-tone bends", _W.BEND, "b", _F, _D.BEND),
    TechniqueRow(_T.RELEASE, "bend release", "bend releases", _W.SUFFIX, "r", _F, _D.RELEASE),
    TechniqueRow(
        _T.PRE_BEND,
        "pre-bend",
        "pre-bends",
        _W.WORD,
        "pb",
        _F,
        _D.PRE_BEND,
        said={"en": "bent before it sounds", "es": "estirado antes de sonar"},
    ),
    TechniqueRow(
        _T.UNISON_BEND,
        "unison bend",
        "unison bends",
        _W.WORD,
        "ub",
        _F,
        _D.WORDS,
        words="unison",
        said={"en": "as a unison bend", "es": "al unísono"},
    ),
    TechniqueRow(
        _T.VIBRATO,
        "vibrato",
        "notes with vibrato",
        _W.SUFFIX,
        "~",
        _F,
        _D.WAVE,
        said={"en": "with vibrato", "es": "con vibrato"},
    ),
    TechniqueRow(
        _T.TRILL,
        "trill",
        "trills",
        _W.WORD,
        "tr",
        _F,
        _D.SHORT_WAVE,
        said={"en": "trilled", "es": "con trino"},
    ),
    TechniqueRow(
        _T.GRACE,
        "grace note",
        "grace notes",
        _W.WORD,
        "gr",
        _F,
        _D.SMALL,
        said={"en": "as a quick grace note", "es": "como adorno rápido"},
    ),
    TechniqueRow(
        _T.PALM_MUTE,
        "palm-muted note",
        "palm-muted notes",
        _W.WORD,
        "PM",
        _P,
        _D.WORDS,
        said={"en": "muted", "es": "apagado con la palma"},
    ),
    TechniqueRow(_T.DEAD, "dead note", "dead notes", _W.AROUND, "x", _F, _D.CROSS),
    TechniqueRow(
        _T.LET_RING,
        "note left to ring",
        "notes left to ring",
        _W.WORD,
        "lr",
        _F,
        _D.WORDS,
        words="let ring",
        said={"en": "let it ring", "es": "deja sonar"},
    ),
    TechniqueRow(
        _T.STACCATO, "staccato", "staccatos", _W.WORD, "stac", _F, _D.DOT, said={"en": "short", "es": "corto"}
    ),
    TechniqueRow(
        _T.ACCENT,
        "accent",
        "accents",
        _W.WORD,
        "acc",
        _P,
        _D.WEDGE,
        said={"en": "accented", "es": "con acento"},
    ),
    TechniqueRow(
        _T.TREMOLO,
        "tremolo picking",
        "tremolo-picked notes",
        _W.WORD,
        "trem",
        _P,
        _D.STROKES,
        said={"en": "tremolo", "es": "en trémolo"},
    ),
    TechniqueRow(
        _T.FREE_TREMOLO,
        "tremolo as fast as it goes",
        "tremolos as fast as it goes",
        _W.WORD,
        "tremf",
        _P,
        _D.STROKES,
        words="free",
        said={"en": "tremolo as fast as it goes", "es": "en trémolo lo más rápido posible"},
    ),
    TechniqueRow(
        _T.NATURAL_HARMONIC,
        "natural harmonic",
        "natural harmonics",
        _W.AROUND,
        "<",
        _F,
        _D.ANGLES,
        said={"en": "harmonic at {fret}", "es": "armónico en el {fret}"},
    ),
    TechniqueRow(
        _T.TOUCHED_HARMONIC,
        "touched harmonic",
        "touched harmonics",
        _W.WORD,
        "touch",
        _F,
        _D.DIAMOND,
        words="touched",
        said={"en": "as a touched harmonic", "es": "como armónico tocado"},
    ),
    TechniqueRow(
        _T.ARTIFICIAL_HARMONIC,
        "artificial harmonic",
        "artificial harmonics",
        _W.WORD,
        "ah",
        _P,
        _D.DIAMOND,
        words="art. harmonic",
        said={"en": "as an artificial harmonic", "es": "como armónico artificial"},
    ),
    TechniqueRow(
        _T.PINCH_HARMONIC,
        "pinch harmonic",
        "pinch harmonics",
        _W.WORD,
        "pinch",
        _P,
        _D.DIAMOND,
        said={"en": "as a pinch harmonic", "es": "como armónico de púa"},
    ),
    TechniqueRow(
        _T.TAP,
        "tap",
        "taps",
        _W.PREFIX,
        "t",
        _P,
        _D.BEFORE,
        unpicked=True,
        said={"en": "tap {fret}", "es": "golpea {fret}"},
    ),
    TechniqueRow(
        _T.SLAP,
        "slap",
        "slaps",
        _W.WORD,
        "slap",
        _P,
        _D.WORDS,
        said={"en": "slapped", "es": "con golpe del pulgar"},
    ),
    TechniqueRow(
        _T.RAKE,
        "rake",
        "rakes",
        _W.WORD,
        "rake",
        _P,
        _D.WORDS,
        said={"en": "raked", "es": "arrastrando la púa"},
    ),
    TechniqueRow(
        _T.WHAMMY_DIP,
        "whammy dip",
        "whammy dips",
        _W.WORD,
        "dip",
        _P,
        _D.DIP,
        said={"en": "with a dip of the bar", "es": "hundiendo la palanca"},
    ),
    TechniqueRow(
        _T.PICK_AND_FINGERS,
        "pick and fingers",
        "pick-and-fingers notes",
        _W.WORD,
        "pf",
        _P,
        _D.WORDS,
        words="pick + fingers",
        said={"en": "with pick and fingers", "es": "con púa y dedos"},
    ),
)
TECHNIQUES: dict[Technique, TechniqueRow] = {row.technique: row for row in _ROWS}

# What is learnt together, from the first lessons on (common practice, no source).
_LEGATO = frozenset({_T.HAMMER_ON, _T.PULL_OFF, _T.SLIDE, _T.SHIFT_SLIDE})
TECHNIQUE_SETS: dict[str, frozenset[Technique]] = {
    "first lessons": frozenset({_T.HAMMER_ON, _T.PULL_OFF, _T.SLIDE, _T.LET_RING, _T.ACCENT, _T.STACCATO}),
    "chords and strumming": frozenset({_T.LET_RING, _T.DEAD, _T.PALM_MUTE, _T.ACCENT, _T.STACCATO}),
    "fingerstyle": _LEGATO
    | {_T.LET_RING, _T.NATURAL_HARMONIC, _T.PICK_AND_FINGERS, _T.SLAP, _T.GRACE, _T.DEAD, _T.VIBRATO},
    "lead": _LEGATO
    | {_T.SLIDE_IN_BELOW, _T.SLIDE_IN_ABOVE, _T.SLIDE_OUT_UP, _T.SLIDE_OUT_DOWN, _T.BEND_QUARTER}
    | {_T.BEND_HALF, _T.BEND_WHOLE, _T.RELEASE, _T.PRE_BEND, _T.UNISON_BEND, _T.VIBRATO, _T.TRILL, _T.GRACE}
    | {_T.PALM_MUTE, _T.DEAD, _T.RAKE, _T.TREMOLO},
}

HARMONICS = frozenset({_T.NATURAL_HARMONIC, _T.TOUCHED_HARMONIC, _T.ARTIFICIAL_HARMONIC, _T.PINCH_HARMONIC})
# What nobody can do who cannot do the first (common practice, no source).
_NEEDED_FOR: dict[Technique, frozenset[Technique]] = {
    _T.BEND_QUARTER: frozenset({_T.BEND_HALF}),
    _T.BEND_HALF: frozenset({_T.BEND_WHOLE, _T.RELEASE, _T.PRE_BEND}),
    _T.BEND_WHOLE: frozenset({_T.BEND_ONE_AND_HALF, _T.UNISON_BEND}),
    _T.BEND_ONE_AND_HALF: frozenset({_T.BEND_TWO}),
    _T.HAMMER_ON: frozenset({_T.TRILL}),
    _T.PULL_OFF: frozenset({_T.TRILL}),
    _T.TREMOLO: frozenset({_T.FREE_TREMOLO}),
    _T.NATURAL_HARMONIC: HARMONICS,
}


def with_harder(techniques: Iterable[Technique]) -> frozenset[Technique]:
    """Techniques, and all that need them: no whole-tone bend, no two-tone bend."""
    found = frozenset(techniques)
    needing = found.union(*(_NEEDED_FOR.get(each, frozenset()) for each in found))
    return found if needing == found else with_harder(needing)


HOW_WORDS: dict[str, Technique] = {row.sign: row.technique for row in _ROWS if row.writing is Writing.WORD}
# Settings of the hand for as long as they last, no demands that add up note by note.
SETTINGS = frozenset({_T.PALM_MUTE, _T.LET_RING})
UNPICKED = frozenset(row.technique for row in _ROWS if row.unpicked)
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
