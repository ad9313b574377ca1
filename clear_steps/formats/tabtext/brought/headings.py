"""Headings as people write them, as the header lines we write: what is understood is taken, the rest kept."""

import re
from collections.abc import Callable

from clear_steps.core.errors import ClearStepsError
from clear_steps.core.score import MAX_CAPO, parse_metre
from clear_steps.formats.tabtext.brought.tunings import said_tuning
from clear_steps.formats.tabtext.header import is_understood
from clear_steps.formats.tabtext.lines import HEADING, label_line
from clear_steps.formats.tabtext.problems import Findings, short

_KEYS = {
    "title": "Title",
    "song": "Title",
    "song title": "Title",
    "song name": "Title",
    "tuning": "Tuning",
    "tuned": "Tuning",
    "guitar tuning": "Tuning",
    "capo": "Capo",
    "tempo": "Tempo",
    "bpm": "Tempo",
    "speed": "Tempo",
    "time": "Time",
    "time signature": "Time",
    "metre": "Time",
    "meter": "Time",
}
_KEYED = re.compile(r"\s*(?P<key>[A-Za-z][A-Za-z ]{0,18}[A-Za-z])\s*[:=]\s*(?P<value>\S.*)")
# Of words parted by single blanks.
_ABOUT = r"(?:~|about|around|approx\.?|ca\.?|circa)"
_TEMPO = re.compile(rf"(?P<about>{_ABOUT} ?)?(?P<number>\d{{2,3}}(?:\.\d+)?)", re.IGNORECASE)
_FREE_TEMPO = re.compile(
    r"(?:(?:tempo|bpm|speed) ?[=:]? ?|(?:q|quarter(?: note)?|♩|1/4) ?= ?)"
    rf"(?P<words>(?:{_ABOUT} ?)?\d{{2,3}}(?:\.\d+)?)(?: ?bpm)?\.?"
    rf"|(?P<alone>(?:{_ABOUT} ?)?\d{{2,3}} ?bpm|{_ABOUT} ?\d{{2,3}})\.?",
    re.IGNORECASE,
)
_METRE = re.compile(r"(?P<metre>\d{1,2}/\d{1,2})")
_FREE_METRE = re.compile(r"(?:in )?(?P<metre>\d{1,2}/\d{1,2})(?: (?:time|metre|meter))?\.?", re.IGNORECASE)
_CAPO = re.compile(r"(?P<fret>\d{1,2})")
_FREE_CAPO = re.compile(
    r"(?:no capo|capo(?: on| at)?(?: the)? (?P<where>\d{1,2}(?:st|nd|rd|th)?(?: fret)?|none))\.?",
    re.IGNORECASE,
)
_NO_CAPO = re.compile(r"none|no|no capo|-|n/a", re.IGNORECASE)
_FREE_TUNING = re.compile(
    r"(?:\d ?-?strings?,? )?"
    r"(?:tun(?:ed|ing)(?: to| is)? ?[:=-]? ?(?P<after>\S.*)|(?P<before>\S.*) tuning\.?)",
    re.IGNORECASE,
)
_MOST_TITLE = 80
TAKEN_FOR_TITLE = "it is taken for the title"


def with_headings(lines: list[str], findings: Findings) -> list[str]:
    """Headings before the music as header lines; a title on a line of its own is told."""
    made = list(lines)
    begins = next((at for at, line in enumerate(lines) if _is_music(line)), len(lines))
    known: set[str] = set()
    for at, line in enumerate(lines[:begins]):
        # What stands over a system is its own: a metre there is that of one bar.
        is_own = is_written_remark(line) or label_line(at + 1, line) is not None
        if line.strip() and not is_own and (found := _heading(line)):
            key = found.split(":", 1)[0]
            if key not in known:
                known.add(key)
                made[at] = found
    _take_headings_below(made, known)
    first = next((at for at in range(begins) if lines[at].strip()), None)
    if first is not None and begins < len(lines) and "Title" not in known and made[first] == lines[first]:
        _take_title(made, first, findings)
    return made


