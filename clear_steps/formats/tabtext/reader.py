"""Text -> Song, with everything that is wrong or guessed by line and column."""

from dataclasses import dataclass, field, replace
from fractions import Fraction

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.score import (
    COMMON_TIME,
    Bar,
    BarReading,
    Event,
    Metre,
    Note,
    Part,
    Section,
    Song,
    default_tuning,
    map_problems,
    unknown_sections,
    usual_scale_mm,
)
from clear_steps.core.score.tuning import MAX_STRINGS, MIN_STRINGS, TUNINGS, Tuning
from clear_steps.formats.bounds import MAX_BARS
from clear_steps.formats.tabtext.brought import as_we_write
from clear_steps.formats.tabtext.header import Headers, read_header, read_tempo
from clear_steps.formats.tabtext.labelling import LabelledEvent, label_events
from clear_steps.formats.tabtext.lines import (
    Header,
    Label,
    ReadingLine,
    RemarkLine,
    SectionLine,
    System,
    blocks_of,
    lines_of,
)
from clear_steps.formats.tabtext.placing import PlacedBar, Slot, place_bars
from clear_steps.formats.tabtext.problems import Findings
from clear_steps.formats.tabtext.rawbars import RawBar, raw_bars
from clear_steps.formats.tabtext.tokens import Token, note_of


@dataclass(frozen=True, slots=True)
class Reading:
    """The song, what was guessed on the way, and the text line each bar of part 1.. begins on."""

    song: Song
    guesses: tuple[Problem, ...]
    bar_lines: tuple[tuple[int, ...], ...]


@dataclass
class _PartDraft:
    headers: Headers
    items: list[System | SectionLine | RemarkLine | ReadingLine] = field(default_factory=list)


def read_tab(text: str) -> Reading:
    """Read tab text; raises ReadError with every problem found, by line and column."""
    findings = Findings()
    song, drafts = _sorted_parts(text, findings)
    read = [_read_part(draft, findings) for draft in drafts]
    if not any(part.bars for part, _ in read) and not findings.problems:
        findings.wrong(1, 1, "no tab was found in the text; expected string lines such as e|--0--2--|")
    if findings.problems:
        raise ReadError(tuple(sorted(findings.problems, key=lambda problem: (problem.line, problem.column))))
    song = replace(song, parts=tuple(part for part, _ in read))
    _check_order(song, findings)
    return Reading(song, tuple(findings.guesses), tuple(lines for _, lines in read))


def _sorted_parts(text: str, findings: Findings) -> tuple[Song, list[_PartDraft]]:
    headers = Headers(Song(), Part())
    drafts = [_PartDraft(headers)]
    for block in blocks_of(as_we_write(lines_of(text), findings)):
        if not isinstance(block, Header):
            drafts[-1].items.append(block)
            continue
        if block.key.lower() == "part":
            headers = Headers(headers.song, Part(name=block.text), headers.metre)
            if any(isinstance(item, System) for item in drafts[-1].items):
                drafts.append(_PartDraft(headers))
            else:
                headers.part = replace(drafts[-1].headers.part, name=block.text)
                headers.tuning_named = drafts[-1].headers.tuning_named
                headers.scale_named = drafts[-1].headers.scale_named
                drafts[-1].headers = headers
            continue
        read_header(headers, block.key, block.text, block.line, block.column, findings)
    return headers.song, drafts


def _check_order(song: Song, findings: Findings) -> None:
    for name in unknown_sections(song, song.order):
        findings.guessed(
            1, 1, f"Order names '{name}', which is no section; it is passed over when the song is played"
        )
    for part in song.parts:
        for words in map_problems(part, song.order):
            findings.guessed(1, 1, words)


@dataclass
class _Gathered:
    """A part's raw bars, and what belongs to one of them: other readings, sections (with their line) and
    remarks by bar."""

    raw: list[RawBar] = field(default_factory=list)
    asides: list[tuple[ReadingLine, list[RawBar]]] = field(default_factory=list)
    sections: list[tuple[int, Section]] = field(default_factory=list)
    remarks: list[tuple[int, str]] = field(default_factory=list)


def _gathered(draft: _PartDraft, strings: int, findings: Findings) -> _Gathered:
    """The items in order; a system after a `Reading` line is that reading, not a bar of the part."""
    found = _Gathered()
    aside: list[RawBar] | None = None  # what the `Reading` line before still waits for
    for item in draft.items:
        if isinstance(item, System):
            bars = raw_bars(item, findings) if len(item.strings) == strings else []
            (found.raw if aside is None else aside).extend(bars)
            aside = None
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


