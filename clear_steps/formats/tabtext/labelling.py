"""Words of labelled lines, put on the events they stand over."""

import re
from bisect import bisect_left, bisect_right
from dataclasses import dataclass, replace

from clear_steps.core.score import Dynamic, Event, Finger, Note, PickingFinger, Stroke
from clear_steps.formats.tabtext.howwords import NoHowWordError, read_how
from clear_steps.formats.tabtext.lines import Label
from clear_steps.formats.tabtext.problems import Findings, short
from clear_steps.formats.tabtext.rawbars import RawBar, Word

_POSITION = re.compile(
    r"@(?P<position>[1-9]|[12]\d|3[0-6])(?::(?P<fingers>.+))?"
)  # a pinned position, then fingers
_FINGERS_EXPECTED = (
    "expected 1 2 3 4 or T from the highest string down with / between, or a position such as @5"
)


@dataclass
class LabelledEvent:
    """An event and the columns a word for it may stand at."""

    event: Event
    columns: tuple[int, ...]


class _SaysNothingError(Exception):
    """A word that says nothing where it stands; the text says why, and what was expected."""


class _Places:
    """The events of a bar by the columns that a word for them may stand at."""

    def __init__(self, drafts: list[LabelledEvent]) -> None:
        self._drafts = drafts
        self._first: dict[int, int] = {}  # column -> index of the first event that has it
        for index, draft in enumerate(drafts):
            for column in draft.columns:
                self._first.setdefault(column, index)
        self._columns = sorted(self._first)

    def at(self, column: int) -> LabelledEvent | None:
        """The event at a column, or right beside it."""
        if column in self._first:
            return self._drafts[self._first[column]]
        beside = [self._first[near] for near in (column - 1, column + 1) if near in self._first]
        return self._drafts[min(beside)] if beside else None

    def struck(self, word: Word) -> LabelledEvent:
        """The event with notes that a word stands at; raises _SaysNothingError."""
        home = self.at(word.column)
        if home is None or not home.event.struck:
            raise _no_note(word)
        return home

    def between(self, column: int, stop: int) -> list[LabelledEvent]:
        """The events at these columns, the last left out."""
        found = self._columns[bisect_left(self._columns, column) : bisect_left(self._columns, stop)]
        return [self._drafts[index] for index in sorted({self._first[each] for each in found})]

    def from_here_on(self, column: int) -> tuple[LabelledEvent, str]:
        """The next event after a column, or else the last, and which of the two it is."""
        at = bisect_right(self._columns, column)
        if at == len(self._columns):
            return self._drafts[-1], "last"
        return self._drafts[self._first[self._columns[at]]], "next"


def label_events(bar: RawBar, drafts: list[LabelledEvent], findings: Findings) -> tuple[Event, ...]:
    """Events with their words; a word that stands over none, or is unknown, is a problem."""
    places = _Places(drafts)
    for label, apply in (
        (Label.HOW, _apply_how),
        (Label.PICKING, _apply_picking),
        (Label.FINGER, _apply_fingers),
        (Label.DYNAMIC, _apply_dynamic),
    ):
        for word in bar.words.get(label, []):
            try:
                apply(word, places)
            except (_SaysNothingError, NoHowWordError) as error:
                _keep(word, str(error), places, findings)
    for label in (Label.CHORD, Label.REMARK):
        for word in bar.words.get(label, []):
            _apply_text(label, word, places, findings)
    return tuple(draft.event for draft in drafts)


def _no_note(word: Word) -> _SaysNothingError:
    return _SaysNothingError(f"no note stands at '{short(word.text)}'; expected it at the first digit of one")


def _keep(word: Word, what: str, places: _Places, findings: Findings) -> None:
    """A word that says nothing where it stands, as a remark at its note."""
    home = places.at(word.column) or places.from_here_on(word.column)[0]
    _add_remark(home, word.text)
    findings.guessed(word.line, word.shown, what, "it is kept as a remark at its note")


