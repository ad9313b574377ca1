"""From a part to what comes back in it: the whole texture, then one voice, then sequences."""

from functools import lru_cache

from clear_steps.core.figures.candidates import candidates
from clear_steps.core.figures.chance import Chance
from clear_steps.core.figures.choosing import Coming, chosen, coming, ended, says_the_same, worth
from clear_steps.core.figures.columns import Stream, stream_of
from clear_steps.core.figures.finding import Places
from clear_steps.core.figures.rhythm import bars_of_one_rhythm, of_one_rhythm
from clear_steps.core.figures.rules import steppings
from clear_steps.core.figures.seeds import Seeds
from clear_steps.core.figures.stretches import Stretch
from clear_steps.core.figures.told import (
    ComingBack,
    Figure,
    told_figure,
    told_rule,
    without_parts,
)
from clear_steps.core.figures.voices import heard_by_itself, voices
from clear_steps.core.score import Part


@lru_cache(maxsize=64)
def coming_back(part: Part, order: tuple[str, ...] = ()) -> ComingBack:
    """The figures and rules of a part, played in an order of its sections."""
    whole = _Search(stream_of(part, order))
    if len(whole.stream.columns) < 2:
        return ComingBack()
    found = whole.found(with_rhythms=True)
    figures = [*whole.told(found), *_told_of_a_voice(part, order, whole.stream, found)]
    figures.sort(key=lambda figure: figure.first.first)
    rules = [rule for row in steppings(whole.stream, whole.seeds) if (rule := told_rule(whole.stream, row))]
    return ComingBack(tuple(figures), tuple(dict.fromkeys(rules)))


def _told_of_a_voice(part: Part, order: tuple[str, ...], whole: Stream, found: list[Coming]) -> list[Figure]:
    """What comes back in one voice alone, of the voice that has most of it."""
    best: list[Figure] = []
    most = 0.0
    for strings in voices(whole):
        voice = _Search(stream_of(part, order, strings))
        rows = [row for one in voice.found() if (row := heard_by_itself(voice.stream, one))]
        rows = [row for row in rows if not any(says_the_same(voice.stream, row, other) for other in found)]
        if (total := sum(worth(voice.stream, row) for row in rows)) > most:
            best, most = voice.told(rows), total
    return best


class _Search:
    """For what comes back in one stream."""

    def __init__(self, stream: Stream) -> None:
        self.stream, self.seeds = stream, Seeds(stream)
        self._chance = Chance(stream)
        self._places = Places(stream, self.seeds, self._chance)

    def found(self, with_rhythms: bool = False) -> list[Coming]:
        """What a teacher would name."""
        rows: list[Coming] = []
        known: set[tuple[int, int]] = set()  # first and last column: the same, or moved, is not sought again
        for stretch in candidates(self.stream, self.seeds, self._chance):
            if (stretch.first, stretch.last) not in known and (row := self._coming(stretch)):
                rows.append(row)
                known |= row.same_elsewhere
        if with_rhythms:
            rows += [self._alike_in_rhythm(group) for group in bars_of_one_rhythm(self.stream)]
        return chosen(self.stream, rows)

    def told(self, rows: list[Coming]) -> list[Figure]:
        """As figures of the part as written."""
        told = (told_figure(self.stream, row) for row in without_parts(self.stream, rows))
        return [figure for figure in told if figure]

    def _coming(self, stretch: Stretch) -> Coming | None:
        found = self._places.of(stretch)
        if not found:
            return None
        one = coming(self.stream, stretch, found)
        shorter = ended(self.stream, one)
        return one if shorter == stretch else self._coming(shorter)

    def _alike_in_rhythm(self, group: list[Stretch]) -> Coming:
        first, later = group[0], group[1:]
        places = [self._places.at(first, bar.first) or of_one_rhythm(bar) for bar in later]
        return coming(self.stream, first, places)