def _take_headings_below(lines: list[str], known: set[str]) -> None:
    """Headings behind all music, where none above says the same."""
    ends = max((at for at, line in enumerate(lines) if _is_music(line)), default=len(lines))
    for at in range(ends + 1, len(lines)):
        line = lines[at]
        if is_written_remark(line) or label_line(at + 1, line) is not None or not (found := _heading(line)):
            continue
        key, _, said = found.partition(":")
        if key not in known and is_understood(key, said.strip()):
            known.add(key)
            lines[at] = HEADING + found


def title_in(line: str) -> str:
    """The title that a line names by its key; empty for any other line."""
    keyed = None if line.startswith(" ") else _KEYED.fullmatch(line)
    return keyed["value"].strip() if keyed and _KEYS.get(keyed["key"].lower()) == "Title" else ""


def is_heading(line: str) -> bool:
    """Whether a line says a tempo, a tuning, a capo or a metre and nothing else."""
    return not is_written_remark(line) and label_line(1, line) is None and _heading(line) is not None


def is_title_line(line: str, at: int) -> bool:
    """Whether a line by itself may be a title: short words, no heading, section or label."""
    text = line.strip()
    plain = not _KEYED.fullmatch(text) and not text.startswith(("[", "(", "*", "#")) and "|" not in text
    plain = plain and label_line(at + 1, line) is None
    return plain and len(text) <= _MOST_TITLE and any(sign.isalpha() for sign in text)


def _take_title(lines: list[str], at: int, findings: Findings) -> None:
    text = lines[at].strip()
    if is_title_line(lines[at], at):
        what = f"'{short(text)}' stands on a line of its own"
        findings.guessed(at + 1, 1, what, TAKEN_FOR_TITLE)
        lines[at] = f"Title: {text}"


def _is_music(line: str) -> bool:
    return line.count("-") >= 3 and "|" in line


def is_written_remark(line: str) -> bool:
    """Whether a line stands one column in, as we write remarks that look like something else."""
    return line[:1] == " " and line[1:2] != " "


def _heading(line: str) -> str | None:
    """The header line that a line means; None of any other line."""
    if keyed := _KEYED.fullmatch(line):
        key = _KEYS.get(" ".join(keyed["key"].lower().split()))
        if key is None:
            return None
        if line.startswith(f"{key}:") and is_understood(key, keyed["value"].strip()):
            return line
        said = _VALUES[key](" ".join(keyed["value"].split())) if key in _VALUES else keyed["value"].strip()
        return f"{key}: {said}" if said else None
    return _free(" ".join(line.split()))


def _free(text: str) -> str | None:
    if len(text) > _MOST_TITLE:
        return None
    if match := _FREE_TEMPO.fullmatch(text):
        said = _tempo(match["words"] or match["alone"])
        return f"Tempo: {said}" if said else None
    if match := _FREE_METRE.fullmatch(text):
        said = _metre(match["metre"])
        return f"Time: {said}" if said else None
    if match := _FREE_CAPO.fullmatch(text):
        said = _capo(match["where"] or "none")
        return f"Capo: {said}" if said else None
    if match := _FREE_TUNING.fullmatch(text):
        said = said_tuning(match["after"] or match["before"])
        return f"Tuning: {said}" if said else None
    return None


def _tempo(text: str) -> str | None:
    match = _TEMPO.search(text)
    if not match:
        return None
    return f"~{match['number']}" if match["about"] else match["number"]


def _metre(text: str) -> str | None:
    match = _METRE.search(text)
    if not match:
        return {"c": "4/4", "common": "4/4", "common time": "4/4", "cut": "2/2", "cut time": "2/2"}.get(
            text.lower()
        )
    try:
        return str(parse_metre(match["metre"]))
    except ClearStepsError:
        return None


def _capo(text: str) -> str | None:
    if _NO_CAPO.fullmatch(text):
        return "0"
    match = _CAPO.search(text)
    return match["fret"] if match and int(match["fret"]) <= MAX_CAPO else None


_VALUES: dict[str, Callable[[str], str | None]] = {
    "Tempo": _tempo,
    "Time": _metre,
    "Capo": _capo,
    "Tuning": said_tuning,
}
