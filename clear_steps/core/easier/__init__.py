"""From a Step to a rewriting: edits as values, what was kept, and the search."""

from clear_steps.core.easier.edit import Change, Edit, applied, refused_with, version_of
from clear_steps.core.easier.kept import TUNE_FLOOR, Kept, kept
from clear_steps.core.easier.kinds import KINDS, Kind
from clear_steps.core.easier.search import TOLERANCE, Blocking, Easier, Progress, StoppedError, Tried, compared, easier

__all__ = [
    "KINDS", "TOLERANCE", "TUNE_FLOOR", "Blocking", "Change", "Easier", "Edit", "Kept", "Kind", "Progress", "StoppedError", "Tried",
    "applied", "compared", "easier", "kept", "refused_with", "version_of",
]  # fmt: skip
