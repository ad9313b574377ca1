"""Way 7, a bass alone: roots on the strong beats and the walk into the change."""

from clear_steps.core.easier.ways.scene import Choice, Option
from clear_steps.core.easier.ways.thinning import carrying, on_beats, on_strong_beats, once_a_bar, thinned


def fewer_basses() -> Choice:
    """Repeats out, the beats, roots with the note that walks into the change, roots alone, one a bar."""
    return Choice(
        "rhythm",
        (
            Option("beats", "only the notes on the beat", thinned(on_beats)),
            Option(
                "walk", "the root on the strong beats, and the last note into the change", thinned(carrying)
            ),
            Option("roots", "the root on the strong beats", thinned(on_strong_beats)),
            Option("once", "the root once a bar", thinned(once_a_bar)),
        ),
        thins=True,
    )
