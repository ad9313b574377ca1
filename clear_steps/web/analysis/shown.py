"""A text -> the API's analysis: read, graded, and laid out for the screen."""

from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache

from clear_steps.core.grade import (
    MEASURES,
    Ability,
    BarGrade,
    Grading,
    Ladder,
    StepRange,
    bars_past,
    grade_song,
    guessed_ringing,
    past_words,
    pins_not_kept,
    recurrence_words,
    recurrences,
    step_range,
    three_sentences,
)
from clear_steps.core.grade.finding import count_sign, ordinal
from clear_steps.core.hand import Grip, Neck
from clear_steps.core.score import (
    TECHNIQUES,
    Event,
    Note,
    Part,
    Song,
    Writing,
    name_of,
    played_order,
    written_lengths,
)
from clear_steps.core.score.ringing import sounding_quarters
from clear_steps.core.score.timing import BarTime, bar_times
from clear_steps.formats.tabtext import Reading, read_tab
from clear_steps.web.analysis import schemas as api
from clear_steps.web.current import LadderInUse
from clear_steps.web.schemas import problem_model
from clear_steps.web.whom import Whom


@dataclass(frozen=True, slots=True)
class Graded:
    """A text's reading with one grading a part."""

    reading: Reading
    gradings: tuple[Grading, ...]
    ranges: tuple[StepRange, ...]
    whom: Whom
    ladder: Ladder
    unknown_techniques: tuple[str, ...] = ()


@lru_cache(maxsize=128)
def read_cached(text: str) -> Reading:
    """Read a text once; raises ReadError."""
    return read_tab(text)


@lru_cache(maxsize=256)
def graded(text: str, whom: Whom, ladder: LadderInUse) -> Graded:
    """Read and grade a text, once for the same question; raises ReadError."""
    reading = read_cached(text)
    reading = replace(reading, song=whom.on_their_guitar(reading.song))
    gradings = grade_song(reading.song, ladder.ladder, whom.request)
    parts = zip(reading.song.parts, gradings, strict=True)
    ranges = tuple(
        step_range(reading.song, part, ladder.ladder, grading, whom.request) for part, grading in parts
    )
    return Graded(
        reading,
        gradings,
        ranges,
        whom,
        ladder.ladder,
        tuple(sorted(_own_techniques(reading.song) - set(ladder.ladder.own_techniques))),
    )


def _own_techniques(song: Song) -> set[str]:
    return {name for part in song.parts for _, _, event in part.events() for name in event.own_techniques}


def analysis_of(result: Graded) -> api.AnalysisModel:
    """Everything the Desk shows of a graded text."""
    song, gradings = result.reading.song, result.gradings
    ability = Ability(result.whom.request.player, result.whom.limits, result.ladder)
    return api.AnalysisModel(
        title=song.title or "Untitled",
        whom=result.whom.name,
        span_mm=result.whom.request.player.span_mm,
        marked_tempo=float(song.playing_tempo),
        tempo=float(gradings[0].tempo),
        tempo_assumed=song.tempo_is_assumed,
        feel=song.feel,
        cents=song.cents,
        extra=[[key, text] for key, text in song.extra],
        order=list(song.order),
        ladder=gradings[0].ladder,
        guesses=[problem_model(guess) for guess in result.reading.guesses],
        unknown_techniques=list(result.unknown_techniques),
        parts=[
            _part_model(song, ability, *row)
            for row in zip(song.parts, gradings, result.ranges, result.reading.bar_lines, strict=True)
        ],
    )


def hardest_words(part: Part, grading: Grading) -> str:
    """Which bars make the song hard, and by what: `hardest in bars 7-8, by the shift`."""
    if not grading.peak_bars:
        return "no notes yet"
    numbers = sorted({part.bar_number(index) for index in grading.peak_bars})
    joined = "-" if numbers[-1] - numbers[0] == 1 else " and "
    bars = f"bar{'s' if len(numbers) > 1 else ''} {joined.join(str(number) for number in numbers)}"
    worst = max((grading.bars[index] for index in grading.peak_bars), key=lambda bar: bar.step)
    return f"hardest in {bars}, by the {worst.hardest_measure}"


