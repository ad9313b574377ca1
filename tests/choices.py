"""How much more of a song other choices of its notes keep: every subset of a bar's events, one bar after
another.

Not every combination of bars: what is found is good, not proven to be the best.
"""

import itertools
from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier import TOLERANCE, kept
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.grade import Grader, Grading, Ladder
from clear_steps.core.score import ARRIVING, Bar, Event, Part, Song

MOST_EVENTS = 8  # 256 choices a bar


def highest(grading: Grading) -> float:
    """The Step that a version is held to: the song's or its hardest bar's."""
    return max([grading.step, *(bar.step for bar in grading.bars)])


def can_be_tried(part: Part) -> bool:
    """Whether every bar has few enough events."""
    return all(len(bar.events) <= MOST_EVENTS for bar in part.bars)


def best_bar_by_bar(song: Song, begun: Part, ladder: Ladder, step: float) -> float:
    """Points kept with the best choice of notes in every bar, one bar after another, where bars and song stay
    at the Step.

    It begins with a version that does, so it never keeps less than that one.
    """
    part, version = song.parts[0], begun
    scores, grader = KeptSoFar(part), Grader(song, part, ladder)
    for index, bar in enumerate(part.bars):
        best = scores.of(version).overall
        for stays in itertools.product((True, False), repeat=len(bar.events)):
            bars = (
                *version.bars[:index],
                replace(bar, events=with_only(bar, stays)),
                *version.bars[index + 1 :],
            )
            tried = replace(version, bars=bars)
            if scores.of(tried).overall > best and highest(grader.grade(tried)) <= step + TOLERANCE:
                version, best = tried, scores.of(tried).overall
    return kept(part, version).overall


def with_only(bar: Bar, stays: Sequence[bool]) -> tuple[Event, ...]:
    """The events that stay, each lasting to the next, after a rest where the first comes late; a slur has
    lost what it came from."""
    rows = [(onset, event) for onset, event, here in zip(bar.onsets, bar.events, stays, strict=True) if here]
    if not rows or rows[0][0]:
        rows.insert(0, (Fraction(0), Event(Fraction(0))))
    ends = [*(onset for onset, _ in rows[1:]), bar.quarters]
    return tuple(_lasting(event, end - onset) for (onset, event), end in zip(rows, ends, strict=True))


def _lasting(event: Event, quarters: Fraction) -> Event:
    notes = tuple(replace(note, tied=False, techniques=note.techniques - ARRIVING) for note in event.notes)
    return replace(event, quarters=quarters, notes=notes)
