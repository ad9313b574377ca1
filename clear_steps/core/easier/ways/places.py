"""Way 10, another place: the same pitches lower or nearer, on strings that lie beside one another."""

from dataclasses import replace

from clear_steps.core.easier.kinds.places import closer_strings, other_places
from clear_steps.core.easier.penalties import JUMP_FRETS, place_of
from clear_steps.core.easier.rewriting import Events
from clear_steps.core.easier.ways.scene import Choice, Option, Rewrite, Scene, first_of

_PROPOSED = 5  # over one or two strings, either way, and the open position


def elsewhere() -> Choice:
    """The whole bar at another place that does not lie away from what surrounds it."""
    places = (
        Option("place", "the same notes elsewhere on the neck", _whole_bar(at)) for at in range(_PROPOSED)
    )
    closer = Option("skip", "notes struck together on neighbouring strings", first_of(closer_strings))
    return Choice("place", (closer, *places), ordered=False)


def _stays_near(scene: Scene, index: int, events: Events) -> bool:
    """Whether a bar elsewhere is no farther from the bars beside it than a hand is anyway, or was before."""
    was, now = place_of(scene.bar(index)), place_of(replace(scene.bar(index), events=events))
    around = scene.part.bars[max(index - 1, 0) : index], scene.part.bars[index + 1 : index + 2]
    beside = [place_of(bar) for bars in around for bar in bars]
    return all(
        now is None or near is None or abs(now - near) <= max(JUMP_FRETS, abs((was or now) - near))
        for near in beside
    )


def _alike(scene: Scene, index: int) -> list[int]:
    """The bars that are written as one is now, itself among them."""
    written = scene.bar(index).events
    return [at for at in range(len(scene.part.bars)) if scene.bar(at).events == written]


def _whole_bar(number: int) -> Rewrite:
    def rewrite(scene: Scene, index: int) -> Events | None:
        # Equal bars stay equal: where one of them may not go, none goes, and all to one place.
        alike = _alike(scene, index)
        whole = [
            changes
            for changes in other_places(scene.part, alike[0])
            if changes[0].before == scene.bar(index).events
            and all(_stays_near(scene, at, changes[0].after) for at in alike)
        ]
        return whole[number][0].after if number < len(whole) else None

    return rewrite
