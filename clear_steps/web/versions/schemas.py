"""What the API takes and gives about easier versions."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from clear_steps.core.easier import Approach, SetupWish, TuningAndCapo
from clear_steps.core.score import MAX_CAPO
from clear_steps.formats.tabtext import tuning_said
from clear_steps.web.analysis.schemas import AnalysisModel, PartModel
from clear_steps.web.passages.ends import PassageEnds
from clear_steps.web.security import LARGEST_ID
from clear_steps.web.songs.schemas import ClimbModel

LayerName = Literal["", "melody", "bass", "strum", "melody+bass", "melody+strum", "bass+strum", "one guitar"]


class NamedSetup(BaseModel):
    """A tuning, as people say it, and a capo; none where no tuning is named."""

    tuning: str = Field("", max_length=100)
    capo: int = Field(0, ge=0, le=MAX_CAPO)

    @property
    def tuning_and_capo(self) -> TuningAndCapo | None:
        """The same to the core; raises InvalidValueError where there is no such tuning."""
        return TuningAndCapo(tuning_said(self.tuning), self.capo) if self.tuning.strip() else None


class VersionIn(NamedSetup):
    """Ask for an easier version of a part at a Step."""

    target: float = Field(ge=1, le=10)
    further_targets: list[Annotated[float, Field(ge=1, le=10)]] = Field([], max_length=8)  # of a staircase
    approach: Approach = Approach.SOUND
    layer: LayerName = ""
    setup: SetupWish = SetupWish.AS_WRITTEN
    with_parts: list[Annotated[int, Field(ge=0, le=50)]] | None = Field(None, max_length=50)
    fill_short_bars: bool = False
    keeping: int | None = Field(
        None, ge=1, le=LARGEST_ID
    )  # a version: what is refused of it is left alone, for its student
    student_id: int | None = Field(None, ge=1, le=LARGEST_ID)  # within whose limits, besides the Steps
    part_index: int = Field(0, ge=0, le=50)

    @property
    def chosen(self) -> frozenset[int] | None:
        """The parts that a layer may take from, besides its own."""
        return None if self.with_parts is None else frozenset(self.with_parts)


class JobModel(BaseModel):
    """A search under way: the share done, and the version once it is there."""

    id: int
    state: Literal["running", "finished", "stopped", "failed"]
    done: float
    version_id: int | None
    message: str


class WayModel(BaseModel):
    """One way to a target, not stored yet; its most changed bar as it is written and as it would be."""

    name: str
    sentence: str
    step: float
    reached: bool
    overall: float
    same_onsets: float
    still_the_tune: bool
    bar: int | None
    before: PartModel | None
    after: PartModel | None


class OtherwiseModel(BaseModel):
    """What meets the target without a note changed."""

    words: str
    step: float


class WaysModel(BaseModel):
    """Up to three ways, best first, and what needs no rewriting; `state` as of a search."""

    target: float
    ways: list[WayModel]
    otherwise: list[OtherwiseModel]


class TakeIn(BaseModel):
    """Take one of the ways that a search found."""

    way: int = Field(ge=0, le=2)


class EditModel(BaseModel):
    id: int
    kind: str
    does: str
    bars: list[int]
    reason: str
    effect: str
    loss: float
    builds_on: list[int]
    alike: int  # the first edit of the same change, as a teacher counts: a kind and section
    says: str  # to a student
    refused: bool
    refused_itself: bool  # not only because something it builds on is refused


class KeptModel(BaseModel):
    tune: float
    bass: float
    harmony: float
    rhythm: float
    overall: float
    same_onsets: float
    has_bass: bool  # without one its score is 100 and counts nothing
    still_the_tune: bool


class TriedModel(BaseModel):
    kind: str
    does: str
    step: float


class BlockingModel(BaseModel):
    bar: int
    measure: str
    step: float
    limit: str  # of the student, that it goes past
    tried: list[TriedModel]


class VersionCard(BaseModel):
    id: int
    target: float
    part_index: int
    revision: int
    edits: int
    refused: int
    approach: Approach
    layer: LayerName
    asked: str  # in words what was asked for
    student: str  # for whom it was written
    put_away: bool
    staircase: int | None
    step: float
    reached: bool
    overall: float
    same_onsets: float
    climb: ClimbModel


class SetupOfferModel(BaseModel):
    """A wish of tuning and capo that can be had, and where the result sits, in words."""

    wish: SetupWish
    sits: str


class SetupList(BaseModel):
    setups: list[SetupOfferModel]
    tunings: list[str]  # by name, that any part may be asked for in


class SetupsQuery(NamedSetup):
    """Which part of a song, and the tuning and capo it should have."""

    part_index: int = Field(0, ge=0, le=50)


class PartOffer(BaseModel):
    """A part of the latest revision, and what can be asked of it."""

    index: int
    name: str
    step: float
    tuning: str
    capo: int
    short_bars: list[int]  # their numbers
    carries_the_tune: bool  # of several guitars


class VersionList(BaseModel):
    versions: list[VersionCard]
    parts: list[PartOffer]


class ChoiceIn(BaseModel):
    """The edits refused, all of them, and the number of the choice that this one replaces."""

    based_on: int = Field(ge=0)
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
    layer: LayerName
    asked: str
    student: str
    put_away: bool
    choice: int  # the number of the latest choice of what is refused
    reached: bool
    kept: KeptModel
    kept_by_bar: list[float]
    edits: list[EditModel]
    blocking: list[BlockingModel]
    original: AnalysisModel
    version: AnalysisModel
    tab: str
    summary: list[str]
    harder: list[int]  # numbers of the bars that stand above the original's


class NoteIn(BaseModel):
    """A note of a version changed by hand: put on a string at a fret, or taken out; or its event halved, a
    rest after it."""

    event: int = Field(ge=0)
    string: int = Field(1, ge=1, le=8)
    fret: int | None = Field(None, ge=0, le=36)
    halve: bool = False


class BarsQuery(PassageEnds):
    """Bars of a version by index, from one to another, or some notes of them."""


class PartBarsQuery(BarsQuery):
    """Bars of a part of a song's latest revision."""

    part_index: int = Field(0, ge=0, le=50)


class AskedModel(BaseModel):
    """One change that applies to some bars, with the Steps it would give."""

    kind: str
    says: str
    step: float
    bar_step: float  # of the hardest of these bars


class AskedList(BaseModel):
    """What may be asked for, and the Steps as they stand."""

    step: float
    bar_step: float
    changes: list[AskedModel]


class AskIn(PassageEnds):
    """Ask for one of the changes that apply to some bars."""

    kind: str = Field(max_length=40)
    says: str = Field(max_length=300)


class AskOfPartIn(AskIn):
    """The same of a part of a song's latest revision."""

    part_index: int = Field(0, ge=0, le=50)


class BarTextModel(BaseModel):
    """One bar of a version as tab text, and by it a change by hand."""

    tab: str = Field(max_length=4000)
