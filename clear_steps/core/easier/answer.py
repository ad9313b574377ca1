"""What is asked of the search, and what it answers."""

from collections.abc import Callable
from dataclasses import dataclass

from clear_steps.core.easier.approach import Approach
from clear_steps.core.easier.edit import Edit
from clear_steps.core.easier.kept import Kept
from clear_steps.core.easier.setups import SetupWish, TuningAndCapo
from clear_steps.core.grade import Grading, Limits
from clear_steps.core.score import Part


@dataclass(frozen=True, slots=True)
class Wish:
    """What is asked of the search: Steps from any to any, and what to give up last."""

    targets: tuple[float, ...]
    approach: Approach = Approach.SOUND
    layer: str = ""  # to begin with, whatever the approach
    setup: SetupWish = SetupWish.AS_WRITTEN
    limits: Limits | None = None  # of the student, besides the Steps
    tuning_and_capo: TuningAndCapo | None = None  # that a wish of set-up is for
    with_parts: frozenset[int] | None = None  # the other parts (indexes) a layer may take from; all of them
    refused: frozenset[tuple[int, str]] = frozenset()  # bars (indexes) and the kinds of edit not wanted there
    fill_short_bars: bool = False  # to the usual length; it no longer fits the recording then


class StoppedError(Exception):
    """The asker did not want to wait any longer."""


@dataclass(frozen=True, slots=True)
class Tried:
    """The best that one kind of edit could do for a blocking bar."""

    kind: str
    step: float


@dataclass(frozen=True, slots=True)
class Blocking:
    """A bar (index) that stays above the target, by what, and what was tried."""

    bar: int
    measure: str
    step: float
    tried: tuple[Tried, ...]
    limit: str = ""  # of the student, that it goes past


@dataclass(frozen=True, slots=True)
class Easier:
    """What the search found: edits, grades before and after, what was kept, or why not."""

    target: float
    reached: bool
    edits: tuple[Edit, ...]
    version: Part
    before: Grading
    after: Grading
    kept: Kept
    blocking: tuple[Blocking, ...]
    lowest: float  # the lowest Step there is, whatever it costs


Progress = Callable[[float], bool]
"""Called with the share done, 0 to 1; False stops the search."""
