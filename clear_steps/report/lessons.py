"""Figures, chunks and words as JSON; its shape is in docs/command-line.md."""

from clear_steps.core.figures import At, ComingBack, coming_back
from clear_steps.core.grade import Ladder, grade_part
from clear_steps.core.grade.excerpt import Excerpt, Excerpts
from clear_steps.core.score import Part, Song
from clear_steps.core.teach.chunks import (
    GradedChunk,
    Layer,
    Order,
    graded_chunks,
    layers,
    ordered,
    proposed_chunks,
    with_layer,
)
from clear_steps.core.teach.words import Language, Names, directions
from clear_steps.report.grades import Json


def figures_report(song: Song) -> Json:
    """All of `figures --json`."""
    return {"parts": [_part_figures(part, coming_back(part, song.order)) for part in song.parts]}


def _part_figures(part: Part, found: ComingBack) -> Json:
    return {
        "figures": [
            {
                "times": figure.times,
                **({"strings": list(figure.strings)} if figure.strings else {}),
                "places": [
                    {
                        "from": _at(part, place.first),
                        "to": _at(part, place.last),
                        "as": place.how,
                        "by": place.by,
                        "but": [_at(part, moment) for moment in place.but],
                    }
                    for place in figure.places
                ],
            }
            for figure in found.figures
        ],
        "rules": [
            {
                "from": _at(part, rule.first),
                "to": _at(part, rule.last),
                "notes": rule.notes,
                "by": rule.by,
                "of": rule.of,
                "rule": rule.words,
            }
            for rule in found.rules
        ],
    }


def chunks_report(song: Song, ladder: Ladder, by: Order) -> Json:
    """All of `chunks --json`."""
    return {"parts": [{"chunks": _part_chunks(song, part, ladder, by)} for part in song.parts]}


def _part_chunks(song: Song, part: Part, ladder: Ladder, by: Order) -> list[Json]:
    excerpts, found = Excerpts(song, part, ladder), coming_back(part, song.order)
    positions = {moment: grip.position for moment, grip in excerpts.grading.grips.items()}
    rows = graded_chunks(excerpts, proposed_chunks(part, found, positions), found)
    chunks = [row.chunk for row in rows]
    order = ordered(part, song.order, chunks, [row.like for row in rows], [row.step for row in rows], by)
    if by is not Order.LAYERS:
        return [_chunk_report(part, rows[index], rows[index].name, rows[index].step) for index in order]
    layered = layers(part, chunks)
    alone = {
        layer: Excerpts(song, with_layer(part, layer), ladder)
        for layer in sorted({layer for own in layered for layer in own})
    }
    return [
        _chunk_report(
            part,
            row,
            row.name if layer is Layer.ALL else f"{row.name}, {layer}",
            alone[layer].step(Excerpt(row.chunk.first, row.chunk.last)),
        )
        for row, own in zip(rows, layered, strict=True)
        for layer in own
    ]


def words_report(song: Song, ladder: Ladder, language: Language, names: Names) -> Json:
    """All of `words --json`."""
    return {"parts": [{"chunks": _part_words(song, part, ladder, language, names)} for part in song.parts]}


def _part_words(song: Song, part: Part, ladder: Ladder, language: Language, names: Names) -> list[Json]:
    grips = grade_part(song, part, ladder).grips
    positions = {moment: grip.position for moment, grip in grips.items()}
    chunks = proposed_chunks(part, coming_back(part, song.order), positions)
    rows = directions(part, chunks, grips, language, names)
    return [{"name": row.name, "sentences": list(row.sentences)} for row in rows]


def _chunk_report(part: Part, row: GradedChunk, name: str, step: float) -> Json:
    return {
        "name": name,
        "from": _at(part, row.chunk.first),
        "to": _at(part, row.chunk.last),
        "step": round(step, 4),
        "figure": row.figure,
        "tempo": row.tempo,
        "measure": row.measure,
        "switch": row.switch and {"from": _at(part, row.switch.first), "to": _at(part, row.switch.last)},
    }


def _at(part: Part, moment: At) -> Json:
    return {"bar": part.bar_number(moment.bar), "onset": str(moment.onset)}
