"""What a measure is: it finds moments in a bar, weighs them over a window, and tells of them."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import partial
from typing import Generic, NamedTuple, TypeVar

from clear_steps.core.grade.finding import Finding, Told, nothing
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import PlayedBar

T = TypeVar("T")
_ENGLISH = "en"
Found = Sequence[tuple[float, T]]
"""What a measure finds, each with its onset in quarters from the window's start."""


class Window(NamedTuple):
    """Music that is graded as one: a bar, or as much of it from a beat on. Lengths in quarters."""

    quarters: float
    quarter_seconds: float
    beat_quarters: float
    span_mm: float

    @property
    def seconds(self) -> float:
        """How long it lasts."""
        return self.quarters * self.quarter_seconds


def window_of(bar: PlayedBar) -> Window:
    """The window of a whole bar; what a pickup lacks of its metre is rest."""
    quarters = bar.bar.metre.quarters if bar.bar.pickup else bar.bar.quarters
    beat_quarters = bar.bar.metre.beat_quarters
    return Window(float(quarters), bar.quarter_seconds, float(beat_quarters), bar.span_mm)


@dataclass(frozen=True, slots=True)
class Measure(Generic[T]):
    """One row: everything that is known of a measure, whoever asks."""

    name: str
    spoken: str  # `what makes it hard is ...`
    about: str
    unit: str
    sign: str  # strokes of its picture on a field of 16 by 16, as an SVG path
    curves: dict[str, str]  # of the ladder, and what each is for where there are several
    find: Callable[[PlayedBar, Ladder], Found[T]]
    weigh: Callable[[Found[T], Window, Ladder], float]  # its Step, of what is found and not empty
    tell: Callable[[Found[T], PlayedBar, Ladder], Told]
    rung: Callable[[Ladder, int], str]  # what it alone allows at a Step
    of_the_score: bool = False  # whatever the fingering, the same at one tempo
    said: Mapping[str, str] = field(default_factory=dict)  # `spoken` by language, English apart
    helps: Mapping[str, str] = field(
        default_factory=dict
    )  # what teachers say to it (common practice, no source)

    def said_in(self, language: str) -> str:
        """`spoken` in a language, in English where it has nothing."""
        return self.said.get(language, self.spoken)

    def help_in(self, language: str) -> str:
        """What helps, in a language, else in English; empty where nobody wrote it."""
        return self.helps.get(language) or self.helps.get(_ENGLISH, "")

    def judge(self, bar: PlayedBar, ladder: Ladder) -> Finding:
        """The measure's Step of a bar, with its evidence."""
        return self.finding(self.find(bar, ladder), bar, ladder)

    def finding(self, found: Found[T], bar: PlayedBar, ladder: Ladder) -> Finding:
        """The same, of what was found before."""
        if not found:
            return nothing(self.unit)
        step = self.weigh(found, window_of(bar), ladder)
        return Finding(step, self.unit, partial(self.tell, found, bar, ladder))
