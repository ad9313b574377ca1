"""The searches themselves: for versions, for ways, for set-ups; all of it done by the workers."""

from dataclasses import dataclass, replace

from clear_steps.core.easier import (
    Easier,
    Progress,
    TuningAndCapo,
    possible_setups,
    staircase,
    ways,
    without_rewriting,
)
from clear_steps.core.score import TUNINGS
from clear_steps.store import NewVersion
from clear_steps.web.versions import schemas as api
from clear_steps.web.versions.asked import AskedPart, AskedVersion
from clear_steps.web.versions.comparing import ways_model


@dataclass(frozen=True, slots=True)
class FoundWays:
    """A WaysModel as JSON, and what is stored where one of its ways is taken."""

    model: str
    versions: tuple[NewVersion, ...]


def found_staircase(progress: Progress, asked: AskedVersion) -> tuple[NewVersion, ...]:
    """The versions to every target asked for, easiest first."""
    of = asked.of.opened()
    found = staircase(of.song, of.part, of.ladder, asked.wish, of.whom.request, progress)
    return tuple(_new(asked, step, f"{step.target:g}") for step in reversed(found))


def found_ways(progress: Progress, asked: AskedVersion) -> FoundWays:
    """Up to three ways to the first target asked for."""
    of, target = asked.of.opened(), asked.wish.targets[0]
    wish = replace(asked.wish, targets=(target,))
    found = ways(of.song, of.part, of.ladder, wish, of.whom.request, progress)
    otherwise = without_rewriting(of.song, of.part, of.ladder, target, of.whom.request)
    versions = [
        replace(_new(asked, way.easiest, f"way {at}"), approach=way.wish.approach, layer=way.wish.layer)
        for at, way in enumerate(found)
    ]
    return FoundWays(ways_model(of, target, found, otherwise).model_dump_json(), tuple(versions))


def _new(asked: AskedVersion, step: Easier, called: str) -> NewVersion:
    return NewVersion(
        asked.song_id,
        asked.of.revision,
        asked.of.part_index,
        step.target,
        step.edits,
        step.blocking,
        asked.wish.approach,
        asked.wish.layer,
        asked.student,
        f"{asked.digest} {called}",
    )


def setups_json(asked: AskedPart, wanted: TuningAndCapo | None) -> str:
    """The SetupList of a part: which tunings and capos it could have instead."""
    of = asked.opened()
    offers = possible_setups(of.song, of.part, of.ladder, wanted)
    strings = of.part.tuning.strings
    return api.SetupList(
        setups=[api.SetupOfferModel(wish=offer.wish, sits=offer.words) for offer in offers],
        tunings=[name for name, tuning in TUNINGS.items() if tuning.strings == strings],
    ).model_dump_json()
