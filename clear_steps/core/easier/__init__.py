"""From a Step to a rewriting: edits as values, layers, what was kept, and the search."""

from clear_steps.core.easier.answer import Blocking, Easier, Progress, StoppedError, Tried, Wish
from clear_steps.core.easier.answers import Way, ways
from clear_steps.core.easier.approach import APPROACHES, Approach
from clear_steps.core.easier.asked import Asked, asked_edit, offers
from clear_steps.core.easier.compared import Compared, compared
from clear_steps.core.easier.edit import (
    HAND,
    Change,
    Edit,
    alike,
    applied,
    refused_with,
    standing,
    version_of,
)
from clear_steps.core.easier.given import short_bars
from clear_steps.core.easier.handwork import by_hand, halved, set_note
from clear_steps.core.easier.heights import TOLERANCE, is_reached
from clear_steps.core.easier.kept import Kept, kept
from clear_steps.core.easier.kinds import KINDS, Kind
from clear_steps.core.easier.laws import LAWS, Law, Pair, broken_laws
from clear_steps.core.easier.layers import LAYERS, Layer, carries_the_tune
from clear_steps.core.easier.otherwise import Otherwise, without_rewriting
from clear_steps.core.easier.playing import Saying, what_to_play
from clear_steps.core.easier.roles import role_of, roles_of
from clear_steps.core.easier.search import easier, staircase
from clear_steps.core.easier.setups import SetupOffer, SetupWish, TuningAndCapo, possible_setups
from clear_steps.core.easier.words import does

__all__ = [
    "APPROACHES",
    "HAND",
    "KINDS",
    "LAWS",
    "LAYERS",
    "TOLERANCE",
    "Approach",
    "Asked",
    "Blocking",
    "Change",
    "Compared",
    "Easier",
    "Edit",
    "Kept",
    "Kind",
    "Law",
    "Layer",
    "Otherwise",
    "Pair",
    "Progress",
    "Saying",
    "SetupOffer",
    "SetupWish",
    "StoppedError",
    "Tried",
    "TuningAndCapo",
    "Way",
    "Wish",
    "alike",
    "applied",
    "asked_edit",
    "broken_laws",
    "by_hand",
    "carries_the_tune",
    "compared",
    "does",
    "easier",
    "halved",
    "is_reached",
    "kept",
    "offers",
    "possible_setups",
    "refused_with",
    "role_of",
    "roles_of",
    "set_note",
    "short_bars",
    "staircase",
    "standing",
    "version_of",
    "ways",
    "what_to_play",
    "without_rewriting",
]
