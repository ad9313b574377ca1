"""Which fingers may take the spots of a shape: in order along the frets, or crossed as it is taught."""

from collections.abc import Iterator
from itertools import combinations

from clear_steps.core.hand.demands import Shape, Spot
from clear_steps.core.score import Finger

FINGERS = (Finger.INDEX, Finger.MIDDLE, Finger.RING, Finger.LITTLE)
Presses = tuple[tuple[Finger, tuple[Spot, ...]], ...]
"""Fingers with the spots each of them takes, the thumb first."""


def assignments_of(shape: Shape, strings: int, thumb_over: bool) -> list[Presses]:
    """The assignments that honour the teacher's pins, or all of them where none can."""
    every = list(_assignments(shape, strings, thumb_over))
    every += [presses for presses in _taught(shape, thumb_over) if presses not in every]
    wanted = dict(shape.pinned)
    kept = [
        presses
        for presses in every
        if all(_sounding_finger(presses, string) == finger for string, finger in wanted.items())
    ]
    return kept or every


def _taught(shape: Shape, thumb_over: bool) -> Iterator[Presses]:
    """As the schools have it, where that tells every spot: their fingers may cross at one fret."""
    for school in shape.schools:
        fingers = dict(school)
        if any(spot.string not in fingers for spot in shape.spots):
            continue
        spots: dict[Finger, list[Spot]] = {}
        for spot in shape.spots:
            spots.setdefault(fingers[spot.string], []).append(spot)
        order = sorted(spots, key=lambda finger: (finger is not Finger.THUMB, finger))
        if thumb_over or Finger.THUMB not in spots:
            yield tuple((finger, tuple(spots[finger])) for finger in order)


def _sounding_finger(presses: Presses, string: int) -> Finger | None:
    on = [(spot.fret, finger) for finger, spots in presses for spot in spots if spot.string == string]
    return max(on)[1] if on else None


def _assignments(shape: Shape, strings: int, thumb_over: bool) -> Iterator[Presses]:
    thumbs: list[tuple[tuple[Spot, ...], tuple[Spot, ...]]] = [((), shape.spots)]
    lowest = [spot for spot in shape.spots if spot.string == strings]
    with_thumb: list[tuple[tuple[Spot, ...], tuple[Spot, ...]]] = (
        [((lowest[-1],), tuple(spot for spot in shape.spots if spot not in lowest))] if lowest else []
    )
    if (strings, Finger.THUMB) in shape.pinned and lowest:
        thumbs = with_thumb
    elif thumb_over and len(shape.spots) > 1:
        thumbs += with_thumb
    for thumb, spots in thumbs:
        held: Presses = ((Finger.THUMB, thumb),) if thumb else ()
        found = False
        for runs in _runs(spots, shape.open_strings):
            for fingers in combinations(FINGERS, len(runs)):
                found = True
                yield (*held, *zip(fingers, runs, strict=True))
        if not found:  # more spots than fingers: the highest share the little finger, far past any reach
            yield (*held, *zip(FINGERS, [*((spot,) for spot in spots[:3]), spots[3:]], strict=True))


def _runs(
    spots: tuple[Spot, ...], open_strings: frozenset[int], lower: tuple[Spot, ...] = ()
) -> Iterator[tuple[tuple[Spot, ...], ...]]:
    """Split spots, in order, into what one finger holds: one spot, or a barre at one fret; `lower` came
    before."""
    if not spots:
        yield ()
        return
    for length in range(1, len(spots) + 1):
        run = spots[:length]
        if length > 1 and not _can_barre(run, lower, open_strings):
            continue
        for rest in _runs(spots[length:], open_strings, (*lower, *run)):
            if len(rest) < len(FINGERS):
                yield (run, *rest)


def _can_barre(run: tuple[Spot, ...], lower: tuple[Spot, ...], open_strings: frozenset[int]) -> bool:
    """At one fret, with no string between that sounds open or is stopped at a lower fret: the barre would
    stop it."""
    if len({spot.fret for spot in run}) > 1:
        return False
    low, high = min(spot.string for spot in run), max(spot.string for spot in run)
    below = {spot.string for spot in lower if spot.fret < run[0].fret}
    return not any(low <= string <= high for string in open_strings | below)
