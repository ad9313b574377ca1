"""Tab texts as hasty and hostile hands leave them: no lengths, uneven, long, on one string or on all."""

import random
from dataclasses import dataclass

LETTERS = ("e", "B", "G", "D", "A", "E")
SIGNS = ("h", "p", "/", "\\", "b", "r", "~", "x", "s", "t", "=", "^", "(", ")", "<", ">")
METRES = ("4/4", "3/4", "6/8", "7/8", "5/4", "12/8", "2/4")


@dataclass(frozen=True)
class Clumsy:
    """One text, and how many bars were typed into it."""

    text: str
    bars: int


def clumsy(seed: int) -> Clumsy:
    """A text of one habit, the same for the same seed."""
    draw = random.Random(seed)
    strings = draw.choice((1, 1, 4, 6, 6, 6, 6, 7))
    bars, width = draw.choice(((1, 400), (2, 120), (4, 40), (8, 24), (16, 16), (16, 33), (32, 12)))
    density = draw.choice((0.05, 0.2, 0.5, 0.9))
    rows = ["" for _ in range(strings)]
    for _ in range(bars):
        own = max(width + draw.choice((0, 0, 0, 1, -1, draw.randint(-8, 8))), 3)
        for at, piece in enumerate(_bar(draw, strings, own, density)):
            rows[at] += piece + "|"
    letters = [*LETTERS, "B", "F#"][:strings]
    lines = [f"{letter}|{row}" for letter, row in zip(letters, rows, strict=True)]
    if draw.random() < 0.2:
        lines.insert(0, f"len|{_lengths(draw, bars, width)}")
    if draw.random() < 0.15:
        lines[draw.randrange(len(lines))] += draw.choice((" x2", "  let it ring", "-", "||", ":|"))
    heading = [f"Time: {draw.choice(METRES)}", ""] if draw.random() < 0.5 else []
    return Clumsy("\n".join([*heading, *lines, ""]), bars)


def _bar(draw: random.Random, strings: int, width: int, density: float) -> list[str]:
    """A bar as rows of one width: where a note stands, on one string, on some or on all."""
    rows = [["-"] * width for _ in range(strings)]
    every = draw.random() < 0.15
    even = draw.choice((0, 0, 2, 3, 4))
    for column in range(width):
        struck = draw.random() < density and (not even or column % even == 0 or draw.random() < 0.05)
        if not struck:
            continue
        chosen = range(strings) if every else [draw.randrange(strings)]
        for string in chosen:
            for offset, sign in enumerate(_note(draw)):
                if column + offset < width:
                    rows[string][column + offset] = sign
    return ["".join(row) for row in rows]


def _note(draw: random.Random) -> str:
    fret = str(draw.choice((draw.randint(0, 9), draw.randint(0, 24), draw.randint(0, 5))))
    if draw.random() < 0.25:
        sign = draw.choice(SIGNS)
        return draw.choice((fret + sign, sign + fret, f"{fret}{sign}{draw.randint(0, 15)}"))
    return fret


def _lengths(draw: random.Random, bars: int, width: int) -> str:
    """A line of note values that fits what stands under it, or does not."""
    values = ("w", "h", "q", "e", "s", "e3", "q.", "Re", "1h", "zz")
    line = [" "] * (bars * (width + 1))
    for _ in range(draw.randint(1, 4 * bars)):
        value, column = draw.choice(values), draw.randrange(max(len(line) - 4, 1))
        line[column : column + len(value)] = value
    for bar in range(1, bars + 1):
        line[min(bar * (width + 1) - 1, len(line) - 1)] = "|"
    return "".join(line)
