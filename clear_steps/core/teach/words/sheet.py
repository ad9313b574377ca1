"""What a sheet says beside the notes, in the student's language: what makes it hard, and what to take care
of."""

from collections.abc import Sequence

from clear_steps.core.figures import ComingBack
from clear_steps.core.grade import MEASURES, Grading, three_sentences
from clear_steps.core.score import Part
from clear_steps.core.score.words import uncapital
from clear_steps.core.teach.cautions import PAIN, Caution
from clear_steps.core.teach.words.catalogue import Catalogue, catalogue_of
from clear_steps.core.teach.words.languages import Language
from clear_steps.core.teach.words.sentences import sentence

_SENTENCES = 2  # of the three: what and where


def hard_sentences(part: Part, grading: Grading, found: ComingBack, language: Language) -> tuple[str, ...]:
    """What makes a part hard, where, and what helps; nothing where there is nothing to play."""
    if not grading.peak_bars:
        return ()
    peak = max((grading.bars[index] for index in grading.peak_bars), key=lambda bar: bar.step)
    row, catalogue = MEASURES[peak.hardest_measure], catalogue_of(language)
    said = [_hard(catalogue, row.said_in(language), peak.number, peak.step)]
    if language is Language.ENGLISH:
        said = list(three_sentences(part, grading, found)[:_SENTENCES])
    else:
        steps = sorted(bar.step for bar in grading.bars if not part.bars[bar.index].silent)
        said.append(sentence(catalogue.say("half-of-the-bars", step=f"{steps[len(steps) // 2]:.1f}")))
    helps = row.help_in(language)
    return (*said, catalogue.say("what-helps", what=uncapital(helps))) if helps else tuple(said)


def _hard(catalogue: Catalogue, measure: str, number: int, step: float) -> str:
    return sentence(catalogue.say("hard", measure=measure, bar=number, step=f"{step:.1f}"))


def care_sentences(cautions: Sequence[Caution], language: Language) -> tuple[str, ...]:
    """What to take care of, each once, and at last what always holds."""
    catalogue = catalogue_of(language)
    own = [_care(each, catalogue) for each in cautions]
    return (*dict.fromkeys(own), _pain(catalogue))


def _care(caution: Caution, catalogue: Catalogue) -> str:
    message = f"caution-{caution.kind}"
    return catalogue.say(message) if catalogue.has_own(message) else caution.words


def _pain(catalogue: Catalogue) -> str:
    return catalogue.say("pain") if catalogue.has_own("pain") else PAIN
