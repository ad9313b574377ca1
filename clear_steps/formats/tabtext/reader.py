"""Text -> Song, with everything that is wrong or guessed by line and column."""

from dataclasses import dataclass, field, replace
from fractions import Fraction

from clear_steps.core.errors import ClearStepsError, Guess, Problem, ReadError
from clear_steps.core.score import (
    COMMON_TIME,
    MAX_FRET,
    Bar,
    BarReading,
    Event,
    Metre,
    Note,
    Part,
    Section,
    Song,
    map_problems,
    unknown_sections,
    usual_scale_mm,
)
from clear_steps.core.score.tuning import Tuning
from clear_steps.formats.bounds import MAX_BARS
from clear_steps.formats.tabtext.brought import DIAGRAM
from clear_steps.formats.tabtext.drafts import PartDraft, drafts_of
from clear_steps.formats.tabtext.header import read_tempo
from clear_steps.formats.tabtext.labelling import LabelledEvent, label_events
from clear_steps.formats.tabtext.lines import (
    Label,
    ReadingLine,
    SectionLine,
    System,
)
from clear_steps.formats.tabtext.placing import PlacedBar, Slot, place_bars
from clear_steps.formats.tabtext.problems import NO_METRE, Findings
from clear_steps.formats.tabtext.rawbars import RawBar, Word, raw_bars
from clear_steps.formats.tabtext.strings import completed, tuning_of
from clear_steps.formats.tabtext.tokens import Token, note_of


@dataclass(frozen=True, slots=True)
class BarSpan:
    """Where a bar stands in the text: from its line of the thinnest string, with the first and the last line
    of its system and its columns, all from 1."""

    line: int
    first: int
    last: int
    start: int
    end: int


@dataclass(frozen=True, slots=True)
class Reading:
    """The song, what was guessed on the way, and where each bar of part 1.. stands."""

    song: Song
    guesses: tuple[Guess, ...]
    spans: tuple[tuple[BarSpan, ...], ...]

    def bar_at(self, line: int, column: int) -> tuple[int, int] | None:
        """Part and bar (indexes) that a place in the text belongs to; None where it is none of a bar's."""
        for part, spans in enumerate(self.spans):
            own = [(index, span) for index, span in enumerate(spans) if span.first <= line <= span.last]
            if own:
                return part, next((at for at, span in own if column <= span.end), own[-1][0])
        return None

    def bar_before(self, line: int) -> tuple[int, int] | None:
        """Part and bar (indexes) of the last music above a line: by it stands what could not be placed."""
        above = [
            (span.first, part, index)
            for part, spans in enumerate(self.spans)
            for index, span in enumerate(spans)
            if span.first <= line
        ]
        return max(above)[1:] if above else None


def read_tab(text: str) -> Reading:
    """Read tab text; raises ReadError with every problem found, by line and column."""
    reading, problems = read_what_can_be(text)
    if reading is None or problems:
        raise ReadError(problems)
    return reading


def read_what_can_be(text: str) -> tuple[Reading | None, tuple[Problem, ...]]:
    """The reading without what cannot be placed, and the problems; no reading where no bar is left."""
    findings = Findings()
    try:
        song, drafts = drafts_of(text, findings)
    except ReadError as error:
        return None, error.problems
    read = [_read_part(draft, findings) for draft in drafts]
    has_bars = any(part.bars for part, _ in read)
    if not has_bars and not findings.problems:
        found = f" ({DIAGRAM})" if findings.has_told(DIAGRAM) else ""
        expected = "expected string lines such as e|--0--2--|"
        findings.wrong(1, 1, f"no tab was found in the text{found}; {expected}")
    problems = tuple(sorted(findings.problems, key=lambda problem: (problem.line, problem.column)))
    if not has_bars:
        return None, problems
    song = replace(song, parts=tuple(part for part, _ in read))
    _check_order(song, findings)
    return Reading(song, tuple(findings.guesses), tuple(spans for _, spans in read)), problems


def _check_order(song: Song, findings: Findings) -> None:
    for name in unknown_sections(song, song.order):
        findings.guessed(
            1, 1, f"Order names '{name}', which is no section", "it is passed over when the song is played"
        )
    for part in song.parts:
        for words in map_problems(part, song.order):
            findings.guessed(1, 1, words, "the order is kept as it is written")


