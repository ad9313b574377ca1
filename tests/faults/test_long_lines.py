"""What once froze the server, or ended in an error of ours, is answered in a moment."""

import time
import tracemalloc
import zipfile
from io import BytesIO

import pytest

from clear_steps.core.errors import ClearStepsError
from clear_steps.formats import import_song

STRINGS = "\n".join(f"{name}|0---3---|" for name in "eBGDAE")
NOTE = (
    "<note>{chord}<pitch><step>{step}</step>{alter}<octave>{octave}</octave></pitch>"
    "<duration>{duration}</duration></note>"
)


def xml(notes: str, attributes: str = "<divisions>4</divisions>", sound: str = "") -> bytes:
    part = (
        '<part id="P1"><measure'
        f' number="1"><attributes>{attributes}</attributes>{sound}{notes}</measure></part>'
    )
    listed = '<part-list><score-part id="P1"><part-name>G</part-name></score-part></part-list>'
    return f'<score-partwise version="4.0">{listed}{part}</score-partwise>'.encode()


def note(step: str = "C", octave: str = "4", alter: str = "", duration: str = "1", chord: str = "") -> str:
    return NOTE.format(step=step, octave=octave, alter=alter, duration=duration, chord=chord)


def zipped(content: bytes, method: int = zipfile.ZIP_DEFLATED) -> bytes:
    file = BytesIO()
    with zipfile.ZipFile(file, "w", method) as archive:
        archive.writestr("a.musicxml", content)
    return file.getvalue()


def lying(archive: bytes) -> bytes:
    """An archive that says each entry unpacks to ten bytes."""
    content = bytearray(archive)
    for sign, at in ((b"PK\x03\x04", 22), (b"PK\x01\x02", 24)):
        start = content.index(sign) + at
        content[start : start + 4] = (10).to_bytes(4, "little")
    return bytes(content)


ABC = "X:1\nT:Yard\nM:4/4\nL:1/8\n{}K:C\n{}\n"
MANY = "".join(note(step, octave) for octave in "3456" for step in "CDEFGAB") * 178
FILES = {
    "palm mutes": ("a.tab", ("PM  " * 18 + "x2\n" + STRINGS).encode()),
    "a section of blanks": ("a.tab", ("[" + " " * 1_900 + "!\n" + STRINGS).encode()),
    "slashes": ("a.tab", STRINGS.replace("0---3---", "/" * 60 + "-" * 60).encode()),
    "label lines": ("a.tab", (STRINGS + "\n" + "PM--\n" * 15_000).encode()),
    "words over one long bar": (
        "a.tab",
        ("how|" + "PM " * 600 + "\n").encode() * 150
        + "\n".join(f"{n}|{'0-' * 900}|" for n in "eBGDAE").encode(),
    ),
    "empty lines": ("a.tab", b"\n" * 300_000 + STRINGS.encode()),
    "a tempo of many digits": ("a.tab", b"Tempo: 1e99999999\n" + STRINGS.encode()),
    "a tempo of many digits in a bar": ("a.tab", b"bar|@1e99999999\n" + STRINGS.encode()),
    "a scale of many digits": ("a.tab", b"Scale: 1e99999999\n" + STRINGS.encode()),
    "a value over a slide": ("a.tab", b"len|1h|\n" + STRINGS.replace("0---3---", "0-/3----").encode()),
    "a song of no parts": ("a.json", b"{}"),
    "brackets": ("a.json", b"[" * 100_000),
    "brackets in a song": ("a.json", b'{"schema":1,"song":' + b"[" * 100_000),
    "a tempo of many digits in JSON": ("a.json", b'{"tempo": "1e99999999", "parts": []}'),
    "a tempo of many digits in XML": (
        "a.musicxml",
        xml(note(), sound='<direction><sound tempo="1e99999999"/></direction>'),
    ),
    "divisions of many digits": ("a.musicxml", xml(note(), "<divisions>1e-99999999</divisions>")),
    "a superscript octave": ("a.musicxml", xml(note(octave="²"))),
    "an infinite alter": ("a.musicxml", xml(note(alter="<alter>inf</alter>"))),
    "five thousand notes in a measure": ("a.mxl", zipped(xml(MANY))),
    "five thousand notes at once": ("a.musicxml", xml(note() + MANY.replace("<note>", "<note><chord/>"))),
    "a value over a slide without a gap": (
        "a.tab",
        b"len|1h|\n" + STRINGS.replace("0---3---", "-1/9----").encode(),
    ),
    "a tune that ends like a path": ("a.abc", ABC.format("", "CDEF|").encode() + b"w: of a.abc"),
    "a zip that is larger than it says": ("a.mxl", lying(zipped(b" " * 80_000_000))),
    "a torn zip": ("a.mxl", zipped(xml(note()))[:-40]),
    "a zip of another method": ("a.mxl", zipped(xml(note()), zipfile.ZIP_LZMA)),
    "a zip with a spoilt middle": (
        "a.mxl",
        zipped(xml(MANY))[:200] + b"\xff" * 300 + zipped(xml(MANY))[500:],
    ),
    "a long note in ABC": ("a.abc", ABC.format("", "C100000|").encode()),
    "no tempo in ABC": ("a.abc", ABC.format("Q:1/4=0\n", "CDEF|").encode()),
    "a tempo of many digits in ABC": ("a.abc", ABC.format("Q:1/4=1e99999999\n", "CDEF|").encode()),
    "ABC named .xml": ("a.xml", ABC.format("", "CDEF|").encode()),
    "slurs in ABC": ("a.abc", ABC.format("", "(" * 2_000 + "C|").encode()),
}


def told_of(file: str, content: bytes) -> str | None:
    """What is wrong with a file; None where it is read."""
    try:
        import_song(file, content)
    except ClearStepsError as error:
        return str(error)
    return None


@pytest.mark.parametrize("name", FILES)
def test_it_is_read_or_told_in_a_moment(name: str) -> None:
    file, content = FILES[name]
    began = time.process_time()
    said = told_of(file, content)
    assert said is None or 0 < len(said) < 1_000
    assert time.process_time() - began < 2.0


def test_an_archive_that_lies_about_its_size_is_unpacked_in_bounded_pieces() -> None:
    _, content = FILES["a zip that is larger than it says"]
    tracemalloc.start()
    try:
        assert told_of("a.mxl", content)
        assert tracemalloc.get_traced_memory()[1] < 5_000_000
    finally:
        tracemalloc.stop()
