"""What the API takes and gives about songs and their revisions."""

from datetime import datetime

from pydantic import BaseModel, Field

from clear_steps.formats.tabtext.lines import MAX_CHARACTERS
from clear_steps.web.analysis.schemas import AnalysisModel
from clear_steps.web.schemas import ProblemModel
from clear_steps.web.whom import GradeQuery


class TextIn(BaseModel):
    """Tab text to read; the hand and tempo to grade it for."""

    text: str = Field(max_length=4 * MAX_CHARACTERS)
    grade: GradeQuery = GradeQuery()


class NewSongIn(TextIn):
    """A song to store; `draft` names the page's draft, so that sent twice it is stored once."""

    draft: str | None = Field(None, max_length=64)


class RevisionIn(BaseModel):
    """A new text and the revision it was based on."""

    based_on: int
    text: str = Field(max_length=4 * MAX_CHARACTERS)


class AwayIn(BaseModel):
    """Put away, or bring back."""

    away: bool


class HeadingsModel(BaseModel):
    """What the header of a text says or was guessed to say, as it is written in header lines."""

    title: str
    title_guessed: bool
    tempo: str  # quarters a minute; empty where none is written
    tempo_guessed: bool
    time: str
    time_guessed: bool
    tuning: str
    tuning_guessed: bool
    capo: int


class PreviewModel(BaseModel):
    """What a text under the pen says so far: the analysis of what can be read of it, and what cannot."""

    analysis: AnalysisModel | None
    problems: list[ProblemModel]
    headings: HeadingsModel | None
    songs: list[str]  # titles, where there are several


class OwnStepModel(BaseModel):
    """The Step a teacher gives a part; none where it was taken back. `number` counts changes of mind."""

    part_index: int
    number: int
    step: float | None


class DeskModel(BaseModel):
    """A stored song at its latest revision, analysed; without its analysis while it is still worked out
    (`waiting`), or where `problem` says why there is none."""

    id: int
    revision: int
    saved_at: datetime
    text: str
    put_away: bool
    title: str
    waiting: bool
    problem: str
    own_steps: list[OwnStepModel]
    analysis: AnalysisModel | None


class ClimbModel(BaseModel):
    """A climb in short: a Step and a width in beats for every bar."""

    steps: list[float]
    beats: list[float]


class CardGrade(BaseModel):
    """What is graded of a song on the Songs screen."""

    step: float
    techniques: list[str]
    sections: list[str]
    tuning: str
    tempo: float
    tempo_assumed: bool
    bars: int
    parts: int
    climb: ClimbModel
    hardest: str


class CardModel(BaseModel):
    """A song on the Songs screen; no grade while it is still worked out, or where `problem` says why not."""

    id: int
    title: str
    revision: int
    own_step: float | None
    put_away: bool
    is_demo: bool  # put in by the program
    grade: CardGrade | None
    problem: str


class CardList(BaseModel):
    """Every song by title; `waiting` of them are still to be graded."""

    songs: list[CardModel]
    waiting: int


class RevisionModel(BaseModel):
    number: int
    title: str
    saved_at: datetime
    text: str


class RevisionList(BaseModel):
    revisions: list[RevisionModel]
