"""Signs on the strings as people type them, as ours, each at its column."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.formats.tabtext.brought.strings import row_of
from clear_steps.formats.tabtext.problems import Findings

_FULL, _HALF = 2, 1  # half tones
_MOST_TONES = Fraction(5, 2)
_TONES = {"½": Fraction(1, 2), "1/2": Fraction(1, 2), "1½": Fraction(3, 2)}
_FRET = r"(?P<fret>\d{1,2})"


@dataclass(frozen=True, slots=True)
class _Sign:
    """A way of typing, how we write it (None: this one is ours), and what it is told to be where that is a
    guess."""

    typed: re.Pattern[str]
    ours: Callable[[re.Match[str]], str | None]
    taken: str = ""


def with_our_signs(lines: list[str], findings: Findings) -> list[str]:
    """The lines with string lines in our signs; what is not known stays and is told by the reading."""
    told: set[str] = set()
    return [_ours(line, number, told, findings) for number, line in enumerate(lines, start=1)]


def _ours(line: str, number: int, told: set[str], findings: Findings) -> str:
    row = row_of(line)
    if row is None:
        return line
    start, end = len(row.head), len(line.rstrip()) - len(row.tail)
    body = line[start:end]
    for sign in _SIGNS:
        body = _replaced(body, sign, (number, start), told, findings)
    return line[:start] + body + line[end:]


def _replaced(body: str, sign: _Sign, place: tuple[int, int], told: set[str], findings: Findings) -> str:
    """The body with one sign as ours in the same columns; where ours is longer, what is there stays."""

    def write(match: re.Match[str]) -> str:
        ours = sign.ours(match)
        if ours is None or len(ours) > len(match.group()):
            return match.group()
        if sign.taken and sign.taken not in told:
            told.add(sign.taken)
            what = f"'{match.group().strip('-')}' is typed here"
            findings.guessed(place[0], place[1] + match.start() + 1, what, f"read as {sign.taken}")
        return ours.ljust(len(match.group()), "-")

    return sign.typed.sub(write, body)


def _bent(match: re.Match[str], half_tones: int) -> str:
    return f"{match['fret']}b{int(match['fret']) + half_tones}"


def _bent_by_tones(match: re.Match[str]) -> str | None:
    """`7b1` a whole tone, `7b1.5`: a number below the fret says how far."""
    tones = _TONES[match["tones"]] if match["tones"] in _TONES else Fraction(match["tones"])
    half_tones = tones * 2
    if tones >= int(match["fret"]) or not 0 < tones <= _MOST_TONES or half_tones.denominator != 1:
        return None
    return _bent(match, int(half_tones))


_SIGNS = (
    _Sign(re.compile(r"T(?=\d)"), lambda _: "t"),
    _Sign(re.compile(r"(?<=\d)[HP](?=\d)"), lambda match: match.group().lower()),
    _Sign(
        re.compile(_FRET + r"-(?P<sign>[hps/\\])-(?P<to>\d{1,2})"),
        lambda match: f"{match['fret']}--{match['sign']}{match['to']}",
    ),
    _Sign(re.compile(r"(?<=\d)//(?=\d)"), lambda _: "-/"),
    _Sign(re.compile(r"(?<=\d)[v~]+"), lambda _: "~"),
    _Sign(re.compile(r"\[(?P<fret>\d{1,2})\]"), lambda match: f"<{match['fret']}>", "a harmonic"),
    _Sign(re.compile(_FRET + r"[*°]-"), lambda match: f"<{match['fret']}>", "a harmonic"),
    _Sign(re.compile(_FRET + r"b\(?f(?:ull)?\)?-?"), lambda match: _bent(match, _FULL)),
    _Sign(re.compile(_FRET + r"b\(?(?:1/2|½|half)\)?-?"), lambda match: _bent(match, _HALF)),
    _Sign(re.compile(_FRET + r"[b^]\((?P<to>\d{1,2})\)"), lambda match: f"{match['fret']}b{match['to']}"),
    _Sign(re.compile(_FRET + r"\^(?P<to>\d{1,2})"), lambda match: f"{match['fret']}b{match['to']}", "a bend"),
    _Sign(re.compile(_FRET + r"\^"), lambda match: f"{match['fret']}b", "a bend of a half tone"),
    _Sign(
        re.compile(_FRET + r"b\(?(?P<tones>1½|[12](?:\.5)?)\)?(?![\d.])-{0,2}"),
        _bent_by_tones,
        "a bend so many tones up",
    ),
    _Sign(
        re.compile(r"(?P<bent>\d{1,2}b\d{1,2})-r(?P<back>\d{1,2})"),
        lambda match: f"{match['bent']}r{match['back']}",
    ),
    _Sign(re.compile(r"(?<=[-|])[oO](?=[-|])"), lambda _: "0", "an open string"),
)
