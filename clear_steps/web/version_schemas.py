"""What the API takes and gives about easier versions."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from clear_steps.core.easier import Approach, SetupWish
from clear_steps.web.schemas import AnalysisModel, ClimbColumn


class VersionIn(BaseModel):
    """Ask for an easier version of a part at a Step."""

    target: float = Field(ge=1, le=10)
    further_targets: list[Annotated[float, Field(ge=1, le=10)]] = Field([], max_length=8)  # of a staircase
    approach: Approach = Approach.SOUND
    layer: Literal["", "melody", "bass", "strum"] = ""
    setup: SetupWish = SetupWish.AS_WRITTEN
    part_index: int = Field(0, ge=0, le=50)


class JobModel(BaseModel):
    """A search under way: the share done, and the version once it is there."""

    id: int
    state: Literal["running", "finished", "stopped", "failed"]
    done: float
    version_id: int | None
    message: str


class EditModel(BaseModel):
    id: int
    kind: str
    does: str
    bars: list[int]
    reason: str
    effect: str
    loss: float
    builds_on: list[int]
    refused: bool
    refused_itself: bool  # not only because something it builds on is refused


class KeptModel(BaseModel):
    tune: float
    bass: float
    harmony: float
    rhythm: float
    overall: float
    same_onsets: float
    still_the_tune: bool


class TriedModel(BaseModel):
    kind: str
    does: str
    step: float


class BlockingModel(BaseModel):
    bar: int
    measure: str
    step: float
    tried: list[TriedModel]


class VersionCard(BaseModel):
    id: int
    target: float
    part_index: int
    revision: int
    edits: int
    refused: int
    approach: Approach
    layer: str
    staircase: int | None
    step: float
    reached: bool
    overall: float
    same_onsets: float
    climb: list[ClimbColumn]


class VersionList(BaseModel):
    versions: list[VersionCard]


class ChoiceIn(BaseModel):
    """The edits refused, all of them."""

    refused: list[int] = Field(max_length=5000)


class VersionModel(BaseModel):
    """An easier version beside its original, bar by bar."""

    id: int
    song_id: int
    title: str
    revision: int
    latest_revision: int
    part_index: int
    target: float
    approach: Approach
    layer: str
    reached: bool
    kept: KeptModel
    edits: list[EditModel]
    blocking: list[BlockingModel]
    original: AnalysisModel
    version: AnalysisModel
    tab: str
    summary: list[str]


class BarTextModel(BaseModel):
    """One bar of a version as tab text, and by it a change by hand."""

    tab: str = Field(max_length=4000)
