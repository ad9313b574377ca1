"""From a system of string lines to bars with their notes and words, still by column."""

import itertools
import re
from bisect import bisect_right
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from clear_steps.core.errors import ClearStepsError
from clear_steps.core.score import HOW_WORDS, LAST_TIME, UNCOUNTED, Metre, parse_metre
from clear_steps.formats.tabtext.header import read_tempo
from clear_steps.formats.tabtext.lines import Label, LabelLine, StringLine, System
from clear_steps.formats.tabtext.problems import Findings, short
from clear_steps.formats.tabtext.tokens import Token, tokens_of

MAX_LABELS = 32  # of one system; there are nine kinds
_TAIL = re.compile(r"\|\s*(?:x(?P<times>\d{1,2}|\?)\s*)?$")
_BAR_LINE = re.compile(r"\|+")
_REMARKS = re.compile(r"[^|\s](?:[^|]*?[^|\s])??(?=\s{2}|\s?\||\s?$)")  # parted by two blanks or a bar line
_COUNTS = re.compile(r"\d{1,2}|[^|\s]")  # `1e&a` without blanks too
_WORDS = re.compile(r"[^|\s]+")
_PICKS = re.compile(r"[DU](?=[DU\s|]|$)|[^|\s]+")  # `DU` without a blank too
_PATTERNS = {Label.REMARK: _REMARKS, Label.COUNT: _COUNTS, Label.PICKING: _PICKS}
_TIMES = re.compile(r"x(\d{1,2}|\?)")
_DOTS = ":*"  # of a repeat
_OPENING, _CLOSING = re.compile(r"[:*]?\s?(?=-|\d|[hpt/\\(<xX=])|[:*]+"), re.compile(r"(?<=[-\s])[:*]+$")
_SAID = {".": "stac", ">": "acc"}  # words for how as signs
_LAST = "last"
_ENDINGS = re.compile(rf"(?:(?:[1-9]|{_LAST})\.)+")


@dataclass(frozen=True, slots=True)
class Word:
    """A word of a labelled line; columns count from 0, `end` is behind its last sign.

    `shown` is the column as typed, from 1: the line may have been moved under its bars.
    """

    line: int
    column: int
    end: int
    text: str
    shown: int
    bare: bool = False  # of a line without its label


@dataclass
class RawBar:
    """A bar between two bar lines; columns count from 0 in the text's lines."""

    line: int
    start: int
    end: int
    tokens: list[Token] = field(default_factory=list)
    words: dict[Label, list[Word]] = field(default_factory=dict)
    repeat_start: bool = False
    repeat_times: int = 0
    double_bar: bool = False
    metre: Metre | None = None
    tempo: Word | None = None
    endings: tuple[int, ...] = ()
    lines: tuple[int, ...] = ()  # of its strings
    system: tuple[int, int] = (0, 0)  # first and last line, labelled ones too
    dots: tuple[int, int] = (0, 0)  # columns that repeat dots take at its start and its end

    @property
    def opens(self) -> int:
        """The first column that is time; dots of one string may stand beside notes of another."""
        return min((self.start + self.dots[0], *(token.column for token in self.tokens)))

    @property
    def closes(self) -> int:
        """The column behind the last that is time, in the same way."""
        return max((self.end - self.dots[1], *(token.column + 1 for token in self.tokens)))


def without_times(text: str) -> str:
    """A string line without how often its system is played."""
    return _TAIL.sub("|", text)


def raw_bars(system: System, findings: Findings) -> list[RawBar]:
    """Cut a system into bars; ragged lines and signs that are no tab are problems at their place."""
    if len(system.labels) > MAX_LABELS:
        line, count = system.labels[MAX_LABELS].line, len(system.labels)
        findings.wrong(line, 1, f"{count} labelled lines stand by one system; expected at most {MAX_LABELS}")
        return []
    bodies = [without_times(line.text) for line in system.strings]
    first = system.strings[0]
    if not _even(system.strings, bodies, findings):
        return []
    bars = list(_bars_of(first, bodies[0]))
    for bar in bars:
        bar.lines = tuple(line.line for line in system.strings)
        lines = (*bar.lines, *(label.line for label in system.labels))
        bar.system = (min(lines), max(lines))
        _read_signs(bar, system.strings, bodies, findings)
    times = [_times(m["times"]) for line in system.strings if (m := _TAIL.search(line.text)) and m["times"]]
    if times and bars:
        bars[-1].repeat_times = times[0]
    bar_columns = _bar_columns(bodies[0])
    for label in system.labels:
        _share_words(label, bars, bar_columns, findings)
    for bar in bars:
        _read_bar_marks(bar, findings)
    return bars


def _even(strings: list[StringLine], bodies: list[str], findings: Findings) -> bool:
    """Every string line as long as the first, with its bar lines at the same columns."""
    first, wanted = strings[0], bodies[0]
    lengths = [len(body) for body in bodies]
    usual = max(set(lengths), key=lengths.count)
    even = True
    for line, body in zip(strings, bodies, strict=True):
        if len(body) != usual:
            findings.wrong(
                line.line,
                len(body),
                f"this string line ends at column {len(body)}; the others of its system end at column"
                f" {usual}",
            )
            even = False
    if not even:
        return False
    bar_columns = [at for at, sign in enumerate(wanted) if sign == "|" and at >= first.body]
    for line, body in zip(strings[1:], bodies[1:], strict=True):
        own = [at for at, sign in enumerate(body) if sign == "|" and at >= line.body]
        if own != bar_columns:
            column = min(set(own) ^ set(bar_columns))
            findings.wrong(
                line.line,
                column + 1,
                f"the bar lines differ from those of line {first.line}; expected them under one another",
            )
            even = False
    return even


