"""What a sheet says beside the notes, in the student's language: what makes it hard, and what to take care
of."""

from collections.abc import Sequence

from clear_steps.core.figures import ComingBack
from clear_steps.core.grade import Grading, three_sentences
from clear_steps.core.score import Part
from clear_steps.core.teach.cautions import PAIN, Caution
from clear_steps.core.teach.words.languages import Language

_SENTENCES = 2  # of the three: what and where
_SPANISH_MEASURES = {
    "stretch": "la apertura de la mano",
    "shift": "los cambios de posición",
    "speed": "la velocidad",
    "technique": "la técnica",
    "shapes": "poner las posiciones",
    "picking": "la mano que pulsa",
    "damping": "apagar las cuerdas",
    "rhythm": "el ritmo",
    "independence": "llevar dos voces a la vez",
}
_SPANISH_CAUTIONS = {
    "stretch": "Hay aperturas grandes para esta mano: busca otros dedos u otro lugar en vez de forzar.",
    "barre": "Una cejilla larga: calienta, aprieta solo lo necesario y suelta la mano entre medias.",
    "picking": "Púa rápida durante mucho tiempo: calienta, mantén la muñeca suelta y haz pausas cortas.",
    "tension": "Hay cuerdas por encima de su altura habitual: pueden romperse o cargar el mástil;"
    " baja las demás o usa la cejilla.",
}
_SPANISH_PAIN = (
    "Para si sientes dolor, hormigueo o adormecimiento, y descansa;"
    " si dura, que lo vea un médico o un fisioterapeuta de la mano."
)


def hard_sentences(part: Part, grading: Grading, found: ComingBack, language: Language) -> tuple[str, ...]:
    """What makes a part hard, and where; nothing where there is nothing to play."""
    if language is Language.ENGLISH:
        return three_sentences(part, grading, found)[:_SENTENCES]
    if not grading.peak_bars:
        return ()
    peak = max((grading.bars[index] for index in grading.peak_bars), key=lambda bar: bar.step)
    steps = sorted(bar.step for bar in grading.bars if not part.bars[bar.index].silent)
    what = _SPANISH_MEASURES[peak.hardest_measure]
    return (
        f"Lo difícil es {what}, en el compás {peak.number} (Step {peak.step:.1f}).",
        f"La mitad de los compases está en Step {steps[len(steps) // 2]:.1f} o menos.",
    )


def care_sentences(cautions: Sequence[Caution], language: Language) -> tuple[str, ...]:
    """What to take care of, each once, and at last what always holds."""
    english = language is Language.ENGLISH
    own = [each.words if english else _SPANISH_CAUTIONS[each.kind] for each in cautions]
    return (*dict.fromkeys(own), PAIN if english else _SPANISH_PAIN)
