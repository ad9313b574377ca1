"""Reads directions beside the tab they are of, as a student does: what is said must be what stands there.

Tables and patterns of its own, nothing of how the words were made. A grip that is named stands for its notes,
a pattern for its strings; both are looked for in the notes that are written.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from clear_steps.core.figures import At
from clear_steps.core.score import Event, Note, Part, Technique
from clear_steps.core.score.chords import parse_chord
from clear_steps.core.shapes import Kind, read_shapes
from clear_steps.core.teach.chunks import Chunk
from clear_steps.core.teach.chunks.chunk import Struck, struck_in, within

T = Technique
TECHNIQUES = {
    "hammer to": T.HAMMER_ON,
    "pull off to": T.PULL_OFF,
    "slide to": T.SLIDE,
    "and pick it": T.SHIFT_SLIDE,
    "from below": T.SLIDE_IN_BELOW,
    "from above": T.SLIDE_IN_ABOVE,
    "slide out upwards": T.SLIDE_OUT_UP,
    "slide out downwards": T.SLIDE_OUT_DOWN,
    "before it sounds": T.PRE_BEND,
    "as a unison bend": T.UNISON_BEND,
    "with vibrato": T.VIBRATO,
    "trilled": T.TRILL,
    "as a quick grace note": T.GRACE,
    "muted": T.PALM_MUTE,
    "let it ring": T.LET_RING,
    "short": T.STACCATO,
    "accented": T.ACCENT,
    "tremolo": T.TREMOLO,
    "tremolo as fast as it goes": T.FREE_TREMOLO,
    "harmonic at": T.NATURAL_HARMONIC,
    "as a touched harmonic": T.TOUCHED_HARMONIC,
    "as an artificial harmonic": T.ARTIFICIAL_HARMONIC,
    "as a pinch harmonic": T.PINCH_HARMONIC,
    "tap": T.TAP,
    "slapped": T.SLAP,
    "raked": T.RAKE,
    "with a dip of the bar": T.WHAMMY_DIP,
    "with pick and fingers": T.PICK_AND_FINGERS,
}
NUMBERS = dict(
    zip(
        ["one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"],
        range(1, 13),
        strict=True,
    )
)
NUMBERS |= {"twice": 2, "again": 2}
BENDS = {each for each in T if each.startswith("bend_")} | {T.RELEASE}
FEWEST_STRUMMED = 3
Spots = set[tuple[int, int]]


class MisreadError(AssertionError):
    """What is said is not what is written."""


@dataclass
class Reader:
    """One who reads a part's directions, chunk by chunk."""

    part: Part
    said: str = ""  # of the chunk at hand, with that of the one it is like
    chunks: dict[str, str] = field(default_factory=dict)
    others: Spots = field(default_factory=set)  # beside the grips, so far: a pattern may have them again

    def chunk(self, name: str, chunk: Chunk, sentences: Sequence[str], told_to: At | None) -> None:
        """Reads a chunk; what lies up to `told_to` was told with the one before. Raises MisreadError."""
        said = " ".join(sentences).lower()
        like = re.match(r"the same as ([^,.;]+)", said)
        self.said = said + self.chunks[like[1]] if like else said
        if re.search(r", the same|before each.* the same", said):  # a pattern goes on as it was told
            self.said = " ".join([said, *self.chunks.values()])
        self.chunks[name.lower()] = self.said
        rows = within(chunk, struck_in(self.part))
        new = [row for row in rows if told_to is None or row.at > told_to]
        for row in new:
            for note in row.event.struck:
                self._note(row.event, note)
            self._marks(row.event)
        if not like:
            self._nothing_invented([row.event for row in rows], said)
        self._strings_and_frets(chunk, sentences, told_to)

    def _strings_and_frets(self, chunk: Chunk, sentences: Sequence[str], told_to: At | None) -> None:
        if re.match("the same as", self.said):
            return  # read with the chunk that it is like
        clauses = [clause for each in sentences for clause in _unquoted(each)[:-1].split("; ")]
        clauses = [
            f"{clause[:1].lower()}{clause[1:]}" if not _NAME.match(clause) else clause for clause in clauses
        ]
        self.others |= {(int(string), int(fret or 0)) for string, fret in _SPOT.findall(" ".join(clauses))}
        for segment in self._segments(chunk):
            if told_to is not None and segment[0][0].at <= told_to and clauses[0].lower().startswith("from "):
                clauses = clauses[1:]
                continue
            rows, grip = segment
            clauses = self._read(rows, grip, clauses)
        rest = [clause for clause in clauses if not _SILENT.fullmatch(clause)]
        if rest:
            raise MisreadError(f"said and not written: {rest} in {sentences}")

    def _read(self, rows: list[Struck], grip: dict[int, int] | None, clauses: list[str]) -> list[str]:
        if grip is not None:
            return _read_grip(rows, grip, clauses, self.others)
        while clauses and _SILENT.fullmatch(clauses[0]) and not re.match(_NTH + r"(?! position)", clauses[0]):
            clauses = clauses[1:]
        if clauses and _MOVED.match(clauses[0]):
            return _read_moved(rows, clauses)
        return _read_line(rows, clauses)

    def _segments(self, chunk: Chunk) -> Iterator[tuple[list[Struck], dict[int, int] | None]]:
        """What a player sees as one, with the grip that is held; the same reading as the page's."""
        seen = read_shapes(self.part)
        rows = within(chunk, struck_in(self.part))
        for stretch in seen.stretches:
            named = stretch.kind is Kind.CARRIED and parse_chord(stretch.places[0].name) is not None
            starts = [place.first for place in stretch.places] if named else [stretch.first]
            for number, first in enumerate(starts):
                last = starts[number + 1] - 1 if number + 1 < len(starts) else stretch.last
                own = {(each.bar, each.index) for each in seen.moments[first : last + 1]}
                found = [row for row in rows if (row.at.bar, row.number) in own]
                grip = stretch.places[number].grip if named else stretch.grip
                is_grip = named or (grip and stretch.kind in (Kind.HELD, Kind.OPEN))
                if found:
                    yield found, dict(grip.frets) if grip and is_grip else None

    def _note(self, event: Event, note: Note) -> None:
        for technique in event.techniques_of(note) - BENDS - {T.DEAD}:
            if not any(words in self.said for words, own in TECHNIQUES.items() if own is technique):
                raise MisreadError(f"{technique} of {note} is not said: {self.said}")
        if note.bend and note.bend.half_tones:
            self._bend(note)
        if note.bend and note.bend.released and not re.search(r"let (?:it|the bend) down", self.said):
            raise MisreadError(f"the release of {note} is not said: {self.said}")
        if note.dead and "dead" not in self.said:
            raise MisreadError(f"the dead {note} is not said: {self.said}")
        for flag, words in ((note.optional, "if you like"), (note.uncertain, "not sure")):
            if flag and words not in self.said:
                raise MisreadError(f"{words} of {note} is not said: {self.said}")

    def _bend(self, note: Note) -> None:
        assert note.bend
        half_tones = note.bend.half_tones
        if half_tones.denominator == 1:
            fret = note.fret + int(half_tones)
            target = rf"ben[dt] to (?:the sound of the )?{fret}\b|{fret}(?:st|nd|rd|th)"
        else:
            target = "quarter tone"
        if not re.search(target, self.said):
            raise MisreadError(f"the bend of {note} is not said: {self.said}")

    def _marks(self, event: Event) -> None:
        quoted = [event.remark] if event.remark else []
        for words in (*quoted, *event.own_techniques):
            if f"“{words.lower()}”" not in self.said:
                raise MisreadError(f"“{words}” is not said: {self.said}")
        for string in event.stopped:
            if not re.search(
                rf"stop (?:the {string}(?:st|nd|rd|th) string|strings [^.;]*{string})", self.said
            ):
                raise MisreadError(f"string {string} is to be stopped: {self.said}")
        if event.free and "free time" not in self.said:
            raise MisreadError(f"free time is not said: {self.said}")

    def _nothing_invented(self, events: list[Event], said: str) -> None:
        written = {each for event in events for note in event.notes for each in event.techniques_of(note)}
        for words, technique in TECHNIQUES.items():
            if (
                re.search(rf"(?<![\w]){words}(?!\w)", re.sub(r"“[^”]*”", "", said))
                and technique not in written
            ):
                if technique is T.SLIDE and T.SHIFT_SLIDE in written:
                    continue
                raise MisreadError(f"{words} is said and not written: {said}")


