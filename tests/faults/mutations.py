"""Spoilt files: whole ones changed at random, read in a process that is watched for time and memory."""

import io
import random
import resource
import signal
import time
import zipfile
from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path

from clear_steps.core.errors import ClearStepsError
from clear_steps.demo import demo_texts
from clear_steps.formats import import_song, write_song
from clear_steps.formats.songjson import song_to_json
from clear_steps.formats.tabtext import read_tab, write_tab
from clear_steps.ladders import default_ladder_json, read_ladder

MOST_SECONDS, MOST_BYTES = 2.0, 300 * 2**20
MUSIC21_SECONDS = 10.0  # it takes 2 to 3 s for some whole tunes of its own corpus
CALIBRATION = Path(__file__).parents[1] / "data/calibration"
_LONG = (7, 40, 300, 2_000)
_NUMBERS = (
    *(
        "0",
        "-1",
        "1e99999999",
        "99999999999999999999",
        "1/0",
        "1e-400",
        "NaN",
        "Infinity",
        "٣",
        "²",
        "0x10",
        ".",
    ),
    *("9" * 5_000, "1" * 41, "3.5e4", "-0", "1_000"),
)
_PIECES = (
    *(
        "|",
        "-",
        "\n",
        "\r",
        "\t",
        "\0",
        "\ud800",
        "é",
        "PM  ",
        "x2",
        "len|",
        "how|",
        "Tempo: ",
        "[",
        "]",
        "(",
        ")",
    ),
    *(
        "h",
        "p",
        "b",
        "r",
        "/",
        "\\",
        "//",
        "~",
        "<",
        ">",
        "&",
        '"',
        "{",
        "}",
        ":",
        ",",
        "1",
        "12",
        "=",
        " ",
        "%",
    ),
    *(
        "</note>",
        "<note>",
        "<!--",
        "<![CDATA[",
        "&#0;",
        "&amp;",
        "<chord/>",
        "null",
        "[[",
        "K:C\n",
        "V:1\n",
        "^^C",
    ),
)
_ABC = "X:1\nT:Yard\nM:{}\nL:1/8\nQ:1/4=96\nK:{}\n|: {} :|\n"


@dataclass
class Reader:
    """A reader with whole files to begin from."""

    name: str
    seeds: tuple[bytes, ...]
    read: Callable[[bytes], object]
    most_s: float = MOST_SECONDS


def readers() -> tuple[Reader, ...]:
    """The readers of everything that comes in."""
    texts = [*demo_texts(), *(file.read_text() for file in sorted(CALIBRATION.glob("*.tab")))]
    songs = [read_tab(text).song for text in texts]
    xml = tuple(write_song("a.musicxml", song) for song in songs[1:12])
    tunes = ("CDEF GABc|c2B2 A4", "E2 [CEG]2 z2 (3ABc|d>e f<g", "{g}a2 b'/ c,,3 | [1 A4 :|[2 G4")
    abc = tuple(_ABC.format("4/4", key, tune).encode() for key in ("C", "Gm", "D") for tune in tunes)
    return (
        Reader("tab text", tuple(text.encode() for text in texts), _imported("a.tab")),
        Reader("song as JSON", tuple(song_to_json(song) for song in songs[6:14]), _imported("a.json")),
        Reader("ladder", (default_ladder_json(),), read_ladder),
        Reader("MusicXML", xml, _imported("a.musicxml")),
        Reader("compressed MusicXML", tuple(_zipped(each) for each in xml[:4]), _imported("a.mxl")),
        Reader("MusicXML spoilt, then compressed", xml[:4], lambda xml: _imported("a.mxl")(_zipped(xml))),
        Reader("ABC", abc, _imported("a.abc"), MUSIC21_SECONDS),
        Reader("ABC named .xml", abc[:2], _imported("a.xml")),
    )


def _imported(name: str) -> Callable[[bytes], object]:
    return lambda content: write_tab(import_song(name, content).song)


def _zipped(xml: bytes) -> bytes:
    file = io.BytesIO()
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("score.musicxml", xml)
    return file.getvalue()


def spoilt(seed: bytes, chance: random.Random) -> bytes:
    """A file changed in one to four places."""
    content = seed
    for _ in range(chance.choice((1, 1, 2, 3))):
        content = chance.choice(_CHANGES)(content, chance)
    return content


