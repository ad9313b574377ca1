"""A song in three sentences: what makes it hard, where, and what is easier than it sounds."""

from collections import Counter
from collections.abc import Sequence

from clear_steps.core.figures import As, ComingBack, Figure
from clear_steps.core.figures.bars import bars_known_before
from clear_steps.core.figures.words import figure_words
from clear_steps.core.grade.measures import MEASURES
from clear_steps.core.grade.step import BarGrade, Grading
from clear_steps.core.hand import Grip
from clear_steps.core.score import Part
from clear_steps.core.score.words import bar_words, capital, number_words, uncapital

_BUSY_NOTES = 5
_FULL_CHORD = 3
_EASY_STEP = 2.0  # nothing in it is hard
_OFTEN = 3  # one bar in so many
_CLOSE = 0.6  # Steps from the easiest to the hardest bar, of bars that are about as hard
_MOST_NAMED = 6  # bars that stand out
_STANDS_OUT = 0.3  # Steps above a typical bar


def three_sentences(part: Part, grading: Grading, found: ComingBack) -> tuple[str, ...]:
    """What, where, and a reassurance, which knows what comes back; fewer where there is nothing to play."""
    if not grading.peak_bars:
        return ()
    return (_what(grading), _where(part, grading), _easier_than_it_sounds(part, grading, found))


def _what(grading: Grading) -> str:
    peak = max((grading.bars[index] for index in grading.peak_bars), key=lambda bar: bar.step)
    finding = peak.findings[peak.hardest_measure]
    spoken = MEASURES[peak.hardest_measure].spoken
    what = f"What makes it hard is {spoken}" if peak.step > _EASY_STEP else f"Most is asked by {spoken}"
    return f"{what}, in {bar_words(peak.number)}: {uncapital(finding.evidence)}"


def _where(part: Part, grading: Grading) -> str:
    hard = [bar for bar in grading.bars if _stands_out(bar, grading)]
    steps = sorted(bar.step for bar in grading.bars if not part.bars[bar.index].silent)
    middle = steps[len(steps) // 2]
    if _is_even(steps):
        return (
            f"It is as hard all through: {'its one bar stands' if len(steps) == 1 else 'all bars stand'} at"
            f" Step {steps[0]:.1f}."
        )
    if not hard or len(steps) < 3:
        between = f"between Step {steps[0]:.1f} and {steps[-1]:.1f}"
        if steps[-1] - steps[0] <= _CLOSE:
            return f"No bar stands far above the others: they lie {between}."
        hardest = max(grading.bars, key=lambda bar: bar.step)
        return f"The bars lie {between}; the hardest is {bar_words(hardest.number)}."
    by_section = Counter(_section(part, bar.index) for bar in hard)
    section, count = by_section.most_common(1)[0]
    where = "" if not section or 2 * count <= len(hard) else "in" if count == len(hard) else "most of them in"
    named = f", {where} {section}" if where else ""
    bars = capital(bar_words(*(bar.number for bar in hard[:_MOST_NAMED])))
    more = "" if len(hard) <= _MOST_NAMED else f" and {len(hard) - _MOST_NAMED} more"
    verb = "stand" if len(hard) > 1 else "stands"
    return f"{bars}{more} {verb} out{named}; half of the bars are at Step {middle:.1f} or below."


def _stands_out(bar: BarGrade, grading: Grading) -> bool:
    return bar.step > grading.typical + _STANDS_OUT


def _section(part: Part, index: int) -> str:
    names = [section.name for section in part.sections if section.first_bar <= index]
    return names[-1] if names else ""


def _easier_than_it_sounds(part: Part, grading: Grading, found: ComingBack) -> str:
    """The first of a few reassurances that is true."""
    return (
        _few_fingers(part, grading)
        or _one_shape(part, grading)
        or _less_to_learn(part, found)
        or _a_place_to_begin(part, grading)
    )


def _less_to_learn(part: Part, found: ComingBack) -> str:
    """Where a third of the bars come back; with the figure that comes most."""
    back, sounding = len(bars_known_before(part, found)), sum(not bar.silent for bar in part.bars)
    if not back or back * _OFTEN < sounding:
        return ""
    most = max(filter(_is_more_than_rhythm, found.figures), key=lambda figure: figure.times)
    verb = "comes" if back == 1 else "come"
    return (
        f"There is less to learn than it seems: {number_words(back)} of its {number_words(sounding)} bars"
        f" {verb} back. {figure_words(part, most)}."
    )


def _is_more_than_rhythm(figure: Figure) -> bool:
    return any(place.how is not As.RHYTHM for place in figure.later)


def _few_fingers(part: Part, grading: Grading) -> str:
    """A busy bar that is one or two fingers on one or two strings."""
    for bar in sorted(
        (bar for bar in grading.bars if not _stands_out(bar, grading)), key=lambda bar: -bar.step
    ):
        notes = [note for event in part.bars[bar.index].events for note in event.struck]
        strings, fingers = (
            {note.string for note in notes},
            {finger for grip in _grips(grading, bar.index) for finger in grip.fingers},
        )
        if len(notes) >= _BUSY_NOTES and len(strings) <= 2 and 1 <= len(fingers) <= 2:
            count, on = number_words(len(fingers)), number_words(len(strings))
            return (
                f"{capital(bar_words(bar.number))} sounds busier than it is: {count}"
                f" finger{'s' * (count != 'one')} on {on}"
                f" string{'s' * (on != 'one')}."
            )
    return ""


def _one_shape(part: Part, grading: Grading) -> str:
    """A bar of full chords or an arpeggio that is one held shape."""
    for bar in sorted(
        (bar for bar in grading.bars if not _stands_out(bar, grading)), key=lambda bar: -bar.step
    ):
        strings = {note.string for event in part.bars[bar.index].events for note in event.struck}
        grips = _grips(grading, bar.index)
        if len(strings) >= _FULL_CHORD and len(grips) > 2 and len({grip.presses for grip in grips}) == 1:
            name = capital(bar_words(bar.number))
            return f"{name} sounds fuller than it is: the hand holds one shape all through it."
    return ""


def _grips(grading: Grading, index: int) -> list[Grip]:
    return [grip for (bar, _), grip in grading.grips.items() if bar == index]


def _a_place_to_begin(part: Part, grading: Grading) -> str:
    sounding = [bar for bar in grading.bars if not part.bars[bar.index].silent]
    easiest = min(sounding, key=lambda bar: bar.step)
    if _is_even([bar.step for bar in sounding]):
        return "Nothing in it is easier than the rest: begin slower."
    name = capital(bar_words(easiest.number))
    return f"{name} is a good place to begin: it stands at Step {easiest.step:.1f}."


def _is_even(steps: Sequence[float]) -> bool:
    """Whether the lowest and the highest are told by the same figure."""
    return f"{min(steps):.1f}" == f"{max(steps):.1f}"
