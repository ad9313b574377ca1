"""The kinds of edit: one table, a function each that proposes changes of one bar."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.broken import struck_together
from clear_steps.core.easier.kinds.phrases import (
    another_octave,
    breath_before,
    like_before,
    octaves_to_line,
    percussion_out,
    root_on_strong_beats,
    straightened,
)
from clear_steps.core.easier.kinds.places import closer_strings, other_places
from clear_steps.core.easier.kinds.rhythm import onto_the_beat
from clear_steps.core.easier.kinds.technique import (
    bend_to_fret,
    bend_to_slide,
    harmonic_to_plain,
    leave_out,
    picked,
    ring_out,
    slurred,
    smaller_bend,
    tap_to_fretted,
    whammy_to_bend,
)
from clear_steps.core.easier.kinds.texture import (
    bass_alone,
    bass_and_top,
    inner_optional,
    muddy_out,
    optional_out,
    power_to_root,
    simpler_chord,
    top_only,
    upper_two,
)
from clear_steps.core.score import Part, Role

Proposal = tuple[Change, ...]


@dataclass(frozen=True, slots=True)
class Kind:
    """A family member: its name, what it does in words, what it proposes for a bar (by index), the measures
    of the bar it leaves as they are.

    It looks at the bar, one before it and one after it; one that looks back at all bars before says so.
    """

    name: str
    does: str
    propose: Callable[[Part, int], Iterator[Proposal]]
    leaves: frozenset[str] = frozenset()
    looks_back: bool = False
    roles: frozenset[Role] = frozenset(Role)  # the music it is for
    asked_only: bool = False  # a teacher may ask for it, no search takes it by itself


_VOICES = frozenset({Role.PICKED, Role.CHORD_MELODY})
_SINGLE = frozenset({Role.LINE, Role.RIFF, Role.BASS})
_CHORDS = frozenset({Role.STRUM, Role.CHORD_MELODY})
_SAME_NOTES = frozenset({"technique"})
_SAME_BAR = frozenset({"technique", "picking", "damping", "rhythm"})

_ROWS = (
    Kind("place", "the same pitches elsewhere on the neck", other_places, _SAME_NOTES),
    Kind("skip", "notes struck together on neighbouring strings", closer_strings, _SAME_NOTES),
    Kind("octave", "the bar in another octave", another_octave, _SAME_NOTES, asked_only=True),
    Kind("optional", "optional notes left out", optional_out),
    Kind("brackets", "inner notes put in brackets, to be left out first", inner_optional, asked_only=True),
    Kind("bass-alone", "of each chord just its bass", bass_alone, asked_only=True),
    Kind("leave-out", "ornaments left out", leave_out),
    Kind("release", "bends without release, and smaller ones", smaller_bend),
    Kind("percussion", "percussive hits left out", percussion_out),
    Kind("whammy", "the whammy dip as a bend from the fret below", whammy_to_bend),
    Kind("pick", "slurred notes picked", picked),
    Kind("slur", "picked notes slurred in pairs", slurred, roles=_SINGLE),
    Kind("harmonic", "the harmonic as a plain note", harmonic_to_plain),
    Kind("bend-slide", "the bend as a slide to its target", bend_to_slide),
    Kind("bend-fret", "the bend's target fretted", bend_to_fret),
    Kind("tap", "the tapped note fretted, or an octave lower", tap_to_fretted),
    Kind("chord", "an easier shape of the same chord", simpler_chord, asked_only=True),
    Kind("inner", "bass and top note kept", bass_and_top, roles=_VOICES),
    Kind("pair", "the two upper notes of the chord", upper_two, roles=_CHORDS),
    Kind("mud", "low close notes left out over the bass", muddy_out, roles=_CHORDS),
    Kind("root", "the root of the power chord alone", power_to_root, roles=frozenset({Role.RIFF})),
    Kind("top", "the top note alone", top_only, roles=frozenset({Role.CHORD_MELODY, Role.LINE})),
    Kind(
        "doubling",
        "the octave doubling as a single line",
        octaves_to_line,
        roles=frozenset({Role.RIFF, Role.LINE}),
    ),
    Kind("bass", "the root on the strong beats", root_on_strong_beats, roles=_VOICES),
    Kind("together", "the broken chord struck together", struck_together, roles=frozenset({Role.PICKED})),
    Kind("variation", "the bar as it was before", like_before, looks_back=True, asked_only=True),
    Kind("straight", "tuplets straightened", straightened, roles=_SINGLE),
    Kind("beat", "off-beat notes moved to the beat", onto_the_beat),
    Kind(
        "breath",
        "time to move: the last note before the bar left out",
        breath_before,
        _SAME_BAR,
        roles=frozenset({Role.STRUM}),
    ),
    Kind("ring", "strings need not ring on", ring_out),
)
KINDS: dict[str, Kind] = {row.name: row for row in _ROWS}