def _part_model(
    song: Song, ability: Ability, part: Part, grading: Grading, steps: StepRange, lines: tuple[int, ...]
) -> api.PartModel:
    neck = Neck(part.scale_length_mm, part.capo)
    times = bar_times(part, song.playing_tempo, grading.tempo)
    sounding = sounding_quarters(part)
    bars = []
    for index, (bar, time, grade) in enumerate(zip(part.bars, times, grading.bars, strict=True)):
        events = [
            _event_model(
                part,
                event,
                onset,
                count_sign(part.starts_at(index) + onset, bar.metre),
                sounding[index][number],
                grading.grips.get((index, number)),
            )
            for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True))
        ]
        bars.append(_bar_model(part, grade, events, lines[index], time))
    return api.PartModel(
        name=part.name,
        tuning=part.tuning.name,
        capo=part.capo,
        instrument=part.instrument,
        picking=part.picking,
        neck=api.NeckModel(
            scale_length_mm=part.scale_length_mm,
            frets_mm=[
                round(neck.fret_mm(fret), 2)
                for fret in range(max(part.highest_fret, _highest_written(part)) + 1)
            ],
            string_letters=list(part.tuning.letters),
            string_pitches=[pitch + part.capo for pitch in part.tuning.pitches],
        ),
        sections=[
            api.SectionModel(name=section.name, first_bar=section.first_bar, times=section.times)
            for section in part.sections
        ],
        remarks=[text for _, text in part.remarks],
        played=list(played_order(part, song.order)),
        step=grading.step,
        peak=grading.peak,
        peak_bars=list(grading.peak_bars),
        typical=grading.typical,
        memory=grading.memory,
        stamina=grading.stamina,
        hardest=hardest_words(part, grading),
        step_low=steps.low,
        step_high=steps.high,
        past_bars=[
            api.PastBarModel(index=past.index, words=past_words(past.beyond))
            for past in bars_past(part, grading, ability)
        ],
        doubts=list(steps.reasons),
        sentences=list(three_sentences(part, grading)),
        recurrences=[recurrence_words(part, row) for row in recurrences(part)],
        guessed_ringing=list(guessed_ringing(part)),
        rings_as_written=part.rings_as_written,
        pins_not_kept=list(pins_not_kept(part, grading)),
        readings=[
            api.ReadingModel(bar=reading.bar, name=reading.name, in_use=reading.content is None)
            for reading in part.readings
        ],
        bars=bars,
    )


def _highest_written(part: Part) -> int:
    return max((note.fret for _, _, event in part.events() for note in event.notes), default=0)


def _bar_model(
    part: Part, grade: BarGrade, events: list[api.EventModel], line: int, time: BarTime
) -> api.BarModel:
    bar = part.bars[grade.index]
    return api.BarModel(
        index=grade.index,
        number=grade.number,
        line=line,
        metre=str(bar.metre),
        metre_changed=grade.index > 0 and bar.metre != part.bars[grade.index - 1].metre,
        tempo=None if bar.tempo is None else float(bar.tempo),
        quarters=float(bar.quarters),
        starts_at=float(part.starts_at(grade.index)),
        beat_quarters=float(bar.metre.beat_quarters),
        groups=[float(group) for group in bar.metre.groups],
        repeat_start=bar.repeat_start,
        repeat_times=bar.repeat_times,
        endings=list(bar.endings),
        double_bar=bar.double_bar,
        uncertain=bar.uncertain,
        seconds=time.seconds,
        start_seconds=time.start,
        quarter_seconds=time.quarter_seconds,
        step=grade.step,
        past_hand=grade.past_hand,
        hardest_measure=grade.hardest_measure,
        findings=[
            api.FindingModel(
                measure=name,
                about=MEASURES[name].about,
                step=finding.step,
                value=finding.value,
                unit=finding.unit,
                onset=None if finding.place is None else str(finding.place.onset),
                strings=list(finding.place.strings) if finding.place else [],
                evidence=finding.evidence,
            )
            for name, finding in grade.findings.items()
        ],
        events=events,
    )


