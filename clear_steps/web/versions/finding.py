"""Routes of ways: ask for them, see them, take one; and the set-ups that can be had."""

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.errors import InvalidValueError
from clear_steps.store import NotFoundError, Versions
from clear_steps.web.current import answered, current_database, current_workers
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import asked_part, asked_version
from clear_steps.web.versions.jobs import Found, Search
from clear_steps.web.versions.searching import FoundWays, found_ways, setups_json
from clear_steps.web.versions.stored import checked, job_model, running_jobs, shown

blueprint = APIBlueprint("ways", __name__, url_prefix="/api")


@blueprint.post("/songs/<int:song_id>/ways")
@blueprint.input(api.VersionIn, arg_name="body")
@blueprint.output(api.JobModel, status_code=202)
def ask_for_ways(song_id: int, body: api.VersionIn) -> api.JobModel:
    """Start the search for up to three ways to a target; none is stored until one is taken."""
    workers, asked = current_workers(), checked(asked_version(song_id, body))
    search = Search(lambda progress: workers.search(found_ways, asked, progress=progress), Found)
    return job_model(running_jobs().start(f"ways {asked.digest}", search))


def _found_ways(job_id: int) -> FoundWays:
    """The ways a search found; raises NotFoundError."""
    answer = running_jobs().get(job_id).answer
    if not isinstance(answer, FoundWays):
        raise NotFoundError(f"search {job_id} has no ways to choose from")
    return answer


@blueprint.get("/searches/<int:job_id>/ways")
@blueprint.output(api.WaysModel)
def get_ways(job_id: int) -> Response:
    """What a search for ways found."""
    return Response(_found_ways(job_id).model, mimetype="application/json")


@blueprint.post("/searches/<int:job_id>/taken")
@blueprint.input(api.TakeIn, arg_name="body")
@blueprint.output(api.VersionModel, status_code=201)
def take_way(job_id: int, body: api.TakeIn) -> Response:
    """Store one of the ways a search found as a version; taken again it is the same version."""
    found = _found_ways(job_id).versions
    if body.way >= len(found):
        raise InvalidValueError("way", body.way, f"0 to {len(found) - 1}")
    with current_database().session() as session:
        stored = Versions(session).add(found[body.way])
    return shown(stored, status=201)


@blueprint.get("/songs/<int:song_id>/setups")
@blueprint.input(api.SetupsQuery, location="query", arg_name="query")
@blueprint.output(api.SetupList)
def list_setups(song_id: int, query: api.SetupsQuery) -> Response:
    """Which tunings and capos a part of the latest revision could have instead; of one that is asked for,
    what could stay."""
    with current_database().reading() as session:
        asked = asked_part(session, song_id, query.part_index)
    return answered(setups_json, asked, query.tuning_and_capo)
