"""One song with every technique, length, ending and mark there is, made from the tables of the score."""

from dataclasses import replace
from fractions import Fraction

from clear_steps.core.score import (
    TECHNIQUES,
    Bar,
    Bend,
    Dynamic,
    Event,
    Feel,
    Finger,
    Metre,
    Note,
    Part,
    Picking,
    PickingFinger,
    Section,
    Song,
    Stroke,
    Technique,
    Writing,
    parse_length,
)
from clear_steps.formats.tabtext import write_tab

_BENDS = {
    Technique.BEND_QUARTER: Fraction(1, 2),
    Technique.BEND_HALF: Fraction(1),
    Technique.BEND_WHOLE: Fraction(2),
    Technique.BEND_ONE_AND_HALF: Fraction(3),
    Technique.BEND_TWO: Fraction(4),
}
QUARTER = Fraction(1)


def _note(fret: int, string: int = 2, techniques: frozenset[Technique] = frozenset()) -> Note:
    return Note(string, fret, techniques)


def _lengths(text: str) -> tuple[Event, ...]:
    """`q Rq e3`: an event a value, a rest after R, a tie to the one before after =."""
    events = []
    for number, value in enumerate(text.split()):
        length = parse_length(value.lstrip("R="))
        assert length is not None, value
        note = replace(_note(1 if value.startswith("=") else number % 4), tied=value.startswith("="))
        events.append(Event(length, () if value.startswith("R") else (note,)))
    return tuple(events)


def technique_bar(technique: Technique) -> Bar:
    """A bar that shows one technique on its second quarter (a half long), told by its remark."""
    row = TECHNIQUES[technique]
    before, note = Event(QUARTER, (_note(5),)), Event(Fraction(2), (_note(7),))
    if technique is Technique.PULL_OFF:
        before = Event(QUARTER, (_note(9),))
    if technique in _BENDS:
        note = replace(note, notes=(replace(_note(7), bend=Bend(_BENDS[technique])),))
    elif technique is Technique.RELEASE:
        note = replace(note, notes=(replace(_note(7), bend=Bend(Fraction(2), released=True)),))
    elif technique in (Technique.PRE_BEND, Technique.UNISON_BEND):
        bent = replace(_note(7), bend=Bend(Fraction(2)))
        others = (_note(5, 1),) if technique is Technique.UNISON_BEND else ()
        note = replace(note, notes=(*others, bent), techniques=frozenset({technique}))
    elif technique is Technique.DEAD:
        note = replace(note, notes=(_note(0, techniques=frozenset({technique})),))
    elif technique is Technique.NATURAL_HARMONIC:
        note = replace(note, notes=(_note(12, techniques=frozenset({technique})),))
    elif technique is Technique.WHAMMY_DIP:
        note = replace(note, techniques=frozenset({technique}), dip=Fraction(3, 2))
    elif row.writing is Writing.WORD:
        note = replace(note, techniques=frozenset({technique}))
    else:
        note = replace(note, notes=(_note(7, techniques=frozenset({technique})),))
    return Bar(events=(before, replace(note, remark=row.name), Event(QUARTER, (_note(3),))))


def _rhythm() -> tuple[Bar, ...]:
    common = [
        "w",
        "h. q",
        "h q Rq",
        "q. e Re Rs s q",
        "e e s s s s t t t t z z z z z z z z q",
        "Rw",
        "h.. e",
        "e3 e3 e3 q3 e3 q3 q3 q3",
        "s5 s5 s5 s5 s5 e6 e6 e6 e6 e6 e6 q",
        "e7 e7 e7 e7 e7 e7 e7 h",
        "Rh Rt t s e q",
        "e q e h",
    ]
    tied = [_lengths("h. q"), _lengths("=q h.")]
    sevens = ["e e e e e e e", "q e q q", "q. s s q e"]
    return (
        *(Bar(events=_lengths(text)) for text in common),
        *(Bar(events=events) for events in tied),
        *(Bar(Metre(7, 8), _lengths(text)) for text in sevens),
        Bar(Metre(6, 8), _lengths("e e e q e")),
        Bar(Metre(5, 4), _lengths("h. h")),
    )


def _marks() -> tuple[Bar, ...]:
    chord = tuple(
        Note(string, fret, finger=finger)
        for string, fret, finger in (
            (1, 0, None),
            (2, 1, Finger.INDEX),
            (3, 0, None),
            (4, 2, Finger.MIDDLE),
            (5, 3, Finger.RING),
        )
    )
    picked = tuple(
        replace(_note(fret, string), picking=finger)
        for string, fret, finger in ((2, 1, PickingFinger.MIDDLE), (5, 3, PickingFinger.THUMB))
    )
    strummed = Event(QUARTER, chord, chord="C", stroke=Stroke.DOWN, dynamic=Dynamic.LOUD)
    plain = Event(QUARTER, (_note(3),))
    return (
        Bar(
            events=(
                strummed,
                replace(strummed, stroke=Stroke.UP, chord="", dynamic=None),
                Event(Fraction(2), picked, dynamic=Dynamic.VERY_SOFT),
            )
        ),
        Bar(
            events=(
                Event(QUARTER, (replace(_note(5), uncertain=True),)),
                Event(QUARTER, (replace(_note(5), optional=True),)),
                replace(plain, uncertain=True),
                replace(plain, free=True),
            )
        ),
        Bar(
            events=(
                Event(
                    QUARTER, (_note(3), _note(3, 6, frozenset({Technique.PALM_MUTE}))), stopped=frozenset({1})
                ),
                replace(plain, own_techniques=frozenset({"knock"})),
                replace(plain, position=3),
                plain,
            )
        ),
        Bar(events=_lengths("q q q q"), repeat_start=True, tempo=Fraction(132)),
        Bar(events=_lengths("h h"), endings=(1, 2), repeat_times=3),
        Bar(events=_lengths("w"), endings=(3,)),
        Bar(
            events=(
                Event(Fraction(2), (replace(_note(7), bend=Bend(Fraction(2))),)),
                Event(Fraction(2), (replace(_note(7), tied=True, bend=Bend(Fraction(0), released=True)),)),
            ),
            double_bar=True,
        ),
        Bar(events=(plain, *_lengths("h Rq")), double_bar=True),
    )


def every_mark() -> Song:
    """The song: lengths, then techniques, then what else is written."""
    techniques = tuple(technique_bar(technique) for technique in Technique)
    from_nowhere = Bar(
        events=(Event(Fraction(2)), Event(Fraction(2), (_note(7, 3, frozenset({Technique.HAMMER_ON})),)))
    )
    rhythm, marks = _rhythm(), _marks()
    sections = (
        Section("Lengths", 0),
        Section("Techniques", len(rhythm), 2),
        Section("Marks", len(rhythm) + len(techniques) + 1, None),
    )
    part = Part(
        picking=Picking.PICK_AND_FINGERS, bars=(*rhythm, *techniques, from_nowhere, *marks), sections=sections
    )
    return Song(title="Every mark", tempo=Fraction(96), feel=Feel.SWING, parts=(part,))


def every_mark_text() -> str:
    """The same as tab text."""
    return write_tab(every_mark())
