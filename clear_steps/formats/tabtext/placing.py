"""When every note of a raw bar sounds: by note values, else by counts, else by even spacing."""

import re
from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score import BarLength, Metre, cut_bars, parse_length
from clear_steps.formats.tabtext.lines import Label
from clear_steps.formats.tabtext.problems import Findings
from clear_steps.formats.tabtext.rawbars import RawBar, Word
from clear_steps.formats.tabtext.spacing import SpacedBar, rhythms_from_spacing
from clear_steps.formats.tabtext.tokens import Token

_BEAT = re.compile(r"\d{1,2}")
_COUNT_PARTS = {
    "e": Fraction(1, 4),
    "&": Fraction(1, 2),
    "+": Fraction(1, 2),
    "a": Fraction(3, 4),
    "t": Fraction(1, 3),
    "l": Fraction(2, 3),
}


@dataclass(frozen=True, slots=True)
class Slot:
    """Notes that start together, or a rest; `columns` are those a word may stand at."""

    onset: Fraction
    columns: tuple[int, ...]
    tokens: tuple[Token, ...]


@dataclass(frozen=True, slots=True)
class PlacedBar:
    """The slots of a bar in order of time; they fill `quarters`."""

    slots: tuple[Slot, ...]
    quarters: Fraction
    certain: bool = True


def place_bars(
    bars: Sequence[RawBar], metres: Sequence[Metre], numbers: Sequence[int], findings: Findings
) -> list[PlacedBar]:
    """Slots of every bar of a part, with the rhythm its text gives."""
    placed: dict[int, PlacedBar] = {}
    short = {0} | cut_bars([_length(bar, metre) for bar, metre in zip(bars, metres, strict=True)])
    spaced: list[int] = []
    for index, (bar, metre) in enumerate(zip(bars, metres, strict=True)):
        if _has_values(bar, metre, numbers[index], findings):
            placed[index] = _by_values(bar, metre, numbers[index], index in short, findings)
        elif (counted := _by_counts(bar, metre, findings)) is not None:
            placed[index] = counted
        else:
            spaced.append(index)
    heads = {index: _columns(bars[index].tokens, attached=False) for index in spaced}
    rhythms = rhythms_from_spacing(
        [_spaced_bar(bars[index], heads[index], metres[index]) for index in spaced]
    )
    for index, rhythm in zip(spaced, rhythms, strict=True):
        slots = [Slot(onset, *column) for onset, column in zip(rhythm.onsets, heads[index], strict=True)]
        placed[index] = PlacedBar(
            _filled(slots, bars[index], metres[index].quarters), metres[index].quarters, rhythm.certain
        )
        if not rhythm.certain:
            findings.guessed(
                bars[index].line,
                bars[index].start + 1,
                f"the spacing of bar {numbers[index]} fits no even rhythm",
                "the nearest plain one is taken and the bar is marked uncertain",
            )
        elif rhythm.slip is not None:
            findings.guessed(
                bars[index].line,
                heads[index][rhythm.slip][0][0] + 1,
                f"one gap of bar {numbers[index]} is a dash off",
                "it is taken for a slip, and the even rhythm read",
            )
    return [placed[index] for index in range(len(bars))]


def _has_values(bar: RawBar, metre: Metre, number: int, findings: Findings) -> bool:
    """Whether a bar's rhythm is told by note values; those of a line without its label may be no more than
    hints, and where they do not fit the notes the spacing tells, which is said."""
    words = bar.words.get(Label.LENGTH, ())
    if not words or not words[0].bare:
        return bool(words)
    values = [parse_length(word.text.removeprefix("R")) for word in words]
    sounding = sum(not word.text.startswith("R") for word in words)
    counts = (len(_columns(bar.tokens, attached=False)), len(_columns(bar.tokens, attached=True)))
    if sounding in counts and sum((value for value in values if value), Fraction(0)) <= metre.quarters:
        return True
    what = f"the note values over bar {number} do not fit its notes"
    findings.guessed(words[0].line, words[0].shown, what, "the bar's rhythm is taken from its spacing")
    return False


