"""What the API takes and gives about the library as a whole."""

from datetime import datetime

from pydantic import BaseModel, Field

from clear_steps.store.copies import CopyKind


class CopyModel(BaseModel):
    """A copy of everything that stands beside the database; `name` is what it is restored by."""

    name: str
    kind: CopyKind
    taken_at: datetime
    size_bytes: int


class LibraryModel(BaseModel):
    """Whether it is the demo's, where it is, how many songs it holds, and its copies, newest first."""

    is_demo: bool
    path: str
    songs: int
    copies: list[CopyModel]


class ContentsModel(BaseModel):
    """What is in a copy; `newest` is when a text was saved last."""

    name: str
    songs: int
    versions: int
    students: int
    newest: datetime | None


class CopyIn(BaseModel):
    """A copy by its name."""

    name: str = Field(max_length=200)


class KeptCopyModel(BaseModel):
    """The copy of what stood there, by which what was done is undone."""

    kept: str


class SeededModel(BaseModel):
    """How many demo songs were put in."""

    songs: int
