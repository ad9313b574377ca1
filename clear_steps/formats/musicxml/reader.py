"""MusicXML -> pitched music: every pitch with its time, and string, fret, finger and technique where the file
has them."""

from collections import Counter
from dataclasses import replace
from fractions import Fraction
from xml.etree.ElementTree import Element

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.score import COMMON_TIME, Metre, Technique, Tuning, parse_number
from clear_steps.formats.assembly import assembled
from clear_steps.formats.musicxml.container import xml_of
from clear_steps.formats.musicxml.harmony import read_harmony
from clear_steps.formats.musicxml.notes import note_of, pitch_of
from clear_steps.formats.pitched import Imported, PitchedMeasure, PitchedNote, PitchedPart, PitchedSong

_MOST_WORDS = 200  # characters of a direction that are kept as a remark


def read_musicxml(content: bytes) -> Imported:
    """The song in a MusicXML file, plain or compressed; raises ReadError."""
    root = xml_of(content)
    if root.tag != "score-partwise":
        found = "a score-timewise document" if root.tag == "score-timewise" else f"<{root.tag}>"
        raise ReadError((Problem(1, 1, f"the file is {found}; expected a score-partwise MusicXML document"),))
    title = _first_text(root, "work/work-title", "movement-title")
    names = {
        part.get("id"): " ".join((part.findtext("part-name") or "").split())
        for part in root.iterfind("part-list/score-part")
    }
    song = PitchedSong(title, [])
    several = len(root.findall("part")) > 1
    for part in root.iterfind("part"):
        _PartReader(song, names.get(part.get("id"), "") if several else "").read(part)
    return assembled(song)


def _first_text(root: Element, *paths: str) -> str:
    texts = (root.findtext(path) for path in paths)
    return next((" ".join(text.split()) for text in texts if text and text.strip()), "")


