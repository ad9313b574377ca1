"""Routes of easier versions: ask, follow, compare, choose, carry over."""

from collections.abc import Callable
from dataclasses import replace

from apiflask import APIBlueprint
from flask import current_app
from sqlalchemy.orm import Session

from clear_steps.core.easier import Progress, Wish, by_hand, halved, set_note, staircase, version_of
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import GradeRequest
from clear_steps.core.score import Event, Part
from clear_steps.formats.tabtext import read_tab, write_bars
from clear_steps.store import NewVersion, Songs, StoredVersion, Students, Versions
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.comparing import part_offers, version_card, version_model
from clear_steps.web.versions.jobs import Job, Jobs

blueprint = APIBlueprint("versions", __name__, url_prefix="/api")


def _jobs() -> Jobs:
    jobs: Jobs = current_app.extensions["clear_steps_jobs"]
    return jobs


def _job_model(job: Job) -> api.JobModel:
    return api.JobModel.model_validate(job, from_attributes=True)


@blueprint.post("/songs/<int:song_id>/versions")
@blueprint.input(api.VersionIn, arg_name="body")
@blueprint.output(api.JobModel, status_code=202)
def ask_for_version(song_id: int, body: api.VersionIn) -> api.JobModel:
    """Start the search for an easier version of the latest revision."""
    database = current_database()
    with database.session() as session:
        latest = Songs(session).get(song_id).latest
        ladder = ladder_in_use(session).ladder
        student = Students(session).get(body.student_id).student if body.student_id is not None else None
    song = read_cached(latest.text).song
    if body.part_index >= len(song.parts):
        raise InvalidValueError("part", body.part_index, f"0 to {len(song.parts) - 1}")

    limits = student.limits if student else None
    wish = Wish(
        (body.target, *body.further_targets),
        body.approach,
        body.layer,
        body.setup,
        limits,
        body.fill_short_bars,
    )
    request = GradeRequest(student.player) if student else GradeRequest()

    def work(progress: Progress) -> int:
        found = staircase(song, song.parts[body.part_index], ladder, wish, request, progress)
        new = [
            NewVersion(
                song_id,
                latest.number,
                body.part_index,
                step.target,
                step.edits,
                step.blocking,
                body.approach,
                body.layer,
                student,
            )
            for step in reversed(found)
        ]
        with database.session() as session:
            versions = Versions(session)
            return versions.add(new[0]).id if len(new) == 1 else versions.add_staircase(new)[0].id

    return _job_model(_jobs().start(work))


@blueprint.get("/searches/<int:job_id>")
@blueprint.output(api.JobModel)
def follow_search(job_id: int) -> api.JobModel:
    """How far a search is."""
    return _job_model(_jobs().get(job_id))


@blueprint.delete("/searches/<int:job_id>")
@blueprint.output(api.JobModel)
def stop_search(job_id: int) -> api.JobModel:
    """Stop a search; what it had found is dropped."""
    job = _jobs().get(job_id)
    job.wanted = False
    return _job_model(job)


@blueprint.get("/songs/<int:song_id>/versions")
@blueprint.output(api.VersionList)
def list_versions(song_id: int) -> api.VersionList:
    """The versions of a song, easiest first."""
    with current_database().session() as session:
        songs, ladder = Songs(session), ladder_in_use(session)
        latest = songs.get(song_id).latest
        found = Versions(session).of_song(song_id)
        texts = {version.revision: songs.revision(song_id, version.revision).text for version in found}
    cards = [version_card(version, texts[version.revision], ladder) for version in found]
    return api.VersionList(versions=cards, parts=part_offers(read_cached(latest.text).song, ladder.ladder))


@blueprint.get("/versions/<int:version_id>")
@blueprint.output(api.VersionModel)
def get_version(version_id: int) -> api.VersionModel:
    """A version beside its original."""
    with current_database().session() as session:
        return _shown(session, Versions(session).get(version_id))


@blueprint.put("/versions/<int:version_id>/choice")
@blueprint.input(api.ChoiceIn, arg_name="body")
@blueprint.output(api.VersionModel)
def choose_edits(version_id: int, body: api.ChoiceIn) -> api.VersionModel:
    """Refuse exactly these edits; the version is fingered and graded anew."""
    with current_database().session() as session:
        return _shown(session, Versions(session).choose(version_id, tuple(body.refused)))


@blueprint.put("/versions/<int:version_id>/away")
@blueprint.input(api.AwayIn, arg_name="body")
@blueprint.output(api.VersionModel)
def put_version_away(version_id: int, body: api.AwayIn) -> api.VersionModel:
    """Take a version out of sight, or bring it back; nothing of it is lost."""
    with current_database().session() as session:
        return _shown(session, Versions(session).put_away(version_id, body.away))


