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
# What teachers say to it (common practice, no source).
_HELPS = {
    Language.ENGLISH: {
        "stretch": "What helps: the thumb low behind the neck, and the farthest finger set first.",
        "shift": "What helps: look at the fret before the hand moves, and let one finger stay on its string.",
        "speed": "What helps: small movements close to the strings, with a click, slowly first.",
        "technique": "What helps: the technique alone on one note, then within its bar.",
        "shapes": "What helps: change between the two shapes without playing until all fingers land at once.",
        "picking": "What helps: the picking hand alone, on open strings.",
        "damping": "What helps: decide for every string which finger or side of the hand keeps it quiet.",
        "rhythm": "What helps: count aloud and clap it before it is played.",
        "independence": "What helps: each voice alone until it goes by itself, then both very slowly.",
    },
    Language.SPANISH: {
        "stretch": "Ayuda: el pulgar bajo detrás del mástil, y poner primero el dedo más lejano.",
        "shift": "Ayuda: mirar el traste antes de mover la mano, y dejar un dedo en su cuerda.",
        "speed": "Ayuda: movimientos pequeños cerca de las cuerdas, con metrónomo, primero despacio.",
        "technique": "Ayuda: la técnica sola en una nota, después dentro de su compás.",
        "shapes": "Ayuda: cambiar entre las dos posiciones sin tocar hasta que los dedos caigan a la vez.",
        "picking": "Ayuda: la mano que pulsa sola, con cuerdas al aire.",
        "damping": "Ayuda: decidir para cada cuerda qué dedo o qué lado de la mano la apaga.",
        "rhythm": "Ayuda: contar en voz alta y dar palmas antes de tocar.",
        "independence": "Ayuda: cada voz sola hasta que salga por sí misma, después las dos muy despacio.",
    },
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
    """What makes a part hard, where, and what helps; nothing where there is nothing to play."""
    if not grading.peak_bars:
        return ()
    peak = max((grading.bars[index] for index in grading.peak_bars), key=lambda bar: bar.step)
    helps = _HELPS[language][peak.hardest_measure]
    if language is Language.ENGLISH:
        return (*three_sentences(part, grading, found)[:_SENTENCES], helps)
    steps = sorted(bar.step for bar in grading.bars if not part.bars[bar.index].silent)
    what = _SPANISH_MEASURES[peak.hardest_measure]
    return (
        f"Lo difícil es {what}, en el compás {peak.number} (Step {peak.step:.1f}).",
        f"La mitad de los compases está en Step {steps[len(steps) // 2]:.1f} o menos.",
        helps,
    )


def care_sentences(cautions: Sequence[Caution], language: Language) -> tuple[str, ...]:
    """What to take care of, each once, and at last what always holds."""
    english = language is Language.ENGLISH
    own = [each.words if english else _SPANISH_CAUTIONS[each.kind] for each in cautions]
    return (*dict.fromkeys(own), PAIN if english else _SPANISH_PAIN)
