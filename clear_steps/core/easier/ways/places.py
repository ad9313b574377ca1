"""Way 10, another place: the same pitches lower or nearer, on strings that lie beside one another."""

from clear_steps.core.easier.kinds.places import closer_strings, other_places
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


def _whole_bar(number: int) -> Rewrite:
    def rewrite(scene: Scene, index: int) -> Events | None:
        whole = [
            changes
            for changes in other_places(scene.part, index)
            if changes[0].before == scene.bar(index).events
        ]
        return whole[number][0].after if number < len(whole) else None

    return rewrite