class _PartReader:
    """Reads one part; what MusicXML keeps from measure to measure is kept here."""

    def __init__(self, song: PitchedSong, name: str) -> None:
        self._song, self._name = song, name
        self._divisions = Fraction(1)
        self._metre = COMMON_TIME
        self._transpose = 0
        self._at_pitch = False
        self._tuning: Tuning | None = None
        self._capo = 0
        self._endings: tuple[int, ...] = ()
        self._graced = False
        self._sounding: dict[tuple[Fraction, int, tuple[int, int] | None], PitchedNote] = {}  # of the measure
        self._unknown: Counter[str] = Counter()
        self._staves: dict[str, bool] = {}  # staff -> whether it has places on strings

    def read(self, part: Element) -> None:
        """Add the part to the song."""
        for note in part.iter("note"):
            staff = note.findtext("staff") or "1"
            self._staves[staff] = (
                self._staves.get(staff, False) or note.find("notations/technical/string") is not None
            )
        # Where notes and tab of the same music stand together, the tab says more.
        tabbed = {staff for staff, has_places in self._staves.items() if has_places}
        self._wanted = tabbed or set(self._staves)
        if tabbed and len(tabbed) < len(self._staves):
            self._song.guessed(f"{self._name or 'the part'} has notes and tab", "the tab staff is read")
        measures = [self._measure(element, index) for index, element in enumerate(part.iterfind("measure"))]
        self._song.parts.append(PitchedPart(self._name, measures, self._tuning, self._capo, self._at_pitch))
        named = self._name or "the part"
        self._song.left_out += [
            f"{count} x {what} in {named}" for what, count in sorted(self._unknown.items())
        ]

    def _measure(self, element: Element, index: int) -> PitchedMeasure:
        measure = PitchedMeasure(self._metre, Fraction(0))
        self._sounding = {}
        at, end, chord_at = Fraction(0), Fraction(0), Fraction(0)
        for child in element:
            if child.tag == "attributes":
                self._attributes(child)
            elif child.tag == "direction":
                self._direction(child, measure, at)
            elif child.tag == "barline":
                self._barline(child, measure)
            elif child.tag == "backup":
                at = max(at - self._duration(child), Fraction(0))
            elif child.tag == "forward":
                at += self._duration(child)
            elif child.tag == "note":
                length = self._duration(child)
                start = chord_at if child.find("chord") is not None else at
                self._note(child, start, length, measure)
                if child.find("chord") is None and child.find("grace") is None:
                    chord_at, at = at, at + length
            elif child.tag == "harmony" and (name := read_harmony(child)):
                measure.chords.append((at, name))
            end = max(end, at)
        measure.metre = self._metre
        measure.endings = self._endings or measure.endings
        measure.pickup = (
            index == 0
            and end < self._metre.quarters
            and (element.get("implicit") == "yes" or element.get("number") == "0")
        )
        measure.length = end or self._metre.quarters
        measure.notes = list(self._sounding.values())
        return measure

    def _duration(self, element: Element) -> Fraction:
        return abs(_fraction(element.findtext("duration"))) / self._divisions

    def _attributes(self, element: Element) -> None:
        if element.find("divisions") is not None:
            self._divisions = abs(_fraction(element.findtext("divisions"))) or Fraction(1)
        time = element.find("time")
        if time is not None:
            self._metre = self._read_metre(time) or self._metre
        transpose = element.find("transpose")
        if transpose is not None or element.find("clef/clef-octave-change") is not None:
            self._at_pitch = True
        if transpose is not None:
            self._transpose = int(_fraction(transpose.findtext("chromatic"))) + 12 * int(
                _fraction(transpose.findtext("octave-change"))
            )
        details = element.find("staff-details")
        if details is not None and details.find("staff-tuning") is not None:
            self._read_tuning(details)

    def _read_metre(self, time: Element) -> Metre | None:
        beats, units = (
            [element.text or "" for element in time.iterfind("beats")],
            [element.text or "" for element in time.iterfind("beat-type")],
        )
        try:
            if len(beats) == 1 and len(units) == 1:
                return Metre(sum(int(each) for each in beats[0].split("+")), int(units[0]))
            if beats and len(set(units)) == 1:
                return Metre(sum(int(each) for row in beats for each in row.split("+")), int(units[0]))
        except (ValueError, ClearStepsError):
            pass
        if beats:
            self._song.guessed(
                f"the metre {'+'.join(beats)}/{'+'.join(units)} is not read",
                f"bars go on as {self._metre}, or by what they hold",
            )
        return None

    def _read_tuning(self, details: Element) -> None:
        rows = sorted(details.iterfind("staff-tuning"), key=lambda row: int(_fraction(row.get("line"))))
        pitches = [pitch_of(row, "tuning-") for row in rows]
        if all(pitch is not None for pitch in pitches):
            try:
                self._tuning = Tuning(tuple(pitch for pitch in reversed(pitches) if pitch is not None))
            except ClearStepsError as error:
                self._song.guessed(
                    f"the tuning of {self._name or 'the part'} is not read: {error}", "the usual one is taken"
                )
        self._capo = min(max(int(_fraction(details.findtext("capo"))), 0), 12)

    def _direction(self, element: Element, measure: PitchedMeasure, at: Fraction) -> None:
        sound = element.find("sound")
        tempo = _fraction(sound.get("tempo")) if sound is not None else Fraction(0)
        tempo = tempo or _metronome(element)
        if 10 <= tempo <= 400:
            measure.tempo = measure.tempo or tempo
        rehearsal = _first_text(element, "direction-type/rehearsal")
        measure.section = measure.section or " ".join(rehearsal.replace("[", "(").replace("]", ")").split())
        words = " ".join((element.findtext("direction-type/words") or "").split())
        if words and tempo == 0:
            measure.texts.append((at, words[:_MOST_WORDS]))

    def _barline(self, element: Element, measure: PitchedMeasure) -> None:
        repeat, ending = element.find("repeat"), element.find("ending")
        if repeat is not None and repeat.get("direction") == "forward":
            measure.repeat_start = True
        if repeat is not None and repeat.get("direction") == "backward":
            measure.repeat_times = min(max(int(_fraction(repeat.get("times")) or 2), 2), 20)
        if ending is not None:
            listed = (ending.get("number") or "").replace(" ", ",").split(",")
            numbers = tuple(
                sorted({int(number) for number in listed if len(number) == 1 and number in "123456789"})
            )
            measure.endings = numbers
            self._endings = numbers if ending.get("type") == "start" else ()
        measure.double_bar = measure.double_bar or (
            element.get("location") == "right" and element.findtext("bar-style") == "light-light"
        )

    def _note(self, element: Element, at: Fraction, length: Fraction, measure: PitchedMeasure) -> None:
        if (element.findtext("staff") or "1") not in self._wanted or element.find("rest") is not None:
            return
        if element.find("cue") is not None:
            self._unknown["cue note"] += 1
            return
        if element.find("grace") is not None:
            self._graced = True
            return
        read = note_of(element, self._transpose)
        self._unknown.update(read.unknown)
        if read.note is None:
            self._unknown["note without a pitch"] += 1
            return
        note = replace(read.note, onset=at, quarters=length)
        if self._graced and element.find("chord") is None:
            note = replace(note, words=note.words | {Technique.GRACE})
            self._graced = False
        key = (at, note.midi, note.spot)
        # Two voices on one note: the longer counts.
        self._sounding[key] = max(self._sounding[key], note, key=_length) if key in self._sounding else note


def _length(note: PitchedNote) -> Fraction:
    return note.quarters


def _metronome(element: Element) -> Fraction:
    """Quarters a minute of a metronome mark, 0 where it says none."""
    mark = element.find("direction-type/metronome")
    if mark is None:
        return Fraction(0)
    units = {
        "whole": Fraction(4),
        "half": Fraction(2),
        "quarter": Fraction(1),
        "eighth": Fraction(1, 2),
        "16th": Fraction(1, 4),
    }
    unit = units.get(mark.findtext("beat-unit") or "", Fraction(0)) * (
        Fraction(3, 2) if mark.find("beat-unit-dot") is not None else 1
    )
    return _fraction(mark.findtext("per-minute")) * unit


def _fraction(text: str | None) -> Fraction:
    """A number as the file writes it; 0 where it is none."""
    return (parse_number(text or "") or Fraction(0)).limit_denominator(100_000)
