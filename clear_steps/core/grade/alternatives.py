"""Other ways to play a passage: other fingers on the same places, other places of the same pitches.

Every way is a part of its own, its fingers pinned in the passage, and is graded by the same code as the
original.
"""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import partial

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade.clashes import clash_words
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures import MEASURES
from clear_steps.core.grade.step import Grader, GradeRequest, Grading, hand_tables
from clear_steps.core.grade.way import (
    SAME_STEP,
    Alternative,
    first_difference,
    sentence,
)
from clear_steps.core.hand import (
    AT_ITS_PLACE,
    DemandsBook,
    Grip,
    HandPath,
    HandTables,
    Neck,
    School,
    Spot,
    gaps_of,
    is_fretted,
    k_best_paths,
    keeps_taught,
    layers_of,
    moments_of,
    on_other_strings,
    place,
    put_down,
)
from clear_steps.core.score import Bar, Finger, Note, Part, Song, route_of
from clear_steps.core.score.blending import Notes, blended
from clear_steps.core.score.timing import taken_times
from clear_steps.core.score.words import ordinal, string_words
from clear_steps.core.shapes.ringing import sounding_quarters

MOST_BARS = 8
_FINGERINGS = 24  # cheapest paths looked at for fingers that differ
_OTHER_NOTES = 2  # with other fingers, for it to be another order of fingers and not a single note
_MOST_FINGERINGS = 2  # of these that are shown
_MOST_DEARER = 20_000  # a place, in the units of a path: what creeps or crosses costs more
_MOST_PLACES = 4
_NOT_EASIER = 1  # of a family that is shown all the same
_POSITIONS = range(1, 16)
_POSITION_FRETS = 5  # frets a hand covers without moving, one stretched to
_MOST_STRINGS = 1
_HABITS = {
    "Without the little finger": frozenset({Finger.LITTLE}),
    "With the index and the ring finger only": frozenset({Finger.MIDDLE, Finger.LITTLE}),
}
SCHOOL_TITLES = {School.HOLD: "Keep fingers down and stretch", School.MOVE: "Stay compact and move the hand"}


def alternatives(
    song: Song,
    part: Part,
    first: int,
    last: int,
    ladder: Ladder,
    request: GradeRequest = GradeRequest(),
    notes: Notes | None = None,
) -> tuple[Alternative, ...]:
    """Ways to play bars `first` to `last` (indexes), or some notes of them alone, as written first, the
    others easiest first; raises InvalidValueError."""
    if not 0 <= first <= last < len(part.bars) or last - first >= MOST_BARS:
        raise InvalidValueError("passage", f"{first} to {last}", f"1 to {MOST_BARS} bars of the part")
    return _Passage(song, part, first, last, ladder, request, notes).ways()


