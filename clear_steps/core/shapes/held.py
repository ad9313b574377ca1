"""Grips that are kept while the other hand plays: under a written name, or told by what is struck."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from fractions import Fraction

from clear_steps.core.score import NOT_HELD, Tuning
from clear_steps.core.score.chords import Chord, parse_chord
from clear_steps.core.shapes.carried import taught_for
from clear_steps.core.shapes.familiar import FamiliarGrip, familiar_grips, grips_of
from clear_steps.core.shapes.lines import lines
from clear_steps.core.shapes.moments import Moment, joined, within_a_hand
from clear_steps.core.shapes.naming import heard, is_sure
from clear_steps.core.shapes.stretch import Grip, Kind, Stretch

_MOST_PASSING = Fraction(1, 4)  # notes of a named stretch that its grip may lack (from memory)
_LEAST_STRUCK, _LEAST_STRINGS = 4, 3  # notes and strings of a broken chord (from memory)
_LEAST_QUARTERS = Fraction(2)  # quick notes that pass over three strings are a line (from memory)
_STRUM = 3  # strings at once that are a grip by themselves
_LEAST_RUN = 2  # single notes that lead out of a grip


def held_by_name(moments: Sequence[Moment], first: int, last: int, tuning: Tuning) -> tuple[Stretch, ...]:
    """The stretch under a name that is written over its first moment, and the run that leads out of it; empty
    where what is played is not held so: a line over chords. Lines where it says that nothing is held."""
    name = moments[first].chord
    if name == NOT_HELD:
        return tuple(lines(moments, first, last))
    chord = parse_chord(name)
    rows = list(grips_of(chord, tuning)) if chord else []
    grip = _taught(rows, moments[first : last + 1]) or _as_struck(moments[first : last + 1], tuning)
    if grip is None:
        return ()
    end = _before_the_run(moments, first, last, grip)
    own = Stretch(first, end, Kind.HELD, name, name, grip)
    if end == last:
        return (own,)
    return (own, Stretch(end + 1, last, Kind.POSITION, "run"))


def _taught(rows: Sequence[FamiliarGrip], moments: Sequence[Moment]) -> Grip | None:
    """The familiar grip with which most of what is struck agrees, the least to hold of several. An open
    string that it does not use, an alternating bass, does not speak against it."""
    places = [place for moment in moments for place in moment.frets.items()]
    struck = dict(places)

    def lacks(row: FamiliarGrip) -> int:
        own = row.by_string
        return sum(own.get(string, 0) != fret for string, fret in places)

    fitting = [row for row in rows if lacks(row) <= len(places) * _MOST_PASSING]
    if not fitting or not places:
        return None
    return grip_of(min(fitting, key=lambda row: (lacks(row), _idle(row, struck))))


def grip_of(row: FamiliarGrip) -> Grip:
    """A familiar grip with the fingers of its schools."""
    return Grip(row.by_string, tuple(map(dict, row.schools)))


def _as_struck(moments: Sequence[Moment], tuning: Tuning) -> Grip | None:
    """What the notes say where no familiar grip agrees: each string at its commonest fret."""
    counts = Counter(place for moment in moments for place in moment.frets.items())
    frets: dict[int, int] = {}
    for (string, fret), _ in counts.most_common():
        frets.setdefault(string, fret)
    passing = sum(count for (string, fret), count in counts.items() if frets[string] != fret)
    together = max((len(moment.frets) for moment in moments), default=0)
    is_grip = together >= _STRUM or len(frets) >= _LEAST_STRINGS
    if not is_grip or passing > counts.total() * _MOST_PASSING or not within_a_hand(frets):
        return None
    return Grip(frets, taught_for(frets, tuning))


def _before_the_run(moments: Sequence[Moment], first: int, last: int, grip: Grip) -> int:
    """The last moment before single notes that lead out of the grip: half of them or more are not of it, and
    none is on a string that was struck before."""
    begin = last + 1
    while begin > first and len(moments[begin - 1].frets) == 1:
        begin -= 1
    for start in range(begin, last + 2 - _LEAST_RUN):
        strings = {string for moment in moments[first:start] for string in moment.frets}
        run = moments[start : last + 1]
        own = [moment for moment in run if _is_of(moment, grip)]
        if 2 * len(own) <= len(run) and not any({*moment.frets} <= strings for moment in own):
            return start - 1 if start > first else last
    return last


def _is_of(moment: Moment, grip: Grip) -> bool:
    return all(grip.frets.get(string) == fret for string, fret in moment.frets.items())


def held_by_ear(moments: Sequence[Moment], first: int, last: int, tuning: Tuning) -> Iterator[Stretch]:
    """The grips that moments without a name keep; what is none of them is left out."""
    for begin, end in _grown(moments, first, last):
        own = moments[begin : end + 1]
        frets: dict[int, int] = {}
        for moment in own:
            frets |= moment.frets
        if frets and _holds(own, frets):
            yield _named(begin, end, frets, tuning)


def _grown(moments: Sequence[Moment], first: int, last: int) -> Iterator[tuple[int, int]]:
    """Cut where a string is stopped elsewhere or the hand would have to move. What comes before such a place
    may belong to the new grip already: the cut lies on the strongest place that leaves both whole."""
    begin = first
    for at in range(first, last + 1):
        if _together(moments, begin, at) is not None:
            continue
        starts = [cut for cut in range(begin + 1, at + 1) if _together(moments, cut, at) is not None]
        cut = max(starts, key=lambda start: (moments[start].weight, start), default=at)
        yield begin, cut - 1
        begin = cut
    yield begin, last


def _together(moments: Sequence[Moment], begin: int, end: int) -> dict[int, int] | None:
    frets: dict[int, int] = {}
    for moment in moments[begin : end + 1]:
        both = joined(frets, moment.frets)
        if both is None:
            return None
        frets = both
    return frets


def _holds(moments: Sequence[Moment], frets: Mapping[int, int]) -> bool:
    """Whether it is kept: struck at once, or so many strings in turn that come back."""
    if any(len(moment.frets) >= _STRUM for moment in moments):
        return True
    lasts = sum((moment.event.quarters for moment in moments), Fraction(0))
    struck = sum(len(moment.frets) for moment in moments)
    return (
        struck >= _LEAST_STRUCK
        and len(frets) >= _LEAST_STRINGS
        and lasts >= _LEAST_QUARTERS
        and struck > len(frets)
    )


def _named(begin: int, end: int, frets: dict[int, int], tuning: Tuning) -> Stretch:
    """By the familiar grip that all of it is of, else by ear."""
    ear = heard(frets, tuning)
    rows = [row for row in familiar_grips(tuning) if _agrees(row, frets, ear)]
    if rows:
        row = min(rows, key=lambda each: _idle(each, frets))
        return Stretch(begin, end, Kind.HELD, row.name, "", grip_of(row))
    kind = Kind.HELD if any(frets.values()) else Kind.OPEN
    return Stretch(
        begin, end, kind, ear.usual_name if ear else "", "", Grip(frets, taught_for(frets, tuning))
    )


def _agrees(row: FamiliarGrip, frets: Mapping[int, int], ear: Chord | None) -> bool:
    own, chord = row.by_string, row.chord
    if any(own.get(string) != fret for string, fret in frets.items()) or chord is None:
        return False
    if ear is not None and is_sure(ear):
        same = (chord.root, chord.intervals) == (ear.root, ear.intervals)
        return same and not _idle_below(row, frets)
    return max(frets) == max(own)  # its own bass is struck


def _idle_below(row: FamiliarGrip, frets: Mapping[int, int]) -> bool:
    """Whether it stops a string below the lowest that is struck: that would be held for nothing."""
    return any(fret > 0 and string > max(frets) for string, fret in row.frets)


def _idle(row: FamiliarGrip, frets: Mapping[int, int]) -> int:
    return sum(fret > 0 and string not in frets for string, fret in row.frets)
