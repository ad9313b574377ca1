"""What to take care of, where the music or the set-up calls for it: general words, never a diagnosis."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from clear_steps.core.grade import Grading
from clear_steps.core.hand import FULL_BARRE_STRINGS, PRESET_SPANS_MM, Player
from clear_steps.core.score import TUNINGS, Bar, Part, Stroke, Technique, Tuning
from clear_steps.core.score.timing import BarTime, taken_times

# From memory: what teachers and instrument makers warn of. A test pins each.
_SMALL_HAND_MM = PRESET_SPANS_MM["small"]  # up to this span a hand is a child's or a small one
_CLOSE_TO_THE_SPAN = 0.9  # of a comfortable span: for a small hand already a reason to re-finger
_LONG_BARRE_SECONDS = 6.0  # held or set again without a bar between
_DOWN_STROKES = 3.0  # a second, downwards all
_LONG_SECONDS = 4.0  # a stretch of either
_TREMOLO = frozenset({Technique.TREMOLO, Technique.FREE_TREMOLO})
# Tension of a light set of steel strings at 648 mm in standard tuning, newton (from memory: makers' tables).
_STANDARD_NEWTON = (72.0, 68.0, 74.0, 82.0, 87.0, 78.0)
_USUAL_SCALE_MM = 648.0


@dataclass(frozen=True, slots=True)
class Caution:
    """One line, and the bars (indices) it is about; none where it is about the whole set-up."""

    kind: str  # stretch, barre, picking, tension
    words: str
    bars: tuple[int, ...] = ()


PAIN = (
    "Stop at pain, tingling or numbness, and rest; if it lasts, have a doctor or a hand therapist look at it."
)
LOUDNESS = "Keep the volume where you can still talk over it; ears do not grow back."


def cautions(part: Part, grading: Grading, player: Player) -> tuple[Caution, ...]:
    """What applies to a part for a player, the hand before the guitar."""
    return (*_stretches(grading, player), *_barres(part, grading), *_strokes(part, grading), *_tension(part))


def _stretches(grading: Grading, player: Player) -> Iterator[Caution]:
    """Reaches of what is pressed at once: one from note to note is a choice of fingers, and a nearer way is
    there."""
    small = player.span_mm <= _SMALL_HAND_MM
    limit = player.span_mm * (_CLOSE_TO_THE_SPAN if small else 1.0)
    wide: dict[int, float] = {}
    for (index, _), grip in sorted(grading.grips.items()):
        if grip.reach_mm > limit:
            wide[index] = max(wide.get(index, 0.0), grip.reach_mm)
    if wide:
        hand = "a small hand" if small else "this hand"
        words = (
            f"A reach of {max(wide.values()):.0f} mm is wide for {hand}, {player.span_mm:.0f} mm:"
            " find other fingers or another place rather than push."
        )
        yield Caution("stretch", words, tuple(wide))


def _barres(part: Part, grading: Grading) -> Iterator[Caution]:
    barred = {index for (index, _), grip in grading.grips.items() if grip.barre_strings >= FULL_BARRE_STRINGS}
    times = taken_times(part, grading.tempo)
    bars = _lasting([index in barred for index in range(len(part.bars))], times, _LONG_BARRE_SECONDS)
    if bars:
        yield Caution(
            "barre",
            "A barre for long: warm up, press no more than it needs, shake the hand out between.",
            bars,
        )


def _strokes(part: Part, grading: Grading) -> Iterator[Caution]:
    times = taken_times(part, grading.tempo)
    fast = [_is_driven(bar, time) for bar, time in zip(part.bars, times, strict=True)]
    bars = _lasting(fast, times, _LONG_SECONDS)
    if bars:
        yield Caution(
            "picking",
            "Fast tremolo or down-strokes for long: warm up, keep the wrist loose, make short breaks.",
            bars,
        )


def _is_driven(bar: Bar, time: BarTime) -> bool:
    """Whether the pick is driven all through a bar: tremolo, or down-strokes one after the other."""
    struck = [event for event in bar.events if event.struck]
    if not struck:
        return False
    if all(_TREMOLO & event.techniques_of(note) for event in struck for note in event.struck):
        return True
    down = all(event.stroke is Stroke.DOWN for event in struck)
    return down and len(struck) >= _DOWN_STROKES * time.seconds


def _lasting(holds: Sequence[bool], times: Sequence[BarTime], seconds: float) -> tuple[int, ...]:
    """Bars of runs in which it holds for so long."""
    found: list[int] = []
    run: list[int] = []
    for index, held in enumerate([*holds, False]):
        if held:
            run.append(index)
            continue
        if sum(times[bar].seconds for bar in run) >= seconds:
            found += run
        run = []
    return tuple(found)


def _tension(part: Part) -> Iterator[Caution]:
    usual = next((t for t in TUNINGS.values() if t.strings == part.tuning.strings), None)
    if usual is None:
        return
    raised = [
        (string, part.tuning.open_pitch(string) - usual.open_pitch(string))
        for string in range(1, part.tuning.strings + 1)
        if part.tuning.open_pitch(string) > usual.open_pitch(string)
    ]
    if raised:
        strings = ", ".join(_tension_words(part, usual, string, by) for string, by in raised)
        yield Caution(
            "tension",
            f"Strings above their usual pitch ({strings}) may snap or load the neck:"
            " tune the others lower instead, or use the capo.",
        )


def _tension_words(part: Part, usual: Tuning, string: int, half_tones: int) -> str:
    """`string 5 by 2: about 110 N, 26 % more`; the newtons where a usual set is known."""
    more = 2 ** (half_tones / 6) - 1  # tension grows with the square of the frequency
    newton = ""
    if usual == TUNINGS["standard"]:
        at = _STANDARD_NEWTON[string - 1] * (part.scale_length_mm / _USUAL_SCALE_MM) ** 2 * (1 + more)
        newton = f" about {at:.0f} N,"
    return f"string {string} by {half_tones}:{newton} {more * 100:.0f} % more"
