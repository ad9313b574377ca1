"""The Step of a few notes of a part: what was found in its bars, as far as it lies among them."""

from bisect import bisect_left
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

from clear_steps.core.figures import At
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures import MEASURES, window_of
from clear_steps.core.grade.peak import Founds, JudgedBar, stretch_step
from clear_steps.core.grade.step import Grader, GradeRequest, Grading
from clear_steps.core.score import Part, Song
from clear_steps.core.score.timing import BarTime, taken_times

_TEMPI = tuple(range(100, 25, -5))  # per cent of the marked tempo, the quickest first


@dataclass(frozen=True, slots=True)
class Excerpt:
    """From one moment to another, both included."""

    first: At
    last: At


class Excerpts:
    """Grades stretches of one graded part, note to note, with the fingering that the part was graded with.

    A stretch has the Step of its hardest bar's length, graded as a bar is, all else left out. So it is at
    most about as hard as the bars it lies in.
    """

    def __init__(
        self, song: Song, part: Part, ladder: Ladder, request: GradeRequest = GradeRequest()
    ) -> None:
        self.part, self._ladder, self._marked = part, ladder, song.playing_tempo
        self._grader = Grader(song, part, ladder, request)
        self.grading: Grading = self._grader.grade(part)
        self._times: dict[int, tuple[BarTime, ...]] = {}
        self._bars: dict[tuple[int, int], JudgedBar] = {}  # by percentage and index

    def step(self, excerpt: Excerpt, percent: int = 100) -> float:
        """Its Step at a percentage of the marked tempo."""
        indexes = range(excerpt.first.bar, excerpt.last.bar + 1)
        bars = {index: self._bar(percent, index) for index in indexes}
        return max(self._norm(bars, excerpt, start) for start in self._starts(excerpt))

    def tempo_for(self, excerpt: Excerpt, step: float) -> int | None:
        """The quickest percentage of the marked tempo, in fives, at which it is no harder than a Step; None
        where it is past that even at a crawl."""
        # Slower is never harder.
        at = bisect_left(_TEMPI, True, key=lambda percent: self.step(excerpt, percent) <= step)
        return _TEMPI[at] if at < len(_TEMPI) else None

    def hardest_measure(self, excerpt: Excerpt) -> str | None:
        """The measure that makes it hard."""
        bars = {bar: self._bar(100, bar) for bar in range(excerpt.first.bar, excerpt.last.bar + 1)}
        founds = [self._founds(bars, excerpt, start) for start in self._starts(excerpt)]
        steps: dict[str, float] = {}
        for found, start in zip(founds, self._starts(excerpt), strict=True):
            window = window_of(bars[start.bar].bar)
            for name, rows in ((name, rows) for name, rows in found.items() if name in MEASURES):
                steps[name] = max(steps.get(name, 0.0), MEASURES[name].weigh(rows, window, self._ladder))
        return max(steps, key=lambda name: steps[name]) if steps else None

    def _bar(self, percent: int, index: int) -> JudgedBar:
        if percent not in self._times:
            tempo = self._marked * Fraction(percent, 100)
            self._times[percent] = taken_times(self.part, self._marked, tempo)
        if (percent, index) not in self._bars:
            times = self._times[percent]
            self._bars |= {
                (percent, at): bar
                for at, bar in self._grader.judged(self.part, self.grading, times, [index]).items()
            }
        return self._bars[percent, index]

    def _starts(self, excerpt: Excerpt) -> list[At]:
        """Where its bar's lengths begin, one after the other."""
        starts = [excerpt.first]
        for index in range(excerpt.first.bar, excerpt.last.bar):
            following = At(index + 1, min(excerpt.first.onset, self.part.bars[index + 1].quarters))
            if following <= excerpt.last:
                starts.append(following)
        return starts

    def _founds(self, bars: Mapping[int, JudgedBar], excerpt: Excerpt, start: At) -> Founds:
        """What was found within a bar's length from a moment on, and in the stretch; onsets from there."""
        window = window_of(bars[start.bar].bar)
        founds: Founds = {}
        away = -float(start.onset)
        for index in range(start.bar, min(start.bar + 1, excerpt.last.bar) + 1):
            low = float(excerpt.first.onset) if index == excerpt.first.bar else 0.0
            high = float(excerpt.last.onset) if index == excerpt.last.bar else float("inf")
            for name, rows in bars[index].founds.items():
                near = ((at + away, item) for at, item in rows if low <= at <= high)
                own = [(at, item) for at, item in near if 0 <= at < window.quarters]
                if own:
                    founds[name] = [*founds.get(name, ()), *own]
            away += float(self.part.bars[index].quarters)
        return founds

    def _norm(self, bars: Mapping[int, JudgedBar], excerpt: Excerpt, start: At) -> float:
        founds = self._founds(bars, excerpt, start)
        past = any(
            excerpt.first <= At(index, Fraction(at)) <= excerpt.last
            for index, bar in bars.items()
            for at in bar.past_hand
        )
        return stretch_step(founds, window_of(bars[start.bar].bar), self._ladder, past)


def hardest_switch(excerpts: Excerpts, moments: Sequence[At]) -> Excerpt | None:
    """The two to four struck moments of a stretch whose Step is highest: the hardest pair, with the moment
    before and after it as far as they lie in the stretch; None for a single moment."""
    if len(moments) < 2:
        return None
    pairs = [Excerpt(a, b) for a, b in pairwise(moments)]
    at = max(range(len(pairs)), key=lambda index: excerpts.step(pairs[index]))
    first, last = max(at - 1, 0), min(at + 2, len(moments) - 1)
    return Excerpt(moments[first], moments[last])