_NAME = re.compile(r"[A-G](?:[#b]|m|maj|sus|add|dim|aug|\d|/|[A-G])*(?:[:, ]|$)")
_NTH = r"(\d)(?:st|nd|rd|th)"
_SPOT = re.compile(rf"{_NTH} (?:string )?(?:at (\d+)|open)")
_SILENT = re.compile(
    r"leave .* down|only .* moves|all .*|count .*|in the next bar count .*|.* to the beat.*|\d+\w\w position"
    r"|in each bar .*|in bar .*|the last time .*|\d\w\w (?:at|open)[^:]* on (?:beat|the|part) .*"
    r"|before each .*|with .*|“”.*"
    r"|harmonics .*"
)
_PLACE = re.compile(r" on (?:beat \d+|the [\w&]+(?: third)? of \d+|part \w+ of \w+ of beat \d+)")
_TIMES = re.compile(r"(?:^| )(twice|again|\w+ times)$")
_PREFIX = r"(?:rest, then )?(?:hammer to |pull off to |slide to |slide into |tap |harmonic at )*"
_FRET = re.compile(
    r"(?:rest, then )?(?:hammer to |pull off to |slide to |slide into |tap |harmonic at )*"
    r"(?:let the bend down to )?"
    r"(\d+|open|dead)(?: from below| from above| and pick it)?$"
)
_THOSE = re.compile(r"those (\w+) (.*)")
_STRUM = "strum"
Heard = frozenset[tuple[int, int]] | tuple[int, ...] | str