def _length(bar: RawBar, metre: Metre) -> BarLength:
    """What a bar's note values say it holds; a bar without them is taken for whole."""
    values = [parse_length(word.text.removeprefix("R")) for word in bar.words.get(Label.LENGTH, ())]
    held = sum((value for value in values if value), Fraction(0)) or metre.quarters
    return BarLength(held, metre.quarters, bar.repeat_start, bar.repeat_times > 0 or bar.double_bar)


def _columns(tokens: Sequence[Token], attached: bool) -> list[tuple[tuple[int, ...], tuple[Token, ...]]]:
    """Tokens grouped by the column of their first digit, left to right.

    Notes whose first sign, not digit, stands under another's digit start with it too; so do a fret of one
    digit and one of two that end together, one column apart.
    """
    groups: dict[int, list[Token]] = {}
    for token in tokens:
        if attached or not token.attached:
            groups.setdefault(token.column, []).append(token)
    for column in sorted(groups):
        near = [c for c in range(column - 3, column) if c in groups]
        if not near:
            continue
        starts = {token.start for token in groups[column]}
        strings = {token.string for token in groups[column]}
        for earlier in near:
            apart = strings.isdisjoint(token.string for token in groups[earlier])
            if apart and (starts == {earlier} or _end_together(groups[earlier], groups[column])):
                groups[earlier].extend(groups.pop(column))
                break
    return [
        ((column, *{t.column for t in group} - {column}), tuple(group))
        for column, group in sorted(groups.items())
    ]


def _end_together(wide: Sequence[Token], narrow: Sequence[Token]) -> bool:
    """Whether all frets of a column have two digits, and those beside them stand under the second."""
    ends = {token.column + 2 for token in wide}
    return len(ends) == 1 and (
        all(token.fret is not None and token.fret > 9 for token in wide)
        and all(token.column + 1 in ends and (token.fret or 0) <= 9 for token in narrow)
    )


def _spaced_bar(
    bar: RawBar, heads: list[tuple[tuple[int, ...], tuple[Token, ...]]], metre: Metre
) -> SpacedBar:
    opens = bar.opens
    return SpacedBar(tuple(columns[0] - opens for columns, _ in heads), bar.closes - opens, metre.quarters)


def _filled(slots: list[Slot], bar: RawBar, quarters: Fraction) -> tuple[Slot, ...]:
    """Add the attached notes and a rest before a late first note."""
    whole = _with_attached(slots, bar.tokens, quarters)
    if not whole or whole[0].onset > 0:
        whole.insert(0, Slot(Fraction(0), (bar.start,), ()))
    return tuple(whole)


def _with_attached(slots: list[Slot], tokens: Sequence[Token], quarters: Fraction) -> list[Slot]:
    """Notes typed without a gap share the time of the note they hang on equally."""
    by_onset = {slot.onset: slot for slot in slots}
    ordered = sorted(tokens, key=lambda token: (token.string, token.column))
    placed = {_place(token): slot.onset for slot in slots for token in slot.tokens}
    onsets = sorted(by_onset)
    for chain in _chains(ordered):
        start = placed.get(_place(chain[0]))
        if start is None or all(_place(member) in placed for member in chain):
            continue  # what it hangs on has no time, which was told, or all of them have their own
        later = bisect_right(onsets, start)
        stop = onsets[later] if later < len(onsets) else quarters
        for position, member in enumerate(chain[1:], start=1):
            onset = start + (stop - start) * position / len(chain)
            old = by_onset.get(onset, Slot(onset, (), ()))
            by_onset[onset] = Slot(onset, (*old.columns, member.column), (*old.tokens, member))
    return [by_onset[onset] for onset in sorted(by_onset)]


def _place(token: Token) -> tuple[int, int]:
    """No two tokens of a bar stand there."""
    return token.string, token.column


def _chains(ordered: Sequence[Token]) -> Iterator[list[Token]]:
    """A note and those typed after it without a gap; ordered by string and column."""
    chain: list[Token] = []
    for token in ordered:
        if not token.attached:
            if len(chain) > 1:
                yield chain
            chain = []
        chain.append(token)
    if len(chain) > 1:
        yield chain


