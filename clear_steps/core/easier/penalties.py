"""What makes a version unmusical, each with a stated figure: points taken off what is kept.

The figures are from memory.
"""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from fractions import Fraction
from typing import NamedTuple

from clear_steps.core.easier.rhythms import bars_of_one_rhythm, rhythm_of
from clear_steps.core.easier.salience import phrases
from clear_steps.core.easier.wanted import WantedBar, heard
from clear_steps.core.hand import is_fretted
from clear_steps.core.score import Bar, Part, Role

# Points off where it is so in every bar, or of every phrase.
MORE_THAN_ONE_PATTERN = 10.0
A_JUMP = 20.0
A_LOST_EDGE = 8.0  # the last or the highest note of a phrase
A_STUB = 5.0
JUMP_FRETS = 4  # the hand is elsewhere then


class Edge(NamedTuple):
    """The last or the highest note of a phrase: bar (index), onset in quarters, MIDI pitch as it is heard."""

    bar: int
    onset: Fraction
    pitch: float


class Penalties:
    """Counts them for versions of one part."""

    def __init__(self, original: Part, wanted: Sequence[WantedBar]) -> None:
        self._original = original
        roles = [row.role for row in wanted]
        self._groups = bars_of_one_rhythm(original, roles)
        self._edges = list(edges_of(original, roles))
        self._tune = onsets_of_the_tune(wanted, self._edges)
        self._places = [place_of(bar) for bar in original.bars]
        self._jumps = set(jumps_of(self._places))
        self._known_out: dict[tuple[int, ...], tuple[tuple[Bar, ...], list[int]]] = {}
        self._known: dict[tuple[int, int], tuple[Bar, float | None, bool, bool]] = {}

    def of(self, version: Part) -> float:
        """Points off for a version."""
        bars = max(len(version.bars), 1)
        facts = [self._facts(index, bar) for index, bar in enumerate(version.bars)]
        patterns = self.patterns_broken(version)
        jumps = sum(
            at not in self._jumps for at in jumps_of([row[1] for row in facts], [row[3] for row in facts])
        )
        stubs = sum(row[2] for row in facts)
        lost = len(self.lost_edges(version))
        edges = A_LOST_EDGE * lost / len(self._edges) if self._edges else 0.0
        return (MORE_THAN_ONE_PATTERN * patterns + A_JUMP * jumps + A_STUB * stubs) / bars + edges

    def lost_edges(self, version: Part) -> list[Edge]:
        """Last and highest notes of phrases that a version has not."""
        return [edge for edge in self._edges if not edge_is_there(version, edge)]

    def patterns_broken(self, version: Part) -> int:
        """Bars that no longer have the rhythm of most that they shared it with."""
        return sum(len(self._out(version, number)) for number in range(len(self._groups)))

    def _out(self, version: Part, number: int) -> list[int]:
        group = self._groups[number]
        key = (number, *(id(version.bars[index]) for index in group))
        if key not in self._known_out:
            bars = tuple(version.bars[index] for index in group)  # held, so that an id stays its bar's
            self._known_out[key] = (bars, out_of_pattern(version, group, self._tune))
        return self._known_out[key][1]

    def _facts(self, index: int, bar: Bar) -> tuple[Bar, float | None, bool, bool]:
        key = (index, id(bar))
        if key not in self._known:
            stub = bar is not self._original.bars[index] and has_stub(
                self._original.bars[index], bar, self._tune[index]
            )
            self._known[key] = (bar, place_of(bar), stub, is_moved(self._original.bars[index], bar))
        return self._known[key]


