"""From a system of string lines to bars with their notes and words, still by column."""

import itertools
import re
from bisect import bisect_right
from collections.abc import Iterator
from dataclasses import dataclass, field

from clear_steps.core.errors import ClearStepsError
from clear_steps.core.score import LAST_TIME, UNCOUNTED, Metre, parse_metre
from clear_steps.formats.tabtext.header import read_tempo
from clear_steps.formats.tabtext.lines import Label, LabelLine, StringLine, System
from clear_steps.formats.tabtext.problems import Findings, short
from clear_steps.formats.tabtext.tokens import Token, tokens_of

MAX_LABELS = 32  # of one system; there are nine kinds
_TAIL = re.compile(r"\|\s*(?:x(?P<times>\d{1,2}|\?)\s*)?$")
_BAR_LINE = re.compile(r"\|+")
_REMARKS = re.compile(r"[^|\s](?:[^|]*?[^|\s])??(?=\s{2}|\s?\||\s?$)")  # parted by two blanks or a bar line
_WORDS = re.compile(r"[^|\s]+")
_TIMES = re.compile(r"x(\d{1,2}|\?)")
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
    dots: tuple[int, int] = (0, 0)  # columns that repeat dots take at its start and its end

    @property
    def opens(self) -> int:
        """The first column that is time."""
        return self.start + self.dots[0]

    @property
    def closes(self) -> int:
        """The column behind the last that is time."""
        return self.end - self.dots[1]


def raw_bars(system: System, findings: Findings) -> list[RawBar]:
    """Cut a system into bars; ragged lines and signs that are no tab are problems at their place."""
    if len(system.labels) > MAX_LABELS:
        line, count = system.labels[MAX_LABELS].line, len(system.labels)
        findings.wrong(line, 1, f"{count} labelled lines stand by one system; expected at most {MAX_LABELS}")
        return []
    bodies = [_TAIL.sub("|", line.text) for line in system.strings]
    first = system.strings[0]
    if not _even(system.strings, bodies, findings):
        return []
    bars = list(_bars_of(first, bodies[0]))
    for bar in bars:
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
        bar.repeat_start |= body[bar.start : bar.start + 1] == ":"
        if body[bar.end - 1 : bar.end] == ":" and bar.end - bar.start > 1:
            bar.repeat_times = 2
        bar.dots = (int(bar.repeat_start), int(bar.repeat_times > 0))
        tokens, strangers = tokens_of(body, string, bar.start, bar.end)
        bar.tokens.extend(tokens)
        for column, sign in strangers:
            expected = "a fret, x, - or one of h p t / \\ b r ~ = ( ) < > ?"
            findings.wrong(
                line.line, column + 1, f"'{sign}' is no sign of a string line; expected {expected}"
            )


def _bar_columns(text: str) -> list[int]:
    return [at for at, sign in enumerate(text) if sign == "|"]


def _moved(label: LabelLine, bar_columns: list[int]) -> int:
    """How far a line stands right of its bars because its label is wider than the strings' names."""
    own = _bar_columns(label.text)
    off = {mine - theirs for mine, theirs in zip(own, bar_columns, strict=False)}
    return off.pop() if len(own) == len(bar_columns) and len(off) == 1 else 0


def _words(label: LabelLine, moved: int) -> list[Word]:
    """Split a labelled line; remarks at two blanks or a bar line, others at every blank."""
    pattern = _REMARKS if label.label is Label.REMARK else _WORDS
    return [
        Word(label.line, m.start() - moved, m.end() - moved, m.group(), m.start() + 1)
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
        else:
            expected = "expected it above or below a bar of its system"
            findings.wrong(word.line, word.shown, f"'{short(word.text)}' stands over no bar; {expected}")


def _read_bar_marks(bar: RawBar, findings: Findings) -> None:
    for word in bar.words.get(Label.BAR, []):
        try:
            _read_bar_mark(bar, word)
        except ClearStepsError as error:
            findings.wrong(word.line, word.shown, str(error))
        except ValueError:
            expected = "a metre such as 7/8, an ending such as 1., a tempo such as @96, x4 or x?"
            findings.wrong(word.line, word.shown, f"'{word.text}' is no mark of a bar; expected {expected}")


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
