"""Routes of changes to a version: by hand, a bar or a note, and one change asked for."""

from collections.abc import Callable

from apiflask import APIBlueprint
from flask import Response

from clear_steps.core.easier import Approach, Edit
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.store import NewVersion, SavedAtOnceError, Songs, Versions, digest
from clear_steps.web.current import answered, current_database, ladder_in_use, worked_out
from clear_steps.web.program import program_mark
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import asked_part
from clear_steps.web.versions.rewriting import (
    bar_edit,
    bar_text,
    change_edit,
    change_edit_of_part,
    note_edit,
    offers_json,
    offers_of_part_json,
)
from clear_steps.web.versions.stored import shown

TRIES = 3  # at a change while others change the same version
blueprint = APIBlueprint("changes", __name__, url_prefix="/api")


@blueprint.get("/versions/<int:version_id>/bars/<int:bar>")
@blueprint.output(api.BarTextModel)
def get_bar(version_id: int, bar: int) -> api.BarTextModel:
    """One bar (by index) of a version as tab text, to be changed by hand."""
    with current_database().reading() as session:
        stored = Versions(session).get(version_id)
        text = Songs(session).revision(stored.song_id, stored.revision).text
    return api.BarTextModel(tab=worked_out(bar_text, stored, text, bar))


@blueprint.put("/versions/<int:version_id>/bars/<int:bar>")
@blueprint.input(api.BarTextModel, arg_name="body")
@blueprint.output(api.VersionModel)
def change_bar(version_id: int, bar: int, body: api.BarTextModel) -> Response:
    """Change a bar of a version by hand; it joins the list as an edit like any other."""
    return _with_edit(version_id, bar_edit, bar, body.tab)


@blueprint.put("/versions/<int:version_id>/bars/<int:bar>/note")
@blueprint.input(api.NoteIn, arg_name="body")
@blueprint.output(api.VersionModel)
def change_note(version_id: int, bar: int, body: api.NoteIn) -> Response:
    """Change, add or take out one note of a version by hand; it joins the list as an edit like any other."""
    return _with_edit(version_id, note_edit, bar, body)


@blueprint.get("/versions/<int:version_id>/changes")
@blueprint.input(api.BarsQuery, location="query", arg_name="query")
@blueprint.output(api.AskedList)
def list_changes(version_id: int, query: api.BarsQuery) -> Response:
    """What one change may be asked for on some bars of a version, each with the Step it would give."""
    with current_database().reading() as session:
        stored, ladder = Versions(session).get(version_id), ladder_in_use(session).content
        text = Songs(session).revision(stored.song_id, stored.revision).text
    return answered(offers_json, stored, text, ladder, query)


@blueprint.get("/songs/<int:song_id>/changes")
@blueprint.input(api.PartBarsQuery, location="query", arg_name="query")
@blueprint.output(api.AskedList)
def list_changes_of_song(song_id: int, query: api.PartBarsQuery) -> Response:
    """What one change may be asked for on some bars of the latest revision."""
    with current_database().reading() as session:
        asked = asked_part(session, song_id, query.part_index)
    return answered(offers_of_part_json, asked, query)


@blueprint.post("/songs/<int:song_id>/changes")
@blueprint.input(api.AskOfPartIn, arg_name="body")
@blueprint.output(api.VersionModel, status_code=201)
def ask_for_change_of_song(song_id: int, body: api.AskOfPartIn) -> Response:
    """A version of the latest revision with one change on some bars, and nothing else."""
    with current_database().reading() as session:
        asked = asked_part(session, song_id, body.part_index)
    edit = worked_out(change_edit_of_part, asked, body)
    new = NewVersion(
        song_id,
        asked.revision,
        body.part_index,
        HARDEST_STEP,
        (edit,),
        (),
        Approach.SOUND,
        wish=digest("one change", f"{song_id} {asked.revision}", body.model_dump_json(), program_mark()),
    )
    with current_database().session() as session:
        stored = Versions(session).add(new)
    return shown(stored, status=201)


@blueprint.post("/versions/<int:version_id>/changes")
@blueprint.input(api.AskIn, arg_name="body")
@blueprint.output(api.VersionModel)
def ask_for_change(version_id: int, body: api.AskIn) -> Response:
    """Make one change on some bars of a version; it joins the list as an edit like any other."""
    return _with_edit(version_id, change_edit, body)


def _with_edit(version_id: int, work: Callable[..., Edit], *values: object) -> Response:
    """A version with one edit more, worked out while others save; where they changed this very version
    meanwhile it is worked out again."""
    for _ in range(TRIES):
        with current_database().reading() as session:
            stored, ladder = Versions(session).get(version_id), ladder_in_use(session).content
            text = Songs(session).revision(stored.song_id, stored.revision).text
        edit = worked_out(work, stored, text, ladder, *values)
        with current_database().session() as session:
            versions = Versions(session)
            if versions.get(version_id) == stored:
                stored = versions.add_hand_edit(version_id, edit)
                break
    else:
        raise SavedAtOnceError("this version is being changed elsewhere; nothing was stored, try again")
    return shown(stored)
