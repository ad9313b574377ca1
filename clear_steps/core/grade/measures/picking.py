"""Picking: strings skipped and far strings struck at once, by the way the hand plucks."""

from clear_steps.core.grade.finding import Finding, Place, nothing, number_words, string_words
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.score import Picking

UNIT = "skips/s"
_FAR = 2  # strings apart, from which the pick has to jump over one
_STRUM_SHARE = 0.3  # going through a string that a finger mutes (from memory)
_FINGER_SHARE = 0.3  # fingers lie on their strings: a skip is a third of the pick's (from memory)


def picking(bar: PlayedBar, ladder: Ladder) -> Finding:
    """String skips per second; with fingers they count less, and far strings at once count nothing."""
    plucked = bar.picking is not None and bar.picking.plucked
    far, muted = ([], []) if plucked else (_gaps(bar, _FAR + 1), _muted_between(bar))
    skips = _skips(bar) + far + muted
    if not skips:
        return nothing(UNIT)
    work = sum(_STRUM_SHARE if moment in muted else _FINGER_SHARE if plucked else 1.0 for moment in skips)
    rate = work / bar.seconds
    first = skips[0]
    count = "One string skip" if len(skips) == 1 else f"{number_words(len(skips)).capitalize()} string skips"
    evidence = (
        f"{count} in the bar, the first to {bar.beat_words(first.onset)} on the"
        f" {string_words(first.strings)}."
    )
    if bar.picking is Picking.PICK and far:
        evidence += (
            " Far strings at once cannot be struck with a bare pick: use the fingers too, or leave one out."
        )
    return Finding(
        ladder.curves["picking"].step(rate), rate, UNIT, Place(first.onset, first.strings), evidence
    )


def _skips(bar: PlayedBar) -> list[Moment]:
    """Picked notes, one at a time, that lie two strings or more from the one before."""
    skips = []
    before: tuple[int, ...] = ()
    for moment in bar.moments:
        if not moment.sounding.picked:
            continue
        strings = moment.sounding.strings
        if (
            before
            and len(strings) == 1
            and abs(strings[0] - before[0]) >= _FAR
            and all(abs(strings[0] - string) >= _FAR for string in before[1:])
        ):
            skips.append(moment)
        before = strings
    return skips


def _gaps(bar: PlayedBar, far: int) -> list[Moment]:
    """Strings struck at once, so many apart or more, with those between left out."""
    return [
        moment
        for moment in bar.moments
        if any(a - b >= far for a, b in zip(moment.strings, moment.strings[1:], strict=False))
    ]


def _muted_between(bar: PlayedBar) -> list[Moment]:
    """One string between two that are struck at once, as in an octave: a fretting finger mutes it, and the
    pick goes through."""
    far = _gaps(bar, _FAR + 1)
    return [moment for moment in _gaps(bar, _FAR) if moment not in far]
