"""MusicXML against the schema and the test suite inside music21, and against three other readers; MIDI
against two."""

import io
import tempfile
import zipfile
from fractions import Fraction
from functools import cache
from pathlib import Path

import mido
import music21
import partitura
import pytest
import verovio
import xmlschema
from hypothesis import given, settings

from clear_steps.core.errors import ReadError
from clear_steps.core.score import Part, Song, played_order
from clear_steps.demo import demo_texts
from clear_steps.formats.midi import TICKS_PER_QUARTER, write_midi
from clear_steps.formats.musicxml import read_musicxml, write_musicxml
from clear_steps.formats.tabtext import read_tab, write_tab
from tests.songs import songs

MUSIC21 = Path(music21.__file__).parent / "musicxml"
SUITE = sorted(
    file for file in (MUSIC21 / "lilypondTestSuite").iterdir() if file.suffix in (".xml", ".mxl", ".musicxml")
)
DEMO = [read_tab(text).song for text in demo_texts()]


@pytest.fixture(scope="module")
def schema() -> xmlschema.XMLSchema:
    return xmlschema.XMLSchema(str(MUSIC21 / "musicxml.xsd"), allow="local")


@pytest.mark.parametrize("song", DEMO, ids=lambda song: song.title)
def test_what_we_write_fits_the_schema(song: Song, schema: xmlschema.XMLSchema) -> None:
    schema.validate(write_musicxml(song).decode().split("\n", 2)[2])


@settings(max_examples=60)
@given(songs())
def test_any_song_we_write_fits_the_schema_and_reads_back_by_us_with_the_same_notes(
    schema: xmlschema.XMLSchema, song: Song
) -> None:
    content = write_musicxml(song)
    schema.validate(content.decode().split("\n", 2)[2])
    sounding = [part for part in song.parts if any(event.notes for _, _, event in part.events())]
    if not sounding:
        return
    back = read_musicxml(content).song
    for part, other in zip(sounding, back.parts, strict=True):
        assert places(part) == places(other)


def places(part: Part) -> list[tuple[int, Fraction, int, int]]:
    return [
        (index, onset, note.string, note.fret)
        for index, onset, event in part.events()
        for note in event.struck
    ]


def pitches_with_onsets(song: Song) -> list[tuple[float, int]]:
    """Written onsets in quarters from the start, ties left out, of the first part."""
    part, found, at = song.parts[0], [], Fraction(0)
    for bar in part.bars:
        for onset, event in zip(bar.onsets, bar.events, strict=True):
            found += [(round(float(at + onset), 4), part.pitch_of(note)) for note in event.struck]
        at += bar.quarters
    return sorted(found)


@pytest.mark.parametrize("song", DEMO, ids=lambda song: song.title)
def test_music21_reads_back_the_same_pitches_onsets_strings_and_frets(song: Song) -> None:
    score = music21.converter.parseData(write_musicxml(song), format="musicxml")
    part = score.parts[0]
    elements = [
        element for element in part.recurse().notes if not isinstance(element, music21.harmony.ChordSymbol)
    ]
    found = []
    for element in elements:
        onset = round(float(element.getOffsetInHierarchy(part)), 4)
        own = element.notes if element.isChord else (element,)
        found += [
            (onset, round(note.pitch.ps))
            for note in own
            if not (note.tie and note.tie.type in ("stop", "continue"))
        ]
    assert sorted(found) == pitches_with_onsets(song)
    marks = [
        mark
        for element in elements
        for note in [element, *getattr(element, "notes", ())]
        for mark in note.articulations
    ]
    strings = [mark.number for mark in marks if isinstance(mark, music21.articulations.StringIndication)]
    frets = [mark.number for mark in marks if isinstance(mark, music21.articulations.FretIndication)]
    single = [event.notes[0] for _, _, event in song.parts[0].events() if len(event.notes) == 1]
    assert len(strings) >= len(single)
    assert len(frets) >= len(single)


@pytest.mark.parametrize("song", DEMO, ids=lambda song: song.title)
def test_partitura_reads_back_the_same_pitches_and_onsets(song: Song) -> None:
    with tempfile.TemporaryDirectory() as directory:
        file = Path(directory) / "song.musicxml"
        file.write_bytes(write_musicxml(song))
        part = partitura.load_musicxml(str(file)).parts[0]
    found = [
        (round(float(part.quarter_map(note.start.t)), 4), int(note.midi_pitch)) for note in part.notes_tied
    ]
    first = min(onset for onset, _ in found) - min(onset for onset, _ in pitches_with_onsets(song))
    assert sorted((round(onset - first, 4), pitch) for onset, pitch in found) == pitches_with_onsets(song)


