"""Routes of easier versions: ask, follow, compare, choose, carry over."""

from collections.abc import Callable
from dataclasses import replace

from apiflask import APIBlueprint
from flask import current_app
from sqlalchemy.orm import Session

from clear_steps.core.easier import (
    Easier,
    Progress,
    Wish,
    asked_edit,
    by_hand,
    halved,
    offers,
    possible_setups,
    set_note,
    staircase,
    version_of,
    ways,
    without_rewriting,
)
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import grade_part
from clear_steps.core.score import Event, Part
from clear_steps.formats.tabtext import read_tab, write_bars
from clear_steps.store import (
    KeptAnswers,
    NewVersion,
    NotFoundError,
    Songs,
    StoredVersion,
    Students,
    Versions,
    digest,
)
from clear_steps.store.students import student_json
from clear_steps.web.analysis.shown import graded, read_cached
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.program import program_mark
from clear_steps.web.songs.schemas import AwayIn
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.comparing import (
    FoundWays,
    part_offers,
    version_card,
    version_model,
    ways_model,
    written_for,
)
from clear_steps.web.versions.jobs import Found, Job, Jobs
from clear_steps.web.whom import ANYBODY, GradeQuery, Whom, whom_is, whom_of

blueprint = APIBlueprint("versions", __name__, url_prefix="/api")
CARD = "version card"


def _jobs() -> Jobs:
    jobs: Jobs = current_app.extensions["clear_steps_jobs"]
    return jobs


def _job_model(job: Job) -> api.JobModel:
    return api.JobModel.model_validate(job, from_attributes=True)


@blueprint.post("/songs/<int:song_id>/versions")
@blueprint.input(api.VersionIn, arg_name="body")
@blueprint.output(api.JobModel, status_code=202)
def ask_for_version(song_id: int, body: api.VersionIn) -> api.JobModel:
    """Start the search for an easier version of the latest revision; asked for again, it is the same
    version."""
    database = current_database()
    with database.reading() as session:
        latest = Songs(session).get(song_id).latest
        ladder = ladder_in_use(session)
        student = Students(session).get(body.student_id).student if body.student_id is not None else None
    whom = whom_is(student) if student else ANYBODY
    song = whom.on_their_guitar(read_cached(latest.text).song)
    if body.part_index >= len(song.parts):
        raise InvalidValueError("part", body.part_index, f"0 to {len(song.parts) - 1}")

    limits = student.limits if student else None
    targets = (body.target, *body.further_targets)
    wish = Wish(targets, body.approach, body.layer, body.setup, limits, body.fill_short_bars)
    asked = digest(
        f"{song_id} {latest.number}",
        body.model_dump_json(),
        student_json(student),
        ladder.content,
        program_mark(),
    )

    def new(step: Easier) -> NewVersion:
        return NewVersion(
            song_id,
            latest.number,
            body.part_index,
            step.target,
            step.edits,
            step.blocking,
            body.approach,
            body.layer,
            student,
            f"{asked} {step.target:g}",
        )

    def work(progress: Progress) -> int:
        with database.reading() as session:
            there = [Versions(session).of_wish(f"{asked} {target:g}") for target in targets]
        known = [version for version in there if version is not None]
        if len(known) == len(targets):
            with database.session() as session:
                return _easiest([Versions(session).put_away(version.id, False) for version in known])
        found = staircase(song, song.parts[body.part_index], ladder.ladder, wish, whom.request, progress)
        with database.session() as session:
            return _easiest(Versions(session).add_together([new(step) for step in reversed(found)]))

    return _job_model(_jobs().start(asked, work))


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

    return _job_model(_jobs().start(asked, work))


def _found_ways(job_id: int) -> FoundWays:
    """The ways a search found; raises NotFoundError."""
    answer = _jobs().get(job_id).answer
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
    return _shown(stored)


def _easiest(versions: list[StoredVersion]) -> int:
    return min(versions, key=lambda version: version.target).id


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
        if key in kept:
            cards.append(api.VersionCard.model_validate_json(kept[key]))
        else:
            cards.append(version_card(version, texts[version.revision], ladder))
            made[key] = cards[-1].model_dump_json()
    if made:
        with current_database().session() as session:
            KeptAnswers(session, CARD, program_mark()).keep(made.items())
    return api.VersionList(versions=cards, parts=part_offers(graded(latest.text, ANYBODY, ladder)))


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


