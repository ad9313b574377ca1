"""Shapes: how hard it is to set what is set anew, and how soon it changes."""

from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import FULL_BARRE_STRINGS, HARDEST_STEP, Grip, Setting
from clear_steps.core.score import Technique
from clear_steps.core.score.words import number_words

_CHEAP_STEP = 1.0  # a shape held, or merely moved
_HELD_BARRE_SHARE = 0.7  # of a full barre's Step that it costs to hold it (from memory)
_OFTEN = 0.5  # changes a second that make it harder to speak of
_A_SHAPE = 2  # strings pressed at once


class _Set(NamedTuple):
    """A shape at a moment: what of it is set anew (nothing where it is held), and the changes a second."""

    step: float
    setting: Setting
    rate: float
    moment: Moment


def _find(bar: PlayedBar, ladder: Ladder) -> Found[_Set]:
    """Every moment that presses two strings or more, by what of it is set anew."""
    found: list[tuple[float, _Set]] = []
    for moment in bar.moments:
        if moment.grip is None or len({spot.string for _, spot in moment.grip.presses}) < _A_SHAPE:
            continue
        if all(Technique.NATURAL_HARMONIC in note.techniques for note in moment.sounding.struck):
            continue  # touched, not set
        setting = moment.grip.setting(moment.change.fresh)
        step, rate = ladder.shapes.of(setting, bar.capo), 0.0
        if step:
            rate = 1 / moment.since_set
            step += ladder.curves["shape_changes"].step(rate)
        step = max(step, _held_barre(moment.grip, bar, ladder), _CHEAP_STEP)
        at = moment.sounding.onset_quarters
        found.append((at, _Set(min(step, HARDEST_STEP), setting, rate, moment)))
    return found


def _held_barre(grip: Grip, bar: PlayedBar, ladder: Ladder) -> float:
    if grip.barre_strings < FULL_BARRE_STRINGS:
        return 0.0
    return _HELD_BARRE_SHARE * ladder.shapes.step(grip, bar.capo)


def _weigh(found: Found[_Set], _: Window, __: Ladder) -> float:
    """The hardest to set, with what the rate of change adds."""
    return max(each.step for _, each in found)


def _tell(found: Found[_Set], bar: PlayedBar, _: Ladder) -> Told:
    worst = max((each for _, each in found), key=lambda each: each.step)
    moment, setting = worst.moment, worst.setting
    place = Place(moment.onset, moment.strings)
    if worst.step <= _CHEAP_STEP:
        return Told(0.0, None, "One shape, held or merely moved along.")
    if not setting.fingers or moment.grip is None:
        barre = moment.grip.barre_fret if moment.grip else 0
        return Told(0.0, place, f"A full barre at fret {barre} is held.")
    change = f", {1 / worst.rate:.1f} s after the last shape" if worst.rate >= _OFTEN else ""
    chord = f" ({moment.event.chord})" if moment.event.chord else ""
    evidence = (
        f"At {bar.beat_words(moment.onset)} {_setting_words(setting)} set{chord}{change}{bar.way_in(moment)}."
    )
    return Told(worst.rate, place, evidence)


def _setting_words(setting: Setting) -> str:
    fingers = number_words(setting.fingers)
    count = f"{fingers} finger{'s' if setting.fingers > 1 else ''}"
    if setting.barre_strings >= FULL_BARRE_STRINGS:
        return f"a full barre at fret {setting.barre_fret}, {count} in all, is"
    if setting.barre_strings:
        strings = number_words(setting.barre_strings)
        return f"a barre over {strings} strings at fret {setting.barre_fret}, {count} in all, is"
    return f"{count} {'is' if setting.fingers == 1 else 'are'}"


def _rung(ladder: Ladder, step: int) -> str:
    own = ladder.shapes
    rows = {
        "two fingers": own.two_fingers,
        "three fingers": own.three_fingers,
        "four fingers": own.four_fingers,
        "a small barre": own.small_barre,
        "a bass by the thumb": own.thumb,
        "a full barre from the 5th fret on": own.full_barre_high,
        "a full barre at the 1st fret": own.full_barre_low,
    }
    allowed = {name: least for name, least in rows.items() if least <= step}
    if not allowed:
        return "one finger at a time, or a shape held"
    hardest = max(allowed.items(), key=lambda entry: entry[1])
    room = ladder.curves["shape_changes"].raw(step - hardest[1])
    often = f"changed up to {room:.1f} times a second" if room > 0 else "changed slowly"
    return f"at the most {hardest[0]}, {often}"


SHAPES = Measure(
    name="shapes",
    spoken="the shape to set",
    about="how hard a grip is to set, and how often it changes",
    unit="changes/s",
    sign="M4 12.5v.01M8 4v.01M12 8.5v.01M4 12.5 8 4l4 4.5",
    curves={"shape_changes": "changing shapes"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
)
