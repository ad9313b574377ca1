"""Song -> text that reads back as an equal song."""

from collections import Counter
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score import (
    COMMON_TIME,
    UNCOUNTED,
    Bar,
    Event,
    Metre,
    Part,
    Section,
    Song,
    spell_length,
)
from clear_steps.formats.tabtext.brought import as_we_write
from clear_steps.formats.tabtext.header import part_header, song_header, spell_tempo
from clear_steps.formats.tabtext.howwords import write_how
from clear_steps.formats.tabtext.lines import Label, remark_line
from clear_steps.formats.tabtext.problems import Findings
from clear_steps.formats.tabtext.reader import comes_from_before
from clear_steps.formats.tabtext.tokens import spell_note

SYSTEM_COLUMNS = 92
_COLUMNS_A_QUARTER = 4  # so that the eye sees the rhythm even without the len line
_NAME_COLUMNS = 3

_TITLE = "Title: any"
_MUSIC = "e|---|"  # below which a line is a heading no more


@dataclass
class _BarText:
    """A laid-out bar: one text a string and a label, each as wide as the bar with its bar line."""

    strings: list[str]
    labels: dict[Label, str]
    width: int
    closing: str


def write_tab(song: Song) -> str:
    """Tab text of a song, with every part, section, remark and labelled line."""
    metre = _usual_metre(song)
    lines = song_header(song, metre)
    for index, part in enumerate(song.parts):
        lines += ([""] if index else []) + part_header(part, index == 0)
        lines += _part_lines(part, metre)
    return "\n".join(lines) + "\n"


def write_bars(part: Part) -> str:
    """The bars of a part as tab, without headers."""
    return "\n".join(_part_lines(part, COMMON_TIME)).strip("\n")


def _usual_metre(song: Song) -> Metre:
    counted = Counter(bar.metre for part in song.parts for bar in part.bars)
    return counted.most_common(1)[0][0] if counted else COMMON_TIME


def _part_lines(part: Part, metre: Metre) -> list[str]:
    lines: list[str] = []
    system: list[_BarText] = []
    sections = {section.first_bar: section for section in part.sections}
    remarks: dict[int, list[str]] = {}
    for index, text in part.remarks:
        remarks.setdefault(index, []).append(text)
    before: dict[int, int] = {}
    for index in range(len(part.bars) + 1):
        if index in remarks or index in sections:
            lines += _system_lines(part, system)
            system = []
            lines += ["", *map(_remark, remarks[index])] if index in remarks else []
            if index in sections:
                lines += ["", _section_line(sections[index])]
        if index == len(part.bars):
            break
        laid_out, before = _bar_text(part, part.bars[index], metre, before)
        if system and sum(held.width + 1 for held in system) + laid_out.width > SYSTEM_COLUMNS:
            lines += _system_lines(part, system)
            system = []
        system.append(laid_out)
    return lines + _system_lines(part, system) + _reading_lines(part, metre)


def _remark(text: str) -> str:
    """A remark as a line that is read back as one: what would be taken for something else stands a column
    in."""
    lines = [_TITLE, text, _MUSIC]
    return remark_line(text) if as_we_write(lines, Findings()) == lines else f" {text}"


def _reading_lines(part: Part, metre: Metre) -> list[str]:
    """Other readings of bars, after all bars; each is written as if it stood in its bar's place."""
    lines: list[str] = []
    for reading in part.readings:
        number = part.bar_number(reading.bar)
        if reading.content is None:
            lines += ["", f"Using {number}: {reading.name}"]
            continue
        earlier = [event for bar in part.bars[: reading.bar] for event in bar.events]
        before = {note.string: note.fret for note in earlier[-1].notes} if earlier else {}
        lines += [
            "",
            f"Reading {number}: {reading.name}",
            *_system_lines(part, [_bar_text(part, reading.content, metre, before)[0]])[1:],
        ]
    return lines


def _system_lines(part: Part, bars: list[_BarText]) -> list[str]:
    if not bars:
        return []
    above: list[str] = []
    below: list[str] = []
    for label in Label:
        if any(label in bar.labels for bar in bars):
            cells = (bar.labels.get(label, "").ljust(bar.width) + bar.closing for bar in bars)
            side = below if label in (Label.FINGER, Label.REMARK) else above
            side.append(f"{label}|" + "".join(cells))
    names = [letter.rjust(_NAME_COLUMNS) for letter in part.tuning.letters]
    strings = [
        f"{name}|" + "".join(bar.strings[row] + bar.closing for bar in bars) for row, name in enumerate(names)
    ]
    return ["", *above, *strings, *below]


