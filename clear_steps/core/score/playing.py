"""How it is played: fingers, strokes, loudness, what sounds the strings, which guitar, how even the beat,
what a section is."""

from enum import StrEnum


class Finger(StrEnum):
    """A fretting finger: index 1 to little 4, T for the thumb over the neck."""

    INDEX = "1"
    MIDDLE = "2"
    RING = "3"
    LITTLE = "4"
    THUMB = "T"


class PickingFinger(StrEnum):
    """A picking-hand finger: thumb p, index i, middle m, ring a, little c."""

    THUMB = "p"
    INDEX = "i"
    MIDDLE = "m"
    RING = "a"
    LITTLE = "c"


class Stroke(StrEnum):
    """Direction of the pick or strum."""

    DOWN = "D"
    UP = "U"


class Dynamic(StrEnum):
    """How loud, from a note on until the next such mark."""

    VERY_SOFT = "pp"
    SOFT = "p"
    RATHER_SOFT = "mp"
    RATHER_LOUD = "mf"
    LOUD = "f"
    VERY_LOUD = "ff"


class Picking(StrEnum):
    """What sounds the strings; it decides what the picking hand can do at all."""

    PICK = "pick"
    FINGERS = "fingers"
    THUMB_PICK = "thumb-pick"
    PICK_AND_FINGERS = "pick and fingers"

    @property
    def plucked(self) -> bool:
        """Whether fingers sound strings, so that voices far apart can go together."""
        return self is not Picking.PICK


class Instrument(StrEnum):
    """Kind of guitar."""

    ACOUSTIC = "acoustic"
    ELECTRIC = "electric"
    CLASSICAL = "classical"

    @property
    def body_fret(self) -> int | None:
        """The fret at which the neck joins the body and the hand must reach over it; None where it goes on
        (common practice, no source: 12 on a classical guitar, 14 on a steel-string one)."""
        return {Instrument.CLASSICAL: 12, Instrument.ACOUSTIC: 14}.get(self)


class Feel(StrEnum):
    """How even the beat is."""

    STRAIGHT = "straight"
    SWING = "swing"
    FREE = "free"


class Role(StrEnum):
    """What a section is for its player: its texture, which decides what of it is the tune."""

    STRUM = "strum"
    RIFF = "riff"
    PICKED = "picked"
    LINE = "line"
    CHORD_MELODY = "chord melody"
    BASS = "bass"
