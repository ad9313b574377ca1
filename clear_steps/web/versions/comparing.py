"""A stored version -> what the Versions screen shows."""

from collections.abc import Sequence
from dataclasses import asdict, replace

from pydantic import TypeAdapter

from clear_steps.core.easier import (
    LAYERS,
    TOLERANCE,
    Approach,
    Blocking,
    Compared,
    Easier,
    Otherwise,
    Way,
    alike,
    carries_the_tune,
    compared,
    does,
    is_reached,
    refused_with,
    short_bars,
    version_of,
    what_to_play,
)
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.playing import bars_words
from clear_steps.core.grade import Grading, Ladder, StepRange, grade_part
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.core.score import Part, Song
from clear_steps.formats.tabtext import Reading, write_tab
from clear_steps.store import StoredVersion
from clear_steps.web.analysis.schemas import AnalysisModel, EventModel, PartModel
from clear_steps.web.analysis.shown import Graded, analysis_of, graded, read_cached
from clear_steps.web.current import LadderInUse, ladder_of
from clear_steps.web.songs.schemas import ClimbModel
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import OpenedPart
from clear_steps.web.whom import ANYBODY, Whom, whom_is

_NO_PLACE = (
    " It does not find the notes that it replaces: the text, or another edit of its bar, is not as it was."
)


def original_of(stored: StoredVersion, text: str) -> Part:
    """The part that a version was made of."""
    return read_cached(text).song.parts[stored.part_index]


def standing_of(stored: StoredVersion, text: str) -> Part:
    """The version as it stands, refused edits left out."""
    return version_of(original_of(stored, text), stored.edits, stored.refused)


def written_for(stored: StoredVersion) -> Whom:
    """For whom a version was written."""
    return whom_is(stored.student) if stored.student else ANYBODY


def version_now(stored: StoredVersion, song: Song, ladder: Ladder, whom: Whom) -> Compared:
    """A version made afresh from its song as it lies on their guitar, graded for them, and what it keeps."""
    return compared(song, song.parts[stored.part_index], ladder, stored.edits, stored.refused, whom.request)


def _is_reached(stored: StoredVersion, song: Song, now: Compared, ladder: Ladder, whom: Whom) -> bool:
    """Whether it is what was asked for, for whom it was asked."""
    own = written_for(stored)
    ability = own.ability(ladder) if stored.student else None
    grading = now.grading if own == whom else grade_part(song, now.version, ladder, own.request)
    return is_reached(grading, now.version, stored.target, ability)


def asked_words(stored: StoredVersion) -> str:
    """What was asked for: `asked for Step 4`, `the bass alone`, `what Tomke can play`."""
    asked = [LAYERS[stored.layer].does] if stored.layer else []
    if stored.student:
        asked.append(f"what {stored.student.name} can play")
    if not asked and stored.target == HARDEST_STEP and len(stored.edits) == 1:
        asked.append(f"one change: {stored.edits[0].says or does(stored.edits[0].kind)}")
    if stored.target < HARDEST_STEP or not asked:
        asked.append(f"asked for Step {stored.target:g}")
    return ", ".join(asked)


def version_json(stored: StoredVersion, text: str, latest_revision: int, ladder: str, whom: Whom) -> str:
    """The VersionModel of a version; done by the workers."""
    return version_model(stored, text, latest_revision, ladder_of(ladder), whom).model_dump_json()


def version_model(
    stored: StoredVersion, text: str, latest_revision: int, ladder: LadderInUse, whom: Whom
) -> api.VersionModel:
    """The version made afresh from its revision's text, with what is refused left as it was."""
    song = whom.on_their_guitar(read_cached(text).song)
    part = song.parts[stored.part_index]
    now = version_now(stored, song, ladder.ladder, whom)
    before = grade_part(song, part, ladder.ladder, whom.request)
    original = alone(song, part, before, whom, ladder.ladder)
    easier = alone(song, now.version, now.grading, whom, ladder.ladder)
    _mark(original, easier)
    return api.VersionModel(
        id=stored.id,
        song_id=stored.song_id,
        title=song.title or "Untitled",
        revision=stored.revision,
        latest_revision=latest_revision,
        part_index=stored.part_index,
        target=stored.target,
        approach=Approach(stored.approach),
        layer=_layer(stored),
        asked=asked_words(stored),
        student=stored.student.name if stored.student else "",
        put_away=stored.put_away,
        choice=stored.choice,
        reached=_is_reached(stored, song, now, ladder.ladder, whom),
        kept=api.KeptModel.model_validate(
            {**asdict(now.kept), "still_the_tune": now.kept.still_the_tune(ladder.ladder.tune_floor)}
        ),
        kept_by_bar=list(now.kept_by_bar),
        edits=_edit_models(stored, part, now.gone),
        blocking=[_blocking_model(row, part) for row in stored.blocking],
        original=original,
        version=easier,
        tab=write_tab(replace(song, parts=(now.version,))),
        summary=_summary(stored, part, now.gone),
        harder=_harder(part, before, now.grading),
    )


