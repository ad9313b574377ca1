"""The laws of a version: what may not happen to a bar, whoever wrote it, and what a good version rarely does.

Each law looks at the original and a version of it and names the bars (indexes) in which it is broken.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

from clear_steps.core.easier.chordbook import shapes_sound_above
from clear_steps.core.easier.penalties import (
    Edge,
    edge_is_there,
    edges_of,
    is_moved,
    jumps_of,
    onsets_of_the_tune,
    out_of_pattern,
    place_of,
)
from clear_steps.core.easier.rhythms import PATTERNED, bars_of_one_rhythm, rhythm_of
from clear_steps.core.easier.voices import is_power_chord
from clear_steps.core.easier.wanted import (
    WantedBar,
    heard,
    name_at,
    names_in_force,
    wanted_bars,
)
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import bars_of_one_shape
from clear_steps.core.score import Bar, Event, Part, Role
from clear_steps.core.score.chords import parse_chord
from clear_steps.core.score.strumming import ChordShape

_POWER_CHORDS = frozenset({Role.RIFF, Role.STRUM})  # elsewhere two voices may meet in a fifth
_A_FRET = 1.0  # half tones
_SLIDES_LATE = Fraction(1)  # quarters after a bend's onset, by which its target is reached otherwise


@dataclass(frozen=True)  # no slots: what is asked for often is kept
class Pair:
    """An original, a version of it so many half tones above it, and the substitutes that the shapes table
    states."""

    original: Part
    version: Part
    half_tones: int = 0
    shapes: tuple[ChordShape, ...] = ()

    @cached_property
    def wanted(self) -> tuple[WantedBar, ...]:
        return wanted_bars(self.original)

    @cached_property
    def roles(self) -> list[Role]:
        return [row.role for row in self.wanted]

    @cached_property
    def edges(self) -> list[Edge]:
        return list(edges_of(self.original, self.roles))

    @cached_property
    def groups(self) -> list[list[int]]:
        """Bars of one rhythm that have a pattern."""
        return bars_of_one_rhythm(self.original, self.roles)

    def rows(self) -> Iterator[tuple[int, Bar, Bar]]:
        """Index, bar of the original and bar of the version."""
        for index, (before, after) in enumerate(zip(self.original.bars, self.version.bars, strict=True)):
            yield index, before, after

    def sounds(self, event: Event) -> list[float]:
        """What an event of the version strikes, where the original would sound."""
        return [heard(self.version, note) - self.half_tones for note in event.struck if not note.dead]


def silenced(pair: Pair) -> list[int]:
    """Bars that sounded and do not any more."""
    return [index for index, before, after in pair.rows() if not before.silent and after.silent]


def renamed(pair: Pair) -> list[int]:
    """Bars in which a written chord name is gone, comes later than the next beat, or has become another that
    is neither its transposition nor a stated substitute."""
    found: list[int] = []
    apart = shapes_sound_above(pair.version) - shapes_sound_above(pair.original) - pair.half_tones
    names = names_in_force(pair.version.bars)
    for index, onset, event in pair.original.events():
        if not event.chord:
            continue
        bar = pair.original.bars[index]
        beat = -(-onset // bar.metre.beat_quarters) * bar.metre.beat_quarters
        at, when = (index, beat) if beat < bar.quarters else (index + 1, Fraction(0))
        if at >= len(names):
            at, when = index, onset
        now = {name_at(names[index], onset), name_at(names[at], when)}
        if not any(_is_same(pair, event.chord, name, apart) for name in now):
            found.append(index)
    return sorted(set(found))


def _is_same(pair: Pair, written: str, name: str, apart: int) -> bool:
    """Whether a name is the written one, `apart` half tones lower, or a stated substitute of it."""
    was, now = parse_chord(written), parse_chord(name)
    if was is None or now is None:
        return written == name
    if ((now.root + apart) % 12, now.intervals) == (was.root, was.intervals):
        return True
    return any(
        (own := parse_chord(row.chord))
        and (own.root, own.intervals) == (was.root, was.intervals)
        and row.substitute
        and parse_chord(row.substitute) == now
        for row in pair.shapes
    )


def strange_sounds(pair: Pair) -> list[int]:
    """Strummed bars in which something sounds under a written name that is neither in it nor in what the
    original sounds there."""
    found = []
    names, below = names_in_force(pair.version.bars), names_in_force(pair.original.bars)
    above = shapes_sound_above(pair.version)
    for index, before, after in pair.rows():
        if pair.roles[index] is not Role.STRUM:
            continue
        own = {round(pitch) % 12 for event in before.events for pitch in _pitches(pair.original, event)}
        for onset, event in zip(after.onsets, after.events, strict=True):
            chord, written = parse_chord(name_at(names[index], onset)), name_at(below[index], onset)
            if not chord or not written:
                continue
            allowed = {(pitch + above - pair.half_tones) % 12 for pitch in chord.classes} | own
            if any(round(pitch) % 12 not in allowed for pitch in pair.sounds(event)):
                found.append(index)
    return sorted(set(found))


def _pitches(part: Part, event: Event) -> list[float]:
    return [heard(part, note) for note in event.struck if not note.dead]


def lost_targets(pair: Pair) -> list[int]:
    """Bars in which a bend's start is kept and its target does not sound."""
    found = []
    for index, before, after in pair.rows():
        rows = list(zip(after.onsets, after.events, strict=True))
        for onset, event in zip(before.onsets, before.events, strict=True):
            bent = [note for note in event.struck if note.bend and note.bend.half_tones]
            struck = next((own for at, own in rows if at == onset and own.struck), None)
            if not bent or struck is None:
                continue
            later = [own for at, own in rows if onset <= at <= onset + _SLIDES_LATE]
            for note in bent:
                start, target = pair.original.pitch_of(note), heard(pair.original, note)
                keeps_start = any((pitch - start) % 12 == 0 for pitch in pair.sounds(struck))
                apart = [(pitch - target) % 12 for own in later for pitch in pair.sounds(own)]
                reaches = any(min(gap, 12 - gap) < _A_FRET for gap in apart)  # no fret for a quarter tone
                if keeps_start and not reaches:
                    found.append(index)
    return sorted(set(found))


