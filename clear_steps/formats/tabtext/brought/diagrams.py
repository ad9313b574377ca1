"""Scale boxes and chord diagrams: they look like tab and are no music in time."""

import re
from collections.abc import Sequence

from clear_steps.formats.tabtext.brought.strings import Row, row_of, runs_of
from clear_steps.formats.tabtext.lines import NOTHING
from clear_steps.formats.tabtext.problems import Findings

DIAGRAM = "a scale box or chord diagram stands here"
_FRETS = re.compile(r"\d{1,2}")
_DOTS = re.compile(r"[-\s]*+(?:[oO*xX●•R1-4][-\s]*+)?")
_NAMED_SO = re.compile(r"\b(?:box|scale|pattern|pentatonic|diagram|shape)s?\b", re.IGNORECASE)
_FEWEST_STRINGS, _WIDEST_CELL, _FEWEST_CELLS = 5, 5, 3
_WIDEST = 5  # frets of a box on one string
_MOST_NOTES, _FARTHEST_WORDS = 4, 4


def without_diagrams(lines: list[str], findings: Findings) -> list[str]:
    """The lines without boxes and diagrams, which are told."""
    made = list(lines)
    for run in runs_of(lines):
        rows = [row for at in run if (row := row_of(lines[at]))]
        about = " ".join(lines[max(run[0] - _FARTHEST_WORDS, 0) : run[0]])
        if len(run) >= _FEWEST_STRINGS and (_is_box(rows, about) or _is_grid(rows)):
            for at in run:
                made[at] = NOTHING
            findings.guessed(run[0] + 1, 1, DIAGRAM, "it is no music and left out")
    return made


def _is_box(rows: Sequence[Row], about: str) -> bool:
    """The same few places on every string, one above the other and going up: frets of a scale, not chords."""
    if any(len(row.cells) != 1 or not row.cells[0].strip("-| ") for row in rows):
        return False
    stacks = [[int(fret) for fret in _FRETS.findall(row.cells[0])] for row in rows]
    counts = {len(stack) for stack in stacks}
    starts = {tuple(match.start() for match in _FRETS.finditer(row.cells[0]))[:1] for row in rows}
    if not counts <= set(range(2, _MOST_NOTES + 1)) or len(starts) > 1:
        return False
    if any(stack != sorted(set(stack)) or not stack[0] or stack[-1] - stack[0] > _WIDEST for stack in stacks):
        return False
    if len(set(map(tuple, stacks))) == 1:  # a barre that moves
        return False
    spread = max(max(column) - min(column) for column in zip(*stacks, strict=False))
    most = 2 if _NAMED_SO.search(about) else 1
    return bool(spread <= most)


def _is_grid(rows: Sequence[Row]) -> bool:
    """Frets as cells of one small width with dots in them."""
    cells = [cell for row in rows for cell in row.cells]
    if min(len(row.cells) for row in rows) < _FEWEST_CELLS or any(len(cell) > _WIDEST_CELL for cell in cells):
        return False
    dotted = [cell for cell in cells if cell.strip("- ")]
    return all(_DOTS.fullmatch(cell) for cell in cells) and 0 < len(dotted) <= len(cells) / 2