def _event_model(
    part: Part,
    event: Event,
    onset: Fraction,
    count: str,
    sounding: tuple[Fraction, ...],
    grip: Grip | None,
) -> api.EventModel:
    return api.EventModel(
        onset=str(onset),
        onset_quarters=float(onset),
        count=count,
        quarters=float(event.quarters),
        lengths=[
            api.LengthModel(
                value=head.value, dots=head.dots, tuplet=head.tuplet, quarters=float(head.quarters)
            )
            for head in written_lengths(event.quarters)
        ],
        notes=[
            _note_model(part, event, note, float(length), grip)
            for note, length in zip(event.notes, sounding, strict=True)
        ],
        chord=event.chord,
        remark=event.remark,
        stroke=event.stroke,
        uncertain=event.uncertain,
        free=event.free,
        how=sorted(event.techniques),
        own_techniques=sorted(event.own_techniques),
        words_by_string=_words_by_string(event),
        dip=None if event.dip is None else float(event.dip),
        dynamic=event.dynamic,
        grip=None if grip is None else _grip_model(grip, event),
    )


def _words_by_string(event: Event) -> list[str]:
    """`let ring on 4, 5`: what is written as a word and holds for some strings alone."""
    words = []
    for row in TECHNIQUES.values():
        strings = [str(note.string) for note in event.notes if row.technique in note.techniques]
        if strings and row.writing is Writing.WORD:
            words.append(f"{row.drawn_words or row.name} on {', '.join(strings)}")
    if event.stopped:
        words.append(f"stop {', '.join(map(str, sorted(event.stopped)))}")
    return words


def _grip_model(grip: Grip, event: Event) -> api.GripModel:
    presses = [
        api.PressModel(finger=finger, string=spot.string, fret=spot.fret) for finger, spot in grip.presses
    ]
    bent = [note.string for note in event.notes if note.bend and note.bend.half_tones]
    helpers = [
        api.PressModel(finger=finger, string=spot.string, fret=spot.fret)
        for string in bent
        for finger, spot in grip.helpers_on(string)
    ]
    return api.GripModel(
        position=max(grip.position, 1), reach_mm=grip.reach_mm, presses=presses, helpers=helpers
    )


def _note_model(part: Part, event: Event, note: Note, sounding: float, grip: Grip | None) -> api.NoteModel:
    finger = note.finger or (
        grip.finger_on(note.string) if grip and note.fret > 0 and not note.dead else None
    )
    techniques = sorted(event.techniques_of(note))
    return api.NoteModel(
        string=note.string,
        fret=note.fret,
        pitch=part.pitch_of(note),
        techniques=[str(technique) for technique in techniques],
        bend_half_tones=float(note.bend.half_tones) if note.bend else None,
        bend_released=bool(note.bend and note.bend.released),
        tied=note.tied,
        finger=finger,
        finger_pinned=note.finger is not None,
        picking=note.picking,
        uncertain=note.uncertain,
        optional=note.optional,
        sounding_quarters=sounding,
        words=note_words(part, note, [TECHNIQUES[technique].name for technique in techniques], finger),
    )


def note_words(part: Part, note: Note, techniques: list[str], finger: str | None) -> str:
    """A note as said aloud: `3rd string, 7th fret, 1st finger, vibrato, sounds D4`."""
    where = "muted" if note.dead else "open" if note.fret == 0 else f"{ordinal(note.fret)} fret"
    words = [f"{ordinal(note.string)} string", where]
    if finger:
        words.append("thumb" if finger == "T" else f"{ordinal(int(finger))} finger")
    words += techniques
    words += ["tied on"] * note.tied + ["optional"] * note.optional + ["uncertain"] * note.uncertain
    return ", ".join(words if note.dead else [*words, f"sounds {name_of(part.pitch_of(note))}"])
