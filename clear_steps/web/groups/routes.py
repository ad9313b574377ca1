"""Routes of groups: several players of one song, each with a version that fits."""

from dataclasses import asdict

from apiflask import APIBlueprint
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import grade_part
from clear_steps.store import Group, Groups, NotFoundError, Seat, Songs, StoredGroup, Students, Versions
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import current_database, ladder_in_use
from clear_steps.web.groups import schemas as api
from clear_steps.web.groups.proposal import proposed_seats
from clear_steps.web.versions.comparing import alone, asked_words, version_now, written_for
from clear_steps.web.whom import ANYBODY, whom_is

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
        title = Songs(session).get(song_id).latest.title
        seats = [api.SeatIn(**asdict(seat)) for seat in proposed_seats(session, song_id)]
    return api.GroupIn(name=f"{title[:60]} together", seats=seats)


@blueprint.post("/songs/<int:song_id>/groups")
@blueprint.input(api.GroupIn, arg_name="body")
@blueprint.output(api.GroupModel, status_code=201)
def add_group(song_id: int, body: api.GroupIn) -> api.GroupModel:
    """Store a new group of a song."""
    with current_database().session() as session:
        Songs(session).get(song_id)
        _check(session, song_id, body.group)
        stored = Groups(session).add(song_id, body.group)
    return _shown(stored)


@blueprint.get("/groups/<int:group_id>")
@blueprint.output(api.GroupModel)
def get_group(group_id: int) -> api.GroupModel:
    """A group with what each of its players plays."""
    with current_database().reading() as session:
        stored = Groups(session).get(group_id)
    return _shown(stored)


@blueprint.put("/groups/<int:group_id>")
@blueprint.input(api.GroupChange, arg_name="body")
@blueprint.output(api.GroupModel)
def change_group(group_id: int, body: api.GroupChange) -> api.GroupModel:
    """Save a group as a new revision; 409 if it is based on an old one."""
    with current_database().session() as session:
        groups = Groups(session)
        _check(session, groups.get(group_id).song_id, body.group)
        stored = groups.save(group_id, body.based_on, body.group)
    return _shown(stored)


def _check(session: Session, song_id: int, group: Group) -> None:
    """Every seat plays something of this song; raises InvalidValueError."""
    parts = read_cached(Songs(session).get(song_id).latest.text).song.parts
    own = {version.id for version in Versions(session).of_song(song_id)}
    known = {stored.id for stored in Students(session).every()}
    for seat in group.seats:
        if seat.student_id is not None and seat.student_id not in known:
            raise NotFoundError(f"there is no student {seat.student_id}")
        if seat.version_id is None and seat.part_index >= len(parts):
            raise InvalidValueError("part", seat.part_index, f"0 to {len(parts) - 1}")
        if seat.version_id is not None and seat.version_id not in own:
            raise NotFoundError(f"this song has no version {seat.version_id}")


def _shown(stored: StoredGroup) -> api.GroupModel:
    """A group with what each plays, graded; nothing else waits for that."""
    with current_database().reading() as session:
        return _group_model(session, stored)


def _group_model(session: Session, stored: StoredGroup) -> api.GroupModel:
    song = read_cached(Songs(session).get(stored.song_id).latest.text).song
    return api.GroupModel(
        id=stored.id,
        number=stored.number,
        song_id=stored.song_id,
        title=song.title or "Untitled",
        name=stored.group.name,
        marked_tempo=float(song.playing_tempo),
        feel=song.feel,
        seats=[_seat_model(session, stored.song_id, seat) for seat in stored.group.seats],
    )


def _seat_model(session: Session, song_id: int, seat: Seat) -> api.SeatModel:
    """What a player plays, graded for them where they are known, else for whom it was written."""
    songs, ladder = Songs(session), ladder_in_use(session)
    stored = Versions(session).get(seat.version_id) if seat.version_id is not None else None
    own = written_for(stored) if stored else ANYBODY
    whom = own if seat.student_id is None else whom_is(Students(session).get(seat.student_id).student)
    if stored is None:
        song = whom.on_their_guitar(read_cached(songs.get(song_id).latest.text).song)
        part = song.parts[min(seat.part_index, len(song.parts) - 1)]  # a later revision may have fewer
        grading = grade_part(song, part, ladder.ladder, whom.request)
        plays = f"the original{f', {part.name}' if part.name else ''}"
    else:
        song = whom.on_their_guitar(read_cached(songs.revision(song_id, stored.revision).text).song)
        now = version_now(stored, song, ladder.ladder, whom)
        part, grading, plays = now.version, now.grading, asked_words(stored)
    return api.SeatModel(
        who=seat.who,
        part_index=seat.part_index,
        version_id=seat.version_id,
        student_id=seat.student_id,
        plays=plays,
        whom=whom.name,
        step=grading.step,
        part=alone(song, part, grading, whom, ladder).parts[0],
    )
