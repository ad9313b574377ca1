"""The ladder in words: what each measure alone allows at a Step, made from its data."""

from dataclasses import dataclass

from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.hand import Curve
from clear_steps.core.score import TECHNIQUES

STEPS = range(1, 11)
_USUAL_SPAN_MM = 100.0


@dataclass(frozen=True, slots=True)
class Rung:
    """One Step: a sentence a measure."""

    step: int
    sentences: tuple[tuple[str, str], ...]  # (measure, words)


def rungs(ladder: Ladder) -> tuple[Rung, ...]:
    """Ten rungs, easiest first."""
    return tuple(Rung(step, tuple(_sentences(ladder, step))) for step in STEPS)


def _sentences(ladder: Ladder, step: int) -> list[tuple[str, str]]:
    curves = ladder.curves
    reach = curves["stretch"].raw(step) * _USUAL_SPAN_MM
    moves = round(curves["shift"].raw(step) * 100)
    fretting, strokes = _rate(curves["fretting_speed"], step), _rate(curves["picking_speed"], step)
    return [
        (
            "stretch",
            (
                f"reaches up to {reach:.0f} mm for a hand that spans"
                f" {_USUAL_SPAN_MM:.0f}{_beyond(curves['stretch'], step)}"
            ),
        ),
        ("shift", f"moves that need up to {moves} % of the time there is{_beyond(curves['shift'], step)}"),
        (
            "speed",
            f"up to {fretting} notes a second for the fretting hand, {strokes} strokes for the picking hand",
        ),
        ("technique", _techniques(ladder, step)),
        ("shapes", _shapes(ladder, step)),
        ("picking", f"up to {_rate(curves['picking'], step)} string skips a second with a pick"),
        ("damping", f"strings to be stopped up to {_rate(curves['damping'], step)} times a second"),
        ("rhythm", f"syncopation up to {curves['rhythm'].raw(step):.0f} in a bar"),
        (
            "independence",
            f"up to {_rate(curves['independence'], step)} re-fretted notes a second over a note that rings",
        ),
    ]


def _rate(curve: Curve, step: float) -> str:
    return f"{curve.raw(step):.1f}"


def _beyond(curve: Curve, step: int) -> str:
    return " and more" if step >= curve.points[-1][1] else ""


def _techniques(ladder: Ladder, step: int) -> str:
    """What a single one, once in a slow bar, newly comes within reach."""
    named = {
        TECHNIQUES[row].plural: own for row, own in ladder.technique_steps.items() if own > 0
    } | ladder.own_techniques
    new = sorted(name for name, own in named.items() if step - 1 < own <= step)
    if new:
        return f"now also {', '.join(new)}"
    return (
        "no technique yet"
        if not any(own <= step for own in named.values())
        else "the same techniques, more of them"
    )


def _shapes(ladder: Ladder, step: int) -> str:
    own = ladder.shapes
    rows = {
        "two fingers": own.two_fingers,
        "three fingers": own.three_fingers,
        "four fingers": own.four_fingers,
        "a small barre": own.small_barre,
        "a bass by the thumb": own.thumb,
        "a full barre from the 5th fret on": own.full_barre_high,
        "a full barre at the 1st fret": own.full_barre_low,
    }
    allowed = {name: least for name, least in rows.items() if least <= step}
    if not allowed:
        return "one finger at a time, or a shape held"
    hardest = max(allowed.items(), key=lambda entry: entry[1])
    room = ladder.curves["shape_changes"].raw(step - hardest[1])
    often = f"changed up to {room:.1f} times a second" if room > 0 else "changed slowly"
    return f"at the most {hardest[0]}, {often}"