def out_of_pattern(version: Part, group: Sequence[int], tune: Mapping[int, frozenset[Fraction]]) -> list[int]:
    """Of bars (indexes) that had one rhythm, those that have another than most now, notes of the tune aside
    that one of them kept."""
    rhythms = {index: rhythm_of(version.bars[index]) for index in group}
    usual = Counter(rhythms.values()).most_common(1)[0][0]
    models = [index for index in group if rhythms[index] == usual]
    common = _struck(version.bars[models[0]])
    kept_by_all = frozenset.intersection(*(tune[index] for index in models))
    found = []
    for index in group:
        own = _struck(version.bars[index])
        # What one has and another has not must be tune where it is, and where it is not, none.
        fits = own - common <= tune[index] and common - own <= kept_by_all - tune[index]
        if rhythms[index] != usual and not fits:
            found.append(index)
    return found


def onsets_of_the_tune(wanted: Sequence[WantedBar], edges: Sequence[Edge]) -> dict[int, frozenset[Fraction]]:
    """By bar: of strums where the chord changes, of lines the ends and peaks of phrases, else what carries
    the tune."""
    onsets: dict[int, frozenset[Fraction]] = {}
    for index, row in enumerate(wanted):
        own = {
            Role.STRUM: [change.at for change in row.changes],
            Role.LINE: [onset for bar, onset, _ in edges if bar == index],
        }.get(row.role, [note.at for note in row.tune if note.carries])
        onsets[index] = frozenset(own)
    return onsets


def place_of(bar: Bar) -> float | None:
    """Where on the neck a bar lies: the middle of the frets it presses, each counted as often as it is
    struck; None of open strings alone."""
    pressed = sorted(note.fret for event in bar.events for note in event.struck if is_fretted(note))
    return float(pressed[len(pressed) // 2]) if pressed else None


def is_moved(original: Bar, version: Bar) -> bool:
    """Whether a version presses anything that the original's bar does not: else its hand was there before."""
    places = {(note.string, note.fret) for event in original.events for note in event.notes}
    return any(
        is_fretted(note) and (note.string, note.fret) not in places
        for event in version.events
        for note in event.struck
    )


def jumps_of(places: Sequence[float | None], moved: Sequence[bool] | None = None) -> Iterator[int]:
    """Bars (indexes) whose hand is far from where it was in the last bar that pressed anything; of a version
    those where either is moved: notes left out are no jump that was not there."""
    before: int | None = None
    for index, place in enumerate(places):
        if place is None:
            continue
        far = before is not None and abs(place - (places[before] or 0.0)) > JUMP_FRETS
        if far and (moved is None or moved[index] or moved[before or 0]):
            yield index
        before = index


def has_stub(original: Bar, version: Bar, tune: frozenset[Fraction]) -> bool:
    """Whether a note off the beat that is no tune leads to a beat on which the original strikes and the
    version does not."""
    beat = original.metre.beat_quarters
    written, sounding = _struck(original), _struck(version)
    return any(
        onset % beat
        and (following := -(-onset // beat) * beat) in written
        and following not in sounding
        and following - onset < beat
        for onset in sounding
        if onset in written and onset not in tune
    )


def _struck(bar: Bar) -> set[Fraction]:
    return {onset for onset, event in zip(bar.onsets, bar.events, strict=True) if event.struck}


def edges_of(part: Part, roles: Sequence[Role]) -> Iterator[Edge]:
    """The last and the highest note of every phrase of a line."""
    for phrase in phrases(part):
        own = [
            (max(heard(part, note) for note in part.bars[bar].events[event].struck), bar, event)
            for bar, event in phrase
            if roles[bar] is Role.LINE
        ]
        for pitch, bar, event in dict.fromkeys([own[-1], max(own)] if own else []):
            yield Edge(bar, part.bars[bar].onsets[event], pitch)


def edge_is_there(version: Part, edge: Edge, half_tones: int = 0) -> bool:
    """Whether the pitch class is struck in the same bar, at its onset, later, or moved onto a beat before
    it."""
    bar = version.bars[edge.bar]
    earliest = edge.onset - bar.metre.beat_quarters
    return any(
        at >= earliest
        and any((heard(version, note) - half_tones - edge.pitch) % 12 == 0 for note in event.struck)
        for at, event in zip(bar.onsets, bar.events, strict=True)
    )