def _cut(content: bytes, chance: random.Random) -> bytes:
    at = chance.randrange(len(content) + 1)
    return content[:at] + content[at + chance.choice((1, 3, 40, 400)) :]


def _flipped(content: bytes, chance: random.Random) -> bytes:
    changed = bytearray(content or b" ")
    for _ in range(chance.randint(1, 3)):
        changed[chance.randrange(len(changed))] = chance.choice(
            (chance.randrange(32, 127), chance.randrange(256))
        )
    return bytes(changed)


def _inserted(content: bytes, chance: random.Random) -> bytes:
    piece = chance.choice(_PIECES) * chance.choice((1, 1, 1, *_LONG))
    at = chance.randrange(len(content) + 1)
    return content[:at] + piece.encode("utf-8", "surrogatepass") + content[at:]


def _renumbered(content: bytes, chance: random.Random) -> bytes:
    places = [at for at, byte in enumerate(content) if 48 <= byte <= 57]
    if not places:
        return content
    at = chance.choice(places)
    return content[:at] + chance.choice(_NUMBERS).encode() + content[at + 1 :]


def _repeated(content: bytes, chance: random.Random) -> bytes:
    at = chance.randrange(len(content) + 1)
    piece = content[at : at + chance.choice((2, 20, 200))]
    return content[:at] + piece * chance.choice((2, 7, 40)) + content[at:]


def _moved_lines(content: bytes, chance: random.Random) -> bytes:
    lines = content.split(b"\n")
    at, to = chance.randrange(len(lines)), chance.randrange(len(lines))
    lines.insert(to, lines.pop(at))
    return b"\n".join(lines)


def _shortened(content: bytes, chance: random.Random) -> bytes:
    return content[: chance.randrange(len(content) + 1)]


_CHANGES = (
    _cut,
    _flipped,
    _inserted,
    _renumbered,
    _repeated,
    _moved_lines,
    _shortened,
    _inserted,
    _renumbered,
)


class _StillAtItError(BaseException):
    """Not an Exception: nobody may catch it on the way."""


def _give_up(_signal: int, _frame: object) -> None:
    raise _StillAtItError


@dataclass
class Outcome:
    """What became of many spoilt files."""

    tried: int = 0
    read: int = 0
    slowest_s: float = 0.0
    grown_bytes: int = 0
    faults: list[str] = field(default_factory=list)


def outcome(reader: Reader, count: int, seed: int) -> Outcome:
    """Read so many spoilt files; a fault is any error that is not one of ours, or too much time or memory."""
    chance, found = random.Random(seed), Outcome()
    with suppress(ClearStepsError):
        reader.read(reader.seeds[0])  # what is loaded once does not count
    before = _peak_bytes()
    signal.signal(signal.SIGVTALRM, _give_up)
    for content in _files(reader, count, chance):
        began = time.process_time()
        signal.setitimer(signal.ITIMER_VIRTUAL, 3 * reader.most_s)
        try:
            reader.read(content)
            found.read += 1
        except _StillAtItError:
            pass  # its time is told below
        except ClearStepsError as error:
            if not str(error) or len(str(error)) > 2_000:
                found.faults.append(f"{reader.name}: a message of {len(str(error))} characters")
        except Exception as error:
            found.faults.append(
                f"{reader.name}: {type(error).__name__}: {str(error)[:200]}; {_kept(content)}"
            )
        finally:
            signal.setitimer(signal.ITIMER_VIRTUAL, 0)
        seconds = time.process_time() - began
        found.tried += 1
        found.slowest_s = max(found.slowest_s, seconds)
        if seconds > reader.most_s:
            found.faults.append(f"{reader.name}: {seconds:.1f} s; {_kept(content)}")
    found.grown_bytes = _peak_bytes() - before
    if found.grown_bytes > MOST_BYTES:
        found.faults.append(f"{reader.name}: {found.grown_bytes:,} bytes")
    return found


def _files(reader: Reader, count: int, chance: random.Random) -> Iterator[bytes]:
    for _ in range(count):
        yield spoilt(chance.choice(reader.seeds), chance)


def _peak_bytes() -> int:
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024


def _kept(content: bytes) -> str:
    """Where the file that did it is kept, to be looked at."""
    folder = Path("/tmp/clear-steps-faults")
    folder.mkdir(exist_ok=True)
    file = folder / f"{abs(hash(content)):x}"
    file.write_bytes(content)
    return str(file)
