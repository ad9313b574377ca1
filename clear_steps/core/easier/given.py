"""Edits made before the search begins: what the teacher asked for by name, and what an instrument always
needs."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.answer import Wish
from clear_steps.core.easier.edit import Change, Edit, dependencies, version_of
from clear_steps.core.easier.kinds.technique import bend_to_fret, bend_to_slide
from clear_steps.core.easier.setups import setup_edit
from clear_steps.core.grade import GradeRequest, Ladder
from clear_steps.core.score import Bar, Event, Instrument, Metre, Part, Song

FILL = "fill"
# half tones; wider than a half tone is not practical on steel or nylon strings (common practice, no source)
_WIDE_BEND = 2
_NO_WIDE_BENDS = (Instrument.ACOUSTIC, Instrument.CLASSICAL)


def given_edits(
    song: Song, part: Part, ladder: Ladder, wish: Wish, request: GradeRequest
) -> tuple[Edit, ...]:
    """Tuning and capo, short bars filled, wide bends off an acoustic guitar; raises InvalidValueError where
    a wish cannot be had."""
    edits = [setup_edit(song, part, ladder, wish.setup, request, wish.tuning_and_capo)] if wish.setup else []
    version = version_of(part, edits)
    made = [*_without_wide_bends(version), *(_filled(version) if wish.fill_short_bars else ())]
    for number, edit in enumerate(made, start=len(edits) + 1):
        edits.append(replace(edit, id=number, builds_on=dependencies(edits, edit.changes)))
    return tuple(edits)


def _without_wide_bends(part: Part) -> Iterator[Edit]:
    """Each wide bend of an acoustic guitar as a slide, else as the fret it goes to."""
    if part.instrument not in _NO_WIDE_BENDS:
        return
    for index in range(len(part.bars)):
        taken: list[Change] = []
        for name, kind in (("bend-slide", bend_to_slide), ("bend-fret", bend_to_fret)):
            for change in (change for changes in kind(part, index) for change in changes):
                if any(_bends_wide(event) for event in change.before) and not any(
                    change.overlaps(other) for other in taken
                ):
                    taken.append(change)
                    where = f"bar {part.bar_number(index)}"
                    reason = (
                        f"{where.capitalize()}: a bend of a whole tone or more is not practical on this"
                        f" {part.instrument} guitar."
                    )
                    yield Edit(0, name, (change,), reason, f"{where}: no wide bend", 0.0)


def _bends_wide(event: Event) -> bool:
    return any(note.bend and note.bend.half_tones >= _WIDE_BEND for note in event.notes)


def usual_metre(part: Part) -> Metre:
    """The metre of most bars; the earlier of equals."""
    return Counter(bar.metre for bar in part.bars).most_common(1)[0][0]


def short_bars(part: Part) -> tuple[int, ...]:
    """Indexes of the bars whose metre is shorter than the usual one, a pickup aside."""
    if not part.bars:
        return ()
    usual = usual_metre(part)
    return tuple(
        index for index, bar in enumerate(part.bars) if bar.metre.quarters < usual.quarters and not bar.pickup
    )


def _filled(part: Part) -> Iterator[Edit]:
    """Short bars at the usual length: the last note held, the last rest longer."""
    for index in short_bars(part):
        number, bar = part.bar_number(index), part.bars[index]
        change = _held_on(bar, index, usual_metre(part))
        reason = f"Bar {number}: asked for: the bar of {bar.metre} at the usual length."
        yield Edit(
            0,
            FILL,
            (change,),
            reason,
            f"bar {number}: {bar.metre} filled to {change.metre}; it no longer fits the recording",
            0.0,
        )


def _held_on(bar: Bar, index: int, metre: Metre) -> Change:
    last, missing = bar.events[-1], metre.quarters - bar.quarters
    held = Event(
        missing, tuple(replace(note, tied=True, techniques=frozenset(), bend=None) for note in last.notes)
    )
    after = (last, held) if last.notes else (replace(last, quarters=last.quarters + missing),)
    return Change(index, bar.onsets[-1] if bar.onsets else Fraction(0), (last,), after, metre)
