"""Technique: the hardest thing done to a note, how often, and how many kinds."""

from collections import Counter
from math import log2

from clear_steps.core.grade.finding import Finding, Place, beat_words, nothing, string_words
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.core.score import TECHNIQUES, Technique

UNIT = "techniques/s"
_RATE_WEIGHT, _KIND_WEIGHT = 0.5, 0.2


def technique(bar: PlayedBar, ladder: Ladder) -> Finding:
    """Highest Step + 0.5 log2(1 + demands per second) + 0.2 for each further kind."""
    used = [(row, string, moment) for moment in bar.moments for row, string in moment.sounding.techniques if ladder.technique_steps[row] > 0]
    if not used:
        return nothing(UNIT)
    counts = Counter(row for row, _, _ in used)
    rate = len(used) / bar.seconds
    hardest, string, moment = max(used, key=lambda entry: ladder.technique_steps[entry[0]])
    step = ladder.technique_steps[hardest] + _RATE_WEIGHT * log2(1 + rate) + _KIND_WEIGHT * (len(counts) - 1)
    return Finding(min(step, HARDEST_STEP), rate, UNIT, Place(moment.onset, (string,)), _evidence(bar, moment, string, hardest, counts))


def _evidence(bar: PlayedBar, moment: Moment, string: int, hardest: Technique, counts: Counter[Technique]) -> str:
    listed = [_counted(row, count) for row, count in counts.most_common()]
    every = listed[0] if len(listed) == 1 else f"{', '.join(listed[:-1])} and {listed[-1]}"
    if len(counts) == 1:
        first = "first " if counts[hardest] > 1 else ""
        return f"{every.capitalize()}, {first}at {beat_words(moment.onset, bar.bar.metre)} on the {string_words((string,))}."
    where = f"at {beat_words(moment.onset, bar.bar.metre)} on the {string_words((string,))}"
    return f"{every.capitalize()}; the hardest is the {TECHNIQUES[hardest].name} {where}."


def _counted(row: Technique, count: int) -> str:
    numbers = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine")
    names = TECHNIQUES[row]
    return f"{numbers[count] if count < 10 else count} {names.name if count == 1 else names.plural}"