def lost_roots(pair: Pair) -> list[int]:
    """Bars in which a power chord was cut to one note that is not its root."""
    found = []
    for index, before, after in _with_power_chords(pair):
        now = dict(zip(after.onsets, after.events, strict=True))
        for onset, event in zip(before.onsets, before.events, strict=True):
            sounding = [note for note in event.struck if not note.dead]
            left = pair.sounds(now[onset]) if onset in now else []
            if len(sounding) > 1 and is_power_chord(pair.original, sounding) and len(left) == 1:
                root = min(_pitches(pair.original, event))
                if (left[0] - root) % 12:
                    found.append(index)
    return sorted(set(found))


def _with_power_chords(pair: Pair) -> Iterator[tuple[int, Bar, Bar]]:
    return (row for row in pair.rows() if pair.roles[row[0]] in _POWER_CHORDS)


def power_chords_cut(pair: Pair) -> int:
    """How many power chords were cut to one note: what the law of roots is counted of."""
    count = 0
    for _, before, after in _with_power_chords(pair):
        now = dict(zip(after.onsets, after.events, strict=True))
        for onset, event in zip(before.onsets, before.events, strict=True):
            sounding = [note for note in event.struck if not note.dead]
            cut = onset in now and len(pair.sounds(now[onset])) == 1
            count += len(sounding) > 1 and is_power_chord(pair.original, sounding) and cut
    return count


def several_rhythms(pair: Pair) -> list[int]:
    """Of strummed, riff and picked bars that had one rhythm, those that have another than most now, notes of
    the tune aside that one of them kept."""
    return [index for index in _several_rhythms(pair) if pair.roles[index] in PATTERNED]