def _read_part(draft: _PartDraft, findings: Findings) -> tuple[Part, tuple[int, ...]]:
    systems = [item for item in draft.items if isinstance(item, System)]
    tuning = _tuning(systems, draft.headers, findings)
    part = replace(draft.headers.part, tuning=tuning)
    if not draft.headers.scale_named:
        part = replace(part, scale_length_mm=usual_scale_mm(tuning))
    found = _gathered(draft, part.tuning.strings, findings)
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
    return replace(part, readings=tuple(sorted(readings, key=lambda reading: reading.bar))), tuple(
        bar.line for bar in raw
    )


def _sections(found: _Gathered, findings: Findings) -> tuple[Section, ...]:
    """The sections that hold a bar; the others are told."""
    following = [*(section.first_bar for _, section in found.sections[1:]), len(found.raw)]
    kept = []
    for (line, section), stop in zip(found.sections, following, strict=False):
        if section.first_bar < stop:
            kept.append(section)
        else:
            findings.guessed(line, 1, f"no bar follows the section '{section.name}'; it is left out")
    return tuple(kept)


def _check_frets(part: Part, raw: list[RawBar], findings: Findings) -> None:
    """Tell of notes beyond the neck; they are kept as written."""
    for index, bar in enumerate(part.bars):
        highest = max((note.fret for event in bar.events for note in event.notes), default=0)
        if highest > part.highest_fret:
            said = (
                f"fret {highest} of bar {part.bar_number(index)} lies beyond the neck's {part.frets} frets;"
                " write `Frets:` if it has more"
            )
            findings.guessed(raw[index].line, 1, said)


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


def _tuning(systems: list[System], headers: Headers, findings: Findings) -> Tuning:
    """The declared tuning, or the one the string names spell; every system must have its strings."""
    tuning = headers.part.tuning
    if systems and not headers.tuning_named:
        first = systems[0]
        count, line = len(first.strings), first.strings[0].line
        if not MIN_STRINGS <= count <= MAX_STRINGS:
            findings.wrong(
                line,
                1,
                f"{count} string lines stand together here; expected {MIN_STRINGS} to {MAX_STRINGS} (6 unless"
                " a Tuning is declared)",
            )
            return tuning
        tuning = _named_by_letters(first) or default_tuning(count) or tuning
        findings.guessed(line, 1, f"no tuning is written; {tuning.name} is taken")
        headers.tuning_named = count != 5  # five lines are more often a forgotten one than a bass
        if count == 5:
            findings.wrong(
                line, 1, "5 string lines stand together here; expected 6, or a Tuning that names five strings"
            )
    for system in systems:
        if len(system.strings) != tuning.strings:
            line, count = system.strings[0].line, len(system.strings)
            findings.wrong(
                line,
                1,
                f"{count} string lines stand together here; expected {tuning.strings} for the tuning"
                f" {tuning.name}",
            )
    return tuning


def _named_by_letters(system: System) -> Tuning | None:
    flats = {"Db": "C#", "D#": "Eb", "Gb": "F#", "G#": "Ab", "A#": "Bb"}
    letters = [
        line.name.rstrip("0123456789-").replace("♯", "#").replace("♭", "b").capitalize()
        for line in system.strings
    ]
    wanted = tuple(flats.get(letter, letter) for letter in letters)
    return next((tuning for tuning in TUNINGS.values() if tuning.letters == wanted), None)


def _read_bars(
    raw: list[RawBar],
    metre: Metre | None,
    findings: Findings,
    sounded: tuple[dict[int, int], dict[int, int]] | None = None,
) -> tuple[Bar, ...]:
    """Bars one after another; `sounded` are the frets last sounded and those of the event before, by string,
    for an aside."""
    if raw and metre is None:
        findings.guessed(raw[0].line, 1, "no metre is written; 4/4 is taken")
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
    try:
        slid = comes_from_before(token.slide_sign, before.get(token.string), token.fret) or token.attached
        return note_of(token, held.get(token.string), slid)
    except (ValueError, ClearStepsError) as error:
        findings.wrong(bar.line + token.string - 1, token.start + 1, str(error))
        return None


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


__all__ = ["Label", "Reading", "comes_from_before", "read_tab"]
