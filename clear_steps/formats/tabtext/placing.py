"""When every note of a raw bar sounds: by note values, else by counts, else by even spacing."""

import re
from collections.abc import Sequence
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
        if Label.LENGTH in bar.words:
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
            guess = (
                "the spacing fits no even rhythm; the nearest thirty-seconds are taken and the bar is marked"
                " uncertain"
            )
            findings.guessed(bars[index].line, bars[index].start + 1, f"bar {numbers[index]}: {guess}")
    return [placed[index] for index in range(len(bars))]


def _length(bar: RawBar, metre: Metre) -> BarLength:
    """What a bar's note values say it holds; a bar without them is taken for whole."""
    values = [parse_length(word.text.removeprefix("R")) for word in bar.words.get(Label.LENGTH, ())]
    held = sum((value for value in values if value), Fraction(0)) or metre.quarters
    return BarLength(held, metre.quarters, bar.repeat_start, bar.repeat_times > 0 or bar.double_bar)


def _columns(tokens: Sequence[Token], attached: bool) -> list[tuple[tuple[int, ...], tuple[Token, ...]]]:
    """Tokens grouped by the column of their first digit, left to right.

    Notes whose first sign, not digit, stands under another's digit start with it too.
    """
    groups: dict[int, list[Token]] = {}
    for token in tokens:
        if attached or not token.attached:
            groups.setdefault(token.column, []).append(token)
    for column in sorted(groups):
        starts = {token.start for token in groups.get(column, ())}
        for earlier in [c for c in groups if column - 3 <= c < column]:
            strings = {token.string for token in groups[earlier]}
            if starts == {earlier} and not strings & {token.string for token in groups[column]}:
                groups[earlier].extend(groups.pop(column))
                break
    return [
        ((column, *{t.column for t in group} - {column}), tuple(group))
        for column, group in sorted(groups.items())
    ]


def _spaced_bar(
    bar: RawBar, heads: list[tuple[tuple[int, ...], tuple[Token, ...]]], metre: Metre
) -> SpacedBar:
    return SpacedBar(
        tuple(columns[0] - bar.opens for columns, _ in heads), bar.closes - bar.opens, metre.quarters
    )


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
    placed = {id(token): slot.onset for slot in slots for token in slot.tokens}
    onsets = sorted(by_onset)
    chain: list[Token] = []
    for index, token in enumerate(ordered):
        chain = [*chain, token] if token.attached else [token]
        closing = index + 1 == len(ordered) or not ordered[index + 1].attached
        if not closing or len(chain) == 1 or all(id(member) in placed for member in chain):
            continue
        start = placed[id(chain[0])]
        stop = next((onset for onset in onsets if onset > start), quarters)
        for position, member in enumerate(chain[1:], start=1):
            onset = start + (stop - start) * position / len(chain)
            old = by_onset.get(onset, Slot(onset, (), ()))
            by_onset[onset] = Slot(onset, (*old.columns, member.column), (*old.tokens, member))
    return [by_onset[onset] for onset in sorted(by_onset)]


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
            bar.line, bar.start + 1, f"bar {number} holds {at} of {limit} quarters; a rest fills it"
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
    slots: list[Slot] = []
    for columns, tokens in heads:
        onset = next((at for column, at in onsets if abs(column - columns[0]) <= 1), None)
        if onset is None or onset >= metre.quarters or (slots and onset <= slots[-1].onset):
            findings.guessed(
                bar.line,
                columns[0] + 1,
                "no count stands over this note; the bar's rhythm is taken from its spacing",
            )
            return None
        slots.append(Slot(onset, columns, tokens))
    return PlacedBar(_filled(slots, bar, metre.quarters), metre.quarters)


def _count_onsets(words: Sequence[Word], metre: Metre, findings: Findings) -> list[tuple[int, Fraction]]:
    unit, beat = Fraction(4, metre.unit), 0
    onsets: list[tuple[int, Fraction]] = []
    for word in words:
        if _BEAT.fullmatch(word.text):
            beat = int(word.text) - 1
            onsets.append((word.column, beat * unit))
        elif word.text in _COUNT_PARTS:
            onsets.append((word.column, (beat + _COUNT_PARTS[word.text]) * unit))
        else:
            findings.wrong(word.line, word.shown, f"'{word.text}' is no count; expected numbers, e & a, t l")
    return onsets
