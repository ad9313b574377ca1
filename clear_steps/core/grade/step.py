"""From measures to a Step: bars, peak, typical, song."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from clear_steps.core.grade.finding import Finding
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures import MEASURES, Measure
from clear_steps.core.grade.measures.stretch import past_this_hand
from clear_steps.core.grade.played import Performance, PlayedBar
from clear_steps.core.grade.songwide import memory, stamina
from clear_steps.core.hand import HARDEST_STEP, PRESET_SPANS_MM, SCHOOLS, Grip, HandTables, Neck, PathCosts, Player, School, best_paths, demands_of
from clear_steps.core.score import Part, Song, played_order
from clear_steps.core.score.ringing import ringing_notes
from clear_steps.core.score.timing import BarTime, bar_times

EASIEST_STEP = 1.0
_POWER = 6


class Weighing(StrEnum):
    """Two schools of weighing, and the balance between: the hardest passage, or the whole song."""

    HARDEST = "hardest"
    BALANCED = "balanced"
    WHOLE = "whole"


# Shares of peak and typical in the song's base Step.
WEIGHINGS: dict[Weighing, tuple[float, float]] = {
    Weighing.HARDEST: (1.0, 0.0),
    Weighing.BALANCED: (0.6, 0.4),
    Weighing.WHOLE: (0.2, 0.8),
}


@dataclass(frozen=True, slots=True)
class GradeRequest:
    """For whom and how to grade; a practice tempo (quarters a minute) only re-times the fingering."""

    player: Player = Player()
    school: School = School.BALANCED
    weighing: Weighing = Weighing.BALANCED
    practice_tempo: Fraction | None = None
    hands: tuple[str, ...] = tuple(PRESET_SPANS_MM)  # preset hands whose fingerings are candidates


@dataclass(frozen=True, slots=True)
class BarGrade:
    """A written bar's Step and its measures by name."""

    index: int
    number: int
    step: float
    findings: dict[str, Finding]
    past_hand: bool

    @property
    def hardest_measure(self) -> str:
        """The measure that makes the bar hard."""
        return max(self.findings, key=lambda name: self.findings[name].step)


@dataclass(frozen=True, slots=True)
class Grading:
    """A part's grade, the fingering it rests on, and the tempo it holds for."""

    ladder: str
    tempo: Fraction
    tempo_assumed: bool
    step: float
    peak: float
    peak_bars: tuple[int, ...]  # indexes of the one or two bars behind the peak
    typical: float
    memory: float
    stamina: float
    bars: tuple[BarGrade, ...]
    grips: dict[tuple[int, int], Grip]  # (bar index, event index) -> grip


def grade_song(song: Song, ladder: Ladder, request: GradeRequest = GradeRequest()) -> tuple[Grading, ...]:
    """One grading a part, in order."""
    return tuple(grade_part(song, part, ladder, request) for part in song.parts)


def hand_tables(part: Part, ladder: Ladder, request: GradeRequest) -> HandTables:
    """Tables for the request's hands on the part's instrument, to share between gradings of its versions."""
    costs = PathCosts(ladder.curves["stretch"], ladder.curves["shift"], ladder.shapes, SCHOOLS[request.school])
    spans_mm = [PRESET_SPANS_MM[hand] for hand in request.hands]
    return HandTables(Neck(part.scale_length_mm, part.capo), part.tuning.strings, spans_mm, costs)


def grade_part(song: Song, part: Part, ladder: Ladder, request: GradeRequest = GradeRequest(), tables: HandTables | None = None) -> Grading:
    """Grade one part; `tables` as made by `hand_tables` for the same instrument, ladder and request.

    The fingering is chosen at the marked tempo, once for every preset hand; of these the one with
    the lowest song Step for the player is used. So slower never grades harder, nor does a longer span.
    """
    marked = song.playing_tempo
    times = bar_times(part, marked)
    ringing = ringing_notes(part)
    demands = demands_of(part, times, ringing)
    paths = best_paths(demands, tables or hand_tables(part, ladder, request))
    candidates = list({tuple(map(id, path.grips)): path.grips for path in paths}.values())
    grader = _Grader(song, part, ladder, request, Performance(part, demands, ringing))
    gradings = [grader.grade(grips, marked) for grips in candidates]
    chosen = min(range(len(gradings)), key=lambda index: gradings[index].step)
    tempo = request.practice_tempo or marked
    return gradings[chosen] if tempo == marked else grader.grade(candidates[chosen], tempo)


