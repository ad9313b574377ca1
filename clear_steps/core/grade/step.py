"""From measures to a Step: bars, peak, typical, song."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property
from itertools import chain
from math import ceil

from clear_steps.core.grade.adding import EASIEST_STEP, Weighing, cubic_mean, norm, weighed
from clear_steps.core.grade.additions import found_additions
from clear_steps.core.grade.finding import Finding
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures import MEASURES
from clear_steps.core.grade.measures.stretch import past_this_hand
from clear_steps.core.grade.peak import (
    Founds,
    JudgedBar,
    added,
    as_hard_as_at_first,
    founds_over,
    is_past_hand,
    peak_of_bars,
    peak_over_bar_lines,
    stretch_step,
)
from clear_steps.core.grade.played import Performer, PlayedBar
from clear_steps.core.grade.songwide import stamina
from clear_steps.core.hand import (
    PRESET_SPANS_MM,
    SCHOOLS,
    Fingered,
    Fingerer,
    Grip,
    HandTables,
    Neck,
    PathCosts,
    Player,
    School,
    shared_tables,
)
from clear_steps.core.score import Part, Song, played_order, route_of
from clear_steps.core.score.timing import BarTime, taken_times


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
    added: dict[str, float]  # after the norm, by its words
    past_hand: bool

    @property
    def hardest_measure(self) -> str:
        """The measure that makes the bar hard."""
        return max(self.findings, key=lambda name: self.findings[name].step)

    def step_of(self, measures: Iterable[str]) -> float:
        """The bar's Step if only these measures had found something."""
        return norm([self.findings[name].step for name in measures], False)

    def step_without(self, measure: str) -> float:
        """The bar's Step if a measure had found nothing."""
        others = [finding.step for name, finding in self.findings.items() if name != measure]
        return norm(others, self.past_hand and measure != "stretch", sum(self.added.values()))


@dataclass(frozen=True)  # no slots: the fingering is laid out when it is asked for
class Grading:
    """A part's grade, the fingering it rests on, and the tempo it holds for."""

    ladder: str
    tempo: Fraction
    tempo_assumed: bool
    step: float
    peak: float
    peak_bars: tuple[int, ...]  # indexes of the one or two bars behind the peak
    typical: float
    stamina: float
    bars: tuple[BarGrade, ...]
    fingered: Fingered
    hand: int  # whose fingering of these is graded

    @cached_property
    def grips(self) -> dict[tuple[int, int], Grip]:
        """The fingering graded: (bar index, event index) -> grip."""
        rows = zip(self.fingered.bars, self.fingered.hands[self.hand], strict=True)
        return {
            (index, demand.event): grip
            for index, (bar, grips) in enumerate(rows)
            for demand, grip in zip(bar.demands, grips, strict=True)
        }


def grade_song(song: Song, ladder: Ladder, request: GradeRequest = GradeRequest()) -> tuple[Grading, ...]:
    """One grading a part, in order."""
    return tuple(grade_part(song, part, ladder, request) for part in song.parts)


def grade_part(song: Song, part: Part, ladder: Ladder, request: GradeRequest = GradeRequest()) -> Grading:
    """Grade one part of a song."""
    return Grader(song, part, ladder, request).grade(part)


def hand_tables(part: Part, ladder: Ladder, request: GradeRequest = GradeRequest()) -> HandTables:
    """What the request's hands can do on the part's instrument."""
    costs = PathCosts(
        ladder.curves["stretch"],
        ladder.curves["shift"],
        ladder.shapes,
        SCHOOLS[request.school],
        request.player.habits,
    )
    spans_mm = tuple(PRESET_SPANS_MM[hand] for hand in request.hands)
    return shared_tables(Neck(part.scale_length_mm, part.capo), part.tuning.strings, spans_mm, costs)


def _with_and_without_thumb(request: GradeRequest) -> tuple[GradeRequest, ...]:
    """Allowing the thumb only adds fingerings: those without it stay candidates."""
    habits = request.player.habits
    if not habits.thumb_over:
        return (request,)
    without = replace(request.player, habits=replace(habits, thumb_over=False))
    return (request, replace(request, player=without))