def _unquoted(text: str) -> str:
    return re.sub(r"“[^”]*”", "“”", text)


def _times(words: str) -> tuple[str, int]:
    """What is said without how often, and how often."""
    match = _TIMES.search(words)
    return (words[: match.start()], NUMBERS[match[1].removesuffix(" times")]) if match else (words, 1)


def _repeated(heard: list[Heard], clause: str) -> bool:
    """Whether a clause only says how often the last notes come."""
    match = _THOSE.fullmatch(clause)
    if match:
        count = NUMBERS.get(match[1]) or int(match[1])
        heard += heard[-count:] * (_times(match[2])[1] - 1)
    return match is not None


def _read_line(rows: list[Struck], clauses: list[str]) -> list[str]:
    """Reads what is told string by string; returns what is left."""
    heard: list[Heard] = []
    string = 0
    strings: list[int] = []
    while clauses and (
        len(heard) < len(rows) or _SILENT.fullmatch(clauses[0]) or _THOSE.fullmatch(clauses[0])
    ):
        clause, clauses = clauses[0].removeprefix("the run: "), clauses[1:]
        if _repeated(heard, clause) or (
            _SILENT.fullmatch(clause) and not re.match(_NTH + r"(?! position)", clause)
        ):
            continue
        begins = len(heard)
        pair = re.match(r"strings ((?:\d, )*\d and \d): ", clause)
        strings = [int(each) for each in re.findall(r"\d", pair[1])] if pair else strings
        clause = clause[pair.end() :] if pair else clause
        clause = _PLACE.sub("", clause)
        if " together" in clause:
            heard += _chords_in(clause)
            continue
        for piece in clause.split(", "):
            rest, times = _times(piece.removeprefix("then "))
            named = re.match(_NTH + r"(?: string)? ?(?!finger)", rest)
            if named and not re.match(r"\d+\w\w (?:position|quarter)", rest):
                string, rest = int(named[1]), rest[named.end() :]
            match = _FRET.match(rest)
            if strings and _SEVERAL.fullmatch(rest):
                frets = [_fret(each) for each in re.findall(r"\d+|open", rest)]
                heard += [frozenset(zip(strings, frets, strict=True))] * times
            elif match:
                heard += [frozenset({(string, _fret(match[1]))})] * times
            elif not rest and times > 1:
                heard += heard[begins:] * (times - 1)
    written = [
        frozenset((note.string, 0 if note.dead else note.fret) for note in row.event.struck) for row in rows
    ]
    _compare(written, heard)
    return clauses