@blueprint.get("/versions/<int:version_id>")
@blueprint.input(GradeQuery, location="query", arg_name="query")
@blueprint.output(api.VersionModel)
def get_version(version_id: int, query: GradeQuery) -> api.VersionModel:
    """A version beside its original, graded for whom it was written or for somebody else."""
    with current_database().reading() as session:
        stored = Versions(session).get(version_id)
        whom = whom_of(session, query) if query != GradeQuery() else None
    return _shown(stored, whom)


@blueprint.put("/versions/<int:version_id>/choice")
@blueprint.input(api.ChoiceIn, arg_name="body")
@blueprint.output(api.VersionModel)
def choose_edits(version_id: int, body: api.ChoiceIn) -> api.VersionModel:
    """Refuse exactly these edits; the version is fingered and graded anew. 409 if another choice came
    between."""
    with current_database().session() as session:
        stored = Versions(session).choose(version_id, body.based_on, tuple(body.refused))
    return _shown(stored)


@blueprint.put("/versions/<int:version_id>/away")
@blueprint.input(AwayIn, arg_name="body")
@blueprint.output(api.VersionModel)
def put_version_away(version_id: int, body: AwayIn) -> api.VersionModel:
    """Take a version out of sight, or bring it back; nothing of it is lost."""
    with current_database().session() as session:
        stored = Versions(session).put_away(version_id, body.away)
    return _shown(stored)


@blueprint.get("/versions/<int:version_id>/bars/<int:bar>")
@blueprint.output(api.BarTextModel)
def get_bar(version_id: int, bar: int) -> api.BarTextModel:
    """One bar (by index) of a version as tab text, to be changed by hand."""
    with current_database().reading() as session:
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


@blueprint.get("/versions/<int:version_id>/changes")
@blueprint.input(api.BarsQuery, location="query", arg_name="query")
@blueprint.output(api.AskedList)
def list_changes(version_id: int, query: api.BarsQuery) -> api.AskedList:
    """What one change may be asked for on some bars of a version, each with the Step it would give."""
    with current_database().reading() as session:
        stored, ladder = Versions(session).get(version_id), ladder_in_use(session).ladder
        text = Songs(session).revision(stored.song_id, stored.revision).text
        version = _standing(session, stored)
    song, request = read_cached(text).song, written_for(stored).request
    bars = range(query.first, query.last + 1)
    found = offers(song, version, bars, ladder, request)
    now = grade_part(song, version, ladder, request)
    return api.AskedList(
        step=now.step,
        bar_step=max(now.bars[index].step for index in bars),
        changes=[api.AskedModel.model_validate(own, from_attributes=True) for own in found],
    )


@blueprint.post("/versions/<int:version_id>/changes")
@blueprint.input(api.AskIn, arg_name="body")
@blueprint.output(api.VersionModel)
def ask_for_change(version_id: int, body: api.AskIn) -> api.VersionModel:
    """Make one change on some bars of a version; it joins the list as an edit like any other."""
    with current_database().session() as session:
        versions, ladder = Versions(session), ladder_in_use(session).ladder
        stored = versions.get(version_id)
        song = read_cached(Songs(session).revision(stored.song_id, stored.revision).text).song
        edit = asked_edit(
            song,
            _original(session, stored),
            stored.edits,
            stored.refused,
            (body.kind, body.says),
            range(body.first, body.last + 1),
            ladder,
            written_for(stored).request,
        )
        stored = versions.add_hand_edit(version_id, edit)
    return _shown(stored)


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
        stored = versions.add_hand_edit(version_id, edit)
    return _shown(stored)


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
    return _shown(stored)


def _shown(stored: StoredVersion, whom: Whom | None = None) -> api.VersionModel:
    with current_database().reading() as session:
        songs, ladder = Songs(session), ladder_in_use(session)
        text = songs.revision(stored.song_id, stored.revision).text
        latest = songs.get(stored.song_id).latest.number
    return version_model(stored, text, latest, ladder, whom or written_for(stored))
