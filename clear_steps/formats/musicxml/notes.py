"""One `note` element of MusicXML: pitch, place, fingers and techniques."""

from dataclasses import dataclass
from fractions import Fraction
from xml.etree.ElementTree import Element

from clear_steps.core.score import (
    MAX_FRET,
    TECHNIQUES,
    Bend,
    Finger,
    PickingFinger,
    Stroke,
    Technique,
    Writing,
    parse_number,
)
from clear_steps.formats.musicxml.signs import ARTICULATIONS, technique_of_name
from clear_steps.formats.pitched import PitchedNote

_HIGHEST_MIDI = 127
_STEPS = {"C": 0, "D": 2, "E": 4, "F": 5, "G": 7, "A": 9, "B": 11}
_BY_TAG = {tag: technique for technique, tag in ARTICULATIONS.items()} | {
    "strong-accent": Technique.ACCENT,
    "staccatissimo": Technique.STACCATO,
}
_QUIETLY_LEFT = {
    "tenuto",
    "tied",
    "slur",
    "tuplet",
    "string",
    "fret",
    "fingering",
    "pluck",
    "other-technical",
    "bend",
    "harmonic",
    "open-string",
}


@dataclass(frozen=True, slots=True)
class ReadNote:
    """The note without its time, and the names of what it has and the score does not know."""

    note: PitchedNote | None
    unknown: tuple[str, ...] = ()


def pitch_of(element: Element, prefix: str = "") -> int | None:
    """MIDI number of a step, alter and octave; None where they are none."""
    step, octave = (
        (element.findtext(f"{prefix}step") or "").strip(),
        (element.findtext(f"{prefix}octave") or "").strip(),
    )
    alter, height = parse_number(element.findtext(f"{prefix}alter") or "0"), parse_number(octave)
    if step not in _STEPS or alter is None or height is None or height.denominator > 1:
        return None
    midi = _STEPS[step] + round(alter) + 12 * (int(height) + 1)
    return midi if 0 <= midi <= _HIGHEST_MIDI else None


def note_of(element: Element, transpose: int) -> ReadNote:
    """Read a note that is no rest; without a pitch there is none."""
    pitch = element.find("pitch")
    midi = pitch_of(pitch) if pitch is not None else None
    if midi is None:
        return ReadNote(None)
    marks = _Marks(element)
    spot = marks.spot()
    note = PitchedNote(
        Fraction(0), Fraction(0), midi + transpose, spot,
        tied=any(tie.get("type") == "stop" for tie in element.iterfind("tie")),
        techniques=frozenset(marks.own),
        words=frozenset(marks.words),
        own_words=frozenset(marks.own_words),
        bend=marks.bend,
        finger=marks.finger,
        picking=marks.picking,
        stroke=marks.stroke,
        optional=marks.optional,
        uncertain=marks.uncertain,
    )  # fmt: skip
    return ReadNote(note, tuple(marks.unknown))


class _Marks:
    """Everything a note carries besides its pitch."""

    def __init__(self, element: Element) -> None:
        self.own: set[Technique] = set()
        self.words: set[Technique] = set()
        self.own_words: set[str] = set()
        self.unknown: list[str] = []
        self.bend: Bend | None = None
        self.finger: Finger | None = None
        self.picking: PickingFinger | None = None
        self.stroke: Stroke | None = None
        self.uncertain = False
        head = element.find("notehead")
        self.optional = head is not None and head.get("parentheses") == "yes"
        if head is not None and head.text == "x":
            self.own.add(Technique.DEAD)
        self._places: dict[str, int] = {}
        for notations in element.iterfind("notations"):
            for mark in notations:
                for each in mark if mark.tag in ("technical", "articulations", "ornaments") else (mark,):
                    self._read(each)

    def spot(self) -> tuple[int, int] | None:
        """String and fret, where both are written and can be."""
        string, fret = self._places.get("string"), self._places.get("fret")
        if string is None or fret is None or not (1 <= string <= 8 and 0 <= fret <= MAX_FRET):
            return None
        return string, 0 if Technique.DEAD in self.own else fret

    def _read(self, mark: Element) -> None:
        tag, text = mark.tag, (mark.text or "").strip()
        starts = mark.get("type") == "start"
        if tag in ("string", "fret") and (number := parse_number(text)) is not None:
            self._places[tag] = int(number)
        elif tag == "fingering" and text in set(Finger):
            self.finger = Finger(text)
        elif tag == "pluck" and text in set(PickingFinger):
            self.picking = PickingFinger(text)
        elif tag in ("hammer-on", "pull-off", "slide", "glissando"):
            if not starts:
                self.own.add(
                    {"hammer-on": Technique.HAMMER_ON, "pull-off": Technique.PULL_OFF}.get(
                        tag, Technique.SLIDE
                    )
                )
        elif tag == "bend":
            self._read_bend(mark)
        elif tag == "tap":
            self.own.add(Technique.TAP)
        elif tag == "harmonic":
            artificial = mark.find("artificial") is not None
            (self.words if artificial else self.own).add(
                Technique.ARTIFICIAL_HARMONIC if artificial else Technique.NATURAL_HARMONIC
            )
        elif tag in ("down-bow", "up-bow"):
            self.stroke = Stroke.DOWN if tag == "down-bow" else Stroke.UP
        elif tag in _BY_TAG:
            self.words.add(_BY_TAG[tag])
        elif tag == "trill-mark":
            self.words.add(Technique.TRILL)
        elif tag == "tremolo":
            self.words.add(Technique.TREMOLO)
        elif tag == "other-technical":
            self._read_other(text)
        elif tag not in _QUIETLY_LEFT:
            self.unknown.append(tag.replace("-", " "))

    def _read_bend(self, mark: Element) -> None:
        half_tones = Fraction(round((parse_number(mark.findtext("bend-alter") or "") or 0) * 2), 2)
        released = mark.find("release") is not None
        if 0 <= half_tones <= 6 and (half_tones or released):
            self.bend = Bend(half_tones, released)
        else:
            self.unknown.append(f"bend by {float(half_tones):g} half tones")

    def _read_other(self, text: str) -> None:
        technique = technique_of_name(text)
        if technique is not None and TECHNIQUES[technique].writing in (Writing.PREFIX, Writing.SUFFIX):
            self.own.add(technique)
        elif technique is not None:
            self.words.add(technique)
        elif text == "uncertain":
            self.uncertain = True
        elif text.replace("_", "").isalnum() and text[:1].isalpha():
            self.own_words.add(text[:24])
        elif text:
            self.unknown.append(text)
