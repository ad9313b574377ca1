"""Bars, events and notes as the screens show them."""

from collections.abc import Sequence
from fractions import Fraction

from clear_steps.core.changes import Change
from clear_steps.core.grade import MEASURES, BarGrade, added_up
from clear_steps.core.hand import Grip
from clear_steps.core.score import TECHNIQUES, Event, Note, Part, spelled_name, written_lengths
from clear_steps.core.score.timing import BarTime
from clear_steps.core.score.words import ordinal
from clear_steps.web.analysis import schemas as api


def bar_model(
    part: Part,
    grade: BarGrade,
    events: list[api.EventModel],
    line: int,
    time: BarTime,
    same: Sequence[int],
    pinned: int,
) -> api.BarModel:
    """A bar with its Step, what each measure finds, its events, the bars that are the same, and the one whose
    pins it takes (indexes)."""
    bar = part.bars[grade.index]
    adds = added_up({name: finding.step for name, finding in grade.findings.items()})
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
        same_bars=[part.bar_number(other) for other in same],
        pinned_as=None if pinned == grade.index else part.bar_number(pinned),
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
                adds=adds.get(name, 0.0),
            )
            for name, finding in grade.findings.items()
        ],
        added=[api.AddedModel(words=words, adds=step) for words, step in grade.added.items()],
        events=events,
    )


def event_model(
    part: Part,
    sharps: int,
    event: Event,
    onset: Fraction,
    count: str,
    sounding: tuple[Fraction, ...],
    grip: Grip | None,
    recognised: str,
    change: Change | None,
) -> api.EventModel:
    """An event at an onset (quarters), how long each of its notes sounds, the grip that takes it, the name of
    the shape that begins there where none is written, and how the hand comes to it."""
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
            _note_model(part, sharps, event, note, float(length), grip)
            for note, length in zip(event.notes, sounding, strict=True)
        ],
        chord=event.chord,
        recognised="" if event.chord else recognised,
        change=None if change is None else api.ChangeModel(sign=change.sign, words=change.words),
        remark=event.remark,
        stroke=event.stroke,
        uncertain=event.uncertain,
        free=event.free,
        how=sorted(event.techniques),
        own_techniques=sorted(event.own_techniques),
        words_by_string=_words_by_string(event),
        dip=None if event.dip is None else float(event.dip),
        dynamic=event.dynamic,
        position=event.position,
        grip=None if grip is None else _grip_model(grip, event),
    )


def _words_by_string(event: Event) -> list[str]:
    """`let ring on 4, 5`, `stop 6`: what holds for some strings alone."""
    words = [
        f"{TECHNIQUES[technique].drawn_words or TECHNIQUES[technique].name} on {', '.join(map(str, strings))}"
        for technique, strings in event.strings_by_word().items()
    ]
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


def _note_model(
    part: Part, sharps: int, event: Event, note: Note, sounding: float, grip: Grip | None
) -> api.NoteModel:
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
        words=_note_words(
            note,
            [TECHNIQUES[technique].name for technique in techniques],
            finger,
            spelled_name(part.pitch_of(note), sharps),
        ),
    )


def _note_words(note: Note, techniques: list[str], finger: str | None, pitch: str) -> str:
    """A note as said aloud: `3rd string, 7th fret, 1st finger, vibrato, sounds D4`."""
    where = "muted" if note.dead else "open" if note.fret == 0 else f"{ordinal(note.fret)} fret"
    words = [f"{ordinal(note.string)} string", where]
    if finger:
        words.append("thumb" if finger == "T" else f"{ordinal(int(finger))} finger")
    words += techniques
    words += ["tied on"] * note.tied + ["optional"] * note.optional + ["uncertain"] * note.uncertain
    return ", ".join(words if note.dead else [*words, f"sounds {pitch}"])
