"""The groups' repository: several players of one song, each with a version that fits; every save a
revision."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.plainjson import PlainJson
from clear_steps.store.clock import now
from clear_steps.store.models import GroupRevisionRow, GroupRow
from clear_steps.store.revised import Revised

MOST_SEATS = 12


@dataclass(frozen=True, slots=True)
class Seat:
    """One player of a group: who, and what is played: a version, or a part of the original where there is
    none."""

    who: str
    part_index: int = 0
    version_id: int | None = None
    student_id: int | None = None  # who it is, where they are known


@dataclass(frozen=True, slots=True)
class Group:
    """A group set of one song."""

    name: str
    seats: tuple[Seat, ...]

    def __post_init__(self) -> None:
        if not self.name.strip() or len(self.name) > 80:
            raise InvalidValueError("group's name", self.name, "1 to 80 letters")
        if not 1 <= len(self.seats) <= MOST_SEATS:
            raise InvalidValueError("group", f"{len(self.seats)} players", f"1 to {MOST_SEATS} players")


@dataclass(frozen=True, slots=True)
class StoredGroup:
    """A group at its latest revision."""

    id: int
    song_id: int
    number: int
    group: Group


_GROUP: PlainJson[Group] = PlainJson(Group)


class Groups:
    """Groups within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._revisions = Revised(session, GroupRevisionRow, _GROUP, "group")

    def of_song(self, song_id: int) -> list[StoredGroup]:
        """The groups of a song, oldest first."""
        rows = self._session.scalars(
            select(GroupRow).where(GroupRow.song_id == song_id).order_by(GroupRow.id)
        ).all()
        return [self._stored(row) for row in rows]

    def seating(self, student_id: int) -> list[StoredGroup]:
        """The groups, of whatever song, in which a student plays."""
        every = (self._stored(row) for row in self._session.scalars(select(GroupRow).order_by(GroupRow.id)))
        return [each for each in every if any(seat.student_id == student_id for seat in each.group.seats)]

    def get(self, group_id: int) -> StoredGroup:
        """One group; raises NotFoundError."""
        self._revisions.latest(group_id)
        return self._stored(self._session.get_one(GroupRow, group_id))

    def add(self, song_id: int, group: Group) -> StoredGroup:
        """Store a new group of a song."""
        row = GroupRow(song_id=song_id, created_at=now())
        self._session.add(row)
        self._session.flush()
        self._revisions.begin(row.id, group)
        return self._stored(row)

    def save(self, group_id: int, based_on: int, group: Group) -> StoredGroup:
        """Add a revision; raises NotFoundError or StaleRevisionError."""
        self._revisions.save(group_id, based_on, group)
        return self.get(group_id)

    def _stored(self, row: GroupRow) -> StoredGroup:
        latest = self._revisions.latest(row.id)
        return StoredGroup(row.id, row.song_id, latest.number, latest.value)
