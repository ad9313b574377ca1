"""Routes of groups: several players of one song, each with a version that fits."""

from dataclasses import asdict

from apiflask import APIBlueprint
from flask import Response
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.store import Group, Groups, NotFoundError, Songs, StoredGroup, Students, Versions
from clear_steps.web.current import answered, current_database, ladder_in_use, worked_out
from clear_steps.web.groups import schemas as api
from clear_steps.web.groups.proposal import proposed_seats
from clear_steps.web.groups.seats import Seated, group_json, parts_in
from clear_steps.web.songs.desk import latest_of
from clear_steps.web.versions.offered import Offered, offered_of

blueprint = APIBlueprint("groups", __name__, url_prefix="/api")


@blueprint.get("/songs/<int:song_id>/groups")
@blueprint.output(api.GroupList)
def list_groups(song_id: int) -> api.GroupList:
    """The groups of a song."""
    with current_database().reading() as session:
        Songs(session).get(song_id)
        found = Groups(session).of_song(song_id)
    return api.GroupList(
        groups=[
            api.GroupCard(id=each.id, name=each.group.name, who=[seat.who for seat in each.group.seats])
            for each in found
        ]
    )


@blueprint.get("/songs/<int:song_id>/groups/proposed")
@blueprint.output(api.GroupIn)
def propose_group(song_id: int) -> api.GroupIn:
    """A first group, each student within their limits; nothing is stored."""
    with current_database().reading() as session:
        songs, latest = Songs(session), Songs(session).get(song_id).latest
        versions = [each for each in Versions(session).of_song(song_id) if not each.put_away]
        offered = tuple(offered_of(songs, each) for each in versions)
        students = tuple(each for each in Students(session).every() if not each.student.put_away)
        ladder = ladder_in_use(session).content
    found = worked_out(proposed_seats, latest.text, offered, students, ladder)
    seats = [api.SeatIn(**asdict(seat)) for seat in found]
    return api.GroupIn(name=f"{latest.title[:60]} together", seats=seats)


@blueprint.post("/songs/<int:song_id>/groups")
@blueprint.input(api.GroupIn, arg_name="body")
@blueprint.output(api.GroupModel, status_code=201)
def add_group(song_id: int, body: api.GroupIn) -> Response:
    """Store a new group of a song."""
    parts = _parts_of(song_id)
    with current_database().session() as session:
        _check(session, song_id, body.group, parts)
        stored = Groups(session).add(song_id, body.group)
    return _shown(stored, 201)


@blueprint.get("/groups/<int:group_id>")
@blueprint.output(api.GroupModel)
def get_group(group_id: int) -> Response:
    """A group with what each of its players plays."""
    with current_database().reading() as session:
        stored = Groups(session).get(group_id)
    return _shown(stored)


@blueprint.put("/groups/<int:group_id>")
@blueprint.input(api.GroupChange, arg_name="body")
@blueprint.output(api.GroupModel)
def change_group(group_id: int, body: api.GroupChange) -> Response:
    """Save a group as a new revision; 409 if it is based on an old one."""
    with current_database().reading() as session:
        song_id = Groups(session).get(group_id).song_id
    parts = _parts_of(song_id)
    with current_database().session() as session:
        groups = Groups(session)
        _check(session, song_id, body.group, parts)
        stored = groups.save(group_id, body.based_on, body.group)
    return _shown(stored)


def _parts_of(song_id: int) -> int:
    """How many parts a song has; raises NotFoundError."""
    return worked_out(parts_in, latest_of(song_id).text)


def _check(session: Session, song_id: int, group: Group, parts: int) -> None:
    """Every seat plays something of this song; raises InvalidValueError."""
    own = {version.id for version in Versions(session).of_song(song_id)}
    known = {stored.id for stored in Students(session).every()}
    for seat in group.seats:
        if seat.student_id is not None and seat.student_id not in known:
            raise NotFoundError(f"there is no student {seat.student_id}")
        if seat.version_id is None and seat.part_index >= parts:
            raise InvalidValueError("part", seat.part_index, f"0 to {parts - 1}")
        if seat.version_id is not None and seat.version_id not in own:
            raise NotFoundError(f"this song has no version {seat.version_id}")


def _shown(stored: StoredGroup, status: int = 200) -> Response:
    """A group with what each plays, graded for them where they are known, else for whom it was written."""
    with current_database().reading() as session:
        songs, versions, students = Songs(session), Versions(session), Students(session)
        latest, ladder = songs.get(stored.song_id).latest, ladder_in_use(session).content
        rows = []
        for seat in stored.group.seats:
            offered = Offered(latest.text, part_index=seat.part_index)
            if seat.version_id is not None:
                offered = offered_of(songs, versions.get(seat.version_id))
            known = students.get(seat.student_id).student if seat.student_id is not None else None
            rows.append(Seated(seat, offered, known))
    return answered(group_json, stored, latest.text, tuple(rows), ladder, status=status)
