"""What the API takes and gives about one place in a song, and about files."""

from pydantic import BaseModel, Field

from clear_steps.core.score import Finger, Role
from clear_steps.core.score.tuning import MAX_STRINGS
from clear_steps.web.passages.ends import PassageEnds
from clear_steps.web.whom import GradeQuery


class PassageIn(PassageEnds):
    """A passage of a part."""

    part_index: int = Field(0, ge=0, le=50)
    grade: GradeQuery = GradeQuery()


class AlternativeModel(BaseModel):
    """A way to play a passage; `text` is the whole song with it pinned, ready to be saved."""

    title: str
    sentence: str
    step: float
    song_step: float
    widest_mm: float
    moves: int
    travel_mm: float
    strings: list[int]
    stops_ringing: int
    tab: str  # the passage alone
    text: str


class AlternativeList(BaseModel):
    revision: int
    schools_agree: bool
    nothing_easier: bool  # than as written
    alternatives: list[AlternativeModel]


class RingingIn(BaseModel):
    """Whether only what is written rings on in a part, and the revision it was asked of."""

    based_on: int = Field(ge=0)
    part_index: int = Field(0, ge=0, le=50)
    as_written: bool


class OrderIn(BaseModel):
    """Sections as they are played, `Verse x2, Chorus`; empty: as they are written."""

    based_on: int = Field(ge=0)
    order: str = Field(max_length=2000)


class RoleIn(BaseModel):
    """What the section that begins at a bar (index) is for its player; none: as it is guessed."""

    based_on: int = Field(ge=0)
    part_index: int = Field(0, ge=0, le=50)
    first_bar: int = Field(ge=0)
    role: Role | None


class FingerIn(BaseModel):
    """A finger for one note of a part, or none for the one that is found; bar and event by index."""

    based_on: int = Field(ge=0)
    part_index: int = Field(0, ge=0, le=50)
    bar: int = Field(ge=0)
    event: int = Field(ge=0)
    string: int = Field(ge=1, le=MAX_STRINGS)
    finger: Finger | None = None
    grade: GradeQuery = GradeQuery()


class NameIn(BaseModel):
    """The name of what is held from an event on (bar and event by index): a chord, `N.C.` for nothing, or
    empty for what is seen by itself."""

    based_on: int = Field(ge=0)
    part_index: int = Field(0, ge=0, le=50)
    bar: int = Field(ge=0)
    event: int = Field(ge=0)
    name: str = Field(max_length=16)


class ReadingIn(BaseModel):
    """A reading of a bar (index) to begin or to put in use, and the revision it was asked of."""

    based_on: int
    part_index: int = Field(0, ge=0, le=50)
    bar: int = Field(ge=0)
    name: str = Field(max_length=60)


class TempoIn(BaseModel):
    """A tempo that was tapped in, quarters a minute."""

    based_on: int
    tempo: int = Field(ge=10, le=400)


class OwnStepIn(BaseModel):
    """The teacher's own Step of a part; none takes it back. `based_on` is the number of the one it
    replaces."""

    based_on: int = Field(ge=0)
    part_index: int = Field(0, ge=0, le=50)
    step: float | None = Field(ge=1, le=10)
