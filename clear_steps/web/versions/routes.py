"""Routes of easier versions: ask, follow, compare, choose, carry over."""

from dataclasses import replace

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.easier import Progress
from clear_steps.store import (
    KeptAnswers,
    NewVersion,
    Songs,
    StoredVersion,
    Versions,
    digest,
)
from clear_steps.web.current import current_database, current_workers, ladder_in_use, worked_out
from clear_steps.web.program import program_mark
from clear_steps.web.songs.schemas import AwayIn
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import asked_version
from clear_steps.web.versions.comparing import card_json, offers_of
from clear_steps.web.versions.jobs import Search
from clear_steps.web.versions.searching import found_staircase
from clear_steps.web.versions.stored import check_part, checked, job_model, running_jobs, shown
from clear_steps.web.whom import GradeQuery, whom_of

blueprint = APIBlueprint("versions", __name__, url_prefix="/api")
CARD = "version card"


@blueprint.post("/songs/<int:song_id>/versions")
@blueprint.input(api.VersionIn, arg_name="body")
@blueprint.output(api.JobModel, status_code=202)
def ask_for_version(song_id: int, body: api.VersionIn) -> api.JobModel:
    """Start the search for an easier version of the latest revision; asked for again, it is the same
    version."""
    database, workers = current_database(), current_workers()
    asked = checked(asked_version(song_id, body))
    keys = [f"{asked.digest} {target:g}" for target in asked.wish.targets]

    def find(progress: Progress) -> tuple[NewVersion, ...]:
        with database.reading() as session:
            there = [Versions(session).of_wish(key) for key in keys]
        if all(there):
            return ()
        return workers.search(found_staircase, asked, progress=progress)

    def store(found: tuple[NewVersion, ...]) -> int:
        with database.session() as session:
            versions = Versions(session)
            if found:
                return _easiest(versions.add_together(found))
            there = [version for key in keys if (version := versions.of_wish(key))]
            return _easiest([versions.put_away(version.id, False) for version in there])

    return job_model(running_jobs().start(asked.digest, Search(find, store)))


def _easiest(versions: list[StoredVersion]) -> int:
    return min(versions, key=lambda version: version.target).id


@blueprint.get("/searches/<int:job_id>")
@blueprint.output(api.JobModel)
def follow_search(job_id: int) -> api.JobModel:
    """How far a search is."""
    return job_model(running_jobs().get(job_id))


@blueprint.delete("/searches/<int:job_id>")
@blueprint.output(api.JobModel)
def stop_search(job_id: int) -> api.JobModel:
    """Stop a search; what it had found is dropped."""
    job = running_jobs().get(job_id)
    job.wanted = False
    return job_model(job)


@blueprint.get("/songs/<int:song_id>/versions")
@blueprint.output(api.VersionList)
def list_versions(song_id: int) -> api.VersionList:
    """The versions of a song, easiest first; each is graded once and kept."""
    with current_database().reading() as session:
        songs, ladder = Songs(session), ladder_in_use(session)
        latest = songs.get(song_id).latest
        found = Versions(session).of_song(song_id)
        texts = {version.revision: songs.revision(song_id, version.revision).text for version in found}
        kept = KeptAnswers(session, CARD, program_mark()).every()
    cards, made = [], {}
    for version in found:
        key = digest(repr(replace(version, edits=())), str(len(version.edits)), ladder.content)
        if key not in kept:
            made[key] = worked_out(card_json, version, texts[version.revision], ladder.content)
        cards.append(api.VersionCard.model_validate_json(kept.get(key) or made[key]))
    if made:
        with current_database().session() as session:
            KeptAnswers(session, CARD, program_mark()).keep(made.items())
    return api.VersionList(versions=cards, parts=worked_out(offers_of, latest.text, ladder.content))


@blueprint.get("/versions/<int:version_id>")
@blueprint.input(GradeQuery, location="query", arg_name="query")
@blueprint.output(api.VersionModel)
def get_version(version_id: int, query: GradeQuery) -> Response:
    """A version beside its original, graded for whom it was written or for somebody else."""
    with current_database().reading() as session:
        stored = Versions(session).get(version_id)
        whom = whom_of(session, query) if query != GradeQuery() else None
    return shown(stored, whom)


@blueprint.put("/versions/<int:version_id>/choice")
@blueprint.input(api.ChoiceIn, arg_name="body")
@blueprint.output(api.VersionModel)
def choose_edits(version_id: int, body: api.ChoiceIn) -> Response:
    """Refuse exactly these edits; the version is fingered and graded anew. 409 if another choice came
    between."""
    with current_database().session() as session:
        stored = Versions(session).choose(version_id, body.based_on, tuple(body.refused))
    return shown(stored)


@blueprint.put("/versions/<int:version_id>/away")
@blueprint.input(AwayIn, arg_name="body")
@blueprint.output(api.VersionModel)
def put_version_away(version_id: int, body: AwayIn) -> Response:
    """Take a version out of sight, or bring it back; nothing of it is lost."""
    with current_database().session() as session:
        stored = Versions(session).put_away(version_id, body.away)
    return shown(stored)


@blueprint.post("/versions/<int:version_id>/carried")
@blueprint.output(api.VersionModel, status_code=201)
def carry_over(version_id: int) -> Response:
    """A version of the latest revision with the same edits; those that no longer find what they replace say
    so."""
    with current_database().reading() as session:
        old = Versions(session).get(version_id)
        latest = Songs(session).get(old.song_id).latest
    worked_out(check_part, latest.text, old.part_index)
    with current_database().session() as session:
        versions = Versions(session)
        old = versions.get(version_id)
        wish = digest("carried", f"{old.id} {old.choice} {len(old.edits)} {latest.number}")
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
                wish,
            )
        )
        stored = versions.choose(new.id, 0, old.refused) if old.refused and not new.choice else new
    return shown(stored, status=201)
