"""Section names on lines of their own, as `[Name xN]`."""

import re
from collections.abc import Sequence

from clear_steps.formats.tabtext.brought.headings import is_written_remark
from clear_steps.formats.tabtext.brought.strings import row_of
from clear_steps.formats.tabtext.lines import HEADING
from clear_steps.formats.tabtext.problems import Findings, short

_NAME = (
    r"(?:main |opening |clean |guitar )?"
    r"(?:intro|verse|pre-?chorus|chorus|refrain|bridge|solo|outro|interlude|riff|hook|break|breakdown|coda|ending|theme"
    r"|turnaround|middle(?: 8| eight)?|part [a-d]|tag)(?: ?(?:\d|[a-d]))?"
)
_TIMES = (
    r"(?:\(? ?(?:x ?(?P<{0}>\d{{1,2}})|(?P<{1}>\d{{1,2}}) ?x|(?:play |repeat )?(?P<{2}>\d{{1,2}}) times)"
    r" ?\)?)"
)
_SECTION = re.compile(
    rf"[-=*~ ]{{0,6}}\[?(?P<name>{_NAME})(?: ?{_TIMES.format('a', 'b', 'c')})?\]?:?"
    rf"(?: ?{_TIMES.format('d', 'e', 'f')})?"
    r"(?: ?\((?P<about>[^()]{1,60})\))?:?[-=*~ ]{0,6}",
    re.IGNORECASE,
)
_REPEAT = re.compile(r"(?:repeat|play)(?: this)? (?P<times>\d{1,2}) ?(?:times|x):?", re.IGNORECASE)
_NEVER = re.compile(r"(?P<before>\s*\[[^\]]*?)(?<!\s)\s++x0+\](?P<behind>.*)")
_SAME = re.compile(r"same as .*", re.IGNORECASE)
_SAME_AS = re.compile(r"same as (?P<other>[^()\[\]{}]+)", re.IGNORECASE)
_OURS = re.compile(r"\[(?P<name>[^\]]*?)(?P<times> x\d{1,3})?\]\s*(?:\{[^{}]*\})?")


def with_sections(lines: list[str], findings: Findings) -> list[str]:
    """The lines with section names as ours; a repeat of what comes is a section of its own."""
    made = [_line(line, number, findings) for number, line in enumerate(lines, start=1)]
    _take_order(made, lines, findings)
    return made


def _take_order(made: list[str], lines: Sequence[str], findings: Findings) -> None:
    """Sections that are only named again, without bars, as the order they are played in."""
    sections = [(at, match) for at, line in enumerate(made) if (match := _OURS.fullmatch(line))]
    if not sections:
        return
    has_bars = _followed_by_bars(made, [at for at, _ in sections])
    order, again = [], []
    known: list[str] = []
    for (at, match), written in zip(sections, has_bars, strict=True):
        name = match["name"]
        meant = name if written else _meant(name, lines[at], known)
        if meant:
            order.append(f"{meant}{match['times'] or ''}")
            again += [] if written else [at]
        known += [name] if written else []
    if not again or any(line.startswith("Order:") for line in lines):
        return
    for at in again:
        made[at] = ""
    made[again[-1]] = f"{HEADING}Order: {', '.join(order)}"
    what = f"'{short(lines[again[0]].strip())}' is a section that stands before"
    findings.guessed(again[0] + 1, 1, what, f"the order is taken to be {', '.join(order)}")


def _followed_by_bars(lines: Sequence[str], starts: Sequence[int]) -> list[bool]:
    return [
        any(row_of(line) for line in lines[start:end])
        for start, end in zip(starts, [*starts[1:], len(lines)], strict=True)
    ]


def _meant(name: str, line: str, known: Sequence[str]) -> str:
    """The section with bars that a name alone means: itself, or the one it is the same as."""
    same = _SAME_AS.search(line)
    wanted = (same["other"] if same else name).strip().lower()
    return next((own for own in known if own.lower() == wanted), "")


def _line(line: str, number: int, findings: Findings) -> str:
    if is_written_remark(line):
        return line
    text = " ".join(line.split())
    if repeat := _REPEAT.fullmatch(text):
        findings.guessed(
            number, 1, f"'{short(text)}' stands on a line of its own", "it counts for what follows"
        )
        return f"[Part x{repeat['times']}]"
    if never := _NEVER.fullmatch(line):
        findings.guessed(number, 1, f"'{short(text)}' is counted x0", "it is played once")
        return f"{never['before']}]{never['behind']}"
    match = _SECTION.fullmatch(text)
    if match is None or (text.startswith("[") and text.endswith("]") and not match["about"]):
        return line
    times = next((match[key] for key in "abcdef" if match[key]), "")
    about = match["about"] or ""
    if _SAME.fullmatch(about):
        about = ""
    counted = f" x{times}" if times and int(times) > 1 else ""
    return f"[{match['name'].strip()}{counted}]" + (f" {{{about}}}" if about else "")