class Grader:
    """Grades a part and what is made of it, for one request; a bar met before in the same surroundings is
    looked up.

    The fingering is chosen at the marked tempo, once for every preset hand; of these the one with
    the lowest song Step for the player is used. So slower never grades harder, nor does a longer span.
    Parts must share the instrument (strings, scale length, capo) of the one it is made for.
    """

    def __init__(
        self, song: Song, part: Part, ladder: Ladder, request: GradeRequest = GradeRequest()
    ) -> None:
        self._song, self._ladder, self._request = song, ladder, request
        neck = Neck(part.scale_length_mm, part.capo)
        self._fingerers = [
            Fingerer(hand_tables(part, ladder, each)) for each in _with_and_without_thumb(request)
        ]
        self._performer = Performer(neck, request.player.span_mm)
        self._judged: dict[int, tuple[BarGrade, JudgedBar]] = {}  # by the played bar's identity
        self._over: dict[tuple[int, int], tuple[float, ...]] = {}  # by those of the judged bars
        self._found_in_score: dict[tuple[object, ...], tuple[PlayedBar, Founds]] = {}

    def glimpse(self, part: Part, index: int, hand: int) -> tuple[BarGrade, Sequence[Grip]]:
        """One bar's grade with one hand's fingering alone, and its grips: what `grade` gives where it chooses
        that hand."""
        times = taken_times(part, self._song.playing_tempo)
        which, own = divmod(hand, len(self._request.hands))
        fingered = self._fingerers[which].fingered(part, times, route_of(part, self._song.order))
        visits = self._performer.bar(part, fingered, own, times, index)
        return self._hardest(visits)[0], fingered.hands[own][index]

    def judged(
        self, part: Part, grading: Grading, times: Sequence[BarTime], indexes: Iterable[int]
    ) -> dict[int, JudgedBar]:
        """Some bars (indexes) of a part graded before, with what was found in them, at the given times."""
        performed = self._performer
        return {
            index: self._hardest(performed.bar(part, grading.fingered, grading.hand, times, index))[1]
            for index in indexes
        }

    def grade(self, part: Part) -> Grading:
        """The whole grade of a part."""
        marked = self._song.playing_tempo
        tempo = self._request.practice_tempo or marked
        times = taken_times(part, marked)
        route = route_of(part, self._song.order)
        each = [fingerer.fingered(part, times, route) for fingerer in self._fingerers]
        fingered = replace(each[0], hands=tuple(chain.from_iterable(one.hands for one in each)))
        hands = list(
            {
                tuple(map(id, grips)): hand for hand, grips in reversed(list(enumerate(fingered.hands)))
            }.values()
        )[::-1]
        gradings = [self._graded(part, fingered, hand, times, marked) for hand in hands]
        chosen = min(range(len(gradings)), key=lambda index: gradings[index].step)
        if tempo == marked:
            return gradings[chosen]
        return self._graded(part, fingered, hands[chosen], taken_times(part, marked, tempo), tempo)

    def _graded(
        self, part: Part, fingered: Fingered, hand: int, times: Sequence[BarTime], tempo: Fraction
    ) -> Grading:
        runs = self._performer.bars(part, fingered, hand, times)
        graded = self._graded_bars(runs)
        played = runs[0] if fingered.route.order else ()
        sounding = [bar.index for bar in played if bar.moments]
        own_bars = [part.bars[index] for index in sounding]
        steps = as_hard_as_at_first([graded[index].step for index in sounding], own_bars)
        whole = peak_of_bars(steps, sounding, EASIEST_STEP)
        peak = peak_over_bar_lines([self._judge(bar)[1] for bar in played], whole, self._steps_over)
        typical = cubic_mean(steps, [part.bars[index].sounding_beats for index in sounding])
        lasting = stamina(played, self._ladder)
        step = weighed(peak.step, typical, lasting, self._request.weighing)
        assumed = self._song.tempo_is_assumed
        return Grading(
            self._ladder.name,
            tempo,
            assumed,
            step,
            peak.step,
            peak.bars,
            typical,
            lasting,
            graded,
            fingered,
            hand,
        )

    def _graded_bars(self, runs: Iterable[Sequence[PlayedBar]]) -> tuple[BarGrade, ...]:
        """The grade of every written bar."""
        visits: dict[int, dict[int, PlayedBar]] = {}  # the same object where it is played the same
        for bar in chain.from_iterable(runs):
            visits.setdefault(bar.index, {})[id(bar)] = bar
        return tuple(self._hardest(visits[index].values())[0] for index in sorted(visits))

    def _hardest(self, visits: Iterable[PlayedBar]) -> tuple[BarGrade, JudgedBar]:
        """Of a bar that is come to in several ways the hardest."""
        return max((self._judge(bar) for bar in visits), key=lambda judged: judged[1].step)

    def _judge(self, bar: PlayedBar) -> tuple[BarGrade, JudgedBar]:
        key = id(bar)  # the performer holds its bars, and gives the same one for the same grips
        if key not in self._judged:
            of_the_score = self._of_the_score(bar)
            founds = {
                name: of_the_score[name] if measure.of_the_score else measure.find(bar, self._ladder)
                for name, measure in MEASURES.items()
            } | found_additions(bar)
            findings = {
                name: measure.finding(founds[name], bar, self._ladder) for name, measure in MEASURES.items()
            }
            past = past_this_hand(bar.moments, self._request.player.reach_mm)
            steps = {name: finding.step for name, finding in findings.items() if founds[name]}
            on_top = added(founds, steps)
            step = norm(steps.values(), bool(past), sum(on_top.values()))
            grade = BarGrade(bar.index, bar.number, step, findings, on_top, bool(past))
            self._judged[key] = (grade, JudgedBar(bar, founds, step, past))
        return self._judged[key]

    def _steps_over(self, first: JudgedBar, second: JudgedBar) -> tuple[float, ...]:
        """The Steps of a bar's length from every beat but the first of one bar on into the next."""
        key = (id(first), id(second))
        if key not in self._over:
            steps = []
            for beat in range(1, ceil(first.bar.beats)):
                founds, window = founds_over(first, second, beat)
                past = is_past_hand(first, second, beat)
                steps.append(stretch_step(founds, window, self._ladder, past))
            self._over[key] = tuple(steps)
        return self._over[key]

    def _of_the_score(self, bar: PlayedBar) -> Founds:
        """What measures that do not look at the hand find, the same for every fingering."""
        place = (bar.starts_at.as_integer_ratio(), bar.holds_over)
        key = (id(bar.bar), bar.seconds, bar.metre_changes, place, bar.textures)
        if key not in self._found_in_score:
            founds = {
                name: measure.find(bar, self._ladder)
                for name, measure in MEASURES.items()
                if measure.of_the_score
            }
            self._found_in_score[key] = (bar, founds)
        return self._found_in_score[key][1]


def song_step(
    song: Song, part: Part, bar_steps: Sequence[float], grading: Grading, request: GradeRequest
) -> float:
    """The song's Step if its bars (by index) had these Steps, stamina as graded.

    What lies over a bar line is then as much harder than the bars as it was.
    """
    sounding = [index for index in played_order(part, song.order) if not part.bars[index].silent]
    own_bars = [part.bars[index] for index in sounding]
    was, now = (
        as_hard_as_at_first([steps[index] for index in sounding], own_bars)
        for steps in ([bar.step for bar in grading.bars], bar_steps)
    )
    change = peak_of_bars(now, sounding, EASIEST_STEP).step - peak_of_bars(was, sounding, EASIEST_STEP).step
    beats = [part.bars[index].sounding_beats for index in sounding]
    return weighed(
        grading.peak + change,
        cubic_mean(now, beats),
        grading.stamina,
        request.weighing,
    )
