"""One grip moved along or across: power chords, octaves, thirds, sixths, barres that leap."""

from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise

from clear_steps.core.score import Tuning
from clear_steps.core.score.words import ordinal
from clear_steps.core.shapes.moments import Moment
from clear_steps.core.shapes.stretch import Grip, Kind, Place, Stretch

_LEAST_PLACES, _LEAST_STRUCK = 2, 3  # of an interval that is moved (from memory)
_LEAST_BARRES = 3  # of a grip that has names of its own (from memory)
# Half tones from each string to the next thinner one that is struck, and how many strings further that is.
POWER_CHORD = "power chord"
_INTERVALS = {
    (7,): (POWER_CHORD, (1,)),
    (7, 5): (POWER_CHORD, (1, 1)),
    (12,): ("octave", (2, 3)),
    (3,): ("third", (1,)),
    (4,): ("third", (1,)),
    (8,): ("sixth", (2,)),
    (9,): ("sixth", (2,)),
}
# Fingers from the thickest string, by how much higher each is stopped than the first; the first way is the
# commonest (common practice, no source).
_TAUGHT: dict[str, dict[tuple[int, ...], tuple[str, ...]]] = {
    POWER_CHORD: {
        (0, 2): ("13",),
        (0, 2, 2): ("134",),
        (0, 0): ("11", "33"),
        (0, 0, 0): ("111", "333"),
    },
    "octave": {(0, 2): ("13", "14"), (0, 3): ("14", "13")},
    "third": {(0, 0): ("11", "22", "33"), (0, -1): ("21", "32"), (0, -2): ("31", "42"), (0, 1): ("12", "23")},
    "sixth": {(0, 0): ("23", "12"), (0, -1): ("21", "32"), (0, 1): ("12", "23"), (0, 2): ("13", "24")},
}


def carried_intervals(moments: Sequence[Moment], first: int, last: int, tuning: Tuning) -> Iterator[Stretch]:
    """Runs of two strings or three at one interval in several places; open strings struck alone, and dead
    strokes, lie among them."""
    begin, end, name = None, first - 1, ""
    for at in range(first, last + 2):
        kind = interval(moments[at].frets, tuning) if at <= last else ""
        if at <= last and begin is not None and moments[at].passes:
            continue
        if begin is not None and kind != name:
            yield from _interval_stretch(moments, begin, at - 1, name, tuning)
            begin, end = None, at - 1
        if kind and begin is None:
            begin, name = _with_upbeat(moments, max(first, end + 1), at), kind


def _with_upbeat(moments: Sequence[Moment], first: int, at: int) -> int:
    """Open strings and dead strokes before the first place belong to it."""
    while at > first and moments[at - 1].passes:
        at -= 1
    return at


def interval(frets: Mapping[int, int], tuning: Tuning) -> str:
    """What two strings or three at once are called; empty for anything else."""
    strings = sorted(frets, reverse=True)
    pitches = [tuning.open_pitch(string) + frets[string] for string in strings]
    steps = tuple(high - low for low, high in pairwise(pitches))
    name, apart = _INTERVALS.get(steps, ("", ()))
    return name if all(low - high in apart for low, high in pairwise(strings)) else ""


def _interval_stretch(
    moments: Sequence[Moment], begin: int, end: int, name: str, tuning: Tuning
) -> Iterator[Stretch]:
    """From the first, or the open strings that lead to it, to the last of them."""
    places: list[Place] = []
    struck = sum(not moments[at].passes for at in range(begin, end + 1))
    for at in range(begin, end + 1):
        frets = moments[at].frets
        if not moments[at].passes and (not places or places[-1].grip.frets != frets):
            places.append(Place(at, Grip(frets, taught_for(frets, tuning)), _place_name(frets, name)))
    if len(places) < _LEAST_PLACES or struck < _LEAST_STRUCK:
        return
    stopped = next((place for place in places if any(place.grip.frets.values())), places[0])
    yield Stretch(begin, end, Kind.CARRIED, name, "", stopped.grip, tuple(places))


def taught_for(frets: Mapping[int, int], tuning: Tuning) -> tuple[dict[int, str], ...]:
    """Of two strings or three at an interval: root and fifth by 1 and 3, or by one finger where they lie on
    one fret; none of anything else."""
    ways = _TAUGHT.get(interval(frets, tuning))
    if ways is None:
        return ()
    strings = sorted(frets, reverse=True)
    lowest = frets[strings[0]]
    if not lowest:
        return (dict.fromkeys(strings, "0"),) if not any(frets.values()) else ()
    schools = ways.get(tuple(frets[string] - lowest for string in strings), ())
    return tuple(dict(zip(strings, fingers, strict=True)) for fingers in schools)


def _place_name(frets: dict[int, int], name: str) -> str:
    return f"{name} at {frets[max(frets)]} from the {ordinal(max(frets))} string"


def carried_grips(stretches: Sequence[Stretch]) -> tuple[Stretch, ...]:
    """Held grips one after another that are one shape on the same strings, as one that is carried."""
    found: list[Stretch] = []
    run: list[Stretch] = []
    for stretch in (*stretches, None):
        if stretch and run and _is_moved(run[-1], stretch):
            run.append(stretch)
            continue
        found += [_as_carried(run)] if len(run) >= _LEAST_BARRES else run
        run = []
        if stretch and stretch.kind is Kind.HELD:
            run = [stretch]
        elif stretch:
            found.append(stretch)
    return tuple(found)


def _is_moved(before: Stretch, after: Stretch) -> bool:
    if after.kind is not Kind.HELD or not before.grip or not after.grip:
        return False
    old, new = before.grip.frets, after.grip.frets
    if old.keys() != new.keys() or before.grip.fingers != after.grip.fingers or 0 in {*old.values()}:
        return False
    return len({new[string] - old[string] for string in old}) == 1 and 0 not in {*new.values()}


def _as_carried(run: Sequence[Stretch]) -> Stretch:
    first = run[0]
    places = tuple(Place(own.first, own.grip, own.name) for own in run if own.grip)
    return Stretch(first.first, run[-1].last, Kind.CARRIED, first.name, first.written, first.grip, places)
