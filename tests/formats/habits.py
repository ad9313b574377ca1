"""Habits of people who type tabs, each as one change of a clean text: how it is changed, and what a careful
reader takes it for (common practice, no source)."""

import re
from collections.abc import Callable
from dataclasses import dataclass

ARPEGGIO = """Title: Paper kite
Tempo: 96
Time: 4/4
Tuning: standard

e|-------0-------0-|-------0-------0-|
B|-----1-------1---|-----1-------1---|
G|---0-------0-----|---2-------2-----|
D|-----------------|-2-------2-------|
A|-3-------3-------|-----------------|
E|-----------------|-----------------|
"""
RIFF = """Title: Tin kettle
Tempo: 120
Time: 4/4
Tuning: standard

e|-----------------|-----------------|
B|-----------------|-----------------|
G|-----------------|-2---------------|
D|---------2---0---|-----2---0-------|
A|-----2-------3---|---------3---2---|
E|-0-------0-------|-------------0---|
"""
STRUM = """Title: Harbour bell
Tempo: 84
Time: 4/4
Tuning: standard

e|-3---3---3---3---|-0---0---0---0---|
B|-3---3---3---3---|-1---1---1---1---|
G|-0---0---0---0---|-0---0---0---0---|
D|-0---0---0---0---|-2---2---2---2---|
A|-2---2---2---2---|-3---3---3---3---|
E|-3---3---3---3---|-----------------|
"""
CLEAN = {"arpeggio": ARPEGGIO, "riff": RIFF, "strum": STRUM}


@dataclass(frozen=True)
class Habit:
    """A change of a clean text; `told` is a part of what must be said of it."""

    name: str
    change: Callable[[str], str | bytes]
    told: str = ""


def _header(old: str, new: str) -> Callable[[str], str]:
    def change(text: str) -> str:
        key = old.split(":")[0]
        return re.sub(rf"^{key}:.*$", new.replace("\\", r"\\"), text, count=1, flags=re.MULTILINE)

    return change


def _each(change: Callable[[str], str]) -> Callable[[str], str]:
    """A change of every string line."""
    return lambda text: "\n".join(change(line) if "|-" in line else line for line in text.split("\n"))


def _line(number: int, change: Callable[[str], str]) -> Callable[[str], str]:
    """A change of one string line (0: the thinnest)."""

    def changed(text: str) -> str:
        lines = text.split("\n")
        at = [index for index, line in enumerate(lines) if "|-" in line][number]
        lines[at] = change(lines[at])
        return "\n".join(lines)

    return changed


def _above(row: str) -> Callable[[str], str]:
    return lambda text: text.replace("\ne|", f"\n{row}\ne|", 1)


def _below(row: str) -> Callable[[str], str]:
    return lambda text: text + row + "\n"


def _reordered(text: str) -> str:
    head, _, music = text.partition("\n\n")
    return f"{head}\n\n" + "\n".join(reversed(music.strip("\n").split("\n"))) + "\n"


def _split_systems(text: str, between: str) -> str:
    """Each bar a system of its own."""
    head, _, music = text.partition("\n\n")
    rows = [line.split("|") for line in music.strip("\n").split("\n")]
    first = "\n".join(f"{row[0]}|{row[1]}|" for row in rows)
    second = "\n".join(f"{row[0]}|{row[2]}|" for row in rows)
    return f"{head}\n\n{first}\n{between}{second}\n"


def _without(key: str) -> Callable[[str], str]:
    return lambda text: re.sub(rf"^{key}:.*\n", "", text, flags=re.MULTILINE)


def _cut_ends(line: str) -> str:
    return line.rstrip("|")


def _bar_line_off(line: str) -> str:
    """The bar line in the middle one column to the right, the last where it was."""
    head, first, second, end = line.split("|")
    return f"{head}|{first}-|{second[:-1] if second.endswith('--') else second}|{end}"


