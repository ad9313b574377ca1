"""What comes back, as the screens show it."""

from collections.abc import Sequence

from clear_steps.core.figures import At, ComingBack, Figure, Place
from clear_steps.core.figures.nesting import as_met, is_within
from clear_steps.core.figures.words import figure_words, likeness_words, stretch_words
from clear_steps.core.score import Part
from clear_steps.web.analysis import schemas as api


def figure_models(part: Part, found: ComingBack, played: Sequence[int]) -> list[api.FigureModel]:
    """Every figure in the order it is met."""
    figures = as_met(found, played)
    return [_figure_model(part, figure, is_within(figure, figures)) for figure in figures]


def rule_models(part: Part, found: ComingBack) -> list[api.RuleModel]:
    """Every sequence with its rule in words."""
    return [
        api.RuleModel(
            first=_moment_model(part, rule.first),
            last=_moment_model(part, rule.last),
            where=stretch_words(part, rule.first, rule.last),
            words=rule.words,
        )
        for rule in found.rules
    ]


def _figure_model(part: Part, figure: Figure, within: bool) -> api.FigureModel:
    return api.FigureModel(
        times=figure.times,
        strings=list(figure.strings),
        within=within,
        words=figure_words(part, figure),
        places=[_place_model(part, place) for place in figure.places],
    )


def _place_model(part: Part, place: Place) -> api.FigurePlaceModel:
    return api.FigurePlaceModel(
        first=_moment_model(part, place.first),
        last=_moment_model(part, place.last),
        like=place.how,
        where=stretch_words(part, place.first, place.last),
        words=likeness_words(part, place),
        but=[_moment_model(part, at) for at in place.but],
    )


def _moment_model(part: Part, at: At) -> api.MomentModel:
    """The event that stands at a moment, or begins before it and lasts."""
    onsets = part.bars[at.bar].onsets
    return api.MomentModel(bar=at.bar, event=max(n for n, onset in enumerate(onsets) if onset <= at.onset))