@pytest.mark.parametrize("song", DEMO, ids=lambda song: song.title)
def test_verovio_engraves_every_struck_note(song: Song) -> None:
    toolkit = verovio.toolkit()
    assert toolkit.loadData(write_musicxml(song).decode())
    timemap = toolkit.renderToTimemap({"includeMeasures": False})
    started = sorted({round(entry["qstamp"], 3) for entry in timemap if entry.get("on")})
    onsets = {onset for onset, _ in pitches_with_onsets(song)}
    assert started[0] == pytest.approx(min(onsets), abs=1e-3)
    assert len(started) >= len(onsets)


@cache
def refusal_of(file: Path) -> str:
    """What is said where a file of the suite is not read; nothing where it is."""
    try:
        found = read_musicxml(file.read_bytes())
    except ReadError as error:
        return str(error.problems[0])
    assert read_tab(write_tab(found.song)).song.parts[0].bars == found.song.parts[0].bars
    return ""


@pytest.mark.parametrize("file", SUITE, ids=lambda file: file.name)
def test_every_file_of_the_suite_is_read_or_refused_with_a_clear_message(file: Path) -> None:
    refusal = refusal_of(file)
    assert not refusal or "expected" in refusal or "no notes" in refusal


def test_most_of_the_suite_is_read() -> None:
    assert sum(not refusal_of(file) for file in SUITE) > 100


def zipped(entries: dict[str, bytes]) -> bytes:
    output = io.BytesIO()
    with zipfile.ZipFile(output, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in entries.items():
            archive.writestr(name, content)
    return output.getvalue()


def spoilt(content: bytes) -> bytes:
    """The same file with bytes of its packed data overwritten."""
    return content[:60] + b"\xff" * 40 + content[100:]


@pytest.mark.parametrize(
    "content",
    [
        b'<?xml version="1.0"?><!DOCTYPE a [<!ENTITY b "c"><!ENTITY d "&b;&b;">]><a>&d;</a>',
        b'<?xml version="1.0"?><!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><score-partwise>&x;</score-partwise>',
        b"<score-partwise><part>",
        b"PK\x03\x04 not a zip",
        b"<html/>",
        zipped({"META-INF/container.xml": b"<broken", "score.xml": b"<score-partwise/>"}),
        zipped(
            {
                "META-INF/container.xml": b'<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>',
                "score.xml": b"<score-partwise/>",
            }
        ),
        zipped({"readme.txt": b"no score here"}),
        spoilt(zipped({"score.xml": b"<score-partwise>" + bytes(range(256)) * 40})),
        b"",
    ],
)
def test_hostile_and_broken_files_are_refused(content: bytes) -> None:
    with pytest.raises(ReadError):
        read_musicxml(content)


@pytest.mark.parametrize("song", DEMO, ids=lambda song: song.title)
def test_midi_reads_back_with_the_same_onsets_tempo_and_metre(song: Song) -> None:
    file = mido.MidiFile(file=io.BytesIO(write_midi(song)))
    tempos = [message for message in file.tracks[0] if message.type == "set_tempo"]
    metres = [message for message in file.tracks[0] if message.type == "time_signature"]
    metre = song.parts[0].bars[0].metre
    assert round(60_000_000 / tempos[0].tempo, 2) == pytest.approx(float(song.playing_tempo), abs=0.01)
    assert (metres[0].numerator, metres[0].denominator) == (metre.beats, metre.unit)
    at, onsets = 0, []
    for message in file.tracks[1]:
        at += message.time
        onsets += [at / TICKS_PER_QUARTER] * (message.type == "note_on")
    part, expected, start = song.parts[0], [], Fraction(0)
    for index in played_order(part, song.order):
        bar = part.bars[index]
        expected += [
            float(start + onset)
            for onset, event in zip(bar.onsets, bar.events, strict=True)
            for note in event.struck
            if not note.dead
        ]
        start += bar.quarters
    assert sorted(onsets) == pytest.approx(sorted(expected), abs=1e-3)
    assert music21.converter.parseData(write_midi(song), format="midi").parts
