"""Tunings by name or by pitches, four to eight strings."""

from collections import Counter
from dataclasses import dataclass

from clear_steps.core.errors import ClearStepsError, InvalidValueError
from clear_steps.core.score.pitch import letter_of, midi_of, name_of

MIN_STRINGS, MAX_STRINGS = 4, 8
MAX_CAPO = 12  # fret
_FLATS = (3, 10)  # Eb and Bb, as pitch classes
_WITH_FLATS = {1: "Db", 6: "Gb", 8: "Ab"}
_WITH_SHARPS = {1: "C#", 6: "F#", 8: "G#"}


@dataclass(frozen=True, slots=True)
class Tuning:
    """Open strings as MIDI numbers, string 1 (thinnest) first."""

    pitches: tuple[int, ...]

    def __post_init__(self) -> None:
        if not MIN_STRINGS <= len(self.pitches) <= MAX_STRINGS:
            raise InvalidValueError("tuning", len(self.pitches), f"{MIN_STRINGS} to {MAX_STRINGS} strings")
        if not all(12 <= pitch <= 96 for pitch in self.pitches):
            raise InvalidValueError("tuning", self.spelled, "open strings between C0 and C7")

    @property
    def strings(self) -> int:
        """Number of strings."""
        return len(self.pitches)

    @property
    def spelled(self) -> str:
        """Pitches low to high: `E2 A2 D3 G3 B3 E4`."""
        return " ".join(name_of(pitch) for pitch in reversed(self.pitches))

    @property
    def name(self) -> str:
        """The common name where there is one, the spelled pitches otherwise."""
        return next((name for name, tuning in TUNINGS.items() if tuning == self), self.spelled)

    @property
    def letters(self) -> tuple[str, ...]:
        """Pitch letter of every string, string 1 first: with flats where one is an Eb or a Bb, else with
        sharps."""
        flat = any(pitch % 12 in _FLATS for pitch in self.pitches)
        spelled = _WITH_FLATS if flat else _WITH_SHARPS
        return tuple(spelled.get(pitch % 12, letter_of(pitch)) for pitch in self.pitches)

    def open_pitch(self, string: int) -> int:
        """MIDI number of an open string, 1 = thinnest."""
        return self.pitches[string - 1]


def _spelled(low_to_high: str) -> Tuning:
    return Tuning(tuple(midi_of(name) for name in reversed(low_to_high.split())))


# Names are common practice, no source; the first of each string count is the default.
TUNINGS: dict[str, Tuning] = {
    "standard": _spelled("E2 A2 D3 G3 B3 E4"),
    "drop D": _spelled("D2 A2 D3 G3 B3 E4"),
    "half step down": _spelled("Eb2 Ab2 Db3 Gb3 Bb3 Eb4"),
    "whole step down": _spelled("D2 G2 C3 F3 A3 D4"),
    "drop C#": _spelled("C#2 Ab2 Db3 Gb3 Bb3 Eb4"),
    "drop C": _spelled("C2 G2 C3 F3 A3 D4"),
    "double drop D": _spelled("D2 A2 D3 G3 B3 D4"),
    "DADGAD": _spelled("D2 A2 D3 G3 A3 D4"),
    "open D": _spelled("D2 A2 D3 F#3 A3 D4"),
    "open E": _spelled("E2 B2 E3 G#3 B3 E4"),
    "open G": _spelled("D2 G2 D3 G3 B3 D4"),
    "open A": _spelled("E2 A2 E3 A3 C#4 E4"),
    "open C": _spelled("C2 G2 C3 G3 C4 E4"),
    "bass": _spelled("E1 A1 D2 G2"),
    "bass 5 strings": _spelled("B0 E1 A1 D2 G2"),
    "7 strings": _spelled("B1 E2 A2 D3 G3 B3 E4"),
    "8 strings": _spelled("F#1 B1 E2 A2 D3 G3 B3 E4"),
}
STANDARD = TUNINGS["standard"]


def raised_half_tones(tuning: Tuning) -> int:
    """How far most strings lie above standard tuning; 0 where they have nothing in common."""
    apart = [own - usual for own, usual in zip(tuning.pitches, STANDARD.pitches, strict=False)]
    usual, count = Counter(apart).most_common(1)[0]
    return usual if 2 * count > len(apart) else 0


_LOWEST_THIN_STRING = 48  # MIDI C3: an instrument whose thinnest string lies below is a bass
_SCALE_MM, _BASS_SCALE_MM = 648.0, 864.0  # 25.5 and 34 inches, the commonest (common practice, no source)


def is_bass(tuning: Tuning) -> bool:
    """Whether it is a bass guitar's, by how low its thinnest string sounds."""
    return tuning.open_pitch(1) < _LOWEST_THIN_STRING


def usual_scale_mm(tuning: Tuning) -> float:
    """The commonest scale length of the instrument that is tuned so."""
    return _BASS_SCALE_MM if is_bass(tuning) else _SCALE_MM


def parse_tuning(text: str) -> Tuning:
    """A named tuning in any case, or pitches low to high; raises InvalidValueError otherwise."""
    wanted = " ".join(text.split())
    for name, tuning in TUNINGS.items():
        if name.lower() == wanted.lower():
            return tuning
    try:
        return _spelled(wanted)
    except ClearStepsError as cause:
        names = ", ".join(TUNINGS)
        raise InvalidValueError(
            "tuning", text, f"one of {names}, or pitches low to high such as D2 A2 D3 G3 B3 E4"
        ) from cause


def default_tuning(strings: int) -> Tuning | None:
    """The usual tuning of an instrument with so many strings."""
    return next((tuning for tuning in TUNINGS.values() if tuning.strings == strings), None)


def bass_from(strings: int) -> int:
    """The thinnest string of the lower half, by the number of strings: the 4th of six."""
    return strings // 2 + 1
