"""A stored version -> what the Versions screen shows."""

from collections import Counter
from dataclasses import replace

from clear_steps.core.easier import TOLERANCE, Approach, compared, does, refused_with
from clear_steps.core.grade import GradeRequest, Grading, StepRange, grade_part
from clear_steps.core.score import Part, Song
from clear_steps.formats.tabtext import Reading, write_tab
from clear_steps.store import StoredVersion
from clear_steps.web import version_schemas as api
from clear_steps.web.analysis import Graded, analysis_of, read_cached
from clear_steps.web.current import LadderInUse
from clear_steps.web.schemas import AnalysisModel, ClimbColumn, EventModel


def version_model(stored: StoredVersion, text: str, latest_revision: int, ladder: LadderInUse) -> api.VersionModel:
    """The version made afresh from its revision's text, with what is refused left as it was."""
    song, request = read_cached(text).song, GradeRequest()
    part = song.parts[stored.part_index]
    version, after, kept = compared(song, part, ladder.ladder, stored.edits, stored.refused, request)
    before = grade_part(song, part, ladder.ladder, request)
    gone = refused_with(stored.edits, stored.refused)
    original, easier = _alone(song, part, before), _alone(song, version, after)
    _mark(original, easier)
    reached = max([after.step, *(bar.step for bar in after.bars)]) <= stored.target + TOLERANCE
    return api.VersionModel(
        id=stored.id,
        song_id=stored.song_id,
        title=song.title or "Untitled",
        revision=stored.revision,
        latest_revision=latest_revision,
        part_index=stored.part_index,
        target=stored.target,
        approach=Approach(stored.approach),
        layer=stored.layer,
        reached=reached,
        kept=api.KeptModel(
            tune=kept.tune,
            bass=kept.bass,
            harmony=kept.harmony,
            rhythm=kept.rhythm,
            overall=kept.overall,
            same_onsets=kept.same_onsets,
            still_the_tune=kept.still_the_tune,
        ),
        edits=[
            api.EditModel(
                id=edit.id,
                kind=edit.kind,
                does=does(edit.kind),
                bars=[part.bar_number(bar) for bar in edit.bars],
                reason=edit.reason,
                effect=edit.effect,
                loss=edit.loss,
                builds_on=list(edit.builds_on),
                refused=edit.id in gone,
                refused_itself=edit.id in stored.refused,
            )
            for edit in stored.edits
        ],
        blocking=[
            api.BlockingModel(
                bar=part.bar_number(row.bar),
                measure=row.measure,
                step=row.step,
                tried=[api.TriedModel(kind=tried.kind, does=does(tried.kind), step=tried.step) for tried in row.tried],
            )
            for row in stored.blocking
        ],
        original=original,
        version=easier,
        tab=write_tab(replace(song, parts=(version,))),
        summary=_summary(stored, part, gone),
    )


def version_card(stored: StoredVersion, text: str, ladder: LadderInUse) -> api.VersionCard:
    """A version among others: its Step, its climb, what it keeps."""
    song = read_cached(text).song
    version, after, kept = compared(song, song.parts[stored.part_index], ladder.ladder, stored.edits, stored.refused, GradeRequest())
    return api.VersionCard(
        id=stored.id,
        target=stored.target,
        part_index=stored.part_index,
        revision=stored.revision,
        edits=len(stored.edits),
        refused=len(stored.refused),
        approach=Approach(stored.approach),
        layer=stored.layer,
        staircase=stored.staircase,
        step=after.step,
        reached=max([after.step, *(bar.step for bar in after.bars)]) <= stored.target + TOLERANCE,
        overall=kept.overall,
        same_onsets=kept.same_onsets,
        climb=[
            ClimbColumn(number=grade.number, step=grade.step, beats=float(bar.quarters / bar.metre.beat_quarters))
            for bar, grade in zip(version.bars, after.bars, strict=True)
        ],
    )


def _alone(song: Song, part: Part, grading: Grading) -> AnalysisModel:
    reading = Reading(replace(song, parts=(part,)), (), (tuple(0 for _ in part.bars),))
    return analysis_of(Graded(reading, (grading,), (StepRange(grading.step, grading.step, ()),)))


def _mark(original: AnalysisModel, easier: AnalysisModel) -> None:
    """Mark what differs: on the version what is new or other, on the original what has no onset any more."""
    for before, after in zip(original.parts[0].bars, easier.parts[0].bars, strict=True):
        old = {event.onset: _written(event) for event in before.events}
        new = {event.onset: _written(event) for event in after.events}
        for event in after.events:
            event.mark = "" if old.get(event.onset) == _written(event) else "changed"
        for event in before.events:
            kept = new.get(event.onset)
            event.mark = "gone" if event.notes and not (kept and kept[1]) else "" if kept == _written(event) else "changed"


def _written(event: EventModel) -> tuple[float, tuple[object, ...]]:
    return event.quarters, tuple((note.string, note.fret, *note.techniques, note.bend_half_tones) for note in event.notes)


def _summary(stored: StoredVersion, part: Part, gone: frozenset[int]) -> list[str]:
    """What became of the song, a sentence a kind, the most frequent first."""
    kept = [edit for edit in stored.edits if edit.id not in gone]
    counted = Counter(edit.kind for edit in kept)
    sentences = []
    for kind, _ in counted.most_common():
        bars = sorted({part.bar_number(bar) for edit in kept if edit.kind == kind for bar in edit.bars})
        sentences.append(f"{does(kind).capitalize()}: bar{'s' if len(bars) > 1 else ''} {', '.join(str(bar) for bar in bars)}.")
    touched = {bar for edit in kept for bar in edit.bars}
    untouched = [part.bar_number(index) for index in range(len(part.bars)) if index not in touched]
    if untouched and kept:
        sentences.append(f"As written: bar{'s' if len(untouched) > 1 else ''} {', '.join(str(bar) for bar in untouched)}.")
    return sentences
