"""What the API takes and gives about songs and their revisions."""

from datetime import datetime

from pydantic import BaseModel, Field

from clear_steps.formats.tabtext.lines import MAX_CHARACTERS
from clear_steps.web.analysis.schemas import AnalysisModel, ClimbColumn, GradeQuery
from clear_steps.web.schemas import ProblemModel


class TextIn(BaseModel):
    """Tab text to read; the hand and tempo to grade it for."""

    text: str = Field(max_length=4 * MAX_CHARACTERS)
    grade: GradeQuery = GradeQuery()


class RevisionIn(BaseModel):
    """A new text and the revision it was based on."""

    based_on: int
    text: str = Field(max_length=4 * MAX_CHARACTERS)


class PreviewModel(BaseModel):
    """What a text under the pen says so far: its analysis, or what keeps it from being read."""

    analysis: AnalysisModel | None
    problems: list[ProblemModel]


class DeskModel(BaseModel):
    """A stored song at its latest revision, analysed."""

    id: int
    revision: int
    saved_at: datetime
    text: str
    own_steps: list[float | None]  # the teacher's, by part
    analysis: AnalysisModel


class CardModel(BaseModel):
    """A song on the Songs screen."""

    id: int
    title: str
    revision: int
    step: float
    own_step: float | None
    techniques: list[str]
    sections: list[str]
    tuning: str
    tempo: float
    tempo_assumed: bool
    bars: int
    parts: int
    climb: list[ClimbColumn]
    hardest: str


class RevisionModel(BaseModel):
    number: int
    title: str
    saved_at: datetime
    text: str


class CardList(BaseModel):
    songs: list[CardModel]


class RevisionList(BaseModel):
    revisions: list[RevisionModel]