HABITS = (
    # Headings
    Habit("tuning run together", _header("Tuning:", "Tuning: EADGBE")),
    Habit("tuning spaced", _header("Tuning:", "Tuning: E A D G B E")),
    Habit("tuning with a small e", _header("Tuning:", "Tuning: EADGBe")),
    Habit("tuning with dashes", _header("Tuning:", "Tuning: E-A-D-G-B-E")),
    Habit("tuning in words", _header("Tuning:", "Tuning: Standard tuning")),
    Habit("tuning as E standard", _header("Tuning:", "Tuning: E Standard")),
    Habit("tuning named behind", _header("Tuning:", "Standard tuning")),
    Habit("tuning with parentheses", _header("Tuning:", "Tuning: Standard (EADGBE)")),
    Habit("tuning in other words", _header("Tuning:", "Tuning: whatever"), "whatever"),
    Habit("no tuning", _without("Tuning"), "tuning"),
    Habit("tempo in bpm", lambda text: re.sub(r"Tempo: (\d+)", r"Tempo: \1 bpm", text)),
    Habit("tempo with equals", lambda text: re.sub(r"Tempo: (\d+)", r"Tempo = \1", text)),
    Habit("tempo as BPM", lambda text: re.sub(r"Tempo: (\d+)", r"BPM: \1", text)),
    Habit("tempo as q=", lambda text: re.sub(r"Tempo: (\d+)", r"q=\1", text)),
    Habit("tempo as a quarter =", lambda text: re.sub(r"Tempo: (\d+)", r"quarter = \1", text)),
    Habit("tempo in a sentence", lambda text: re.sub(r"Tempo: (\d+)", r"\1 bpm", text)),
    Habit("tempo in a word", _header("Tempo:", "Tempo: moderate"), "moderate"),
    Habit("metre as a time signature", _header("Time:", "Time signature: 4/4")),
    Habit("metre in words", _header("Time:", "4/4 time")),
    Habit("common time", _header("Time:", "Time: common")),
    Habit("no metre", _without("Time"), "metre"),
    Habit("capo none", _header("Tuning:", "Tuning: standard\nCapo: none")),
    Habit("no capo", _header("Tuning:", "Tuning: standard\nNo capo")),
    Habit("capo in a word", _header("Tuning:", "Tuning: standard\nCapo: maybe"), "capo"),
    Habit("scale", _header("Tuning:", "Tuning: standard\nScale: A minor"), "A minor"),
    Habit("feel", _header("Tuning:", "Tuning: standard\nFeel: shuffle"), "shuffle"),
    Habit("another key", _header("Tuning:", "Tuning: standard\nDifficulty: easy")),
    Habit("indented headings", lambda text: re.sub(r"^([A-Z][a-z]+: )", r"  \1", text, flags=re.MULTILINE)),
    Habit("headings below", lambda text: text.split("\n\n")[1] + "\n" + text.split("\n\n")[0] + "\n"),
    Habit("title alone", lambda text: text.replace("Title: ", "", 1), "title"),
    Habit("title in quotes", lambda text: re.sub(r"Title: (.*)", r'"\1"', text), "title"),
    Habit("song key", lambda text: text.replace("Title: ", "Song: ", 1)),
    Habit(
        "headings in capitals",
        lambda text: re.sub(r"^([A-Z][a-z]+):", lambda m: m[0].upper(), text, flags=re.MULTILINE),
    ),
    Habit(
        "headings with two blanks",
        lambda text: re.sub(r"^([A-Z][a-z]+): ", r"\1  :  ", text, flags=re.MULTILINE),
    ),
    Habit(
        "words before the music",
        lambda text: text.replace("\n\n", "\n\nPlay it gently, with a light thumb.\n\n", 1),
    ),
    Habit("a thank you below", _below("\nHave fun, and tell me what is wrong!")),
    # Sections and repeats
    Habit("section with a colon", lambda text: text.replace("\n\n", "\n\nVerse:\n", 1)),
    Habit("section in capitals", lambda text: text.replace("\n\n", "\n\nVERSE 1\n", 1)),
    Habit("section with a count", lambda text: text.replace("\n\n", "\n\nIntro (x4)\n", 1)),
    Habit("section in brackets, count behind", lambda text: text.replace("\n\n", "\n\n[Intro] x4\n", 1)),
    Habit("section between dashes", lambda text: text.replace("\n\n", "\n\n-- Bridge --\n", 1)),
    Habit("section between stars", lambda text: text.replace("\n\n", "\n\n*** Solo ***\n", 1)),
    Habit("play so often", lambda text: text.replace("\n\n", "\n\nplay 4 times\n", 1)),
    Habit("no count of a section", lambda text: text.replace("\n\n", "\n\n[Intro x0]\n", 1), "x0"),
    Habit("count behind a system", _line(0, lambda line: line + " x2")),
    Habit("count in parentheses", _line(2, lambda line: line + "  (x2)")),
    Habit("count the other way", _line(5, lambda line: line + " 2x")),
    Habit("words behind a system", _line(1, lambda line: line + "  (let ring)"), "let ring"),
    Habit("words behind a line", _line(3, lambda line: line + "  watch the thumb"), "watch"),
    # Chord names and counts
    Habit("a chord flush left", _above("Am"), "Am"),
    Habit("a chord past the end", _above(" " * 40 + "Am"), "Am"),
    Habit("a number past the end", _above("  1   2   3   4     1   2   3   4    5"), "5"),
    Habit("counts with nought", _above("  1 & 2 & 3 & 4 &   0 & 2 & 3 & 4 &"), "0"),
    Habit("a lonely number", _above("12"), "12"),
    # Ragged systems
    Habit("a line a dash long", _line(2, lambda line: line[:-1] + "-|"), "long"),
    Habit("a line a dash short", _line(0, lambda line: line[:-2] + "|"), "long"),
    Habit("a line without its end", _line(3, _cut_ends), ""),
    Habit("no ends", _each(_cut_ends)),
    Habit("a bar line one off", _line(0, _bar_line_off), "long"),
    Habit("an indented name", _line(1, lambda line: f" {line}")),
    Habit("all indented", _each(lambda line: f"    {line}")),
    Habit("no empty line between systems", lambda text: _split_systems(text, "")),
    Habit("systems apart", lambda text: _split_systems(text, "\n\n")),
    Habit("empty lines between strings", _each(lambda line: f"{line}\n")),
    Habit("no names", _each(lambda line: line[1:])),
    Habit("capital names", _each(lambda line: line[0].upper() + line[1:])),
    Habit(
        "names with octaves",
        lambda text: re.sub(
            r"^([eBGDAE])\|",
            lambda m: {"e": "E4", "B": "B3", "G": "G3", "D": "D3", "A": "A2", "E": "E2"}[m[1]] + "|",
            text,
            flags=re.MULTILINE,
        ),
    ),
    Habit("names with a colon", _each(lambda line: line.replace("|", ":", 1))),
    Habit("names with a colon and dashes", _each(lambda line: line[0] + ":" + line[2:])),
    Habit("names in parentheses", _each(lambda line: f"({line[0]}){line[1:]}")),
    Habit("names with a blank", _each(lambda line: line.replace("|", " |", 1))),
    Habit(
        "a blank behind the bar line", _each(lambda line: line.replace("|", "| ", 1).replace("| -", "| -", 1))
    ),
    Habit(
        "string numbers",
        lambda text: re.sub(
            r"^([eBGDAE])\|", lambda m: str("eBGDAE".index(m[1]) + 1) + "|", text, flags=re.MULTILINE
        ),
    ),
    Habit(
        "names with dashes",
        _each(lambda line: line[0] + "-" + line[1:]),
    ),
    Habit("double bar lines at the ends", _each(lambda line: line.replace("|", "||", 1)[:-1] + "||")),
    Habit("blanks behind", _each(lambda line: line + "   ")),
    # Upside down and missing
    Habit("lowest string on top", _reordered, "lowest"),
    # Bar furniture
    Habit("repeat signs", _each(lambda line: line.replace("|-", "|:-", 1)[:-1] + ":|")),
    Habit("stars", lambda text: _furnished(text, "*")),
    Habit("dots on two strings", lambda text: _furnished(text, ":")),
    # Shells
    Habit("long dashes", lambda text: text.replace("-", "–")),
    Habit("drawn dashes", lambda text: text.replace("-", "─").replace("|", "│")),
    Habit("mail", lambda text: "\n".join(f"> {line}".rstrip() for line in text.split("\n")), "mail"),
    Habit(
        "twice quoted", lambda text: "\n".join(f"> > {line}".rstrip() for line in text.split("\n")), "mail"
    ),
    Habit(
        "line numbers",
        lambda text: "\n".join(f"{at:3} {line}" for at, line in enumerate(text.rstrip("\n").split("\n"), 1)),
        "number",
    ),
    Habit(
        "a web page",
        lambda text: "<html><body><pre>" + text.replace("&", "&amp;") + "</pre></body></html>",
        "web",
    ),
    Habit("hard blanks", lambda text: text.replace(" ", "\u00a0")),
    Habit("Windows line ends", lambda text: text.replace("\n", "\r\n")),
    Habit("UTF-16", lambda text: text.encode("utf-16")),
    Habit(
        "Western letters", lambda text: text.replace("Title: ", "Title: Café ").encode("cp1252"), "Western"
    ),
    Habit("a mark in front", lambda text: text.encode("utf-8-sig")),
    Habit("tabulators", lambda text: text.replace("Title: ", "Title:\t")),
)