_SEVERAL = re.compile(_PREFIX + r"((?:\d+|open)(?:, | and ))+(?:\d+|open)(?: from \w+| and pick it)?")


def _chords_in(clause: str) -> Iterator[Heard]:
    """Notes struck together, each with its string."""
    *chords, last = re.split(r" together\b", clause)
    for chord, after in zip(chords, [*chords[1:], last], strict=True):
        notes = re.findall(rf"{_NTH} (?:string )?{_PREFIX}(\d+|open|dead)", chord)
        often = re.match(r" (twice|\w+ times)", after)
        times = _times(often[0])[1] if often else 1
        yield from [frozenset((int(one), _fret(fret)) for one, fret in notes)] * times


def _fret(said: str) -> int:
    return int(said) if said.isdigit() else 0


def _read_grip(
    rows: list[Struck], grip: dict[int, int], clauses: list[str], others: set[tuple[int, int]]
) -> list[str]:
    """Reads a grip and what is struck on it; a pattern is gone through until the grip ends."""
    for row in rows:
        for note in row.event.struck:
            fits = note.dead or grip.get(note.string, 0) == note.fret or (note.string, note.fret) in others
            if not fits and T.NATURAL_HARMONIC not in note.techniques:
                raise MisreadError(f"{note} is not of {grip} and not said: {clauses}")
    written: list[Heard] = [
        _STRUM
        if len(row.event.struck) >= FEWEST_STRUMMED
        else tuple(sorted((note.string for note in row.event.struck), reverse=True))
        for row in rows
    ]
    while clauses and _SILENT.fullmatch(clauses[0]):
        clauses = clauses[1:]
    heard: list[Heard] = []
    same = False
    first = True
    while clauses and (first or not _NEXT.match(clauses[0])):
        clause, clauses = clauses[0], clauses[1:]
        same = same or clause.endswith("the same") or ", the same" in clause
        if not first and _SILENT.fullmatch(clause):
            continue
        said = clause.rsplit(": ", 1)[-1] if first else clause
        heard += [] if first and _SHAPE.fullmatch(said) else _struck_in(said)
        first = False
        if same or len(heard) >= len(written):
            break
    if same:  # as was read before, on this grip's strings
        return clauses[1:] if clauses and clauses[0].startswith("and then") else clauses
    full = heard
    while heard and len(heard) < len(written):
        heard = heard + full
    _compare(written, heard[: len(written)])
    return clauses


_NEXT = re.compile(
    r"hold |the whole shape|as before|(?:three-string )?(?:power|octaves|thirds|sixths)"
    r"|\d+\w\w (?:string|position)|" + _NAME.pattern
)
_MOVED = re.compile(r"(?:three-string )?(?:power chords|octaves|thirds|sixths)[^:]*: ")
_WHERE = re.compile(r"(?:on|flat over|over) (?:the (\d)\w\w|strings (\d)[^:]*?)(?:, [^:]*)?: ")


