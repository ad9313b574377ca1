"""Rhythm: syncopation, tuplets, odd or changing metre.

Syncopation after Longuet-Higgins & Lee 1984 (from memory): a note that starts on a weaker place than
one it holds over counts the difference of their metrical weights.
"""

import itertools
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.score import Metre
from clear_steps.core.score.words import capital

_MIXED = 1.0  # tuplets among straight notes add a Step
_ODD_STEP, _CHANGED_AGAIN = 3.5, 0.4  # of a metre, and for every further change in a row (from memory)
# By the prime that divides the beat: its Step and its name (from memory).
_TUPLETS = {3: (3.0, "triplets"), 5: (4.0, "quintuplets"), 7: (4.5, "septuplets")}
_OTHER_TUPLETS = (5.0, "tuplets")
_USUAL_BEATS = (2, 3, 4, 6, 9, 12)


class _Felt(NamedTuple):
    """What of a bar's rhythm is hard: the most syncopated voice, and what has a Step of its own."""

    step: float
    amount: int  # of syncopation
    at: Moment
    words: tuple[str, ...]


def _find(bar: PlayedBar, ladder: Ladder) -> Found[_Felt]:
    """One for the bar; in free time nothing."""
    if not bar.moments or any(moment.event.free for moment in bar.moments):
        return []
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
    words = []
    if amount:
        where = bar.beat_words(worst)
        weak = (place / bar.bar.metre.beat_quarters).denominator == 1
        what = "notes on weak beats hold over strong ones" if weak else "notes off the beat hold over it"
        words.append(f"{what}, {degree(amount)}, most at {where} (syncopation {amount})")
    for least, word in _others(bar):
        step = max(step, least)
        words.append(word)
    at = next(moment for moment in voice if moment.onset == worst)
    beat_seconds = max(float(bar.bar.metre.beat_quarters), 1.0) * bar.quarter_seconds
    step = max(step - ladder.curves["beat_time"].step(beat_seconds), 0.0)
    return [(at.sounding.onset_quarters, _Felt(step, amount, at, tuple(words)))] if words else []


# How much off the beat a bar is, in words (judgement): one push, several, all through.
_DEGREES = ((8, "strongly"), (4, "clearly"), (0, "a little"))


def degree(amount: int) -> str:
    """How strongly a bar is off the beat, by its syncopation."""
    return next(word for least, word in _DEGREES if amount >= least)


def _others(bar: PlayedBar) -> list[tuple[float, str]]:
    lengths = [event.quarters for event in bar.bar.events]
    others = []
    for step, name in sorted({_tuplet(prime) for prime in _primes(lengths, bar.bar.metre)}):
        mixed = any(not _primes([length], bar.bar.metre) for length in lengths)
        others.append(
            (
                step + _MIXED * mixed,
                f"{name} stand among straight notes" if mixed else f"the beat is divided in {name}",
            )
        )
    if bar.bar.metre.beats not in _USUAL_BEATS:
        others.append((_ODD_STEP, f"the bar is odd, {bar.bar.metre}"))
    if bar.metre_changes:
        step = _ODD_STEP + _CHANGED_AGAIN * (bar.metre_changes - 1)
        others.append((step, f"the bars change to {bar.bar.metre}"))
    return others


def _tuplet(prime: int) -> tuple[float, str]:
    return _TUPLETS.get(prime, _OTHER_TUPLETS)


def _primes(lengths: list[Fraction], metre: Metre) -> set[int]:
    """The primes by which the beat is divided, other than 2, in compound metres other than 2 and 3."""
    usual = (2, 3) if metre.beat_quarters.numerator == 3 else (2,)
    found = set()
    for rest in (length.denominator for length in lengths):
        for prime in usual:
            while rest % prime == 0:
                rest //= prime
        if rest > 1:
            found.add(next(prime for prime in range(3, rest + 1) if rest % prime == 0))
    return found


def _voices(bar: PlayedBar) -> list[list[Moment]]:
    """Bass and upper voice where the texture has both, unless together they go on evenly; one voice else."""
    every = list(bar.moments)
    if not bar.two_voices or _is_even(every, bar):
        return [every]
    low = [moment for moment in every if any(string >= bar.bass_from for string in moment.strings)]
    high = [moment for moment in every if any(string < bar.bass_from for string in moment.strings)]
    return [voice for voice in (low, high) if voice]


def _is_even(moments: list[Moment], bar: PlayedBar) -> bool:
    """A stream of notes of one length, on its own grid: whoever plays it hears one line."""
    onsets = [bar.in_metre(moment.onset) for moment in moments]
    gaps = {b - a for a, b in itertools.pairwise(onsets)}
    return len(gaps) == 1 and all((onset / min(gaps)).denominator == 1 for onset in onsets)


@lru_cache(maxsize=1024)
def syncopation(
    onsets: tuple[Fraction, ...], metre: Metre, stop: Fraction | None = None, holds_over: bool = False
) -> tuple[int, Fraction]:
    """The sum over a bar that ends at `stop` (else with its metre), and the onset that adds most; tuplets lie
    off these levels and add nothing."""
    total, most, worst = 0, 0, onsets[0]
    for onset, following in zip(onsets, [*onsets[1:], metre.quarters if stop is None else stop], strict=True):
        if onset.denominator & (onset.denominator - 1):
            continue  # no power of two
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


def _weigh(found: Found[_Felt], _: Window, __: Ladder) -> float:
    """The hardest of what is felt."""
    return max(felt.step for _, felt in found)


def _tell(found: Found[_Felt], _: PlayedBar, __: Ladder) -> Told:
    felt = found[0][1]
    text = "; ".join(felt.words)
    place = Place(felt.at.onset, felt.at.strings)
    return Told(float(felt.amount), place, f"{capital(text)}.")


def _rung(ladder: Ladder, step: int) -> str:
    return f"syncopation up to {ladder.curves['rhythm'].raw(step):.0f} in a bar"


RHYTHM = Measure(
    name="rhythm",
    spoken="the rhythm",
    about="notes off the beat, tuplets, bars of odd or changing length",
    unit="syncopation",
    sign="M3 13V4M7 13V8M10 13V3M13 13V9",
    curves={"rhythm": "rhythm", "beat_time": "time for a beat"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    of_the_score=True,
    said={"es": "el ritmo"},
    helps={
        "en": "Count aloud and clap it before it is played.",
        "es": "Contar en voz alta y dar palmas antes de tocar.",
    },
)