@dataclass(frozen=True)
class _Cell:
    """One event as text: (signs before the column, the rest) by string, a word by label."""

    notes: dict[int, tuple[str, str]]
    words: dict[Label, str]
    how: str
    quarters: Fraction

    @property
    def left(self) -> int:
        """Columns taken before the first digit."""
        return max((len(signs) for signs, _ in self.notes.values()), default=0)

    @property
    def right(self) -> int:
        """Columns taken from the first digit on; a remark needs two blanks behind it."""
        remark = len(self.words.get(Label.REMARK, "")) + 1
        texts = [text for _, text in self.notes.values()] + [
            word for label, word in self.words.items() if label is not Label.REMARK
        ]
        return max([remark if remark > 1 else 1, len(self.how), *(len(text) for text in texts)])


def _bar_text(part: Part, bar: Bar, metre: Metre, before: dict[int, int]) -> tuple[_BarText, dict[int, int]]:
    cells = []
    for event in bar.events:
        cells.append(_cell(event, before))
        before = {note.string: note.fret for note in event.notes}
    opening = ":" if bar.repeat_start else ""
    columns, at = [], len(opening)
    for cell in cells:
        columns.append(at + cell.left)
        at += cell.left + max(cell.right + 1, int(cell.quarters * _COLUMNS_A_QUARTER))
    marks = _bar_marks(bar, metre)
    width = max(at, len(marks) + 1) + bool(bar.repeat_times)
    strings = [
        _string_text(string, cells, columns, opening, ":" if bar.repeat_times else "", width)
        for string in range(1, part.tuning.strings + 1)
    ]
    labels = {label: text for label in Label if (text := _label_text(label, cells, columns))}
    if how := _how_text(cells, columns):
        labels[Label.HOW] = how
    if marks:
        labels[Label.BAR] = marks
    return _BarText(strings, labels, width, "||" if bar.double_bar else "|"), before


def _cell(event: Event, before: dict[int, int]) -> _Cell:
    notes = {
        note.string: spell_note(note, _slide_sign(note.fret, before.get(note.string))) for note in event.notes
    }
    words = {Label.LENGTH: ("" if event.notes else "R") + spell_length(event.quarters)}
    if event.chord:
        words[Label.CHORD] = event.chord
    if event.remark:
        words[Label.REMARK] = event.remark
    picks = [note.picking or "0" for note in reversed(event.struck)]
    fingers = [note.finger or "0" for note in event.struck]
    plucked = "/".join(picks) if set(picks) - {"0"} else ""
    if event.stroke or plucked:
        words[Label.PICKING] = "/".join(filter(None, (event.stroke, plucked)))
    pins = [f"@{event.position}"] * (event.position is not None) + ["/".join(fingers)] * bool(
        set(fingers) - {"0"}
    )
    if pins:
        words[Label.FINGER] = ":".join(pins)
    if event.dynamic:
        words[Label.DYNAMIC] = event.dynamic
    return _Cell(notes, words, write_how(event), event.quarters)


def _slide_sign(fret: int, fret_before: int | None) -> str:
    return next((sign for sign in ("/", "\\") if comes_from_before(sign, fret_before, fret)), "s")


def _string_text(
    string: int, cells: list[_Cell], columns: list[int], opening: str, closing: str, width: int
) -> str:
    text = opening
    for cell, column in zip(cells, columns, strict=True):
        if string in cell.notes:
            signs, rest = cell.notes[string]
            text = text.ljust(column - len(signs), "-") + signs + rest
    return text.ljust(width - len(closing), "-") + closing


def _label_text(label: Label, cells: list[_Cell], columns: list[int]) -> str:
    text = ""
    for cell, column in zip(cells, columns, strict=True):
        if label in cell.words:
            text = text.ljust(column) + cell.words[label]
    return text


def _how_text(cells: list[_Cell], columns: list[int]) -> str:
    """Words for how; the same words on neighbours are drawn as one with a dash line."""
    text, last = "", ""
    for cell, column in zip(cells, columns, strict=True):
        if cell.how and cell.how == last:
            text = text.ljust(column + 1, "-")
        elif cell.how:
            text = text.ljust(column) + cell.how
        last = cell.how
    return text


def _section_line(section: Section) -> str:
    """`[Verse 2 as Verse: 1, 4 x2] {picked, clean}`."""
    like = f" as {section.like}: {', '.join(map(str, section.differs))}" if section.like else ""
    times = "" if section.times == 1 else f" x{section.times or '?'}"
    said = ", ".join([*([section.role] if section.role else []), *section.sound])
    return f"[{section.name}{like}{times}]{f' {{{said}}}' if said else ''}"


def _bar_marks(bar: Bar, metre: Metre) -> str:
    marks = [str(bar.metre)] if bar.metre != metre else []
    marks += ["".join(f"{number or 'last'}." for number in bar.endings)] if bar.endings else []
    marks += [f"@{spell_tempo(bar.tempo)}"] if bar.tempo is not None else []
    if bar.repeat_times not in (0, 2):
        marks.append("x?" if bar.repeat_times == UNCOUNTED else f"x{bar.repeat_times}")
    return " ".join(marks)