def _layer(stored: StoredVersion) -> api.LayerName:
    return TypeAdapter[api.LayerName](api.LayerName).validate_python(stored.layer)


def _edit_models(stored: StoredVersion, part: Part, gone: frozenset[int]) -> list[api.EditModel]:
    firsts, unfitting = alike(part, stored.edits), gone - refused_with(stored.edits, stored.refused)
    return [
        api.EditModel(
            id=edit.id,
            kind=edit.kind,
            does=does(edit.kind),
            bars=[part.bar_number(bar) for bar in edit.bars],
            reason=edit.reason + (_NO_PLACE if edit.id in unfitting else ""),
            effect=edit.effect,
            loss=edit.loss,
            builds_on=list(edit.builds_on),
            alike=firsts[edit.id],
            says=edit.says,
            refused=edit.id in gone,
            refused_itself=edit.id in stored.refused,
        )
        for edit in stored.edits
    ]


def _blocking_model(row: Blocking, part: Part) -> api.BlockingModel:
    tried = [api.TriedModel(kind=tried.kind, does=does(tried.kind), step=tried.step) for tried in row.tried]
    return api.BlockingModel(
        bar=part.bar_number(row.bar), measure=row.measure, step=row.step, limit=row.limit, tried=tried
    )


def card_json(stored: StoredVersion, text: str, ladder: str) -> str:
    """The VersionCard of a version; done by the workers."""
    return version_card(stored, text, ladder_of(ladder)).model_dump_json()


def version_card(stored: StoredVersion, text: str, ladder: LadderInUse) -> api.VersionCard:
    """A version among others: its Step, its climb, what it keeps."""
    whom = written_for(stored)
    song = whom.on_their_guitar(read_cached(text).song)
    now = version_now(stored, song, ladder.ladder, whom)
    return api.VersionCard(
        id=stored.id,
        target=stored.target,
        part_index=stored.part_index,
        revision=stored.revision,
        edits=len(set(alike(song.parts[stored.part_index], stored.edits).values())),
        refused=len(stored.refused),
        approach=Approach(stored.approach),
        layer=_layer(stored),
        asked=asked_words(stored),
        student=stored.student.name if stored.student else "",
        put_away=stored.put_away,
        staircase=stored.staircase,
        step=now.grading.step,
        reached=_is_reached(stored, song, now, ladder.ladder, whom),
        overall=now.kept.overall,
        same_onsets=now.kept.same_onsets,
        climb=ClimbModel(
            steps=[round(grade.step, 2) for grade in now.grading.bars],
            beats=[float(bar.quarters / bar.metre.beat_quarters) for bar in now.version.bars],
        ),
    )


def offers_of(text: str, ladder: str) -> list[api.PartOffer]:
    """The parts of a text, and what can be asked of each; done by the workers."""
    return part_offers(graded(text, ANYBODY, ladder_of(ladder)))


def part_offers(result: Graded) -> list[api.PartOffer]:
    """The parts of a song, and what can be asked of each."""
    song = result.reading.song
    carrier = carries_the_tune(song) if len(song.parts) > 1 else None
    return [
        api.PartOffer(
            index=index,
            name=part.name,
            step=grading.step,
            tuning=part.tuning.name,
            capo=part.capo,
            short_bars=[part.bar_number(bar) for bar in short_bars(part)],
            carries_the_tune=part == carrier,
        )
        for index, (part, grading) in enumerate(zip(song.parts, result.gradings, strict=True))
    ]


