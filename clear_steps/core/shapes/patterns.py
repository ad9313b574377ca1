"""What the other hand does over a grip, as the shortest cell that comes again: strokes, or strings in turn
with the bass as the bass, so that it is the same on every chord."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import lcm

from clear_steps.core.score import Metre, Part, Picking, Stroke, Technique
from clear_steps.core.score.tuning import bass_from
from clear_steps.core.shapes.moments import Moment

BASS, SECOND_BASS = "b", "b2"
_STRUM = 3  # strings at once
_NOTHING, _ACCENT = "-", ">"
_DEAD = {Stroke.DOWN: "d", Stroke.UP: "u"}

Struck = int | str
"""A string, `b` or `b2` for a bass, `D` or `U` for a strum among single strings."""
Said = Struck | tuple[Struck, ...]
"""What is struck at a place; a tuple where single strings are struck together."""


@dataclass(frozen=True, slots=True)
class Pattern:
    """A cell so many quarters long: as strokes (`D-DU-UDU`), else as what is struck in turn, a tuple where it
    is struck together. `onsets` in quarters where they are not even; `guess` where no stroke and no finger is
    written."""

    cell: Fraction
    strokes: str = ""
    strings: tuple[Said, ...] = ()
    onsets: tuple[Fraction, ...] = ()
    guess: bool = False


def pattern_of(part: Part, moments: Sequence[Moment]) -> Pattern | None:
    """The pattern of the moments of one grip; None where nothing comes again and they are no whole bar."""
    strummed = all(len(moment.event.struck) >= _STRUM for moment in moments)
    said = _strokes(moments) if strummed else _strings(part, moments)
    found = list(zip(moments, said, strict=True))
    metre = part.bars[moments[0].bar].metre
    for cell in _cells(metre):
        hits = _hits(found, cell)
        if hits is not None and _is_whole(found, cell, hits):
            return _pattern(part, moments, cell, hits, strummed)
    return None


def _cells(metre: Metre) -> Iterator[Fraction]:
    """A beat, more beats, half a bar, a bar."""
    beats = metre.quarters / metre.beat_quarters
    for count in range(1, int(beats) + 1):
        if beats % count == 0:
            yield metre.beat_quarters * count


def _hits(found: Sequence[tuple[Moment, Said]], cell: Fraction) -> dict[Fraction, Said] | None:
    """What is struck by its place in the cell; None where two cells differ."""
    hits: dict[Fraction, Said] = {}
    for moment, what in found:
        if hits.setdefault(moment.onset % cell, what) != what:
            return None
    return hits


def _is_whole(found: Sequence[tuple[Moment, Said]], cell: Fraction, hits: dict[Fraction, Said]) -> bool:
    """Whether every place of the cell is struck in every cell from the first moment to the last."""
    begins, ends = found[0][0], found[-1][0]
    places = {moment.at for moment, _ in found}
    start = begins.at - begins.onset % cell
    wanted = set()
    while start <= ends.at:
        wanted |= {start + at for at in hits}
        start += cell
    return {at for at in wanted if begins.at <= at <= ends.at} == places


def _strokes(moments: Sequence[Moment]) -> list[Said]:
    return [_stroke(moment) for moment in moments]


def _stroke(moment: Moment) -> str:
    stroke = moment.event.stroke or _guessed_stroke(moment)
    sign = _DEAD[stroke] if moment.is_dead else stroke.value
    accented = any(Technique.ACCENT in moment.event.techniques_of(note) for note in moment.event.struck)
    return sign + (_ACCENT if accented else "")


def _guessed_stroke(moment: Moment) -> Stroke:
    """Down on a quarter, up between."""
    return Stroke.DOWN if moment.onset.denominator == 1 else Stroke.UP


def _strings(part: Part, moments: Sequence[Moment]) -> list[Said]:
    low = bass_from(part.tuning.strings)
    lowest = [max(note.string for note in moment.event.struck) for moment in moments]
    bass = next((string for string in lowest if string >= low), max(lowest))
    plucked = part.picking is Picking.FINGERS
    return [_struck(moment, bass, low, plucked) for moment in moments]


def _struck(moment: Moment, bass: int, low: int, plucked: bool) -> Said:
    strings = sorted((note.string for note in moment.event.struck), reverse=True)
    if len(strings) >= _STRUM and (moment.event.stroke or not plucked):
        return (moment.event.stroke or _guessed_stroke(moment)).value
    on_beat = moment.onset.denominator == 1
    said = tuple(
        BASS if string == bass else SECOND_BASS if string >= low and on_beat else string for string in strings
    )
    return said[0] if len(said) == 1 else said


def _pattern(
    part: Part, moments: Sequence[Moment], cell: Fraction, hits: dict[Fraction, Said], strummed: bool
) -> Pattern:
    onsets = sorted(hits)
    if strummed:
        guess = not any(moment.event.stroke for moment in moments)
        return Pattern(cell, _drawn({at: str(what) for at, what in hits.items()}, cell), guess=guess)
    written = (note.picking for moment in moments for note in moment.event.struck)
    guess = not any(moment.event.stroke for moment in moments) and not any(written)
    even = all(at == cell / len(onsets) * number for number, at in enumerate(onsets))
    struck = tuple(hits[at] for at in onsets)
    return Pattern(cell, "", struck, () if even else tuple(onsets), guess)


def _drawn(hits: dict[Fraction, str], cell: Fraction) -> str:
    """One sign for each of the equal parts of a cell in which every stroke begins."""
    parts = lcm(*((at / cell).denominator for at in hits))
    return "".join(hits.get(cell / parts * number, _NOTHING) for number in range(parts))
