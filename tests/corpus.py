"""Songs in number, for the table of versions: tunes, chorales, strummed shapes and technique passages, the
same every time."""

import random
from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction
from pathlib import Path

from music21 import converter, corpus

from clear_steps.core.errors import ReadError
from clear_steps.core.score import COMMON_TIME, Bar, Bend, Event, Metre, Note, Part, Song, Stroke, Technique
from clear_steps.formats import import_song
from clear_steps.formats.assembly import assembled
from clear_steps.formats.pitched import PitchedMeasure, PitchedNote, PitchedPart, PitchedSong
from tests.outside.chord_shapes import chord_positions

TUNES, CHORALES, STRUMMED, PASSAGES = 200, 50, 100, 50


def tunes() -> Iterator[Song]:
    """Traditional tunes in music21's ABC corpus, placed on the neck."""
    files = sorted(
        Path(path) for path in corpus.getPaths() if "ryansMammoth" in str(path) and str(path).endswith(".abc")
    )
    found = 0
    for file in files[::3]:
        try:
            song = import_song(file.name, file.read_bytes()).song
        except ReadError:
            continue
        yield replace(song, title=f"tune: {file.stem}", parts=song.parts[:1])
        found += 1
        if found == TUNES:
            return


def chorales() -> Iterator[Song]:
    """Chorales reduced to their top voice and bass, an octave up where the bass lies below the guitar."""
    files = sorted(path for path in corpus.getComposer("bach") if str(path).endswith(".mxl"))
    found = 0
    for file in files:
        score = converter.parse(file)
        if len(score.parts) < 4:
            continue
        try:
            song = _two_voices(score, Path(file).stem)
        except ReadError:
            continue
        yield song
        found += 1
        if found == CHORALES:
            return


def _two_voices(score: object, name: str) -> Song:
    voices = (score.parts[0], score.parts[3])  # type: ignore[attr-defined]  # music21 has no types
    measures: list[PitchedMeasure] = []
    for number, rows in enumerate(
        zip(*(voice.getElementsByClass("Measure") for voice in voices), strict=False)
    ):
        signature = rows[0].timeSignature
        metre = (
            Metre(signature.numerator, signature.denominator)
            if signature
            else measures[-1].metre
            if measures
            else COMMON_TIME
        )
        notes = [
            PitchedNote(_fraction(note.offset), _fraction(note.duration.quarterLength), round(note.pitch.ps))
            for row in rows
            for note in row.recurse().notes
            if note.isNote
        ]
        end = max((note.onset + note.quarters for note in notes), default=metre.quarters)
        pickup = number == 0 and end < metre.quarters
        measures.append(
            PitchedMeasure(metre, end if pickup else max(end, metre.quarters), notes, pickup=pickup)
        )
    song = assembled(PitchedSong(f"chorale: {name}", [PitchedPart("", measures)])).song
    return replace(song, tempo=Fraction(80), tempo_assumed=False)


def _fraction(value: float) -> Fraction:
    return Fraction(value).limit_denominator(64)


def strummed() -> Iterator[Song]:
    """Four full shapes of the chord data set in a row, strummed in quarters or eighths."""
    draw = random.Random(11)
    shapes = [shape for shape in chord_positions() if sum(fret is not None for fret in shape) >= 4]
    for number in range(STRUMMED):
        length = draw.choice((Fraction(1), Fraction(1, 2)))
        bars = []
        for shape in draw.sample(shapes, 4):
            notes = tuple(
                Note(string, fret) for string, fret in enumerate(shape, start=1) if fret is not None
            )
            strokes = [
                Stroke.DOWN if length == 1 or at % 2 == 0 else Stroke.UP for at in range(int(4 / length))
            ]
            bars.append(Bar(events=tuple(Event(length, notes, stroke=stroke) for stroke in strokes)))
        yield Song(
            f"strummed {number + 1}", Fraction(draw.randrange(70, 130)), parts=(Part(bars=tuple(bars)),)
        )


def passages() -> Iterator[Song]:
    """Lines full of one technique: bends, taps, tremolo, legato, harmonics."""
    draw = random.Random(23)
    kinds = ("bends", "taps", "tremolo", "legato", "harmonics")
    for number in range(PASSAGES):
        kind = kinds[number % len(kinds)]
        bars = tuple(Bar(events=tuple(_technique_events(kind, draw))) for _ in range(4))
        yield Song(f"{kind} {number + 1}", Fraction(draw.randrange(70, 140)), parts=(Part(bars=bars),))


def _technique_events(kind: str, draw: random.Random) -> Iterator[Event]:
    length = Fraction(1) if kind in ("bends", "harmonics") else Fraction(1, 2)
    string, fret = draw.randint(1, 3), draw.randint(5, 10)
    for at in range(int(4 / length)):
        near = Note(string, fret + draw.choice((0, 2, 3)))
        if kind == "bends":
            near = replace(near, bend=Bend(Fraction(draw.choice((1, 2, 2, 3, 4))), draw.random() < 0.3))
        elif kind == "harmonics":
            near = Note(draw.randint(1, 5), draw.choice((5, 7, 12)), frozenset({Technique.NATURAL_HARMONIC}))
        elif kind == "taps":
            near = (
                Note(string, fret + 7, frozenset({Technique.TAP}))
                if at % 2 == 0
                else Note(string, fret, frozenset({Technique.PULL_OFF}))
            )
        elif kind == "legato":
            near = (
                Note(string, fret)
                if at % 2 == 0
                else Note(string, fret + draw.choice((2, 3)), frozenset({Technique.HAMMER_ON}))
            )
        words = frozenset({Technique.TREMOLO}) if kind == "tremolo" else frozenset()
        yield Event(length, (near,), words)