def alone(song: Song, part: Part, grading: Grading, whom: Whom, ladder: Ladder) -> AnalysisModel:
    """One part of a song as the Desk shows it."""
    reading = Reading(replace(song, parts=(part,)), (), ())
    steps = StepRange(grading.step, grading.step, ())
    return analysis_of(Graded(reading, (grading,), (steps,), whom, ladder))


def _mark(original: AnalysisModel, easier: AnalysisModel) -> None:
    """Mark what differs: on the version what is new or other, on the original what has no onset any more."""
    for before, after in zip(original.parts[0].bars, easier.parts[0].bars, strict=True):
        old = {event.onset: _written(event) for event in before.events}
        new = {event.onset: _written(event) for event in after.events}
        for event in after.events:
            event.mark = "" if old.get(event.onset) == _written(event) else "changed"
        for event in before.events:
            kept = new.get(event.onset)
            event.mark = (
                "gone"
                if event.notes and not (kept and kept[1])
                else ""
                if kept == _written(event)
                else "changed"
            )


def _written(event: EventModel) -> tuple[float, tuple[object, ...]]:
    return event.quarters, tuple(
        (note.string, note.fret, *note.techniques, note.bend_half_tones) for note in event.notes
    )


def _summary(stored: StoredVersion, part: Part, gone: frozenset[int]) -> list[str]:
    """What there is to play, in a student's words; and which bars are as they were."""
    kept = [edit for edit in stored.edits if edit.id not in gone]
    sentences = [saying.words(part) for saying in what_to_play(part, kept)]
    touched = {bar for edit in kept for bar in edit.bars}
    untouched = [index for index in range(len(part.bars)) if index not in touched]
    if untouched and kept and not any(edit.setup for edit in kept):
        sentences.append(f"As written: {bars_words(part, untouched)}.")
    return sentences


def _harder(part: Part, before: Grading, after: Grading) -> list[int]:
    """Numbers of the bars that a version makes harder, by more than can be seen."""
    rows = zip(before.bars, after.bars, strict=True)
    return [part.bar_number(own.index) for was, own in rows if own.step > was.step + TOLERANCE]


def ways_model(
    of: OpenedPart, target: float, ways: Sequence[Way], otherwise: Sequence[Otherwise]
) -> api.WaysModel:
    """The ways as cards, each with its most changed bar before and after."""
    return api.WaysModel(
        target=target,
        ways=[_way_model(of, way) for way in ways],
        otherwise=[api.OtherwiseModel(words=own.words, step=own.step) for own in otherwise],
    )


def _way_model(of: OpenedPart, way: Way) -> api.WayModel:
    part, own = of.part, way.easiest
    changed = [index for index, bar in enumerate(part.bars) if bar.events != own.version.bars[index].events]
    scores = dict(zip(changed, _kept_of(part, own, changed), strict=True))
    most = min(changed, key=lambda index: (scores[index], index), default=None)
    return api.WayModel(
        name=way.name,
        sentence=way.sentence,
        step=own.after.step,
        reached=own.reached,
        overall=own.kept.overall,
        same_onsets=own.kept.same_onsets,
        still_the_tune=own.kept.still_the_tune(of.ladder.tune_floor),
        bar=None if most is None else part.bar_number(most),
        before=None if most is None else _one_bar(of, part, most),
        after=None if most is None else _one_bar(of, own.version, most),
    )


def _kept_of(part: Part, found: Easier, bars: Sequence[int]) -> list[float]:
    half_tones = sum(edit.setup.half_tones for edit in found.edits if edit.setup)
    rows = KeptSoFar(part, half_tones=half_tones).by_bar(found.version)
    return [rows[index] for index in bars]


def _one_bar(of: OpenedPart, part: Part, index: int) -> PartModel:
    """One bar of a part as the Desk shows it, what is held into it struck."""
    bar = part.bars[index]
    struck = tuple(
        replace(event, notes=tuple(replace(note, tied=False) for note in event.notes))
        for event in bar.events[:1]
    )
    bars = (replace(bar, events=(*struck, *bar.events[1:]), endings=(), repeat_times=0),)
    own = replace(part, bars=bars, sections=(), remarks=(), readings=())
    cut = replace(of.song, parts=(own,), order=())
    grading = grade_part(cut, own, of.ladder, of.whom.request)
    model = alone(cut, own, grading, of.whom, of.ladder).parts[0]
    model.bars[0].number = part.bar_number(index)
    return model
