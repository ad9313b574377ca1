"""Familiar grips with the fingers taught for them: one table, for any tuning whose strings lie as there.

Fingers are common practice, no source; of several schools the first is the commonest.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache

from clear_steps.core.score import STANDARD, Tuning
from clear_steps.core.score.chords import Chord, parse_chord
from clear_steps.core.score.tuning import raised_half_tones

UNUSED = "x"
_HIGHEST = 14  # fret of the lowest finger to which a shape is moved
_STRINGS = 6

# name, grip from the thickest string, schools of fingers.
_OPEN = """
C x32010 x32010
D xx0232 xx0132
Dm xx0231 xx0231 xx0241
E 022100 023100
Em 022000 023000 012000
F xx3211 xx3211
F xx321x xx321x
G 320003 210003 320004 210004
G 320033 210034
A x02220 x01230 x02130 x02340 x01110 x02220
Am x02210 x02310
A7 x02020 x02030 x01020
B7 x21202 x21304
C7 x32310 x32410
D7 xx0212 xx0213
E7 020100 020100
G7 320001 320001
Am7 x02010 x02010
Dm7 xx0211 xx0211
Em7 022030 012030 023040
Em7 020000 020000 010000
Em7 022033 012034
Cmaj7 x32000 x32000
Dmaj7 xx0222 xx0111 xx0123
Emaj7 021100 031200
Fmaj7 xx3210 xx3210
Gmaj7 320002 320001
Amaj7 x02120 x02130
Cadd9 x32030 x21030 x32040
Cadd9 x32033 x21034
Dsus2 xx0230 xx0130
Dsus4 xx0233 xx0134 xx0123
Asus2 x02200 x01200 x02300
Asus4 x02230 x01230 x02340
Esus4 022200 023400 012300
G6 320000 210000 320000
D/F# 2x0232 Tx0132 1x0243
D/F# 200232 T00132 100243
G/B x20003 x10003 x20004
G/B x20033 x10034
C/B x22010 x23010
C/B x20010 x20010
Am/G 302210 402310
C/G 3x2010 4x2010 3x2010
Am/F# 2x2210 2x3410
"""
# The same anywhere on the neck, as it lies at its lowest place.
_MOVABLE = """
F 133211 134211
Fm 133111 134111
F7 131211 131211
Fm7 131111 131111
F 1x3211 1x3211 Tx3211
Fmaj7 1x221x 1x342x
Bb x13331 x12341 x13331
Bbm x13321 x13421
Bb7 x13131 x13141
Bbm7 x13121 x13121
Bbmaj7 x13231 x13241
F xxx211 xxx211
Fm xxx111 xxx111 xxx333
Bb xxx331 xxx341 xxx331
Db xxx121 xxx121 xxx132 xxx243
Dm xxx231 xxx231
"""


@dataclass(frozen=True, slots=True)
class FamiliarGrip:
    """A grip as it is taught: by string (1 the thinnest) its frets, strings it does not use left out, and the
    fingers of each school, 0 for open strings."""

    name: str
    frets: tuple[tuple[int, int], ...]
    schools: tuple[tuple[tuple[int, str], ...], ...]
    movable: bool = False

    @property
    def by_string(self) -> dict[int, int]:
        """Frets by string."""
        return dict(self.frets)

    @property
    def text(self) -> str:
        """Frets from the thickest string: `x32010`."""
        own = self.by_string
        return "".join(str(own.get(string, UNUSED)) for string in range(_STRINGS, 0, -1))

    @property
    def chord(self) -> Chord | None:
        """The chord it is, counted from the capo in standard tuning."""
        return parse_chord(self.name)


def _row(line: str) -> FamiliarGrip:
    name, grip, *schools = line.split()
    fingers = tuple(_cells(school) for school in schools)
    return FamiliarGrip(name, tuple((string, int(fret)) for string, fret in _cells(grip)), fingers)


def _cells(text: str) -> tuple[tuple[int, str], ...]:
    return tuple((_STRINGS - at, sign) for at, sign in enumerate(text) if sign != UNUSED)


def _moved(row: FamiliarGrip, frets: int) -> FamiliarGrip:
    chord = row.chord
    assert chord is not None, row.name
    higher = tuple((string, fret + frets) for string, fret in row.frets)
    return FamiliarGrip(chord.moved(frets).usual_name, higher, row.schools, movable=True)


@lru_cache(maxsize=1)
def _every() -> tuple[FamiliarGrip, ...]:
    moved = [_row(line) for line in _MOVABLE.split("\n") if line]
    return (
        *(_row(line) for line in _OPEN.split("\n") if line),
        *(_moved(row, frets) for row in moved for frets in range(_HIGHEST)),
    )


def open_grips() -> tuple[FamiliarGrip, ...]:
    """Those of the open position, in standard tuning."""
    return tuple(row for row in _every() if not row.movable)


@lru_cache(maxsize=50)
def familiar_grips(tuning: Tuning) -> tuple[FamiliarGrip, ...]:
    """The grips that a tuning has: those on strings that lie to one another as in standard tuning, named for
    that tuning as if nothing were raised; none on another number of strings."""
    if tuning.strings != STANDARD.strings:
        return ()
    return tuple(row for row in _every() if _lies_as_usual(row, tuning))


def _lies_as_usual(row: FamiliarGrip, tuning: Tuning) -> bool:
    apart = {tuning.open_pitch(string) - STANDARD.open_pitch(string) for string, _ in row.frets}
    return len(apart) == 1 and apart == {raised_half_tones(tuning)}


def grips_of(chord: Chord, tuning: Tuning) -> Iterator[FamiliarGrip]:
    """The familiar grips of a chord, those with its own bass first."""
    same = [row for row in familiar_grips(tuning) if _is_of(row, chord)]
    yield from sorted(same, key=lambda row: row.chord is None or row.chord.bass != chord.bass)


def _is_of(row: FamiliarGrip, chord: Chord) -> bool:
    own = row.chord
    return own is not None and (own.root, own.intervals) == (chord.root, chord.intervals)