def _by_values(bar: RawBar, metre: Metre, number: int, may_be_short: bool, findings: Findings) -> PlacedBar:
    words = bar.words[Label.LENGTH]
    heads = _columns(bar.tokens, attached=False)
    sounding = [word for word in words if not word.text.startswith("R")]
    if len(sounding) != len(heads):
        every = _columns(bar.tokens, attached=True)
        heads = every if len(sounding) == len(every) else heads
    slots: list[Slot] = []
    at, limit, waiting = Fraction(0), metre.quarters, list(heads)
    for word in words:
        length = parse_length(word.text.removeprefix("R"))
        if length is None:
            expected = "w h q e s t z, dots, tuplets such as e3, R before a rest"
            findings.wrong(word.line, word.shown, f"'{word.text}' is no note value; expected {expected}")
            continue
        if at + length > limit:
            findings.wrong(
                word.line,
                word.shown,
                f"bar {number} is too long: it holds {at + length} quarters here; {metre} has room for"
                f" {limit}",
            )
            return PlacedBar(_rest_only(bar), limit)
        if word.text.startswith("R"):
            slots.append(Slot(at, (word.column,), ()))
        elif waiting:
            columns, tokens = waiting.pop(0)
            slots.append(Slot(at, (*columns, word.column), tokens))
        else:
            expected = f"{len(heads)} values in bar {number}, R before a rest"
            findings.wrong(
                word.line, word.shown, f"no note stands under the value '{word.text}'; expected {expected}"
            )
        at += length
    for columns, _ in waiting:
        findings.wrong(
            bar.line,
            columns[0] + 1,
            f"no value stands over this note of bar {number}; expected one of w h q e s t z on the len line",
        )
    if at < limit and not may_be_short:
        findings.guessed(
            bar.line, bar.start + 1, f"bar {number} holds {at} of {limit} quarters", "a rest fills it"
        )
        slots.append(Slot(at, (), ()))
        at = limit
    placed = tuple(_with_attached(slots, bar.tokens, at))
    return PlacedBar(placed, at) if placed else PlacedBar(_rest_only(bar), limit)


def _rest_only(bar: RawBar) -> tuple[Slot, ...]:
    return (Slot(Fraction(0), (bar.start,), ()),)


def _by_counts(bar: RawBar, metre: Metre, findings: Findings) -> PlacedBar | None:
    """Notes under their counts; None where the bar has no count, or a note has none."""
    words = bar.words.get(Label.COUNT)
    heads = _columns(bar.tokens, attached=False)
    if not words or not heads:
        return None
    onsets = _count_onsets(words, metre, findings)
    if onsets is None:
        return None
    slots: list[Slot] = []
    for columns, tokens in heads:
        onset = next((at for column, at in onsets if abs(column - columns[0]) <= 1), None)
        if onset is None or onset >= metre.quarters or (slots and onset <= slots[-1].onset):
            findings.guessed(
                bar.line,
                columns[0] + 1,
                "no count stands over this note",
                "the bar's rhythm is taken from its spacing",
            )
            return None
        slots.append(Slot(onset, columns, tokens))
    return PlacedBar(_filled(slots, bar, metre.quarters), metre.quarters)


def _count_onsets(
    words: Sequence[Word], metre: Metre, findings: Findings
) -> list[tuple[int, Fraction]] | None:
    """The onset of every count by its column; None where one is no count of the metre, which is told."""
    unit, beat = Fraction(4, metre.unit), 0
    onsets: list[tuple[int, Fraction]] = []
    for word in words:
        if _BEAT.fullmatch(word.text) and 1 <= int(word.text) <= metre.beats:
            beat = int(word.text) - 1
            onsets.append((word.column, beat * unit))
        elif word.text in _COUNT_PARTS:
            onsets.append((word.column, (beat + _COUNT_PARTS[word.text]) * unit))
        else:
            findings.guessed(
                word.line,
                word.shown,
                f"'{word.text}' is no count of {metre}; expected 1 to {metre.beats}, e & a, t l",
                "the bar's rhythm is taken from its spacing",
            )
            return None
    return onsets
