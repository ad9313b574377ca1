"""A song read and graded, as the screens show it.

Times within a bar are quarter notes as exact fractions in text (`3/2`), lengths on the neck mm,
times in seconds at the tempo asked for.
"""

from typing import Literal

from pydantic import BaseModel

from clear_steps.core.score import Role
from clear_steps.web.schemas import ProblemModel


class NoteModel(BaseModel):
    string: int
    fret: int
    pitch: int
    techniques: list[str]
    bend_half_tones: float | None
    bend_released: bool
    tied: bool
    finger: str | None
    finger_pinned: bool
    picking: str | None
    uncertain: bool
    optional: bool
    sounding_quarters: float
    words: str


class PressModel(BaseModel):
    finger: str
    string: int
    fret: int


class GripModel(BaseModel):
    position: int
    reach_mm: float
    presses: list[PressModel]
    helpers: list[PressModel]  # free fingers that lie behind a bending one and push with it


class LengthModel(BaseModel):
    """One head on the rhythm line: w h q e s t z, or nothing where no value spells the length."""

    value: str
    dots: int
    tuplet: int  # digit, 0 = none
    quarters: float


class ChangeModel(BaseModel):
    """How the hand comes to the shape that begins here."""

    sign: str  # `2, 3 stay, 0.6 s`
    words: str


class EventModel(BaseModel):
    onset: str
    onset_quarters: float
    count: str  # said aloud there, nothing where no word is at hand
    quarters: float
    lengths: list[LengthModel]  # tied to one another
    notes: list[NoteModel]
    chord: str
    recognised: str  # the shape that begins here, where no chord is written
    change: ChangeModel | None
    remark: str
    stroke: str | None
    uncertain: bool
    free: bool
    how: list[str]  # techniques of all its notes
    own_techniques: list[str]
    words_by_string: list[str]  # `PM on 6`, `stop 6, 5`
    dip: float | None  # half tones
    dynamic: str | None
    position: int | None  # pinned by the teacher: the fret the index finger covers
    grip: GripModel | None
    mark: Literal["", "changed", "gone"] = ""  # against the other side, where two are compared


class AddedModel(BaseModel):
    """What is added to a bar's Step after its measures."""

    words: str
    adds: float


class FindingModel(BaseModel):
    measure: str
    about: str
    step: float
    value: float | None
    unit: str
    onset: str | None
    strings: list[int]
    evidence: str
    adds: float  # to the bar's Step, put on those that are harder


class BarModel(BaseModel):
    index: int
    number: int
    line: int
    metre: str
    metre_changed: bool
    tempo: float | None
    quarters: float
    starts_at: float  # in its metre, quarters: more than 0 for a pickup
    beat_quarters: float
    groups: list[float]  # what is beamed together, quarters each
    repeat_start: bool
    repeat_times: int
    endings: list[int]
    double_bar: bool
    uncertain: bool
    same_bars: list[int]  # numbers of the others that are the same but for pinned fingers
    pinned_as: int | None  # number of the one whose pinned fingers it takes
    seconds: float
    start_seconds: float
    quarter_seconds: float
    step: float
    past_hand: bool
    hardest_measure: str
    findings: list[FindingModel]
    added: list[AddedModel]
    events: list[EventModel]


class SectionModel(BaseModel):
    name: str
    first_bar: int
    times: int | None


class PassageModel(BaseModel):
    """A section as it is played, so many times one after the other, from a bar (index) on."""

    name: str
    first_bar: int
    role: Role | None  # what it is for its player; none where it is silent
    role_said: bool  # by the teacher, not guessed
    sound: list[str]  # free words
    times: int
    counted: bool  # somebody has said how often
    seconds: float  # of all its times
    like: str  # the section it is as, but for the bars it changes (numbers)
    changed_bars: list[int]


class NeckModel(BaseModel):
    """Distances from the nut of frets 0, 1, 2 ... as counted from the capo, mm."""

    scale_length_mm: float
    frets_mm: list[float]
    string_letters: list[str]
    string_pitches: list[int]


