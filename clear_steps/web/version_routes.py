"""Routes of easier versions: ask, follow, compare, choose, carry over."""

from apiflask import APIBlueprint
from flask import current_app
from sqlalchemy.orm import Session

from clear_steps.core.easier import Edit, Progress, applied, easier
from clear_steps.core.errors import InvalidValueError
from clear_steps.store import NewVersion, Songs, StoredVersion, Versions
from clear_steps.web import version_schemas as api
from clear_steps.web.analysis import read_cached
from clear_steps.web.comparing import version_model
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.jobs import Job, Jobs

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
    song = read_cached(latest.text).song
    if body.part_index >= len(song.parts):
        raise InvalidValueError("part", body.part_index, f"0 to {len(song.parts) - 1}")

    def work(progress: Progress) -> int:
        found = easier(song, song.parts[body.part_index], ladder, body.target, progress=progress)
        with database.session() as session:
            return Versions(session).add(NewVersion(song_id, latest.number, body.part_index, body.target, found.edits, found.blocking)).id

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
        Songs(session).get(song_id)
        found = Versions(session).of_song(song_id)
    cards = [api.VersionCard(id=v.id, target=v.target, part_index=v.part_index, revision=v.revision, edits=len(v.edits), refused=len(v.refused)) for v in found]
    return api.VersionList(versions=cards)


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


@blueprint.post("/versions/<int:version_id>/carried")
@blueprint.output(api.VersionModel, status_code=201)
def carry_over(version_id: int) -> api.VersionModel:
    """A version of the latest revision with the edits that still find what they replace."""
    with current_database().session() as session:
        songs, versions = Songs(session), Versions(session)
        old = versions.get(version_id)
        latest = songs.get(old.song_id).latest
        parts = read_cached(latest.text).song.parts
        if old.part_index >= len(parts):
            raise InvalidValueError("part", old.part_index, "a part that the latest revision still has")
        part = parts[old.part_index]
        fitting: list[Edit] = []
        for edit in old.edits:
            carried = applied(part, edit.changes) if set(edit.builds_on) <= {kept.id for kept in fitting} else None
            if carried is not None:
                part = carried
                fitting.append(edit)
        new = versions.add(NewVersion(old.song_id, latest.number, old.part_index, old.target, tuple(fitting), ()))
        return _shown(session, versions.choose(new.id, old.refused) if old.refused else new)


def _shown(session: Session, stored: StoredVersion) -> api.VersionModel:
    songs = Songs(session)
    text = songs.revision(stored.song_id, stored.revision).text
    return version_model(stored, text, songs.get(stored.song_id).latest.number, ladder_in_use(session))