@blueprint.get("/versions/<int:version_id>/bars/<int:bar>")
@blueprint.output(api.BarTextModel)
def get_bar(version_id: int, bar: int) -> api.BarTextModel:
    """One bar (by index) of a version as tab text, to be changed by hand."""
    with current_database().session() as session:
        part = _standing(session, Versions(session).get(version_id))
    if bar >= len(part.bars):
        raise InvalidValueError("bar", bar, f"0 to {len(part.bars) - 1}")
    return api.BarTextModel(
        tab=write_bars(replace(part, bars=(part.bars[bar],), sections=(), remarks=(), readings=()))
    )


@blueprint.put("/versions/<int:version_id>/bars/<int:bar>")
@blueprint.input(api.BarTextModel, arg_name="body")
@blueprint.output(api.VersionModel)
def change_bar(version_id: int, bar: int, body: api.BarTextModel) -> api.VersionModel:
    """Change a bar of a version by hand; it joins the list as an edit like any other."""
    return _changed_by_hand(version_id, bar, lambda version: _events_of(body.tab, version, bar))


@blueprint.put("/versions/<int:version_id>/bars/<int:bar>/note")
@blueprint.input(api.NoteIn, arg_name="body")
@blueprint.output(api.VersionModel)
def change_note(version_id: int, bar: int, body: api.NoteIn) -> api.VersionModel:
    """Change, add or take out one note of a version by hand; it joins the list as an edit like any other."""

    def rewritten(version: Part) -> tuple[Event, ...]:
        return (
            halved(version, bar, body.event)
            if body.halve
            else set_note(version, bar, body.event, body.string, body.fret)
        )

    return _changed_by_hand(version_id, bar, rewritten)


def _changed_by_hand(
    version_id: int, bar: int, rewritten: Callable[[Part], tuple[Event, ...]]
) -> api.VersionModel:
    """A version with one bar (by index) rewritten as it stands now; raises InvalidValueError."""
    with current_database().session() as session:
        versions = Versions(session)
        stored = versions.get(version_id)
        version = _standing(session, stored)
        if bar >= len(version.bars):
            raise InvalidValueError("bar", bar, f"0 to {len(version.bars) - 1}")
        edit = by_hand(_original(session, stored), stored.edits, stored.refused, bar, rewritten(version))
        return _shown(session, versions.add_hand_edit(version_id, edit))


def _events_of(tab: str, part: Part, bar: int) -> tuple[Event, ...]:
    """The events of one bar of tab; raises ReadError or InvalidValueError."""
    read = read_tab(f"Time: {part.bars[bar].metre}\nTuning: {part.tuning.spelled}\n\n{tab}").song.parts[0]
    if len(read.bars) != 1:
        raise InvalidValueError("bar", f"{len(read.bars)} bars", "one bar")
    if read.bars[0].quarters != part.bars[bar].quarters:
        raise InvalidValueError(
            "length of the bar",
            f"{read.bars[0].quarters} quarter notes",
            f"{part.bars[bar].quarters}, as in the original",
        )
    return read.bars[0].events


def _original(session: Session, stored: StoredVersion) -> Part:
    text = Songs(session).revision(stored.song_id, stored.revision).text
    return read_cached(text).song.parts[stored.part_index]


def _standing(session: Session, stored: StoredVersion) -> Part:
    """The version as it stands, refused edits left out."""
    return version_of(_original(session, stored), stored.edits, stored.refused)


@blueprint.post("/versions/<int:version_id>/carried")
@blueprint.output(api.VersionModel, status_code=201)
def carry_over(version_id: int) -> api.VersionModel:
    """A version of the latest revision with the same edits; those that no longer find what they replace say
    so."""
    with current_database().session() as session:
        songs, versions = Songs(session), Versions(session)
        old = versions.get(version_id)
        latest = songs.get(old.song_id).latest
        if old.part_index >= len(read_cached(latest.text).song.parts):
            raise InvalidValueError("part", old.part_index, "a part that the latest revision still has")
        new = versions.add(
            NewVersion(
                old.song_id,
                latest.number,
                old.part_index,
                old.target,
                old.edits,
                (),
                old.approach,
                old.layer,
                old.student,
            )
        )
        return _shown(session, versions.choose(new.id, old.refused) if old.refused else new)


def _shown(session: Session, stored: StoredVersion) -> api.VersionModel:
    songs = Songs(session)
    text = songs.revision(stored.song_id, stored.revision).text
    return version_model(stored, text, songs.get(stored.song_id).latest.number, ladder_in_use(session))
