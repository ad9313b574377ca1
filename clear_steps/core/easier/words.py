"""What an edit does, in words, by its kind."""

from clear_steps.core.easier.edit import HAND
from clear_steps.core.easier.given import FILL
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.layers import LAYERS
from clear_steps.core.easier.plans import STRIKE

_WORDS = {
    **{row.name: row.does for row in KINDS.values()},
    **{row.name: row.does for row in LAYERS.values()},
    HAND: "changed by hand",
    "retune": "an easier tuning",
    "capo": "another capo",
    FILL: "the short bar at the usual length",
    STRIKE: "what was held over struck",
    # Of ways.
    "push": "pushes onto the beat",
    "own-beats": "the song's own strokes on the beat",
    "pattern": "one strum pattern",
    "thin": "only the thin strings",
    "let-sound": "strokes not stopped",
    "decorations": "no grace notes, trills or tremolo",
    "root-fifth": "root and fifth",
    "repeats": "quick repeats left out",
    "moving": "the moving and accented notes",
    "beats": "the notes on the beats",
    "half-bars": "the notes on the strong beats",
    "once": "one note a bar",
    "one-inner": "one inner note of several",
    "bass-strong": "the bass on the strong beats",
    "bass-once": "the bass once a bar",
    "melody-alone": "the melody alone",
    "half-speed": "the pattern at half speed",
    "onto-beats": "the melody on the beats",
    "repeated": "repeated notes held",
    "passing": "passing notes left out",
    "fewer": "fewer notes of the line",
    "walk": "the roots and the note into the change",
    "roots": "the roots on the strong beats",
    "tap-low": "the tapped notes an octave lower",
    # Of versions stored before there were ways.
    "rhythm": "the notes on strong beats kept",
}


def does(kind: str) -> str:
    """The words of a kind; of one no longer known, its name."""
    return _WORDS.get(kind, kind)
