"""From raw text to headers, sections, systems and remarks: what each line is."""

import codecs
import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import StrEnum

from clear_steps.core.errors import Guess, Problem, ReadError
from clear_steps.core.score import HOW_WORDS, Role, parse_length

MAX_CHARACTERS = 400_000
MAX_COLUMNS = 2_000
MAX_LINES = 20_000
NOTHING = "\0"  # stands for a line that is passed over; no text may hold it
GOES_ON = "Goes on"  # the header key of a part that has begun before
HEADING = "\0"  # before a header line below the music


class Label(StrEnum):
    """The labelled lines of a system, in the order they are written."""

    BAR = "bar"
    CHORD = "chd"
    LENGTH = "len"
    COUNT = "cnt"
    HOW = "how"
    DYNAMIC = "dyn"
    PICKING = "pck"
    FINGER = "fin"
    REMARK = "rem"


@dataclass(frozen=True, slots=True)
class LabelLine:
    """A labelled line; `text` keeps its columns and bar lines, the label itself blanked out."""

    label: Label
    line: int
    text: str
    bare: bool = False  # recognised by what it holds, without its label


@dataclass(frozen=True, slots=True)
class StringLine:
    """One string of a system; `body` is the column after its name."""

    line: int
    name: str
    body: int
    text: str


@dataclass
class System:
    """String lines that belong together, thinnest first, with their labelled lines."""

    strings: list[StringLine] = field(default_factory=list)
    labels: list[LabelLine] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Header:
    """`Key: text`; column is that of the text."""

    line: int
    column: int
    key: str
    text: str


@dataclass(frozen=True, slots=True)
class SectionLine:
    """`[Name xN] {picked, clean}`; times None for `x?`; `[Name as Other: 1, 4]` is as the other but for these
    bars; in braces its role and its sound."""

    line: int
    name: str
    times: int | None
    like: str = ""
    differs: tuple[int, ...] = ()
    role: Role | None = None
    sound: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class RemarkLine:
    """Any other text, kept."""

    line: int
    text: str


@dataclass(frozen=True, slots=True)
class ReadingLine:
    """`Reading 5: name`: the bar that follows is another reading of bar 5; `Using 5: name` names the one in
    use."""

    line: int
    number: int
    name: str
    in_use: bool


Block = System | Header | SectionLine | RemarkLine | ReadingLine

_STRING = re.compile(r"\s*(?:(?P<name>[A-Ga-g](?:#|b|♯|♭)?-?\d?|\d(?=\s*\|))\s*)?(?P<body>[|\-].*)")
_HALF_CHARACTER = re.compile(r"[\ud800-\udfff]")
_LINE_END = re.compile(r"\r\n|\r|\n")
_TAB_SIGNS = re.compile(r"[-|:*\s0-9xXhpbrts~/\\()<>=?.]+")
_LABEL = re.compile(r"\s*(?P<label>" + "|".join(Label) + r")\s*\|")
_HEADER = re.compile(r"(?P<key>[A-Za-z](?:[A-Za-z ]{0,29}[A-Za-z])?+)\s*:(?P<text>.*)")
_SECTION = re.compile(r"\s*\[(?P<name>[^\]]*)\]\s*(?:\{(?P<words>[^{}]*)\}\s*)?")
# What teachers write beside the names of the roles.
_ROLES = {**{str(role): role for role in Role}, "strummed": Role.STRUM, "chord-melody": Role.CHORD_MELODY}
_TIMES = re.compile(r"x(\d{1,3}|\?)")
_LIKE = re.compile(r"(?P<name>.+?) as (?P<like>[^:]+): ?(?P<bars>\d{1,3}(?:[, ]+\d{1,3})*)")
_READING = re.compile(r"\s*(?P<word>Reading|Using) (?P<number>\d{1,3}): *(?P<name>.{1,60})")
_CHORD = re.compile(
    r"[A-G][#b]?(?:m|maj|min|dim|aug|sus|add|M|\+|-|°|ø|\d|[#b]\d|\(|\))*(?:/[A-G][#b]?)?|N\.?C\.?"
)
_COUNT = re.compile(r"(?:\d{1,2}+[e&atl+]{0,3}+)++|[e&atl+]{1,3}")
_BAR_MARK = re.compile(r"(?!1/)\d{1,2}/\d{1,2}|(?:\d\.)+|@\d[\d./]*|x\d{1,2}")
_STROKES = frozenset("DUdu")
_PALM_MUTE = re.compile(r"[\s|]*P\.?M[-.|\s]*(?:P\.?M[-.|\s]*)*")