def several_rhythms_of_lines(pair: Pair) -> list[int]:
    """The same of lines, and of what else is treated bar by bar."""
    return [index for index in _several_rhythms(pair) if pair.roles[index] not in PATTERNED]


def patterned_bars(pair: Pair) -> int:
    """How many strummed, riff and picked bars share a rhythm."""
    return sum(pair.roles[index] in PATTERNED for group in pair.groups for index in group)


def bars_of_lines(pair: Pair) -> int:
    """How many bars of lines share one."""
    return sum(pair.roles[index] not in PATTERNED for group in pair.groups for index in group)


def _several_rhythms(pair: Pair) -> list[int]:
    tune = onsets_of_the_tune(pair.wanted, pair.edges)
    return sorted(index for group in pair.groups for index in out_of_pattern(pair.version, group, tune))


def unequal(pair: Pair) -> list[int]:
    """Bars that are written as an earlier one and are not any more."""
    first: dict[tuple[Event, ...], int] = {}
    found = []
    for index, before, after in pair.rows():
        like = first.setdefault(before.events, index)
        if pair.version.bars[like].events != after.events:
            found.append(index)
    return found


def unlike(pair: Pair) -> list[int]:
    """Bars that are an earlier one moved along the neck, and have another rhythm now."""
    shapes = bars_of_one_shape(pair.original, coming_back(pair.original))
    return [
        index
        for index, (first, _) in shapes.items()
        if first != index and rhythm_of(pair.version.bars[first]) != rhythm_of(pair.version.bars[index])
    ]


def jumps(pair: Pair) -> list[int]:
    """Bars that lie away from the one before, where the original's do not."""
    was = set(jumps_of([place_of(bar) for bar in pair.original.bars]))
    moved = [is_moved(before, after) for _, before, after in pair.rows()]
    now = jumps_of([place_of(bar) for bar in pair.version.bars], moved)
    return [index for index in now if index not in was]


def lost_edges(pair: Pair) -> list[int]:
    """Bars of a line that lost the last or the highest note of a phrase."""
    return sorted({edge.bar for edge in pair.edges if not edge_is_there(pair.version, edge, pair.half_tones)})


def sounding_bars(pair: Pair) -> int:
    """How many bars of the original sound: what most laws are counted of."""
    return sum(not bar.silent for bar in pair.original.bars)


def edges(pair: Pair) -> int:
    """How many phrases' last and highest notes there are."""
    return len(pair.edges)


@dataclass(frozen=True, slots=True)
class Law:
    """A law by name, what it says, where it is broken, and the share of its cases in which it must hold (1:
    always)."""

    name: str
    says: str
    broken: Callable[[Pair], list[int]]
    floor: float = 1.0
    cases: Callable[[Pair], int] = sounding_bars  # of how many it is counted


LAWS: tuple[Law, ...] = (
    Law("sounding", "a bar that sounded goes on sounding", silenced),
    Law("names", "chord names stay as they are written", renamed),
    Law("sounds", "nothing new sounds under a chord", strange_sounds),
    Law("targets", "a bend keeps its target", lost_targets),
    Law("roots", "a power chord cut to one note keeps its root", lost_roots, 0.99, power_chords_cut),
    Law("rhythm", "strums, riffs, picking of one rhythm keep one", several_rhythms, 0.97, patterned_bars),
    Law("lines", "lines of one rhythm keep one", several_rhythms_of_lines, 0.80, bars_of_lines),
    Law("equal", "equal bars stay equal", unequal),
    Law("figures", "what comes back moved changes alike", unlike, 0.98),
    Law("jumps", "no jump of the hand that was not there", jumps, 0.99),
    Law("phrases", "a phrase keeps its last and its highest note", lost_edges, 0.97, edges),
)


def broken_laws(pair: Pair) -> list[tuple[Law, list[int]]]:
    """The laws that a version breaks, with the bars (indexes)."""
    return [(law, bars) for law in LAWS if (bars := law.broken(pair))]