def _furnished(text: str, sign: str) -> str:
    """A repeat whose dots stand on the middle strings alone."""
    lines = text.split("\n")
    rows = [at for at, line in enumerate(lines) if "|-" in line]
    for number, at in enumerate(rows):
        dots = sign if number in (2, 3) else "-"
        head, first, second, _ = lines[at].split("|")
        lines[at] = f"{head}||{dots}{first}|{second}{dots}||"
    return "\n".join(lines)


# Signs as people type them, and ours, in a bar of their own.
SIGNS = (
    ("12h14", "12H14"),
    ("12p10", "12P10"),
    ("7-/9", "7//9"),
    ("7~", "7v"),
    ("7~", "7vvv"),
    ("<12>", "[12]"),
    ("<12>", "12*"),
    ("<7>", "7°"),
    ("t12", "T12"),
    ("7b9", "7bfull"),
    ("7b9", "7b(9)"),
    ("7b9", "7b(full)"),
    ("7b9", "7bf"),
    ("7b9", "7b1"),
    ("7b10", "7b1.5"),
    ("7b8", "7b1/2"),
    ("7b8", "7b½"),
    ("7b9", "7^9"),
    ("7b", "7^"),
    ("7b9r7", "7b9-r7"),
    ("5--h7", "5-h-7"),
    ("5--s7", "5-s-7"),
    ("0", "o"),
    ("x", "X"),
)
UNKNOWN = ("7!", "7~w", "7bb", "7#", "7&", "7b9b", "{7}", "7r5", "7b5", "7+")
