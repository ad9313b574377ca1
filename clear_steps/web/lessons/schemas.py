"""What the API takes and gives about lessons."""

from typing import Annotated

from pydantic import BaseModel, Field

from clear_steps.core.teach.chunks import Layer
from clear_steps.core.teach.words import Language, Names
from clear_steps.store import SheetBlock
from clear_steps.store.chunkings import LONGEST_NAME, MOST_CHUNKS
from clear_steps.store.lesson_sheets import MOST_BESIDE
from clear_steps.web.analysis.schemas import MomentModel
from clear_steps.web.security import LARGEST_ID
from clear_steps.web.whom import GradeQuery


class LessonQuery(GradeQuery):
    """Whose lesson on which part, and in which words."""

    part_index: int = Field(0, ge=0, le=100)
    language: Language = Language.ENGLISH
    names: Names = Names.LETTERS


class SettingUpQuery(LessonQuery):
    """From one tuning to another, as people say them; empty: the guitar's own, and the part's."""

    tuned_to: str = Field("", max_length=100)
    to: str = Field("", max_length=100)


class OpenStringModel(BaseModel):
    """An open string as it shall sound: a name, and a MIDI number for a tone."""

    string: int
    name: str
    pitch: int
    turned: bool


class SettingModel(BaseModel):
    """A guitar made ready: `turns`: a sentence a string; `sounds`: how far the song is from the guitar as it
    is, empty where not all strings do alike."""

    tuning: str
    capo: int
    turns: list[str]
    own: str  # open strings of the guitar as it is, the thickest first
    record: str  # and of the song, over the capo
    capo_words: str
    sounds: str
    strings: list[OpenStringModel]


class SettingUpModel(BaseModel):
    """`fewer`: what sounds the same for fewer changes, if anything does; `cents`: of the recording."""

    tuned_to: str
    asked: SettingModel
    fewer: SettingModel | None
    cents: int
    cents_words: str
    tunings: list[str]  # that have a name, with as many strings


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
    beside: list[int]  # versions whose music stands under it
    with_original: bool


class SheetIn(BaseModel):
    """The same, and the save it was based on."""

    based_on: int
    student_id: int | None = Field(None, ge=1, le=LARGEST_ID)
    blocks: Annotated[list[SheetBlock], Field(max_length=len(SheetBlock))]
    off: Annotated[list[SheetBlock], Field(max_length=len(SheetBlock))]
    language: Language = Language.ENGLISH
    names: Names = Names.LETTERS
    version_id: int | None = Field(None, ge=1, le=LARGEST_ID)
    beside: Annotated[list[Annotated[int, Field(ge=1, le=LARGEST_ID)]], Field(max_length=MOST_BESIDE)] = []
    with_original: bool = False


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


class SpokenModel(MomentModel):
    """What is said of the notes that are struck at a moment, to be read while they sound."""

    words: str


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
    spoken: list[SpokenModel]


class LessonModel(BaseModel):
    """A part, or a version of it, as it is taught; `orders`: numbers of the chunks (from 0) in the orders of
    learning; `lost`: names of chunks whose notes are no longer in the song."""

    revision: int
    number: int
    proposed: bool  # nobody has cut it otherwise
    part_index: int
    chunks: list[ChunkModel]
    orders: dict[str, list[int]]
    lost: list[str]
    setting_up: list[str]  # from the student's tuning, or the usual one, a sentence a string
    hard: list[str]  # what makes it hard, in two sentences
    care: list[str]
    melody: list[int]  # strings of the two voices, both empty where it is one
    bass: list[int]
