"""Rhythm: syncopation, tuplets, odd or changing metre.

Syncopation after Longuet-Higgins & Lee 1984 (from memory): a note that starts on a weaker place than
one it holds over counts the difference of their metrical weights.
"""

from fractions import Fraction
from functools import lru_cache

from clear_steps.core.grade.finding import Finding, Place, nothing
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.score import Metre
from clear_steps.core.score.ringing import BASS_STRING

UNIT = "syncopation"
_TRIPLETS_STEP, _MIXED_STEP, _METRE_STEP = 3.0, 4.0, 3.5
_USUAL_BEATS = (2, 3, 4, 6, 9, 12)


def rhythm(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The most syncopated voice; tuplets, odd and changing metres have a Step of their own at least."""
    if not bar.moments or any(moment.event.free for moment in bar.moments):
        return nothing(UNIT)
    stop = bar.in_metre(bar.bar.quarters)
    found = [
        (
            syncopation(
                tuple(bar.in_metre(moment.onset) for moment in voice), bar.bar.metre, stop, bar.holds_over
            ),
            voice,
        )
        for voice in _voices(bar)
    ]
    (amount, place), voice = max(found, key=lambda entry: entry[0][0])
    worst = place - bar.starts_at
    step = ladder.curves["rhythm"].step(amount)
    words = (
        [f"notes off the beat hold over it, most at {bar.beat_words(worst)} (syncopation {amount})"]
        if amount
        else []
    )
    for least, word in _others(bar):
        step = max(step, least)
        words.append(word)
    if not words:
        return nothing(UNIT)
    at = next(moment for moment in voice if moment.onset == worst)
    text = "; ".join(words)
    return Finding(step, float(amount), UNIT, Place(at.onset, at.strings), f"{text[:1].upper()}{text[1:]}.")


def _others(bar: PlayedBar) -> list[tuple[float, str]]:
    thirds = [event.quarters for event in bar.bar.events if event.quarters.denominator % 3 == 0]
    others = []
    if thirds:
        mixed = len(thirds) < len([event for event in bar.bar.events if event.notes])
        others.append(
            (_MIXED_STEP if mixed else _TRIPLETS_STEP, "tuplets among straight notes" if mixed else "tuplets")
        )
    if bar.bar.metre.beats not in _USUAL_BEATS:
        others.append((_METRE_STEP, f"an odd bar of {bar.bar.metre}"))
    elif bar.metre_changed:
        others.append((_METRE_STEP, f"the metre changes to {bar.bar.metre}"))
    return others


def _voices(bar: PlayedBar) -> list[list[Moment]]:
    """Bass and upper voice where the texture has both; one voice else."""
    every = list(bar.moments)
    if not bar.two_voices:
        return [every]
    low = [moment for moment in every if any(string >= BASS_STRING for string in moment.strings)]
    high = [moment for moment in every if any(string < BASS_STRING for string in moment.strings)]
    return [voice for voice in (low, high) if voice]


@lru_cache(maxsize=1024)
def syncopation(
    onsets: tuple[Fraction, ...], metre: Metre, stop: Fraction | None = None, holds_over: bool = False
) -> tuple[int, Fraction]:
    """The sum over a bar that ends at `stop` (else with its metre), and the onset that adds most; thirds of a
    beat lie off these levels and add nothing."""
    total, most, worst = 0, 0, onsets[0]
    for onset, following in zip(onsets, [*onsets[1:], metre.quarters if stop is None else stop], strict=True):
        if onset.denominator % 3 == 0:
            continue
        own = metre.weight_at(onset)
        over = max((metre.weight_at(place) for place in _places(onset, following)), default=own)
        if holds_over and onset == onsets[-1]:
            over = 0  # pushed: it sounds on through the next bar's first beat
        if over > own:
            total += over - own
            if over - own > most:
                most, worst = over - own, onset
    return total, worst


def _places(start: Fraction, stop: Fraction) -> list[Fraction]:
    """Sixteenths strictly between two onsets."""
    grid = Fraction(1, 4)
    place, places = (start // grid + 1) * grid, []
    while place < stop:
        places.append(place)
        place += grid
    return places