class _Grader:
    """Grades one part with one fingering after another; a bar with the same grips is judged once."""

    def __init__(self, song: Song, part: Part, ladder: Ladder, request: GradeRequest, performance: Performance) -> None:
        self._song, self._part, self._ladder, self._request = song, part, ladder, request
        self._order = played_order(part, song.order)
        self._performance = performance
        self._times: dict[Fraction, tuple[BarTime, ...]] = {}
        self._memory = memory(part.bars, sorted({index for index in self._order if not part.bars[index].silent}))
        self._judged: dict[int, BarGrade] = {}
        self._of_the_score: dict[tuple[object, ...], Finding] = {}

    def grade(self, grips: Sequence[Grip], tempo: Fraction) -> Grading:
        """The whole grade for one fingering at a tempo."""
        if tempo not in self._times:
            self._times[tempo] = bar_times(self._part, self._song.playing_tempo, tempo)
        bars = self._performance.bars(self._times[tempo], grips, self._request.player.span_mm)
        graded = tuple(self._bar(bar, tempo) for bar in bars)
        sounding = [index for index in self._order if bars[index].moments]
        peak, peak_bars = _peak([graded[index].step for index in sounding], sounding)
        typical = _cubic_mean([graded[index].step for index in sounding], [bars[index].beats for index in sounding])
        peak_share, typical_share = WEIGHINGS[self._request.weighing]
        lasting = stamina(bars, self._order, self._ladder)
        step = min(peak_share * peak + typical_share * typical + self._memory + lasting, HARDEST_STEP)
        fingering = {(demand.bar, demand.event): grip for demand, grip in zip(self._performance.demands, grips, strict=True)}
        assumed = self._song.tempo_is_assumed
        return Grading(self._ladder.name, tempo, assumed, step, peak, peak_bars, typical, self._memory, lasting, graded, fingering)

    def _bar(self, bar: PlayedBar, tempo: Fraction) -> BarGrade:
        key = id(bar)  # the performance holds its bars, and gives the same one for the same grips
        if key not in self._judged:
            findings = {name: self._finding(measure, bar, tempo) for name, measure in MEASURES.items()}
            self._judged[key] = _bar_grade(bar, findings, self._request.player)
        return self._judged[key]

    def _finding(self, measure: Measure, bar: PlayedBar, tempo: Fraction) -> Finding:
        if not measure.of_the_score:
            return measure.judge(bar, self._ladder)
        key = (tempo, bar.index, measure.name)
        if key not in self._of_the_score:
            self._of_the_score[key] = measure.judge(bar, self._ladder)
        return self._of_the_score[key]


def _bar_grade(bar: PlayedBar, findings: dict[str, Finding], player: Player) -> BarGrade:
    norm = float(sum(finding.step**_POWER for finding in findings.values()) ** (1 / _POWER))
    past = past_this_hand(bar, player.reach_mm)
    step = HARDEST_STEP if past else min(max(norm, EASIEST_STEP), HARDEST_STEP)
    return BarGrade(bar.index, bar.number, step, findings, past)


def base_and_memory(song: Song, part: Part, steps: Sequence[float], weighing: Weighing) -> float:
    """What bars of these Steps (by index) make of the song: peak and typical as weighed, and memory on top."""
    sounding = [index for index in played_order(part, song.order) if not part.bars[index].silent]
    beats = [float(part.bars[index].quarters / part.bars[index].metre.beat_quarters) for index in sounding]
    played = [steps[index] for index in sounding]
    peak_share, typical_share = WEIGHINGS[weighing]
    return peak_share * _peak(played, sounding)[0] + typical_share * _cubic_mean(played, beats) + memory(part.bars, sorted(set(sounding)))


def _peak(steps: list[float], indexes: list[int]) -> tuple[float, tuple[int, ...]]:
    """Highest mean of two bars that follow one another among those that hold notes."""
    if not steps:
        return EASIEST_STEP, ()
    if len(steps) == 1:
        return steps[0], (indexes[0],)
    means = [(a + b) / 2 for a, b in itertools.pairwise(steps)]
    at = max(range(len(means)), key=lambda index: means[index])
    return means[at], (indexes[at], indexes[at + 1])


def _cubic_mean(steps: list[float], weights: list[float]) -> float:
    if not steps:
        return EASIEST_STEP
    total = sum(weight * step**3 for step, weight in zip(steps, weights, strict=True))
    return float((total / sum(weights)) ** (1 / 3))
