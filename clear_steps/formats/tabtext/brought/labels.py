"""Lines over and under a system as people type them: palm mutes in dots, note values in capitals, counts with
signs between, endings with dashes, arrows, and how far a bend goes."""

import re
from collections.abc import Callable, Sequence

from clear_steps.core.score import parse_length
from clear_steps.formats.tabtext.brought.headings import is_written_remark
from clear_steps.formats.tabtext.brought.strings import row_of, runs_of
from clear_steps.formats.tabtext.lines import NOTHING, Label, label_line
from clear_steps.formats.tabtext.problems import Findings, short

_FARTHEST = 5  # lines above or below a system that belong to it
# Nothing that repeats here gives back what it took: a long line could else be cut in endlessly many ways.
_MUTED = re.compile(r"[\s|]*+(?:p\.?m\.?+[-.\s|_]*+)++", re.IGNORECASE)
_RINGING = re.compile(r"[\s|(]*+(?:(?:let ring|l\.?r\.)[-.\s|_)]*+)++", re.IGNORECASE)
_MUTE, _RING = re.compile(r"p\.?m\.?", re.IGNORECASE), re.compile(r"let ring|l\.?r\.", re.IGNORECASE)
_COUNT_SIGNS = re.compile(r"[.,_()|-]")
_COUNTED = re.compile(r"(?:\s*+(?:\d{1,2}+|[e&atl+]))++\s*")
_ENDING = re.compile(r"(?P<number>[1-9])(?:\.|st|nd|rd|th)(?: time| ending)?", re.IGNORECASE)
_ENDINGS = re.compile(r"(?:[\s|\[]*+[1-9](?:\.|st|nd|rd|th)(?: time| ending)?[-_.\s|\]]*+)++", re.IGNORECASE)
_BEATS = re.compile(r"(?<=\s)[-/.%]+(?=\s|$|\|)")
_VALUE = re.compile(r"R?[WHQESTZwhqestz]\d?\.{0,2}")
_HOW_FAR = {"full": 2, "1": 2, "1/2": 1, "½": 1}
_BEND = re.compile(r"(?P<fret>\d{1,2})b(?![\d(½f])(?P<room>-*)")
_WORD = re.compile(r"\S++")
_LENGTHS = re.compile(r"[WHQESTZ]")
_SPAN_END = re.compile(r"[|)]")
_ARROWS = str.maketrans("↓↑", "DU")


def with_our_labels(lines: list[str], findings: Findings) -> list[str]:
    """The lines with what stands over and under systems as ours; columns stay."""
    made = list(lines)
    for run in runs_of(lines):
        for at in _around(made, run):
            _take_bends(made, run, at, findings)
            if made[at] != NOTHING:
                made[at] = _ours(made[at])
    return made


def _around(lines: Sequence[str], run: Sequence[int]) -> list[int]:
    """The lines right above and below a system, up to the first that is empty or another's."""
    found = []
    for begin, step in ((run[0], -1), (run[-1], 1)):
        for at in range(begin + step, begin + step * (_FARTHEST + 1), step):
            if not 0 <= at < len(lines) or not lines[at].strip() or row_of(lines[at]):
                break
            if not is_written_remark(lines[at]) or step < 0:
                found.append(at)
    return found


def _ours(line: str) -> str:
    if line.lstrip().startswith(("[", *_LABELS)):
        return line
    return next((ours for change in _CHANGES if (ours := change(line)) is not None), line)


def _dashed(word: str, sign: re.Pattern[str]) -> Callable[[str], str]:
    """A line of a word and dots as the word and dashes."""

    def change(line: str) -> str:
        starts = [match.start() for match in sign.finditer(line)]
        made = ""
        for start, stop in zip(starts, [*(at - 1 for at in starts[1:]), len(line)], strict=True):
            own = _SPAN_END.split(line[start:stop])[0].rstrip()
            made = made.ljust(start) + word + "-" * max(len(own) - len(word), 0)
        return made

    return change


def _muted(line: str) -> str | None:
    return _dashed("PM", _MUTE)(line) if _MUTED.fullmatch(line) else None


def _ringing(line: str) -> str | None:
    return _dashed("lr", _RING)(line) if _RINGING.fullmatch(line) else None


def _ending(line: str) -> str | None:
    """`1.____|2.____` as the numbers alone."""
    if not _ENDINGS.fullmatch(line):
        return None
    made = ""
    for match in _ENDING.finditer(line):
        made = made.ljust(match.start()) + f"{match['number']}."
    return made


def _counted(line: str) -> str | None:
    """`1 - & - 2 - & -` as counts, each at its column."""
    plain = _COUNT_SIGNS.sub(" ", line)
    numbers = sum(sign.isdigit() for sign in plain)
    return plain if numbers > 1 and plain != line and _COUNTED.fullmatch(plain) else None


def _valued(line: str) -> str | None:
    words = line.replace("|", " ").split()
    if len(words) < 2 or not all(_VALUE.fullmatch(word) for word in words) or not line.isupper():
        return None
    values = [word.removeprefix("R") for word in words]
    only_chords = all(word[0] in "AE" for word in values)
    if only_chords or any(parse_length(word.lower()) is None for word in values):
        return None
    return _LENGTHS.sub(lambda match: match[0].lower(), line)


def _arrows(line: str) -> str | None:
    words = line.split()
    return line.translate(_ARROWS) if words and set("".join(words)) <= {"↓", "↑"} else None


def _chords(line: str) -> str | None:
    """`Am / / / |F - - -`: strokes and dashes that only count beats."""
    plain = _BEATS.sub(lambda match: " " * len(match[0]), line)
    is_new = plain != line and label_line(1, line) is None
    return plain if is_new and label_line(1, plain) is not None else None


_LABELS = tuple(f"{label}|" for label in Label)
_CHANGES = (_muted, _ringing, _ending, _valued, _counted, _arrows, _chords)


def _take_bends(lines: list[str], run: Sequence[int], at: int, findings: Findings) -> None:
    """`1/2` or `full` over bends: how far they go; the line is then said."""
    words = list(_WORD.finditer(lines[at]))
    if not words or not all(word.group() in _HOW_FAR for word in words):
        return
    taken = [word for word in words if _bend_at(lines, run, word.start(), _HOW_FAR[word.group()])]
    if taken:
        said = " ".join(word.group() for word in words)
        findings.guessed(at + 1, words[0].start() + 1, f"'{short(said)}' stands over a bend", "it is how far")
        lines[at] = NOTHING


def _bend_at(lines: list[str], run: Sequence[int], column: int, half_tones: int) -> bool:
    for string in run:
        for match in _BEND.finditer(lines[string]):
            to = f"{int(match['fret']) + half_tones}"
            if match.start() - 3 <= column <= match.end("fret") + 3 and len(match["room"]) > len(to):
                start = match.start("room")
                lines[string] = lines[string][:start] + to + lines[string][start + len(to) :]
                return True
    return False
