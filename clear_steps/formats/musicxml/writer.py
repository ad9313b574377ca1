"""Song -> MusicXML 4.0, a tab staff a part. Written by hand: no library at hand writes fingers and frets of
chords."""

import xml.etree.ElementTree as ElementTree
from collections.abc import Iterator
from fractions import Fraction
from math import lcm
from xml.etree.ElementTree import Element, SubElement

from clear_steps.core.score import (
    LAST_TIME,
    Bar,
    Event,
    Note,
    Part,
    Song,
    Stroke,
    Technique,
    Tuning,
    sharps_of,
    spelled,
)
from clear_steps.formats.musicxml.harmony import write_harmony
from clear_steps.formats.musicxml.signs import ARTICULATIONS, OTHER, name_of_technique
from clear_steps.formats.musicxml.values import WrittenValue, written_values

_DOCTYPE = '<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">'


def write_musicxml(song: Song) -> bytes:
    """A score-partwise document, UTF-8."""
    root = Element("score-partwise", version="4.0")
    _text(SubElement(root, "work"), "work-title", song.title or "Untitled")
    part_list = SubElement(root, "part-list")
    for index, part in enumerate(song.parts, start=1):
        score_part = SubElement(part_list, "score-part", id=f"P{index}")
        _text(score_part, "part-name", part.name or "Guitar")
    for index, part in enumerate(song.parts, start=1):
        _PartWriter(song, part).write(SubElement(root, "part", id=f"P{index}"))
    ElementTree.indent(root)
    body = ElementTree.tostring(root, encoding="unicode")
    return f'<?xml version="1.0" encoding="UTF-8"?>\n{_DOCTYPE}\n{body}\n'.encode()


def _text(parent: Element, tag: str, text: object, **attributes: str) -> Element:
    element = SubElement(parent, tag, attributes)
    element.text = str(text)
    return element


def _pitch(parent: Element, midi: int, sharps: int = 0, tag: str = "pitch", prefix: str = "") -> None:
    step, alter, octave = spelled(midi, sharps)
    element = SubElement(parent, tag) if tag else parent
    _text(element, f"{prefix}step", step)
    if alter:
        _text(element, f"{prefix}alter", alter)
    _text(element, f"{prefix}octave", octave)