def _read_moved(rows: list[Struck], clauses: list[str]) -> list[str]:
    """Reads the places of a grip that is moved by their lowest notes, and what lies between; returns what is
    left."""
    written: list[Heard] = []
    for row in rows:
        low = max(row.event.struck, key=lambda note: note.string)
        written.append(frozenset({(low.string, 0 if low.dead else low.fret)}))
    heard: list[Heard] = []
    string = 0
    own = clauses[0]
    before: list[Heard] = []
    while clauses and (len(heard) < len(rows) or _SILENT.fullmatch(clauses[0])):
        clause, clauses = clauses[0], clauses[1:]
        if clause.startswith("before each"):
            each = clause.removeprefix("before each ").removeprefix("but the last ")
            before = _BETWEEN[-1] if each == "the same" else _moved_in(each, string)[0]
            _BETWEEN.append(before)
            last = [] if "but the last" in clause else before
            heard = [one for place in heard[:-1] for one in (*before, place)] + [*last, *heard[-1:]]
            break
        if _SILENT.fullmatch(clause) and clause is not own and not _WHERE.search(clause):
            continue
        found, string = _moved_in(clause, string)
        heard += found
    _compare(written, heard)
    return clauses


_BETWEEN: list[list[Heard]] = []


def _moved_in(clause: str, string: int) -> tuple[list[Heard], int]:
    heard: list[Heard] = []
    head = _MOVED.match(clause)
    if head:
        lowest = re.search(r"(?:the|strings) (\d)", head[0])
        string, clause = int(lowest[1]) if lowest else string, clause[head.end() :]
    for piece in re.sub(r"\b(?:then|last) ", "", _PLACE.sub("", clause)).split(", "):
        where = _WHERE.search(piece)
        if where:
            string, piece = int(where[1] or where[2]), piece[where.end() :]
        rest, times = _times(piece)
        between = re.match(r"(?:rest, then )?(?:open (\d)\w\w|(\d) dead|strings (\d).* dead)$", rest)
        place = re.match(
            _PREFIX + r"(\d+|open|dead)(?: and \w+)?(?: from \w+| and pick it)?$",
            rest,
        )
        alone = re.match(_NTH + r" (?:hammer to |slide to |pull off to )*(\d+|open|dead)", rest)
        if between:
            heard += [frozenset({(int(between[1] or between[2] or between[3]), 0)})] * times
        elif alone:
            heard += [frozenset({(int(alone[1]), _fret(alone[2]))})] * times
        elif place:
            heard += [frozenset({(string, _fret(place[1]))})] * times
        else:
            _repeated(heard, piece)
    return heard, string


_SHAPE = re.compile(rf"(?:{_NTH} (?:at|open)|barre at)(?:(?!: ).)*")


def _struck_in(said: str) -> list[Heard]:
    heard: list[Heard] = []
    said = re.sub(r", (?:hammer to|pull off to|slide to|bend|bent) [^,]*?(?= and \d| together|,|$)", "", said)
    said = _PLACE.sub("", re.sub(r"with the \w+ finger|\((?:index|middle|ring|little|thumb)\)", "", said))
    for piece in said.split(", "):
        rest, times = _times(re.sub(r"^(?:next bar|and then|then|rest, then) ", "", piece).strip())
        rest = re.sub(r", (?:hammer to|pull off to|slide to|bend|bent) [^,]*", "", rest)
        rest = re.sub(r" together|thumb |then |next bar |and then |rest, ", "", rest).strip()
        if re.match(
            r"(?:dead )?(?:down|up)\b|strum|a \w+-stroke|one \w+-stroke|(?:dead )?(?:down|up) on", rest
        ):
            heard += [_STRUM] * (rest.count("-") + 1 if "stroke" not in rest else 1) * times
        elif re.match(r"\d(?:\w\w)?(?: |$)", rest):
            strings = re.findall(r"(?:^|(?<=and ))(\d)(?:st|nd|rd|th)?\b", rest)
            heard += [tuple(int(string) for string in strings)] * times
    return heard


def _compare(written: Sequence[Heard], heard: Sequence[Heard]) -> None:
    if list(written) != list(heard):
        raise MisreadError(f"written {list(written)}, said {list(heard)}")