def decode(content: bytes) -> tuple[str, tuple[Guess, ...]]:
    """Bytes of a file as text, and what was taken for granted: Unicode where it is, else Windows' Western
    letters."""
    if content.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)):
        return content.decode("utf-16", "replace"), ()
    try:
        return content.decode("utf-8-sig"), ()
    except UnicodeDecodeError:
        taken = Guess(1, 1, "the file is no UTF-8", "its letters are read as Western ones")
        return content.decode("cp1252", "replace"), (taken,)


def lines_of(text: str) -> list[str]:
    """The lines of a text; raises ReadError where it cannot be a tab at all."""
    _check_text(text)
    return _LINE_END.split(text)


def blocks_of(written: Sequence[str]) -> list[Block]:
    """Sort every line."""
    lines = [_line(number, line) for number, line in enumerate(written, start=1) if line != NOTHING]
    _see_what_stands_above(lines)
    blocks: list[Block] = []
    pending: list[LabelLine] = []
    system: System | None = None
    music_begun = False
    for line in lines:
        if line.string:
            if system is None:
                system = System(labels=pending)
                blocks.append(system)
                pending = []
            system.strings.append(line.string)
            music_begun = True
            continue
        if not line.text:
            system = None
            continue
        if line.label and system is not None and not line.stands_above:
            system.labels.append(line.label)
            continue
        system = None
        if line.label:
            pending.append(line.label)
            continue
        _release(pending, blocks)
        block = _plain_block(line.number, line.text, music_begun)
        music_begun = music_begun and not (isinstance(block, Header) and _begins_part(block.key))
        blocks.append(block)
    _release(pending, blocks)
    return [part for block in blocks for part in (_parted(block) if isinstance(block, System) else (block,))]


