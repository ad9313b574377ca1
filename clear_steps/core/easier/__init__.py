"""From a Step to a rewriting: edits as values, layers, what was kept, and the search."""

from clear_steps.core.easier.answer import Blocking, Easier, Progress, StoppedError, Tried, Wish
from clear_steps.core.easier.approach import APPROACHES, Approach
from clear_steps.core.easier.edit import HAND, Change, Edit, applied, by_hand, refused_with, version_of
from clear_steps.core.easier.heights import TOLERANCE, is_reached
from clear_steps.core.easier.kept import TUNE_FLOOR, Kept, kept
from clear_steps.core.easier.kinds import KINDS, Kind
from clear_steps.core.easier.layers import LAYERS, Layer
from clear_steps.core.easier.search import compared, easier, staircase
from clear_steps.core.easier.setups import SetupWish
from clear_steps.core.easier.words import does

__all__ = [
    "APPROACHES", "HAND", "KINDS", "LAYERS", "TOLERANCE", "TUNE_FLOOR", "Approach", "Blocking", "Change", "Easier", "Edit", "Kept", "Kind",
    "Layer", "Progress", "SetupWish", "StoppedError", "Tried", "Wish", "applied", "by_hand", "compared", "does", "easier", "is_reached", "kept",
    "refused_with", "staircase", "version_of",
]  # fmt: skip
