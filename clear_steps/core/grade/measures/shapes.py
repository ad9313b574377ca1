"""Shapes: how hard it is to set what is set anew and to land what is carried, how soon it changes, and how
long the fingers have been free for it."""

from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.heldfingers import CARRIED_SHARE, Change
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import FULL_BARRE_STRINGS, HARDEST_STEP, Grip, Setting
from clear_steps.core.score import Technique
from clear_steps.core.score.words import number_words

_CHEAP_STEP = 1.0  # a shape held, or merely moved
# Of a full barre's Step that it costs to hold it under so many strokes a second, and under none: between
# slow ones the hand gives way (from memory).
_HELD_BARRE_SHARE, _HELD_SLOWLY_SHARE, _STEADY = 0.7, 0.22, 1.3
_UNDER_BARRE_SHARE = 0.25  # of what fingers cost that land while a full barre is held (from memory)
_A_WHOLE_HAND = 4  # fingers and the hand itself: one or two change with ease (from memory)
_OFTEN = 0.5  # changes a second that make it harder to speak of
_NO_HURRY_S = 1.0
_A_SHAPE = 2  # strings pressed at once
_A_LEAP = 3  # frets, from which a barre must be found again (from memory)
_RARELY = 0.75  # of a Step that a change costs less every eight seconds than every four


class _Set(NamedTuple):
    """A shape at a moment: what of it lands (nothing where it is held), and the changes a second."""

    step: float
    landing: Setting
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
        landing = moment.grip.setting(moment.change.landing)
        step, rate = _landing_step(moment.grip, moment.change, bar.capo, ladder), 0.0
        if step:
            rate = 1 / moment.since_set
            step += (ladder.curves["shape_changes"].step(rate) - _RARELY) * _hurried_share(landing)
            step -= ladder.curves["free_time"].step(moment.change.free)
        held = _held_barre(moment.grip, bar, ladder)
        if held and landing.barre_strings < FULL_BARRE_STRINGS:
            step = held + _UNDER_BARRE_SHARE * step
        thumb = ladder.shapes.thumb if landing.thumbed else 0.0
        step = max(step, held, thumb, _CHEAP_STEP)
        at = moment.sounding.onset_quarters
        found.append((at, _Set(min(step, HARDEST_STEP), landing, rate, moment)))
    return found


def _landing_step(grip: Grip, change: Change, capo: int, ladder: Ladder) -> float:
    """Of all that lands together: in full what is set anew, a share for each finger that is carried along; of
    a full barre more the farther it goes."""
    landing = grip.setting(change.landing)
    step = ladder.shapes.of(landing, capo)
    if not change.carried:
        return step
    carried = len(change.carried)
    share = (CARRIED_SHARE * carried + landing.fingers - carried) / landing.fingers
    if landing.barre_strings >= FULL_BARRE_STRINGS:
        far = min((abs(change.frets) - 1) / (_A_LEAP - 1), 1.0)
        share = max(share, CARRIED_SHARE + (1 - CARRIED_SHARE) * far)
    return step * share


def _hurried_share(landing: Setting) -> float:
    """Of what the rate of change adds: the fewer fingers land, the less; a full barre is a whole hand."""
    if landing.barre_strings >= FULL_BARRE_STRINGS:
        return 1.0
    return min(((landing.fingers + 1) / _A_WHOLE_HAND) ** 2, 1.0)


def _held_barre(grip: Grip, bar: PlayedBar, ladder: Ladder) -> float:
    if grip.barre_strings < FULL_BARRE_STRINGS:
        return 0.0
    pace = min(len(bar.moments) / bar.seconds / _STEADY, 1.0)
    share = _HELD_SLOWLY_SHARE + (_HELD_BARRE_SHARE - _HELD_SLOWLY_SHARE) * pace
    return share * ladder.shapes.step(grip, bar.capo)


def _weigh(found: Found[_Set], _: Window, __: Ladder) -> float:
    """The hardest to set, with what the rate of change adds."""
    return max(each.step for _, each in found)


def _tell(found: Found[_Set], bar: PlayedBar, _: Ladder) -> Told:
    worst = max((each for _, each in found), key=lambda each: each.step)
    moment, landing = worst.moment, worst.landing
    place = Place(moment.onset, moment.strings)
    if worst.step <= _CHEAP_STEP:
        return Told(0.0, None, "One shape, held or merely moved along.")
    if not landing.fingers or moment.grip is None:
        barre = moment.grip.barre_fret if moment.grip else 0
        return Told(0.0, place, f"A full barre at fret {barre} is held.")
    often = f", {1 / worst.rate:.1f} s after the last shape" if worst.rate >= _OFTEN else ""
    free = moment.change.free
    hurry = f", with {free:.1f} s free for it" if free < _NO_HURRY_S else ""
    chord = f" ({moment.event.chord})" if moment.event.chord else ""
    evidence = (
        f"At {bar.beat_words(moment.onset)} {_landing_words(landing, moment.change)}{chord}{often}{hurry}"
        f"{bar.way_in(moment)}."
    )
    return Told(worst.rate, place, evidence)


def _landing_words(landing: Setting, change: Change) -> str:
    """`three fingers are set`, `a full barre at fret 8 and three more fingers are carried seven frets up`."""
    many, what = _setting_words(landing)
    verb = "are" if many else "is"
    if not change.carried or change.fresh:
        return f"{what} {verb} set"
    frets = abs(change.frets)
    way = f"{number_words(frets)} fret{'s' if frets > 1 else ''} {'up' if change.frets > 0 else 'down'}"
    return f"{what} {verb} carried {way}"


def _setting_words(setting: Setting) -> tuple[bool, str]:
    """Whether it is several things, and what it is."""
    if not setting.barre_strings:
        several = setting.fingers > 1
        return several, f"{number_words(setting.fingers)} finger{'s' if several else ''}"
    wide = setting.barre_strings >= FULL_BARRE_STRINGS
    over = "a full barre" if wide else f"a barre over {number_words(setting.barre_strings)} strings"
    barre, others = f"{over} at fret {setting.barre_fret}", setting.fingers - 1
    if not others:
        return False, barre
    return True, f"{barre} and {number_words(others)} more finger{'s' if others > 1 else ''}"


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
    room = ladder.curves["shape_changes"].raw(step - hardest[1] + _RARELY)
    often = f"changed up to {room:.1f} times a second" if room > 0 else "changed slowly"
    return f"at the most {hardest[0]}, {often}"


SHAPES = Measure(
    name="shapes",
    spoken="the shape to set",
    about="how hard a grip is to set, and how often it changes",
    unit="changes/s",
    sign="M4 12.5v.01M8 4v.01M12 8.5v.01M4 12.5 8 4l4 4.5",
    curves={"shape_changes": "changing shapes", "free_time": "time free for it"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    said={"es": "poner las posiciones"},
    helps={
        "en": "Change between the two shapes without playing until all fingers land at once.",
        "es": "Cambiar entre las dos posiciones sin tocar hasta que los dedos caigan a la vez.",
    },
)
