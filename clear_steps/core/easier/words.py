"""What an edit does, in words, by its kind."""

from clear_steps.core.easier.given import FILL
from clear_steps.core.easier.handwork import HAND
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.layers import LAYERS

_WORDS = {
    **{row.name: row.does for row in KINDS.values()},
    **{row.name: row.does for row in LAYERS.values()},
    HAND: "changed by hand",
    "retune": "an easier tuning",
    "capo": "another capo",
    FILL: "the short bar at the usual length",
}


def does(kind: str) -> str:
    """The words of a kind; of one no longer known, its name."""
    return _WORDS.get(kind, kind)