class ReadingModel(BaseModel):
    """A reading of a bar (index); the one in use stands in the part."""

    bar: int
    name: str
    in_use: bool


class ShapeModel(BaseModel):
    """A chord shape by string, the thinnest first: fret (null = not sounded) and finger ("" = none)."""

    name: str
    frets: list[int | None]
    fingers: list[str]
    first_fret: int


class ShapePlaceModel(BaseModel):
    """Where a new shape comes: bar (index), event, and which of the part's shapes."""

    bar: int
    event: int
    shape: ShapeModel


class CautionModel(BaseModel):
    """What to take care of, and in which bars (indices); none: all through."""

    kind: str
    words: str
    bars: list[int]


class PastBarModel(BaseModel):
    index: int
    words: str  # by what, `stretch past a comfortable 75 mm`


class MomentModel(BaseModel):
    """Bar and event, both indices."""

    bar: int
    event: int


class FigurePlaceModel(BaseModel):
    """Where a figure comes, both notes included, and how it is like the first place."""

    first: MomentModel
    last: MomentModel
    like: str  # first, equal, moved, strings, octave, place, rhythm
    where: str  # `bars 5 to 6`
    words: str  # `two frets lower, but for beat 4`
    but: list[MomentModel]  # what differs


class FigureModel(BaseModel):
    """What comes several times (`times`: as played); on some `strings` alone where it is one voice."""

    times: int
    strings: list[int]
    within: bool  # every place lies within another figure's
    words: str
    places: list[FigurePlaceModel]


class RuleModel(BaseModel):
    first: MomentModel
    last: MomentModel
    where: str
    words: str  # `each bar two frets lower`


class ToLearnModel(BaseModel):
    """What there is to learn, beside the Step."""

    bars: float
    grips: int
    patterns: int
    sittings: int


class PartModel(BaseModel):
    name: str
    tuning: str
    capo: int
    instrument: str | None
    picking: str | None
    feel: str | None  # of the song: straight, swing, free
    neck: NeckModel
    sections: list[SectionModel]
    remarks: list[str]
    played: list[int]
    map: list[PassageModel]  # in played order
    map_problems: list[str]
    seconds: float  # as played
    step: float
    peak: float
    peak_bars: list[int]
    peak_share: float  # of the song's Step, as the typical bar's
    typical_share: float
    typical: float
    stamina: float
    to_learn: ToLearnModel
    plucked_unsaid: bool  # no hand is written, and the music asks for fingers
    hardest: str
    step_low: float
    step_high: float
    past_bars: list[PastBarModel]  # past the one it is graded for
    past_song: str  # its own Step past the one they are comfortable with, in words; empty where it is not
    within_reach: bool  # of the one it is graded for, by all that is known of them
    doubts: list[str]  # why the Step is a range
    sentences: list[str]  # what makes it hard, where, what is easier than it sounds
    figures: list[FigureModel]  # in the order they are met
    rules: list[RuleModel]
    guessed_ringing: list[str]  # what is taken to ring on unsaid
    rings_as_written: bool
    shapes: list[ShapeModel]  # each once
    shape_places: list[ShapePlaceModel]
    cautions: list[CautionModel]
    pins_not_kept: list[str]  # written fingers that no hand can take
    readings: list[ReadingModel]
    bars: list[BarModel]


class AnalysisModel(BaseModel):
    """A song read and graded: everything the Desk shows."""

    title: str
    whom: str  # as it stands in a sentence: `Mira`, `a medium hand`
    span_mm: float  # of their hand, from index to little finger
    marked_tempo: float
    tempo: float
    tempo_assumed: bool
    feel: str | None
    cents: int
    extra: list[list[str]]
    order: list[str]
    ladder: str
    guesses: list[ProblemModel]
    unknown_techniques: list[str]  # of the teacher's own naming, without a Step on the ladder
    parts: list[PartModel]
