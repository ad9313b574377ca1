"""What the API takes and gives about lessons."""

from typing import Annotated

from pydantic import BaseModel, Field

from clear_steps.core.teach.chunks import Layer
from clear_steps.core.teach.words import Language, Names
from clear_steps.store import SheetBlock
from clear_steps.store.chunkings import LONGEST_NAME, MOST_CHUNKS
from clear_steps.web.analysis.schemas import MomentModel
from clear_steps.web.security import LARGEST_ID
from clear_steps.web.whom import GradeQuery


class LessonQuery(GradeQuery):
    """Whose lesson on which part, and in which words."""

    part_index: int = Field(0, ge=0, le=100)
    language: Language = Language.ENGLISH
    names: Names = Names.LETTERS


class ChunkStartIn(BaseModel):
    """A chunk by the first note that is struck in it: bar and event, both indexes."""

    bar: int = Field(ge=0, le=100_000)
    event: int = Field(ge=0, le=100_000)
    name: str = Field("", max_length=LONGEST_NAME)


class ChunksIn(BaseModel):
    """Where a part is cut, and the saves of the song and of the chunks that this was based on. No starts: as
    proposed."""

    based_on: int
    revision: int
    starts: Annotated[list[ChunkStartIn], Field(max_length=MOST_CHUNKS)]
    lesson: LessonQuery = LessonQuery()


class SheetModel(BaseModel):
    """What stands on the sheet, from the top: blocks in their order, those switched off too."""

    number: int
    blocks: list[SheetBlock]
    off: list[SheetBlock]
    language: Language
    names: Names
    version_id: int | None


class SheetIn(BaseModel):
    """The same, and the save it was based on."""

    based_on: int
    student_id: int | None = Field(None, ge=1, le=LARGEST_ID)
    blocks: Annotated[list[SheetBlock], Field(max_length=len(SheetBlock))]
    off: Annotated[list[SheetBlock], Field(max_length=len(SheetBlock))]
    language: Language = Language.ENGLISH
    names: Names = Names.LETTERS
    version_id: int | None = Field(None, ge=1, le=LARGEST_ID)


class SheetQuery(BaseModel):
    """For whom."""

    student_id: int | None = Field(None, ge=1, le=LARGEST_ID)


class StretchModel(BaseModel):
    """From one note to another, both included."""

    first: MomentModel
    last: MomentModel


class StretchIn(StretchModel):
    """Some notes of a part that are asked about."""

    lesson: LessonQuery = LessonQuery()


class ChunkModel(StretchModel):
    """A chunk. `tempo`: the percentage of the marked tempo to begin with, null where it is past the student
    at any; `like`: the chunk (from 0) that it is again."""

    name: str  # as the teacher gave it, or empty
    called: str
    where: str  # `beats 1 to 2 of bar 3`
    like: int | None
    step: float
    measure: str | None
    switch: StretchModel | None
    switch_step: float | None
    tempo: int | None
    layers: list[Layer]
    words: list[str]


class LessonModel(BaseModel):
    """A part as it is taught; `orders`: numbers of the chunks (from 0) in the orders of learning; `lost`:
    names of chunks whose notes are no longer in the song."""

    revision: int
    number: int
    part_index: int
    chunks: list[ChunkModel]
    orders: dict[str, list[int]]
    lost: list[str]
    setting_up: list[str]  # from the usual tuning of as many strings, a sentence a string
    melody: list[int]  # strings of the two voices, both empty where it is one
    bass: list[int]
