"""What the API takes and gives about ladders and the teacher's own Steps."""

from typing import Annotated

from pydantic import BaseModel, Field

from clear_steps.core.grade import TUNE_FLOOR, Modifier
from clear_steps.core.score import Technique
from clear_steps.web.security import LARGEST_ID


class CurveModel(BaseModel):
    """Points (raw value, Step), both rising."""

    curve: str
    unit: str = Field("", max_length=100)
    points: list[Annotated[list[float], Field(min_length=2, max_length=2)]] = Field(
        min_length=1, max_length=40
    )
    source: str = Field("", max_length=300)


class TechniqueStepModel(BaseModel):
    technique: Technique
    step: float = Field(ge=0, le=10)
    source: str = Field("", max_length=300)


class ModifierModel(BaseModel):
    """What makes a technique harder (or, below 0, easier), in Steps."""

    modifier: Modifier
    adds: float = Field(ge=-5, le=5)
    source: str = Field("", max_length=300)


class ShapeStepsModel(BaseModel):
    two_fingers: float = Field(ge=0, le=10)
    three_fingers: float = Field(ge=0, le=10)
    four_fingers: float = Field(ge=0, le=10)
    small_barre: float = Field(ge=0, le=10)
    full_barre_low: float = Field(ge=0, le=10)
    full_barre_high: float = Field(ge=0, le=10)
    thumb: float = Field(ge=0, le=10)
    source: str = Field("", max_length=300)


class OwnTechniqueModel(BaseModel):
    """A technique of the teacher's own, written `*name` on the how line."""

    name: str = Field(pattern=r"^[A-Za-z][A-Za-z0-9_]{0,23}$")
    step: float = Field(ge=0, le=10)


class StrumPatternModel(BaseModel):
    """What is struck in a bar, counted in the metre's unit (`1 2& 3`), by metre or for any (`*`)."""

    pattern: str = Field(min_length=1, max_length=60)
    says: str = Field(min_length=1, max_length=200)
    counts: dict[str, str]
    off_the_beat: bool = False
    source: str = Field("", max_length=300)


class ChordShapeModel(BaseModel):
    """An easier shape: `F xx3211`, and the chord it really is where it is a substitute."""

    shape: str = Field(pattern=r"^\S{1,12} [x0-9]{6}$")
    substitute: str = Field("", max_length=12)
    source: str = Field("", max_length=300)


class LadderModel(BaseModel):
    """A ladder, in the shape of a ladder file."""

    name: str = Field(min_length=1, max_length=80)
    curves: list[CurveModel]
    techniques: list[TechniqueStepModel]
    modifiers: list[ModifierModel] = []  # those that are missing are the shipped ladder's
    shapes: ShapeStepsModel
    own_techniques: list[OwnTechniqueModel] = []
    tune_floor: float = Field(
        TUNE_FLOOR, ge=0, le=100
    )  # per cent of the tune below which a version is no longer the tune
    strum_patterns: list[StrumPatternModel] | None = Field(None, max_length=60)  # none: those that ship
    chord_shapes: list[ChordShapeModel] | None = Field(None, max_length=400)


class RungMeasureModel(BaseModel):
    measure: str
    words: str


class RungModel(BaseModel):
    step: int
    measures: list[RungMeasureModel]


class LadderNameModel(BaseModel):
    id: int
    name: str
    in_use: bool


class LadderScreenModel(BaseModel):
    """The ladder in use (`id` none: the one that ships), in numbers and in words, and the others."""

    id: int | None
    revision: int
    ladder: LadderModel
    filled: list[str]  # the rows that it had not and the shipped one lent
    technique_names: dict[str, str]
    rungs: list[RungModel]
    ladders: list[LadderNameModel]


class LadderIn(BaseModel):
    """A ladder to store as a new one."""

    ladder: LadderModel


class LadderRevisionIn(BaseModel):
    """A new revision of a ladder, and the one it was based on."""

    based_on: int
    ladder: LadderModel


class LadderChoiceIn(BaseModel):
    """The ladder to grade by; none: the one that ships."""

    ladder_id: int | None = Field(ge=1, le=LARGEST_ID)


class SongEffectModel(BaseModel):
    """A song's Step by the ladder in use and by the one under the pen."""

    song_id: int
    title: str
    step: float
    step_then: float


class LadderPreviewModel(BaseModel):
    rungs: list[RungModel]
    songs: list[SongEffectModel]
    left_out: int  # songs that it was not tried on


class DifferenceModel(BaseModel):
    """A part's computed Step beside the teacher's own; `measure` is most likely behind the difference."""

    song_id: int
    part_index: int
    title: str
    computed: float
    own: float
    measure: str


class DifferenceList(BaseModel):
    differences: list[DifferenceModel]
    waiting: int  # are still worked out
    not_graded: list[str]  # songs that take too long, and why


class TechniqueModel(BaseModel):
    technique: str
    name: str
    sign: str
    writing: str
    hand: str
    harder: list[str]  # that nobody can do who cannot do this one
    step: float


class TechniqueSetModel(BaseModel):
    name: str
    techniques: list[str]


class TechniqueList(BaseModel):
    techniques: list[TechniqueModel]
    sets: list[TechniqueSetModel]  # what is learnt together