def _add_remark(home: LabelledEvent, text: str) -> None:
    home.event = replace(home.event, remark=f"{home.event.remark} {text}".strip())


def _apply_how(word: Word, places: _Places) -> None:
    said = read_how(word.text.rstrip("-"))
    homes = places.between(word.column, word.end) if word.text.endswith("-") else []
    if not homes and (home := places.at(word.column)):
        homes = [home]
    if not homes:
        raise _no_note(word)
    missing = said.strings - {note.string for home in homes for note in home.event.notes}
    if missing:
        raise _SaysNothingError(
            f"'{short(word.text)}' names string {min(missing)}; expected one that is struck there"
        )
    for home in homes:
        home.event = said.on(home.event)


def _apply_dynamic(word: Word, places: _Places) -> None:
    home = places.at(word.column)
    if home is None:
        raise _no_note(word)
    if word.text not in set(Dynamic):
        raise _SaysNothingError(f"'{short(word.text)}' is no loudness; expected one of {' '.join(Dynamic)}")
    home.event = replace(home.event, dynamic=Dynamic(word.text))


def _apply_picking(word: Word, places: _Places) -> None:
    home = places.struck(word)
    marks = word.text.split("/")
    if marks[0] in set(Stroke):
        home.event = replace(home.event, stroke=Stroke(marks.pop(0)))
        if not marks:
            return
    if any(mark not in {*PickingFinger, "0"} for mark in marks):
        raise _SaysNothingError(
            f"'{word.text}' is no picking; expected p i m a c from the lowest string up with / between, or D"
            " or U"
        )
    targets = home.event.struck[::-1]
    if len(marks) != len(targets):
        raise _SaysNothingError(
            f"'{word.text}' names {len(marks)} fingers; expected {len(targets)}, one for every string plucked"
            " here"
        )
    chosen = {
        note.string: PickingFinger(mark) for note, mark in zip(targets, marks, strict=True) if mark != "0"
    }
    notes = (
        replace(n, picking=chosen[n.string]) if n.string in chosen and not n.tied else n
        for n in home.event.notes
    )
    home.event = replace(home.event, notes=tuple(notes))


def _apply_fingers(word: Word, places: _Places) -> None:
    home = places.struck(word)
    match = _POSITION.fullmatch(word.text)
    if match:
        home.event = replace(home.event, position=int(match["position"]))
    text = match["fingers"] if match else word.text
    if text is None:
        return
    marks = text.split("/")
    if any(mark not in {*Finger, "0"} for mark in marks):
        raise _SaysNothingError(f"'{word.text}' is no fingering; {_FINGERS_EXPECTED}")
    struck = home.event.struck
    fretted = [note for note in struck if note.fret > 0]
    targets: list[Note] | tuple[Note, ...] = struck if len(marks) == len(struck) else fretted
    if len(marks) != len(targets):
        raise _SaysNothingError(
            f"'{word.text}' names {len(marks)} fingers; expected {len(fretted)}, one for every fretted string"
            " here"
        )
    chosen = {note.string: Finger(mark) for note, mark in zip(targets, marks, strict=True) if mark != "0"}
    notes = (
        replace(n, finger=chosen[n.string]) if n.string in chosen and not n.tied else n
        for n in home.event.notes
    )
    home.event = replace(home.event, notes=tuple(notes))


def _apply_text(label: Label, word: Word, places: _Places, findings: Findings) -> None:
    home = places.at(word.column)
    if home is None:
        home, which = places.from_here_on(word.column)
        what = f"'{short(word.text)}' stands between two notes"
        findings.guessed(word.line, word.shown, what, f"it is put on the {which} one")
    if label is Label.CHORD:
        # A blank would part the two again when the line is read back.
        home.event = replace(home.event, chord=",".join(filter(None, (home.event.chord, word.text))))
    else:
        _add_remark(home, word.text)
