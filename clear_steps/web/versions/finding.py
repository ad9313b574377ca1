"""Routes of ways: ask for them, see them, take one; and the set-ups that can be had."""

from dataclasses import replace

from apiflask import APIBlueprint

from clear_steps.core.easier import Progress, possible_setups, ways, without_rewriting
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import TUNINGS
from clear_steps.store import NewVersion, NotFoundError, Versions
from clear_steps.web.current import current_database
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import asked_part, asked_version
from clear_steps.web.versions.comparing import FoundWays, ways_model
from clear_steps.web.versions.jobs import Found
from clear_steps.web.versions.stored import job_model, running_jobs, shown

blueprint = APIBlueprint("ways", __name__, url_prefix="/api")


@blueprint.post("/songs/<int:song_id>/ways")
@blueprint.input(api.VersionIn, arg_name="body")
@blueprint.output(api.JobModel, status_code=202)
def ask_for_ways(song_id: int, body: api.VersionIn) -> api.JobModel:
    """Start the search for up to three ways to a target; none is stored until one is taken."""
    asked = asked_version(song_id, body)
    of, wish = asked.of, replace(asked.wish, targets=(body.target,))

    def work(progress: Progress) -> Found:
        found = ways(of.song, of.part, of.ladder.ladder, wish, of.whom.request, progress)
        otherwise = without_rewriting(of.song, of.part, of.ladder.ladder, body.target, of.whom.request)
        return Found(FoundWays(body.target, found, otherwise, asked))

    return job_model(running_jobs().start(f"ways {asked.digest}", work))


def _found_ways(job_id: int) -> FoundWays:
    """The ways a search found; raises NotFoundError."""
    answer = running_jobs().get(job_id).answer
    if not isinstance(answer, FoundWays):
        raise NotFoundError(f"search {job_id} has no ways to choose from")
    return answer


@blueprint.get("/searches/<int:job_id>/ways")
@blueprint.output(api.WaysModel)
def get_ways(job_id: int) -> api.WaysModel:
    """What a search for ways found."""
    return ways_model(_found_ways(job_id))


@blueprint.post("/searches/<int:job_id>/taken")
@blueprint.input(api.TakeIn, arg_name="body")
@blueprint.output(api.VersionModel, status_code=201)
def take_way(job_id: int, body: api.TakeIn) -> api.VersionModel:
    """Store one of the ways a search found as a version; taken again it is the same version."""
    found = _found_ways(job_id)
    if body.way >= len(found.ways):
        raise InvalidValueError("way", body.way, f"0 to {len(found.ways) - 1}")
    way, asked = found.ways[body.way], found.asked
    own = way.easiest
    new = NewVersion(
        asked.song_id,
        asked.of.revision,
        asked.part_index,
        own.target,
        own.edits,
        own.blocking,
        way.wish.approach,
        way.wish.layer,
        asked.student,
        f"{asked.digest} way {body.way}",
    )
    with current_database().session() as session:
        stored = Versions(session).add(new)
    return shown(stored)


@blueprint.get("/songs/<int:song_id>/setups")
@blueprint.input(api.SetupsQuery, location="query", arg_name="query")
@blueprint.output(api.SetupList)
def list_setups(song_id: int, query: api.SetupsQuery) -> api.SetupList:
    """Which tunings and capos a part of the latest revision could have instead; of one that is asked for,
    what could stay."""
    with current_database().reading() as session:
        of = asked_part(session, song_id, query.part_index)
    offers = possible_setups(of.song, of.part, of.ladder.ladder, query.tuning_and_capo)
    strings = of.part.tuning.strings
    return api.SetupList(
        setups=[api.SetupOfferModel(wish=offer.wish, sits=offer.words) for offer in offers],
        tunings=[name for name, tuning in TUNINGS.items() if tuning.strings == strings],
    )