def _times(text: str) -> int:
    return UNCOUNTED if text == "?" else int(text)


def _bars_of(first: StringLine, body: str) -> Iterator[RawBar]:
    lines = [(match.start(), match.end()) for match in _BAR_LINE.finditer(body, first.body)]
    edges = lines if lines and lines[0][0] == first.body else [(first.body, first.body), *lines]
    if not edges or edges[-1][1] < len(body):
        edges.append((len(body), len(body)))
    for (_, start), (end, behind) in itertools.pairwise(edges):
        yield RawBar(first.line, start, end, double_bar=behind - end > 1)


def _read_signs(bar: RawBar, strings: list[StringLine], bodies: list[str], findings: Findings) -> None:
    for string, (line, body) in enumerate(zip(strings, bodies, strict=True), start=1):
        cell = body[bar.start : bar.end]
        opening, closing = _OPENING.match(cell), _CLOSING.search(cell) if cell.strip(" :*") else None
        signs = (opening.group() if opening else "", closing.group() if closing else "")
        bar.repeat_start |= bool(set(signs[0]) & set(_DOTS))
        bar.repeat_times = 2 if set(signs[1]) & set(_DOTS) else bar.repeat_times
        bar.dots = (max(bar.dots[0], len(signs[0])), max(bar.dots[1], len(signs[1])))
        tokens, strangers = tokens_of(body, string, bar.start, bar.end)
        bar.tokens.extend(tokens)
        for column, sign in strangers:
            _keep_stranger(bar, line.line, column, sign, tokens, findings)


def _keep_stranger(
    bar: RawBar, line: int, column: int, sign: str, tokens: list[Token], findings: Findings
) -> None:
    """A sign that is none of ours, at the note before it, else at the next: a word for how where it is one,
    else a remark."""
    before = [token for token in tokens if token.start < column]
    home = before[-1].column if before else min((token.column for token in tokens), default=column)
    said = _SAID.get(sign, sign)
    is_how = said in HOW_WORDS
    bar.words.setdefault(Label.HOW if is_how else Label.REMARK, []).append(
        Word(line, home, home + len(sign), said if is_how else sign, column + 1)
    )
    taken = f"it is taken for the word {said}" if is_how else "it is kept as a remark at its note"
    findings.guessed(line, column + 1, f"'{short(sign)}' is no sign of a string line", taken)


def _bar_columns(text: str) -> list[int]:
    return [at for at, sign in enumerate(text) if sign == "|"]


def _moved(label: LabelLine, bar_columns: list[int]) -> int:
    """How far a line stands right of its bars because its label is wider than the strings' names."""
    own = _bar_columns(label.text)
    off = {mine - theirs for mine, theirs in zip(own, bar_columns, strict=False)}
    return off.pop() if len(own) == len(bar_columns) and len(off) == 1 else 0


def _words(label: LabelLine, moved: int) -> list[Word]:
    """Split a labelled line; remarks at two blanks or a bar line, others at every blank."""
    pattern = _PATTERNS.get(label.label, _WORDS)
    return [
        Word(label.line, m.start() - moved, m.end() - moved, m.group(), m.start() + 1, label.bare)
        for m in pattern.finditer(label.text)
    ]


def _share_words(label: LabelLine, bars: list[RawBar], bar_columns: list[int], findings: Findings) -> None:
    starts = [bar.start - 1 for bar in bars]
    for word in _words(label, _moved(label, bar_columns)):
        at = bisect_right(starts, word.column) - 1
        if at >= 0 and word.column < bars[at].end:
            bars[at].words.setdefault(label.label, []).append(word)
        elif label.label is Label.BAR and bars and (times := _TIMES.fullmatch(word.text)):
            bars[-1].repeat_times = _times(times[1])
        elif bars:
            _keep_lost_word(label.label, word, bars, findings)


def _keep_lost_word(label: Label, word: Word, bars: list[RawBar], findings: Findings) -> None:
    """A word that stands over no bar: a chord name belongs to the nearest one, anything else is a remark
    there."""
    home, column = (bars[0], bars[0].start) if word.column < bars[0].start else (bars[-1], bars[-1].end - 1)
    kind = Label.CHORD if label is Label.CHORD else Label.REMARK
    home.words.setdefault(kind, []).append(replace(word, column=column, end=column + len(word.text)))
    taken = (
        "it belongs to the nearest bar"
        if kind is Label.CHORD
        else "it is kept as a remark on the nearest bar"
    )
    what = f"'{short(word.text)}' stands over no bar; expected it above or below a bar of its system"
    findings.guessed(word.line, word.shown, what, taken)


def _read_bar_marks(bar: RawBar, findings: Findings) -> None:
    for word in bar.words.get(Label.BAR, []):
        try:
            _read_bar_mark(bar, word)
        except (ClearStepsError, ValueError) as error:
            expected = "a metre such as 7/8, an ending such as 1., a tempo such as @96, x4 or x?"
            what = f"'{short(word.text)}' is no mark of a bar; expected {expected}"
            what = str(error) if isinstance(error, ClearStepsError) else what
            bar.words.setdefault(Label.REMARK, []).append(word)
            findings.guessed(word.line, word.shown, what, "it is kept as a remark")


def _read_bar_mark(bar: RawBar, word: Word) -> None:
    text = word.text
    if text.startswith("@"):
        read_tempo(text[1:])
        bar.tempo = word
    elif times := _TIMES.fullmatch(text):
        bar.repeat_times = _times(times[1])
    elif _ENDINGS.fullmatch(text):
        bar.endings = tuple(
            LAST_TIME if number == _LAST else int(number) for number in text.rstrip(".").split(".")
        )
    elif "/" in text:
        bar.metre = parse_metre(text)
    else:
        raise ValueError(text)
