"""What is told holds on the notes, and depends on nothing but the music."""

from collections import Counter
from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.figures import As, At, Figure, Place, coming_back
from clear_steps.core.score import Note, Part, Section
from tests.core.figures.strategies import moved_along, parts_that_come_back

generated = settings(max_examples=150, deadline=None)
Struck = dict[At, tuple[Note, ...]]


def struck(part: Part, strings: tuple[int, ...]) -> dict[At, tuple[Note, ...]]:
    rows = (
        (At(index, onset), tuple(note for note in event.struck if not strings or note.string in strings))
        for index, onset, event in part.events()
    )
    return {at: notes for at, notes in rows if notes}


def quarters(part: Part, at: At) -> object:
    return sum((bar.quarters for bar in part.bars[: at.bar]), at.onset)


def by_distance(part: Part, place: Place, notes: Struck) -> dict[object, tuple[At, tuple[Note, ...]]]:
    start = quarters(part, place.first)
    inside = {at: row for at, row in notes.items() if place.first <= at <= place.last}
    return {quarters(part, at) - start: (at, row) for at, row in inside.items()}


def is_like(part: Part, how: As, by: int, first: tuple[Note, ...], later: tuple[Note, ...]) -> bool:
    if how is As.RHYTHM:
        return True
    if how in (As.PLACE, As.OCTAVE):
        pitches = [sorted(part.pitch_of(note) for note in row) for row in (first, later)]
        return [pitch + by for pitch in pitches[0]] == pitches[1]
    strings = by if how is As.STRINGS else 0
    frets = by if how is As.MOVED else 0
    wanted = [
        (note.string + strings, {note.fret + frets} | ({0} if not note.fret else set())) for note in first
    ]
    return len(first) == len(later) and all(
        string == note.string and note.fret in may for (string, may), note in zip(wanted, later, strict=True)
    )


def contradictions(part: Part, figure: Figure) -> list[At]:
    """Moments at which a place is not what it is said to be, and that `but` does not own up to."""
    notes = struck(part, figure.strings)
    first = by_distance(part, figure.first, notes)
    wrong = []
    for place in figure.later:
        later = by_distance(part, place, notes)
        for distance in {*first, *later}:
            if distance in first and distance in later:
                at = later[distance][0]
                if (
                    is_like(part, place.how, place.by, first[distance][1], later[distance][1])
                    or at in place.but
                ):
                    continue
            elif distance in later:
                at = later[distance][0]
                if at in place.but:
                    continue
            else:  # missing: what stands in its place is named, or nothing stands there
                at = first[distance][0]
                before = max((each for each in later if each < distance), default=None)  # type: ignore[operator]
                named = {quarters(part, each) - quarters(part, place.first) for each in place.but}
                if distance in named or before in named:
                    continue
            wrong.append(at)
    return wrong


def test_what_is_told_holds_on_the_notes() -> None:
    told: Counter[As] = Counter()

    @generated
    @given(parts_that_come_back())
    def law(part: Part) -> None:
        for figure in coming_back(part).figures:
            told.update(place.how for place in figure.later)
            told.update(["but" for place in figure.places if place.but])  # type: ignore[list-item]
            assert contradictions(part, figure) == []

    law()
    assert {As.EQUAL, As.MOVED, As.STRINGS, "but"} <= set(told)
    assert min(told[As.EQUAL], told[As.MOVED]) > 20, told


def test_places_of_a_figure_do_not_lie_over_one_another() -> None:
    @generated
    @given(parts_that_come_back())
    def law(part: Part) -> None:
        for figure in coming_back(part).figures:
            assert len(figure.places) > 1
            for before, after in zip(figure.places, figure.later, strict=False):
                assert before.first <= before.last < after.first

    law()


def test_the_same_along_the_neck_is_told_the_same() -> None:
    told = []

    @generated
    @given(parts_that_come_back(lowest=1), st.integers(1, 5))
    def law(part: Part, frets: int) -> None:
        found = coming_back(part)
        told.append(len(found.figures))
        assert coming_back(moved_along(part, frets)) == found

    law()
    assert sum(told) > 50


@generated
@given(parts_that_come_back(), st.integers(0, 2))
def test_names_of_sections_change_nothing(part: Part, at: int) -> None:
    sections = (Section("Verse", 0), Section("Chorus", at + 1))
    named = replace(part, sections=sections)
    other = replace(part, sections=tuple(replace(row, name=f"{row.name} of another") for row in sections))
    assert coming_back(named) == coming_back(other)


def test_repeats_and_what_they_stand_for_are_counted_the_same() -> None:
    told = []

    @generated
    @given(parts_that_come_back(), st.integers(2, 3))
    def law(part: Part, times: int) -> None:
        last = replace(part.bars[-1], repeat_times=times)
        repeated = replace(part, bars=(*part.bars[:-1], last))
        written_out = replace(part, bars=part.bars * times)
        counted = {
            (figure.first.first, figure.first.last, figure.strings, figure.times)
            for figure in coming_back(written_out).figures
        }
        for figure in coming_back(repeated).figures:
            told.append(figure.times)
            first = figure.first
            assert (first.first, first.last, figure.strings, figure.times) in counted

    law()
    assert sum(times > 3 for times in told) > 20
