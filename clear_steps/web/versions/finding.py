"""Routes of ways: ask for them, see them, take one; and the set-ups that can be had."""

from apiflask import APIBlueprint

from clear_steps.core.easier import (
    Progress,
    Wish,
    possible_setups,
    ways,
    without_rewriting,
)
from clear_steps.core.errors import InvalidValueError
from clear_steps.store import (
    NewVersion,
    NotFoundError,
    Songs,
    Versions,
    digest,
)
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.program import program_mark
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.comparing import (
    FoundWays,
    ways_model,
)
from clear_steps.web.versions.jobs import Found
from clear_steps.web.versions.stored import job_model, running_jobs, shown

blueprint = APIBlueprint("ways", __name__, url_prefix="/api")


@blueprint.post("/songs/<int:song_id>/ways")
@blueprint.input(api.VersionIn, arg_name="body")
@blueprint.output(api.JobModel, status_code=202)
def ask_for_ways(song_id: int, body: api.VersionIn) -> api.JobModel:
    """Start the search for up to three ways to a target; none is stored until one is taken."""
    database = current_database()
    with database.reading() as session:
        latest = Songs(session).get(song_id).latest
        ladder = ladder_in_use(session)
    song = read_cached(latest.text).song
    if body.part_index >= len(song.parts):
        raise InvalidValueError("part", body.part_index, f"0 to {len(song.parts) - 1}")
    part = song.parts[body.part_index]
    wish = Wish((body.target,), body.approach, body.layer, body.setup, None, body.fill_short_bars)
    asked = digest(
        "ways", f"{song_id} {latest.number}", body.model_dump_json(), ladder.content, program_mark()
    )

    def work(progress: Progress) -> Found:
        found = ways(song, part, ladder.ladder, wish, progress=progress)
        otherwise = without_rewriting(song, part, ladder.ladder, body.target)
        return Found(
            FoundWays(body.target, found, otherwise, song, body.part_index, song_id, latest.number, asked)
        )

    return job_model(running_jobs().start(asked, work))


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
    with current_database().reading() as session:
        ladder = ladder_in_use(session)
    return ways_model(_found_ways(job_id), ladder)


@blueprint.post("/searches/<int:job_id>/taken")
@blueprint.input(api.TakeIn, arg_name="body")
@blueprint.output(api.VersionModel, status_code=201)
def take_way(job_id: int, body: api.TakeIn) -> api.VersionModel:
    """Store one of the ways a search found as a version; taken again it is the same version."""
    found = _found_ways(job_id)
    if body.way >= len(found.ways):
        raise InvalidValueError("way", body.way, f"0 to {len(found.ways) - 1}")
    way = found.ways[body.way]
    own = way.easiest
    new = NewVersion(
        found.song_id,
        found.revision,
        found.part_index,
        own.target,
        own.edits,
        own.blocking,
        way.wish.approach,
        way.wish.layer,
        None,
        f"{found.asked} {body.way}",
    )
    with current_database().session() as session:
        stored = Versions(session).add(new)
    return shown(stored)


@blueprint.get("/songs/<int:song_id>/setups")
@blueprint.input(api.PartQuery, location="query", arg_name="query")
@blueprint.output(api.SetupList)
def list_setups(song_id: int, query: api.PartQuery) -> api.SetupList:
    """Which tunings and capos a part of the latest revision could have instead."""
    with current_database().reading() as session:
        latest, ladder = Songs(session).get(song_id).latest, ladder_in_use(session).ladder
    song = read_cached(latest.text).song
    if query.part_index >= len(song.parts):
        raise InvalidValueError("part", query.part_index, f"0 to {len(song.parts) - 1}")
    offers = possible_setups(song, song.parts[query.part_index], ladder)
    return api.SetupList(setups=[api.SetupOfferModel(wish=offer.wish, sits=offer.words) for offer in offers])