def _parted(system: System) -> list[System]:
    """The systems that stand together without a line between, by names that come again."""
    names = [line.name for line in system.strings]
    count = len(names)
    for size in (6, 7, 8, 5, 4, 9):
        known = any(names) or (size == 6 and count > 9)
        if known and count > size and count % size == 0 and names == names[:size] * (count // size):
            return [
                System(system.strings[at : at + size], [] if at else system.labels)
                for at in range(0, count, size)
            ]
    return [system]


@dataclass
class _Line:
    """A line of the text and what it can be; one between two systems without an empty line belongs to the
    lower."""

    number: int
    text: str
    string: StringLine | None
    label: LabelLine | None
    stands_above: bool = False  # the next line without a gap is a string line, or a label that stands above


def _line(number: int, text: str) -> _Line:
    text = text.expandtabs(8).rstrip()
    string = _string_line(number, text) if text else None
    return _Line(number, text, string, label_line(number, text) if text and not string else None)


def _see_what_stands_above(lines: list[_Line]) -> None:
    """From the last line up, so that each is looked at once."""
    for line, below in zip(lines[-2::-1], lines[:0:-1], strict=True):
        line.stands_above = bool(below.string) or (below.label is not None and below.stands_above)


def remark_line(text: str) -> str:
    """A remark as a line that is read back as one: what looks like a header stands a column in."""
    return f" {text}" if _HEADER.fullmatch(text) else text


def _release(pending: list[LabelLine], blocks: list[Block]) -> None:
    """Labelled lines that no system followed are remarks."""
    blocks.extend(RemarkLine(label.line, label.text.strip(" |")) for label in pending)
    pending.clear()


def _check_text(text: str) -> None:
    if not text.strip():
        raise ReadError((Problem(1, 1, "the text is empty; expected string lines such as e|--0--2--|"),))
    if len(text) > MAX_CHARACTERS:
        raise ReadError(
            (Problem(1, 1, f"the text has {len(text):,} characters; expected at most {MAX_CHARACTERS:,}"),)
        )
    lines = text.split("\n")
    if len(lines) > MAX_LINES:
        message = f"the text has {len(lines):,} lines; expected at most {MAX_LINES:,}"
        raise ReadError((Problem(MAX_LINES + 1, 1, message),))
    for number, line in enumerate(lines, start=1):
        _check_line(number, line)


def _check_line(number: int, line: str) -> None:
    if "\0" in line:
        message = "a NUL character stands here; expected plain text"
        raise ReadError((Problem(number, line.index("\0") + 1, message),))
    if half := _HALF_CHARACTER.search(line):
        message = "half of a character stands here (a lone surrogate); expected plain text"
        raise ReadError((Problem(number, half.start() + 1, message),))
    if len(line) > MAX_COLUMNS:
        message = f"the line has {len(line):,} columns; expected at most {MAX_COLUMNS:,}"
        raise ReadError((Problem(number, MAX_COLUMNS + 1, message),))


def _string_line(number: int, line: str) -> StringLine | None:
    match = _STRING.fullmatch(line)
    if not match:
        return None
    body, named = match["body"], bool(match["name"])
    dashes = body.count("-")
    if not dashes or ("|" not in body and not named):
        return None
    # Foreign signs are told at their column, but only in what is plainly a string line.
    plainly = body[0] == body[-1] == "|" and " " not in body
    if (
        not _TAB_SIGNS.fullmatch(body)
        and not (named and plainly)
        and (dashes < 3 or dashes * 3 < len(body.replace(" ", "")) - 12)
    ):
        return None
    return StringLine(number, match["name"] or "", match.start("body"), line)


def label_line(number: int, line: str) -> LabelLine | None:
    """A labelled line, or one that is recognised by what it holds; None of any other."""
    if match := _LABEL.match(line):
        return LabelLine(Label(match["label"]), number, " " * (match.end() - 1) + line[match.end() - 1 :])
    words = line.replace("|", " ").split()
    if not words or line.lstrip().startswith("["):
        return None
    if _PALM_MUTE.fullmatch(line):
        return LabelLine(Label.HOW, number, line.replace("P.M.", "PM--").replace(".", "-"))
    if all(_BAR_MARK.fullmatch(word) for word in words):
        return LabelLine(Label.BAR, number, line)
    if all(_COUNT.fullmatch(word) for word in words) and any(word[0].isdigit() for word in words):
        return LabelLine(Label.COUNT, number, line)
    if all(parse_length(word.removeprefix("R")) is not None for word in words):
        return LabelLine(Label.LENGTH, number, line, bare=True)
    if len("".join(words)) > 1 and set("".join(words)) <= _STROKES and "U" in line.upper():
        return LabelLine(Label.PICKING, number, line.upper())
    if all(_CHORD.fullmatch(word) for word in words):
        return LabelLine(Label.CHORD, number, line)
    if all(word.rstrip("-") in HOW_WORDS for word in words):
        return LabelLine(Label.HOW, number, line)
    return None


def _plain_block(number: int, line: str, music_begun: bool) -> Block:
    if match := _SECTION.fullmatch(line):
        return _section(number, match["name"].split(), match["words"] or "")
    if match := _READING.fullmatch(line):
        return ReadingLine(number, int(match["number"]), match["name"].strip(), match["word"] == "Using")
    match = _HEADER.fullmatch(line.removeprefix(HEADING))
    if match and (not music_begun or line.startswith(HEADING) or _begins_part(match["key"])):
        text = match["text"]
        column = match.start("text") + len(text) - len(text.lstrip()) + 1
        return Header(number, column, match["key"], text.strip())
    return RemarkLine(number, line.strip())


def _begins_part(key: str) -> bool:
    return key.lower() in ("part", GOES_ON.lower())


def _section(number: int, words: list[str], about: str) -> SectionLine:
    """`Verse x2`; the count may be missing, or `?`; `about`: what stands in braces."""
    counted = _TIMES.fullmatch(words[-1]) if len(words) > 1 else None
    times = counted[1] if counted else "1"
    name = " ".join(words[:-1] if counted else words)
    like = _LIKE.fullmatch(name)
    differs = tuple(int(bar) for bar in like["bars"].replace(",", " ").split()) if like else ()
    said = [" ".join(word.split()) for word in about.split(",") if word.strip()]
    roles = [word for word in said if word.lower() in _ROLES][:1]
    return SectionLine(
        number,
        like["name"] if like else name,
        None if times == "?" else int(times),
        like["like"] if like else "",
        differs,
        _ROLES[roles[0].lower()] if roles else None,
        tuple(word for word in said if word not in roles),
    )