class _Passage:
    def __init__(
        self,
        song: Song,
        part: Part,
        first: int,
        last: int,
        ladder: Ladder,
        request: GradeRequest,
        notes: Notes | None,
    ) -> None:
        self._notes = notes
        self._song, self._part, self._first, self._last = song, part, first, last
        self._rows = range(first, last + 1)
        self._ladder, self._request = ladder, request
        self._grader = Grader(song, part, ladder, request)
        self._times = taken_times(part, song.playing_tempo)
        self._neck = Neck(part.scale_length_mm, part.capo)

    def ways(self) -> tuple[Alternative, ...]:
        """As written, and what differs from it and from one another."""
        pinned = self._pinned(self._part, self._grader.grade(self._part))
        written = self._among_notes(pinned) or self._part
        base = self._shown("As written", self._part, None)
        seen = {self._bars(written)}
        found: list[Alternative] = []
        for most, family in (
            (2, self._by_schools()),
            *((1, self._sparing(title, spared)) for title, spared in _HABITS.items()),
            (_MOST_STRINGS, self._by_strings()),
            (_MOST_PLACES, self._by_places()),
            (_MOST_FINGERINGS, self._by_fingers()),
        ):
            fresh: dict[str, Alternative] = {}  # the easiest of each title
            for title, whole in family:
                candidate = self._among_notes(whole)
                if candidate and self._bars(candidate) not in seen:
                    seen.add(self._bars(candidate))
                    told = title or first_difference(written, candidate, self._rows)
                    way = self._shown(told, candidate, base)
                    fresh[told] = min(fresh.get(told, way), way, key=_easiest)
            ways = sorted(fresh.values(), key=_easiest)
            easier = [way for way in ways if way.step < base.step - SAME_STEP]
            found += [*easier, *ways[len(easier) :][:_NOT_EASIER]][:most]
        return (base, *sorted(found, key=_easiest))

    def _among_notes(self, part: Part) -> Part | None:
        """A way within the chosen notes alone; None where it cannot be joined to what is around them."""
        return blended(self._part, part, self._notes) if self._notes else part

    def _bars(self, part: Part) -> tuple[Bar, ...]:
        return part.bars[self._first : self._last + 1]

    def _by_schools(self) -> Iterator[tuple[str, Part]]:
        free = self._free()
        for school, title in SCHOOL_TITLES.items():
            grading = Grader(self._song, free, self._ladder, replace(self._request, school=school)).grade(
                free
            )
            yield title, self._pinned(free, grading)

    def _sparing(self, title: str, spared: frozenset[Finger]) -> Iterator[tuple[str, Part]]:
        """As somebody plays who does without some fingers; nothing where that cannot be, or where a taught
        shape needs them."""
        free = self._free()
        player = self._request.player
        player = replace(player, habits=replace(player.habits, spared=spared))
        grading = Grader(self._song, free, self._ladder, replace(self._request, player=player)).grade(free)
        spares = not any(spared & {*grip.fingers} for grip in self._own_grips(grading))
        if spares and self._keeps_taught(grading):
            yield title, self._pinned(free, grading)

    def _keeps_taught(self, grading: Grading) -> bool:
        for index in self._rows:
            demands, grips = grading.fingered.bars[index].demands, grading.fingered.hands[grading.hand][index]
            if not all(map(keeps_taught, (demand.shape for demand in demands), grips)):
                return False
        return True

    def _free(self) -> Part:
        """The part as if nothing were pinned in the passage."""
        bars = [replace(bar, events=bar.unpinned_events) for bar in self._bars(self._part)]
        return self._with_bars(self._part, bars)

    def _own_grips(self, grading: Grading) -> list[Grip]:
        """Those of the passage, in order."""
        own = (place for place in sorted(grading.grips) if self._first <= place[0] <= self._last)
        return [grading.grips[place] for place in own]

    def _by_fingers(self) -> Iterator[tuple[str, Part]]:
        """The cheapest paths that keep taught shapes and whose fingers differ, orders of fingers before
        single notes."""
        book = DemandsBook().of(self._part, route_of(self._part, self._song.order))
        gaps = gaps_of(book, self._times)
        rows = [(index, book[index]) for index in self._rows]
        layers = [
            layer
            for index, bar in rows
            for layer in layers_of(bar, gaps[index], self._times[index].quarter_seconds)
        ]
        places = [(index, demand.event) for index, bar in rows for demand in bar.demands]
        paths = k_best_paths(layers, self._tables(), _FINGERINGS)
        best, shapes = paths[0].grips, [layer.shape for layer in layers]

        def apart(path: HandPath) -> int:
            return sum(a.fingers != b.fingers for a, b in zip(best, path.grips, strict=True))

        taught = [
            path
            for path in paths
            if path.cost <= paths[0].cost + _MOST_DEARER * apart(path)
            and all(map(keeps_taught, shapes, path.grips))
        ]
        for path in sorted(taught, key=lambda path: apart(path) < _OTHER_NOTES):  # stable: cheapest first
            grips = dict(zip(places, path.grips, strict=False))
            bars = [_pinned_bar(bar, at, grips) for at, bar in enumerate(self._bars(self._part), self._first)]
            yield "", self._with_bars(self._part, bars)

    def _by_strings(self) -> Iterator[tuple[str, Part]]:
        """The same on the next thicker and the next thinner strings, single notes and two at a time."""
        for further in (1, -1):
            moved = on_other_strings(self._part, self._rows, further)
            if moved is not None:
                grading = self._grader.grade(moved)
                yield f"The same on the {string_words(self._strings(moved))}", self._pinned(moved, grading)

    def _strings(self, part: Part) -> tuple[int, ...]:
        """Those of the passage, thinnest first."""
        events = (event for bar in self._bars(part) for event in bar.events)
        return tuple(sorted({note.string for event in events for note in event.notes}))

    def _by_places(self) -> Iterator[tuple[str, Part]]:
        """The passage in one position after another, where it lies there."""
        tables = self._tables()
        moments = list(moments_of(self._part, self._rows, self._times, _stays))
        for position in _POSITIONS:
            inside = range(position, position + _POSITION_FRETS)
            placed = place(moments, self._part.tuning, self._part.capo, tables, partial(_lies_in, inside))
            if placed is not None:
                moved = self._with_bars(self._part, put_down(self._bars(self._part), placed))
                grading = self._grader.grade(moved)
                title = f"Elsewhere, around {ordinal(self._usual_position(grading))} position"
                yield title, self._pinned(moved, grading)

    def _usual_position(self, grading: Grading) -> int:
        positions = sorted(max(grip.position, 1) for grip in self._own_grips(grading))
        return positions[len(positions) // 2] if positions else 1

    def _tables(self) -> HandTables:
        return hand_tables(self._part, self._ladder, replace(self._request, hands=("medium",)))

    def _with_bars(self, part: Part, bars: Sequence[Bar]) -> Part:
        return replace(part, bars=(*part.bars[: self._first], *bars, *part.bars[self._last + 1 :]))

    def _pinned(self, part: Part, grading: Grading) -> Part:
        """The part with the passage's fingers written down as graded."""
        return self._with_bars(
            part,
            [_pinned_bar(bar, at, grading.grips) for at, bar in enumerate(self._bars(part), self._first)],
        )

    def _shown(self, title: str, part: Part, written: Alternative | None) -> Alternative:
        grading = self._grader.grade(part)
        grips = self._own_grips(grading)
        frets = [self._neck.fret_mm(grip.position) for grip in grips]
        travels = [abs(b - a) for a, b in itertools.pairwise(frets) if abs(b - a) > 0]
        positions = [max(grip.position, 1) for grip in grips] or [0]
        own = grading.bars[self._first : self._last + 1]
        way = Alternative(
            title,
            "",
            part,
            tuple(bar.step for bar in own),
            {name: max(bar.findings[name].step for bar in own) for name in MEASURES},
            grading.step,
            max(bar.findings["stretch"].value or 0.0 for bar in own),
            len(travels),
            sum(travels),
            self._strings(part),
            (min(positions), max(positions)),
            self._stopped(part) if written else 0,
            max(bar.step for bar in grading.bars[max(self._first - 1, 0) : self._last + 2]),
            clash_words(self._part, part, self._rows) if written else "",
        )
        return replace(way, sentence=sentence(way, written))

    def _stopped(self, part: Part) -> int:
        """Notes of the passage that sound shorter than as written."""
        before, after = sounding_quarters(self._part), sounding_quarters(part)
        count = 0
        for index in range(self._first, self._last + 1):
            for own, other, event, moved in zip(
                before[index],
                after[index],
                self._part.bars[index].events,
                part.bars[index].events,
                strict=True,
            ):
                lengths = dict(zip(map(part.pitch_of, moved.notes), other, strict=True))
                count += sum(
                    lengths.get(self._part.pitch_of(note), length) < length
                    for note, length in zip(event.notes, own, strict=True)
                )
        return count


def _stays(note: Note, hangs_before: bool) -> bool:
    """Harmonics, taps and dead notes stay where they speak, and so does what hangs on a note before the
    passage."""
    return note.dead or hangs_before or bool(note.techniques & AT_ITS_PLACE)


def _easiest(way: Alternative) -> tuple[float, float, float, float]:
    return (round(way.step_with_neighbours, 2), round(way.step, 2), round(way.song_step, 2), way.travel_mm)


def _lies_in(frets: range, spot: Spot) -> bool:
    return spot.fret == 0 or spot.fret in frets


def _pinned_bar(bar: Bar, index: int, grips: dict[tuple[int, int], Grip]) -> Bar:
    events = []
    for number, event in enumerate(bar.events):
        grip = grips.get((index, number))
        notes = (
            replace(note, finger=grip.finger_on(note.string) if grip and is_fretted(note) else None)
            for note in event.notes
        )
        events.append(replace(event, notes=tuple(notes)))
    return replace(bar, events=tuple(events))
