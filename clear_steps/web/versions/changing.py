"""Routes of changes to a version: by hand, a bar or a note, and one change asked for."""

from collections.abc import Callable
from dataclasses import replace

from apiflask import APIBlueprint

from clear_steps.core.easier import (
    Approach,
    asked_edit,
    by_hand,
    halved,
    offers,
    set_note,
)
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import GradeRequest, Ladder, grade_part
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.core.score import Event, Part, Song
from clear_steps.formats.tabtext import read_tab, write_bars
from clear_steps.store import NewVersion, Songs, Versions, digest
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.program import program_mark
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import asked_part
from clear_steps.web.versions.comparing import (
    written_for,
)
from clear_steps.web.versions.stored import original_of, shown, standing_of

blueprint = APIBlueprint("changes", __name__, url_prefix="/api")


@blueprint.get("/versions/<int:version_id>/bars/<int:bar>")
@blueprint.output(api.BarTextModel)
def get_bar(version_id: int, bar: int) -> api.BarTextModel:
    """One bar (by index) of a version as tab text, to be changed by hand."""
    with current_database().reading() as session:
        part = standing_of(session, Versions(session).get(version_id))
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
        version = standing_of(session, stored)
    return _offered(read_cached(text).song, version, query, ladder, written_for(stored).request)


@blueprint.get("/songs/<int:song_id>/changes")
@blueprint.input(api.PartBarsQuery, location="query", arg_name="query")
@blueprint.output(api.AskedList)
def list_changes_of_song(song_id: int, query: api.PartBarsQuery) -> api.AskedList:
    """What one change may be asked for on some bars of the latest revision."""
    with current_database().reading() as session:
        of = asked_part(session, song_id, query.part_index)
    return _offered(of.song, of.part, query, of.ladder.ladder, of.whom.request)


def _offered(
    song: Song, part: Part, query: api.BarsQuery, ladder: Ladder, request: GradeRequest
) -> api.AskedList:
    bars = range(query.first, query.last + 1)
    found = offers(song, part, bars, ladder, request, query.notes(part))
    now = grade_part(song, part, ladder, request)
    return api.AskedList(
        step=now.step,
        bar_step=max(now.bars[index].step for index in bars),
        changes=[api.AskedModel.model_validate(own, from_attributes=True) for own in found],
    )


@blueprint.post("/songs/<int:song_id>/changes")
@blueprint.input(api.AskOfPartIn, arg_name="body")
@blueprint.output(api.VersionModel, status_code=201)
def ask_for_change_of_song(song_id: int, body: api.AskOfPartIn) -> api.VersionModel:
    """A version of the latest revision with one change on some bars, and nothing else."""
    with current_database().session() as session:
        of = asked_part(session, song_id, body.part_index)
        wanted, bars = (body.kind, body.says), range(body.first, body.last + 1)
        edit = asked_edit(
            of.song,
            of.part,
            (),
            (),
            wanted,
            bars,
            of.ladder.ladder,
            of.whom.request,
            body.notes(of.part),
        )
        wish = digest("one change", f"{song_id} {of.revision}", body.model_dump_json(), program_mark())
        new = NewVersion(
            song_id,
            of.revision,
            body.part_index,
            HARDEST_STEP,
            (edit,),
            (),
            Approach.SOUND,
            "",
            None,
            wish,
        )
        stored = Versions(session).add(new)
    return shown(stored)


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
            original_of(session, stored),
            stored.edits,
            stored.refused,
            (body.kind, body.says),
            range(body.first, body.last + 1),
            ladder,
            written_for(stored).request,
            body.notes(standing_of(session, stored)),
        )
        stored = versions.add_hand_edit(version_id, edit)
    return shown(stored)


def _changed_by_hand(
    version_id: int, bar: int, rewritten: Callable[[Part], tuple[Event, ...]]
) -> api.VersionModel:
    """A version with one bar (by index) rewritten as it stands now; raises InvalidValueError."""
    with current_database().session() as session:
        versions = Versions(session)
        stored = versions.get(version_id)
        version = standing_of(session, stored)
        if bar >= len(version.bars):
            raise InvalidValueError("bar", bar, f"0 to {len(version.bars) - 1}")
        edit = by_hand(original_of(session, stored), stored.edits, stored.refused, bar, rewritten(version))
        stored = versions.add_hand_edit(version_id, edit)
    return shown(stored)


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