@dataclass
class _Gathered:
    """A part's raw bars, and what belongs to one of them: other readings, sections (with their line) and
    remarks by bar."""

    raw: list[RawBar] = field(default_factory=list)
    asides: list[tuple[ReadingLine, list[RawBar]]] = field(default_factory=list)
    sections: list[tuple[int, Section]] = field(default_factory=list)
    remarks: list[tuple[int, str]] = field(default_factory=list)


def _gathered(draft: PartDraft, tuning: Tuning, findings: Findings) -> _Gathered:
    """The items in order; a system after a `Reading` line is that reading, not a bar of the part."""
    found = _Gathered()
    behind: dict[int, list[str]] = {}
    for line, text in findings.remarks:
        behind.setdefault(line, []).append(text)
    aside: list[RawBar] | None = None  # what the `Reading` line before still waits for
    for item in draft.items:
        if isinstance(item, System):
            whole = completed(item, tuning, findings)
            bars = raw_bars(whole, findings) if whole else []
            (found.raw if aside is None else aside).extend(bars)
            aside = None
            lines = sorted({string.line for string in item.strings})
            found.remarks += [(len(found.raw), text) for line in lines for text in behind.get(line, ())]
        elif isinstance(item, ReadingLine):
            found.asides.append((item, []))
            aside = None if item.in_use else found.asides[-1][1]
        elif isinstance(item, SectionLine):
            begins = len(found.raw)
            section = Section(item.name, begins, item.times, item.like, item.differs, item.role, item.sound)
            found.sections.append((item.line, section))
        else:
            found.remarks.append((len(found.raw), item.text))
    return found


def _read_part(draft: PartDraft, findings: Findings) -> tuple[Part, tuple[BarSpan, ...]]:
    tuning = tuning_of(draft.systems, draft.headers, findings)
    part = replace(draft.headers.part, tuning=tuning)
    if not draft.headers.scale_named:
        part = replace(part, scale_length_mm=usual_scale_mm(tuning))
    found = _gathered(draft, part.tuning, findings)
    raw = found.raw
    if len(raw) > MAX_BARS:
        findings.wrong(
            raw[MAX_BARS].line,
            raw[MAX_BARS].start + 1,
            f"this is bar {MAX_BARS + 1} of {len(raw):,}; expected at most {MAX_BARS} bars a part",
        )
        return part, ()
    bars = _read_bars(raw, draft.headers.metre, findings)
    part = replace(part, bars=bars, sections=_sections(found, findings), remarks=tuple(found.remarks))
    _check_frets(part, raw, findings)
    readings = (
        reading
        for line, own in found.asides
        if (reading := _reading(part, line, own, draft.headers.metre, findings))
    )
    spans = tuple(BarSpan(bar.line, *bar.system, bar.start + 1, bar.end) for bar in raw)
    return replace(part, readings=tuple(sorted(readings, key=lambda reading: reading.bar))), spans


def _sections(found: _Gathered, findings: Findings) -> tuple[Section, ...]:
    """The sections that hold a bar; the others are told."""
    following = [*(section.first_bar for _, section in found.sections[1:]), len(found.raw)]
    kept = []
    for (line, section), stop in zip(found.sections, following, strict=False):
        if section.first_bar < stop:
            kept.append(section)
        else:
            findings.guessed(line, 1, f"no bar follows the section '{section.name}'", "it is left out")
    return tuple(kept)


def _check_frets(part: Part, raw: list[RawBar], findings: Findings) -> None:
    """Tell of notes beyond the neck; they are kept as written."""
    for index, bar in enumerate(part.bars):
        highest = max((note.fret for event in bar.events for note in event.notes), default=0)
        if highest > part.highest_fret:
            findings.guessed(
                raw[index].line,
                1,
                f"fret {highest} of bar {part.bar_number(index)} lies beyond the neck's {part.frets} frets",
                "it is kept; write `Frets:` if the neck has more",
            )


