"""From one grip to the next, whatever the time: how far, how long it needs, how wide it reaches."""

from dataclasses import dataclass
from functools import lru_cache

from clear_steps.core.hand import A_SHAPE, GUIDE_SHARE, SLIDE_SHARE, Grip, Neck, movement_seconds
from clear_steps.core.score import Finger


@dataclass(frozen=True, slots=True)
class Way:
    """From one grip to the next, whatever the time; distances along the neck in mm."""

    before: Grip
    distance_mm: float
    needed_seconds: float
    reach_mm: float  # from one note's finger to the next one's, in the hand's own frame
    reach_frets: tuple[int, int]
    jump: tuple[Finger, int, int] | None  # a finger that goes farther than the hand: from fret, to fret
    extension: bool = False  # up to one fret, by another finger: the hand opens, and that is its reach


@lru_cache(maxsize=20_000)
def way_between(before: Grip, grip: Grip, slid: bool, neck: Neck) -> Way:
    """The way of the hand, or of a finger that goes farther; pure, and remembered."""
    start, stop = neck.fret_mm(before.position), neck.fret_mm(grip.position)
    hand = abs(stop - start)
    farthest, reach = 0.0, 0.0
    jump: tuple[Finger, int, int] | None = None
    extension = False
    if len(before.presses) == len(grip.presses) == 1:
        (old, a), (new, b) = before.presses[0], grip.presses[0]
        apart = neck.fret_mm(b.fret) - neck.fret_mm(a.fret)
        if old is not new:
            extension = abs(grip.position - before.position) <= 1
            reach = abs(apart if extension else apart - (stop - start))
        elif new is not Finger.THUMB:
            # A finger that jumps along the neck to another string goes the straight way between the two.
            farthest, jump = (
                neck.true_mm((a.string, a.fret), (b.string, b.fret)) if apart else 0.0,
                (new, a.fret, b.fret),
            )
        frets = (min(a.fret, b.fret), max(a.fret, b.fret))
    else:
        if len(grip.presses) < A_SHAPE:
            farthest, jump = _farthest_jump(before, grip, neck)
        every = [spot.fret for _, spot in (*before.presses, *grip.presses)]
        frets = (min(every), max(every))
    distance = max(hand, farthest)
    share = SLIDE_SHARE if slid else GUIDE_SHARE if _guided(before, grip) else 1.0
    needed = share * movement_seconds(distance, neck.fret_width_mm(max(grip.position, 1)))
    jump = jump if farthest > hand else None
    return Way(before, distance, needed, reach, frets, jump, extension)


def _guided(before: Grip, grip: Grip) -> bool:
    """Whether a finger stays on its string and guides the hand, and none goes to another."""
    old, new = _strings(before), _strings(grip)
    common = old.keys() & new.keys()
    return bool(common) and all(old[finger] & new[finger] for finger in common)


def _strings(grip: Grip) -> dict[Finger, set[int]]:
    strings: dict[Finger, set[int]] = {}
    for finger, spot in grip.presses:
        strings.setdefault(finger, set()).add(spot.string)
    return strings


def _farthest_jump(before: Grip, grip: Grip, neck: Neck) -> tuple[float, tuple[Finger, int, int] | None]:
    """The finger pressed both times that goes farthest along the neck: mm, and (finger, from fret, to
    fret)."""
    now = grip.finger_frets
    jumps = [
        (abs(neck.fret_mm(fret) - neck.fret_mm(now[finger])), (finger, fret, now[finger]))
        for finger, fret in before.finger_frets.items()
        if finger in now
    ]
    return max(jumps, default=(0.0, None))
