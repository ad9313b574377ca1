"""What the API takes and gives about groups."""

from typing import Annotated

from pydantic import BaseModel, Field

from clear_steps.store import MOST_SEATS, Group, Seat
from clear_steps.web.analysis.schemas import PartModel
from clear_steps.web.security import LARGEST_ID


class SeatIn(BaseModel):
    """Who plays, and what: a version, or a part of the original."""

    who: str = Field(max_length=80)
    part_index: int = Field(0, ge=0, le=50)
    version_id: int | None = Field(None, ge=1, le=LARGEST_ID)
    student_id: int | None = Field(None, ge=1, le=LARGEST_ID)


class GroupIn(BaseModel):
    """A group set of a song."""

    name: str = Field(max_length=80)
    seats: Annotated[list[SeatIn], Field(min_length=1, max_length=MOST_SEATS)]

    @property
    def group(self) -> Group:
        """The same for the store; raises InvalidValueError."""
        return Group(
            self.name,
            tuple(Seat(seat.who, seat.part_index, seat.version_id, seat.student_id) for seat in self.seats),
        )


class GroupChange(GroupIn):
    """A group changed, and the revision the change was based on."""

    based_on: int


class SeatModel(SeatIn):
    """A seat with what it plays: in words, its Step, and note by note."""

    plays: str
    whom: str  # for whom the Step is
    step: float
    part: PartModel


class GroupModel(BaseModel):
    id: int
    number: int
    song_id: int
    title: str
    name: str
    marked_tempo: float
    feel: str | None
    seats: list[SeatModel]


class GroupCard(BaseModel):
    id: int
    name: str
    who: list[str]


class GroupList(BaseModel):
    groups: list[GroupCard]
