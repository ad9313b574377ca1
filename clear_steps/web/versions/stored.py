"""What the routes of versions have in common: searches under way, a stored version as it is shown."""

from dataclasses import replace

from flask import Response, current_app

from clear_steps.formats.tabtext import write_tab
from clear_steps.store import Songs, StoredVersion
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import answered, current_database, ladder_in_use, worked_out
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import AskedVersion
from clear_steps.web.versions.comparing import standing_of, version_json, written_for
from clear_steps.web.versions.jobs import Job, Jobs
from clear_steps.web.whom import Whom


def running_jobs() -> Jobs:
    """The searches of this server."""
    jobs: Jobs = current_app.extensions["clear_steps_jobs"]
    return jobs


def job_model(job: Job) -> api.JobModel:
    """A search as the page follows it."""
    return api.JobModel.model_validate(job, from_attributes=True)


def checked(asked: AskedVersion) -> AskedVersion:
    """What is asked for, once it is known that the song has that part; raises InvalidValueError."""
    worked_out(check_part, asked.of.text, asked.of.part_index)
    return asked


def check_part(text: str, part_index: int) -> None:
    """Done by the workers; raises InvalidValueError where a text has no such part."""
    part_of(read_cached(text).song, part_index)


def tab_of_version(stored: StoredVersion, text: str) -> str:
    """The text of a version, made of its revision's; done by the workers."""
    song = read_cached(text).song
    return write_tab(replace(song, parts=(standing_of(stored, text),)))


def shown(stored: StoredVersion, whom: Whom | None = None, status: int = 200) -> Response:
    """A version as the page shows it, graded for whom it was written or for somebody else."""
    with current_database().reading() as session:
        songs, ladder = Songs(session), ladder_in_use(session)
        text = songs.revision(stored.song_id, stored.revision).text
        latest = songs.get(stored.song_id).latest.number
    whom = whom or written_for(stored)
    return answered(version_json, stored, text, latest, ladder.content, whom, status=status)
