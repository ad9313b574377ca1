"""One note on a string line: its grammar, built from the table of techniques, both ways."""

import re
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score import MAX_FRET, TECHNIQUES, Bend, Note, Technique, Writing

_PREFIXES = {row.sign: row.technique for row in TECHNIQUES.values() if row.writing is Writing.PREFIX}
_SLIDE_SIGNS = ("/", "\\", "s")
_prefix_signs = "|".join(
    re.escape(sign) for sign in sorted({*_PREFIXES, *_SLIDE_SIGNS}, key=len, reverse=True)
)
MOST_SIGNS = 6  # before a digit; without a limit a run of slashes could be cut in endlessly many ways
TOKEN = re.compile(
    rf"(?P<open>\()?(?P<prefix>(?:{_prefix_signs}){{0,{MOST_SIGNS}}}+)(?P<inner>\()?"
    r"(?P<core>\d+|[xX]|=|<\d+>)"
    r"(?P<bend>b(?P<to>\d+(?:\.\d+)?)?)?(?P<release>r(?P<back>\d+)?)?"
    r"(?P<vibrato>~+)?(?P<out>[/\\](?![\d(<xX/\\]))?(?P<doubt>\?)?(?P<close>\))?"
)
_SIGN = re.compile(_prefix_signs)
_OUT = {"/": Technique.SLIDE_OUT_UP, "\\": Technique.SLIDE_OUT_DOWN}
_IN = {"/": Technique.SLIDE_IN_BELOW, "\\": Technique.SLIDE_IN_ABOVE}


@dataclass(frozen=True, slots=True)
class Token:
    """A note as typed; `column` is that of its first digit, `start` of its first sign."""

    string: int
    start: int
    column: int
    end: int
    text: str
    fret: int | None  # None for a tie
    techniques: frozenset[Technique]
    slide_sign: str  # "" or one of / \ s
    bend_to: Fraction | None  # fret whose sound it is bent to; -1 = a half tone up
    released_to: int | None  # -1 = released, fret not written
    tied: bool
    uncertain: bool
    optional: bool
    attached: bool  # typed without a gap after the note before it


def tokens_of(text: str, string: int, start: int, end: int) -> tuple[list[Token], list[tuple[int, str]]]:
    """Notes between two columns of a string line, and (column, signs) of what is none."""
    tokens: list[Token] = []
    strangers: list[tuple[int, str]] = []
    at = start
    while at < end:
        if text[at] in "- :*":
            at += 1
        elif match := TOKEN.match(text, at, end):
            attached = bool(tokens) and tokens[-1].end == at and bool(match["prefix"])
            tokens.append(_token(match, string, attached))
            at = match.end()
        else:
            if strangers and sum(map(len, strangers[-1][1:])) + strangers[-1][0] == at:
                strangers[-1] = (strangers[-1][0], strangers[-1][1] + text[at])
            else:
                strangers.append((at, text[at]))
            at += 1
    return tokens, strangers


def _token(match: re.Match[str], string: int, attached: bool) -> Token:
    signs = _SIGN.findall(match["prefix"]) if match["prefix"] else ()
    core = match["core"]
    techniques = {_PREFIXES[sign] for sign in signs if sign in _PREFIXES and sign not in _SLIDE_SIGNS}
    if core in "xX":
        techniques.add(Technique.DEAD)
    if core.startswith("<"):
        techniques.add(Technique.NATURAL_HARMONIC)
    if match["vibrato"]:
        techniques.add(Technique.VIBRATO)
    if match["out"]:
        techniques.add(_OUT[match["out"]])
    digits = core.strip("<>")
    bend_to = Fraction(match["to"]) if match["to"] else Fraction(-1) if match["bend"] else None
    released_to = int(match["back"]) if match["back"] else -1 if match["release"] else None
    column = match.start("core") + core.startswith("<")
    slide = next((sign for sign in signs if sign in _SLIDE_SIGNS), "")
    return Token(
        string, match.start(), column, match.end(), match.group(),
        int(digits) if digits.isdigit() else 0 if core in "xX" else None,
        frozenset(techniques), slide, bend_to, released_to, core == "=",
        bool(match["doubt"]), bool(match["open"] or match["inner"]), attached,
    )  # fmt: skip


def note_of(token: Token, held_fret: int | None, slid: bool) -> Note:
    """The note a token stands for.

    `held_fret` is the fret last sounded on the string (for ties), `slid` whether a single
    slide sign comes from that note. Raises InvalidValueError or ValueError with the reason.
    """
    fret = held_fret if token.fret is None else token.fret
    if fret is None:
        raise ValueError(f"'{token.text}' is tied, but nothing sounds on the string before it")
    if fret > MAX_FRET:
        raise ValueError(f"fret {fret} is not on the neck; expected 0 to {MAX_FRET}")
    techniques = set(token.techniques)
    if token.slide_sign:
        techniques.add(Technique.SLIDE if slid else _IN[token.slide_sign])
    return Note(
        token.string, fret, frozenset(techniques), _bend(token, fret), token.tied,
        uncertain=token.uncertain, optional=token.optional,
    )  # fmt: skip


def _bend(token: Token, fret: int) -> Bend | None:
    if token.bend_to is None and token.released_to is None:
        return None
    if token.released_to not in (None, -1, fret):
        raise ValueError(
            f"'{token.text}' is released to fret {token.released_to}; expected r{fret}, the fret it left"
        )
    half_tones = Fraction(0)
    if token.bend_to is not None:
        half_tones = Fraction(1) if token.bend_to == -1 else token.bend_to - fret
        if not 0 < half_tones <= 6:
            raise ValueError(
                f"'{token.text}' bends fret {fret} to the sound of {token.bend_to}; expected a higher fret,"
                " at most 6 above"
            )
    return Bend(half_tones, token.released_to is not None)


def spell_note(note: Note, slide_sign: str) -> tuple[str, str]:
    """A note as (signs before its first digit, the rest); `slide_sign` as for `note_of`."""
    prefix = "(" if note.optional else ""
    for technique in sorted(note.techniques):
        row = TECHNIQUES[technique]
        if technique is Technique.SLIDE:
            prefix += slide_sign
        elif row.writing is Writing.PREFIX:
            prefix += row.sign
    core = "=" if note.tied else "x" if note.dead else str(note.fret)
    if Technique.NATURAL_HARMONIC in note.techniques:
        prefix, core = prefix + "<", core + ">"
    if note.bend and note.bend.half_tones:
        core += f"b{_decimal(note.fret + note.bend.half_tones)}"
    if note.bend and note.bend.released:
        core += f"r{note.fret}"
    suffixes = (TECHNIQUES[t].sign for t in (Technique.VIBRATO, *_OUT.values()) if t in note.techniques)
    return prefix, core + "".join(suffixes) + ("?" if note.uncertain else "") + (")" if note.optional else "")


def _decimal(value: Fraction) -> str:
    return str(value.numerator) if value.denominator == 1 else f"{float(value):.10g}"