class _PartWriter:
    """Writes one part, bar by bar."""

    def __init__(self, song: Song, part: Part) -> None:
        self._song, self._part = song, part
        lengths = [
            value.quarters
            for bar in part.bars
            for event in bar.events
            for value in written_values(event.quarters)
        ]
        self._sharps = sharps_of(part)
        self._divisions = lcm(1, *(length.denominator for length in lengths))
        self._sections = {section.first_bar: section for section in part.sections}
        self._remarks: dict[int, list[str]] = {}
        for index, text in part.remarks:
            self._remarks.setdefault(index, []).append(text)

    def write(self, parent: Element) -> None:
        """Every bar as a measure."""
        flat = [event for bar in self._part.bars for event in bar.events]
        following = iter([*flat[1:], Event(Fraction(0))])
        for index, bar in enumerate(self._part.bars):
            measure = SubElement(parent, "measure", number=str(self._part.bar_number(index)))
            if bar.pickup:
                measure.set("implicit", "yes")
            self._left_side(measure, index, bar)
            for event in bar.events:
                self._event(measure, event, next(following))
            self._right_barline(measure, index, bar)

    def _ending_numbers(self, index: int, bar: Bar) -> str:
        """The times an ending is played; the format has no word for the last one."""
        before = self._part.bars[index - 1] if index else bar
        last = max(before.passes, 2)
        return ",".join(str(last if number == LAST_TIME else number) for number in bar.endings)

    def _left_side(self, measure: Element, index: int, bar: Bar) -> None:
        before = self._part.bars[index - 1] if index else None
        if bar.repeat_start or (bar.endings and (before is None or before.endings != bar.endings)):
            barline = SubElement(measure, "barline", location="left")
            if bar.endings:
                SubElement(barline, "ending", number=self._ending_numbers(index, bar), type="start")
            if bar.repeat_start:
                SubElement(barline, "repeat", direction="forward")
        if before is None or before.metre != bar.metre:
            self._attributes(measure, index, bar)
        tempo = bar.tempo if bar.tempo is not None else self._song.tempo if index == 0 else None
        if tempo is not None:
            self._tempo(measure, tempo)
        if index in self._sections:
            _text(
                SubElement(SubElement(measure, "direction", placement="above"), "direction-type"),
                "rehearsal",
                self._sections[index].name,
            )
        for remark in self._remarks.get(index, []):
            self._words(measure, remark)

    def _attributes(self, measure: Element, index: int, bar: Bar) -> None:
        attributes = SubElement(measure, "attributes")
        if index == 0:
            _text(attributes, "divisions", self._divisions)
        time = SubElement(attributes, "time")
        _text(time, "beats", bar.metre.beats)
        _text(time, "beat-type", bar.metre.unit)
        if index == 0:
            clef = SubElement(attributes, "clef")
            _text(clef, "sign", "TAB")
            _text(clef, "line", 5)
            self._staff_details(attributes, self._part.tuning)

    def _staff_details(self, attributes: Element, tuning: Tuning) -> None:
        details = SubElement(attributes, "staff-details")
        _text(details, "staff-lines", tuning.strings)
        for line, midi in enumerate(reversed(tuning.pitches), start=1):
            _pitch(SubElement(details, "staff-tuning", line=str(line)), midi, tag="", prefix="tuning-")
        if self._part.capo:
            _text(details, "capo", self._part.capo)

    def _tempo(self, measure: Element, tempo: Fraction) -> None:
        direction = SubElement(measure, "direction", placement="above")
        metronome = SubElement(SubElement(direction, "direction-type"), "metronome")
        _text(metronome, "beat-unit", "quarter")
        _text(metronome, "per-minute", f"{float(tempo):g}")
        SubElement(direction, "sound", tempo=f"{float(tempo):g}")

    def _words(self, measure: Element, text: str) -> None:
        _text(
            SubElement(SubElement(measure, "direction", placement="above"), "direction-type"), "words", text
        )

    def _right_barline(self, measure: Element, index: int, bar: Bar) -> None:
        after = self._part.bars[index + 1] if index + 1 < len(self._part.bars) else None
        ends = bar.endings and (after is None or after.endings != bar.endings)
        if not (bar.repeat_times or bar.double_bar or ends):
            return
        barline = SubElement(measure, "barline", location="right")
        if bar.double_bar:
            _text(barline, "bar-style", "light-light")
        if ends:
            SubElement(barline, "ending", number=self._ending_numbers(index, bar), type="stop")
        if bar.repeat_times:
            SubElement(barline, "repeat", direction="backward", times=str(bar.passes))

    def _event(self, measure: Element, event: Event, following: Event) -> None:
        if event.chord and not write_harmony(measure, event.chord):
            self._words(measure, event.chord)
        if event.remark:
            self._words(measure, event.remark)
        values = written_values(event.quarters)
        for at, value in enumerate(values):
            if not event.notes:
                self._rest(measure, value)
            for number, note in enumerate(event.notes):
                starts = note.tied or at > 0
                goes_on = at + 1 < len(values) or any(
                    other.tied and other.string == note.string for other in following.notes
                )
                element = SubElement(measure, "note")
                if number:
                    SubElement(element, "chord")
                self._note(
                    element,
                    event,
                    note,
                    value,
                    (starts, goes_on),
                    following if at + 1 == len(values) else Event(Fraction(0)),
                )

    def _rest(self, measure: Element, value: WrittenValue) -> None:
        element = SubElement(measure, "note")
        SubElement(element, "rest")
        self._duration(element, value)
        self._value(element, value)

    def _duration(self, element: Element, value: WrittenValue) -> None:
        _text(element, "duration", int(value.quarters * self._divisions))

    def _value(self, element: Element, value: WrittenValue) -> None:
        _text(element, "voice", 1)
        if value.type:
            _text(element, "type", value.type)
        for _ in range(value.dots):
            SubElement(element, "dot")
        if value.actual > 1:
            modification = SubElement(element, "time-modification")
            _text(modification, "actual-notes", value.actual)
            _text(modification, "normal-notes", value.normal)

    def _note(
        self,
        element: Element,
        event: Event,
        note: Note,
        value: WrittenValue,
        tied: tuple[bool, bool],
        following: Event,
    ) -> None:
        _pitch(element, self._part.pitch_of(note), self._sharps)
        self._duration(element, value)
        for way, is_tied in zip(("stop", "start"), tied, strict=True):
            if is_tied:
                SubElement(element, "tie", type=way)
        self._value(element, value)
        if note.dead or note.optional:
            _text(
                element,
                "notehead",
                "x" if note.dead else "normal",
                **({"parentheses": "yes"} if note.optional else {}),
            )
        notations = SubElement(element, "notations")
        for way, is_tied in zip(("stop", "start"), tied, strict=True):
            if is_tied:
                SubElement(notations, "tied", type=way)
        struck = not tied[0]
        if struck:
            self._slides(notations, note, following)
            self._articulations(notations, event)
        self._technical(notations, event, note, following, struck)

    def _slides(self, notations: Element, note: Note, following: Event) -> None:
        if Technique.SLIDE in note.techniques:
            SubElement(
                notations, "slide", type="stop", number=_level(note.string), attrib={"line-type": "solid"}
            )
        if _arrives(following, note.string, Technique.SLIDE):
            SubElement(
                notations, "slide", type="start", number=_level(note.string), attrib={"line-type": "solid"}
            )

    def _articulations(self, notations: Element, event: Event) -> None:
        found = [tag for technique, tag in ARTICULATIONS.items() if technique in event.techniques]
        if found:
            parent = SubElement(notations, "articulations")
            for tag in found:
                SubElement(parent, tag)

    def _technical(
        self, notations: Element, event: Event, note: Note, following: Event, struck: bool
    ) -> None:
        technical = SubElement(notations, "technical")
        if note.finger and struck:
            _text(technical, "fingering", note.finger)
        if note.picking and struck:
            _text(technical, "pluck", note.picking)
        _text(technical, "fret", note.fret)
        _text(technical, "string", note.string)
        if event.stroke and struck:
            SubElement(technical, "down-bow" if event.stroke is Stroke.DOWN else "up-bow")
        for technique, tag, sign in (
            (Technique.HAMMER_ON, "hammer-on", "H"),
            (Technique.PULL_OFF, "pull-off", "P"),
        ):
            if technique in note.techniques:
                SubElement(technical, tag, type="stop", number=_level(note.string))
            if _arrives(following, note.string, technique):
                _text(technical, tag, sign, type="start", number=_level(note.string))
        if note.bend:
            bend = SubElement(technical, "bend")
            _text(bend, "bend-alter", f"{float(note.bend.half_tones):g}")
            if note.bend.released:
                SubElement(bend, "release")
        if Technique.TAP in note.techniques:
            SubElement(technical, "tap")
        if Technique.NATURAL_HARMONIC in note.techniques:
            SubElement(SubElement(technical, "harmonic"), "natural")
        if struck:
            for name in _other_names(event, note):
                _text(technical, "other-technical", name)


def _level(string: int) -> str:
    """The number by which a start finds its stop: MusicXML knows six, so the 7th string shares the 1st's."""
    return str((string - 1) % 6 + 1)


def _arrives(following: Event, string: int, technique: Technique) -> bool:
    return any(other.string == string and technique in other.techniques for other in following.notes)


def _other_names(event: Event, note: Note) -> Iterator[str]:
    """What MusicXML has no element for, by the name in the table of techniques."""
    for technique in sorted((note.techniques | event.techniques) & OTHER):
        yield name_of_technique(technique)
    yield from sorted(event.own_techniques)
    if note.uncertain:
        yield "uncertain"