def _reading(
    part: Part, line: ReadingLine, raw: list[RawBar], metre: Metre | None, findings: Findings
) -> BarReading | None:
    """Another reading of a bar; its notes may hang on those of the bar before."""
    index = part.bar_index(line.number)
    if not 0 <= index < len(part.bars):
        findings.wrong(
            line.line,
            1,
            f"a reading of bar {line.number} stands here; expected a bar from {part.bar_number(0)} to"
            f" {part.bar_number(len(part.bars) - 1)}",
        )
        return None
    if line.in_use:
        return BarReading(index, line.name, None)
    if len(raw) != 1:
        findings.wrong(
            line.line,
            1,
            f"{len(raw)} bars follow this line; expected one bar, the other reading of bar {line.number}",
        )
        return None
    held: dict[int, int] = {}
    before: dict[int, int] = {}
    for bar in part.bars[:index]:
        for event in bar.events:
            before = {note.string: note.fret for note in event.notes}
            held.update(before)
    return BarReading(index, line.name, _read_bars(raw, metre, findings, (held, before))[0])


def _read_bars(
    raw: list[RawBar],
    metre: Metre | None,
    findings: Findings,
    sounded: tuple[dict[int, int], dict[int, int]] | None = None,
) -> tuple[Bar, ...]:
    """Bars one after another; `sounded` are the frets last sounded and those of the event before, by string,
    for an aside."""
    if raw and metre is None and not findings.has_told(NO_METRE):
        findings.guessed(raw[0].line, 1, NO_METRE, "4/4 is taken")
    metres = [bar.metre or metre or COMMON_TIME for bar in raw]
    numbers = list(range(1, len(raw) + 1))
    placed = place_bars(raw, metres, numbers, findings)
    held, before = sounded or ({}, {})  # frets last sounded, and those of the event before, by string
    bars = []
    for index, (bar, placing) in enumerate(zip(raw, placed, strict=True)):
        drafts: list[LabelledEvent] = []
        for slot, quarters in zip(placing.slots, _durations(placing), strict=True):
            notes = tuple(
                note for token in _top_down(slot) if (note := _note(token, held, before, bar, findings))
            )
            before = {note.string: note.fret for note in notes}
            held.update(before)
            drafts.append(LabelledEvent(Event(quarters, notes), slot.columns))
        events = label_events(bar, drafts, findings)
        if not placing.certain and events:
            events = (replace(events[0], uncertain=True), *events[1:])
        bars.append(_bar(bar, metres[index], events))
    return tuple(replace(bar, pickup=not sounded and bar.quarters < bar.metre.quarters) for bar in bars)


def _top_down(slot: Slot) -> list[Token]:
    return sorted(slot.tokens, key=lambda token: token.string)


def _durations(placed: PlacedBar) -> list[Fraction]:
    ends = [slot.onset for slot in placed.slots[1:]] + [placed.quarters]
    return [end - slot.onset for slot, end in zip(placed.slots, ends, strict=True)]


def _note(
    token: Token, held: dict[int, int], before: dict[int, int], bar: RawBar, findings: Findings
) -> Note | None:
    slid = comes_from_before(token.slide_sign, before.get(token.string), token.fret) or token.attached
    try:
        return note_of(token, held.get(token.string), slid)
    except (ValueError, ClearStepsError) as error:
        line, column = bar.lines[token.string - 1], token.start + 1
        if token.fret is not None and token.fret > MAX_FRET:
            findings.wrong(line, column, str(error))
            return None
        word = Word(line, token.column, token.end, token.text, column)
        bar.words.setdefault(Label.REMARK, []).append(word)
        findings.guessed(line, column, str(error), "the note alone is read, and the sign kept as a remark")
        return None if token.tied else note_of(replace(token, bend_to=None, released_to=None), None, slid)


def comes_from_before(sign: str, fret_before: int | None, fret: int | None) -> bool:
    """Whether a slide sign leads from the event before: `s` always does, / and \\ by direction."""
    if sign == "s":
        return True
    if fret_before is None or fret is None:
        return False
    return (sign == "/" and fret_before < fret) or (sign == "\\" and fret_before > fret)


def _bar(raw: RawBar, metre: Metre, events: tuple[Event, ...]) -> Bar:
    return Bar(
        metre,
        events,
        tempo=read_tempo(raw.tempo.text[1:]) if raw.tempo else None,
        repeat_start=raw.repeat_start,
        repeat_times=raw.repeat_times,
        endings=raw.endings,
        double_bar=raw.double_bar,
    )


__all__ = ["Label", "Reading", "comes_from_before", "read_tab", "read_what_can_be"]
