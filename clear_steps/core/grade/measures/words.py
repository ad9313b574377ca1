"""Words that the rungs of several measures share."""

from clear_steps.core.hand import Curve

USUAL_SPAN_MM = 100.0


def rate_words(curve: Curve, step: float) -> str:
    """`2.5`: the highest rate that stays at a Step."""
    return f"{curve.raw(step):.1f}"


def beyond(curve: Curve, step: int) -> str:
    """` and more` where the curve ends."""
    return " and more" if step >= curve.points[-1][1] else ""
