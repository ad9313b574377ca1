"""One way to play a passage, and what is said of it beside the others."""

from collections.abc import Iterator
from dataclasses import dataclass

from clear_steps.core.grade.measures import MEASURES
from clear_steps.core.score import Event, Part
from clear_steps.core.score.words import bar_words, beat_words, capital, finger_words, ordinal

SAME_STEP = 0.05  # nobody feels less


@dataclass(frozen=True, slots=True)
class Alternative:
    """One way to play a passage; figures are of the passage, the song's Step is of the whole."""

    title: str
    sentence: str
    part: Part
    bar_steps: tuple[float, ...]
    measure_steps: dict[str, float]  # the passage's highest of each measure
    song_step: float
    widest_mm: float
    moves: int
    travel_mm: float
    strings: tuple[int, ...]  # thinnest first
    positions: tuple[int, int]  # lowest and highest
    stops_ringing: int  # notes that sound shorter than as written
    step_with_neighbours: float  # the hardest of the passage, the bar before and the bar after
    clash: str = ""  # of an open string that rings on, and what stops it

    @property
    def step(self) -> float:
        """The passage's hardest bar."""
        return max(self.bar_steps)


def sentence(way: Alternative, written: Alternative | None) -> str:
    """`In 5th position, at most 62 mm wide and no move of the hand; 0.8 Step easier than as written, most by
    the stretch.`"""
    words = f"{_where(way)}, {_how_wide(way)}, {_moves(way)}"
    if written is None:
        return f"{words}."
    if way.stops_ringing:
        words += f"; {way.stops_ringing} note{'s stop' if way.stops_ringing > 1 else ' stops'} ringing sooner"
    if way.clash:
        words += f"; {way.clash}"
    compared = _compared(way, written)
    if way.step_with_neighbours > max(written.step_with_neighbours, way.step) + SAME_STEP:
        compared += f", but the way in or out of it rises to Step {way.step_with_neighbours:.1f}"
    return f"{words}; {compared}."


def _where(way: Alternative) -> str:
    low, high = (max(position, 1) for position in way.positions)  # below the 1st fret it hangs over the nut
    if low == high:
        return f"In {ordinal(low)} position"
    return f"Between the {ordinal(low)} and the {ordinal(high)} position"


def _how_wide(way: Alternative) -> str:
    return f"at most {way.widest_mm:.0f} mm wide" if way.widest_mm else "no stretch"


def _moves(way: Alternative) -> str:
    if not way.moves:
        return "no move of the hand"
    return f"{way.moves} move{'s' if way.moves > 1 else ''} of the hand, {way.travel_mm:.0f} mm in all"


def _compared(way: Alternative, written: Alternative) -> str:
    """How much easier or harder, and the measure that does most of it."""
    difference = way.step - written.step
    if abs(difference) < SAME_STEP:
        return "as hard as written"
    easier = difference < 0
    apart = {name: step - written.measure_steps[name] for name, step in way.measure_steps.items()}
    most = (min if easier else max)(apart, key=lambda name: apart[name])
    by = f", most by {MEASURES[most].spoken}" if (apart[most] < 0) == easier and apart[most] else ""
    return f"{abs(difference):.1f} Step {'easier' if easier else 'harder'} than as written{by}"


def first_difference(written: Part, other: Part, bars: range) -> str:
    """The first finger that differs, in words: `Little finger instead of third at bar 2, beat 3`, of strings
    struck together `3-4 instead of 2-3`; and how many more."""
    places = list(_other_fingers(written, other, bars))
    if not places:
        return "Other fingers"
    more = "" if len(places) == 1 else f", and {len(places) - 1} more"
    return f"{places[0]}{more}"


def _other_fingers(written: Part, other: Part, bars: range) -> Iterator[str]:
    for index in bars:
        bar, number = written.bars[index], written.bar_number(index)
        for onset, event, changed in zip(bar.onsets, bar.events, other.bars[index].events, strict=True):
            if words := _other_grip(event, changed):
                beat = beat_words(written.starts_at(index) + onset, bar.metre)
                yield f"{capital(words)} at {bar_words(number)}, {beat}"


def _other_grip(written: Event, other: Event) -> str:
    """The fingers that differ between two events of the same places; empty where none do."""
    pairs = [
        (old.finger, new.finger)
        for old, new in zip(written.notes, other.notes, strict=True)
        if old.finger and new.finger
    ]
    if all(old == new for old, new in pairs):
        return ""
    if len(pairs) > 1:
        before, after = ("-".join(own) for own in zip(*reversed(pairs), strict=True))
        return f"{after} instead of {before}"
    ((was, now),) = pairs
    return f"{finger_words((now,))} instead of {finger_words((was,)).removesuffix(' finger')}"
