"""What the routes of versions have in common: searches under way, a stored version and its part."""

from flask import current_app
from sqlalchemy.orm import Session

from clear_steps.core.easier import version_of
from clear_steps.core.score import Part
from clear_steps.store import Songs, StoredVersion
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.comparing import version_model, written_for
from clear_steps.web.versions.jobs import Job, Jobs
from clear_steps.web.whom import Whom


def running_jobs() -> Jobs:
    """The searches of this process."""
    jobs: Jobs = current_app.extensions["clear_steps_jobs"]
    return jobs


def job_model(job: Job) -> api.JobModel:
    """A search as the page follows it."""
    return api.JobModel.model_validate(job, from_attributes=True)


def original_of(session: Session, stored: StoredVersion) -> Part:
    """The part that a version was made of."""
    text = Songs(session).revision(stored.song_id, stored.revision).text
    return read_cached(text).song.parts[stored.part_index]


def standing_of(session: Session, stored: StoredVersion) -> Part:
    """The version as it stands, refused edits left out."""
    return version_of(original_of(session, stored), stored.edits, stored.refused)


def shown(stored: StoredVersion, whom: Whom | None = None) -> api.VersionModel:
    """A version as the page shows it, graded for whom it was written or for somebody else."""
    with current_database().reading() as session:
        songs, ladder = Songs(session), ladder_in_use(session)
        text = songs.revision(stored.song_id, stored.revision).text
        latest = songs.get(stored.song_id).latest.number
    return version_model(stored, text, latest, ladder, whom or written_for(stored))
