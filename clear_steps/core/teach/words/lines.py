"""Lines in words: the position once, then string by string the frets in order."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import groupby

from clear_steps.core.score import Technique
from clear_steps.core.score.techniques import ARRIVING
from clear_steps.core.shapes import HAND_FRETS, Kind, index_fret
from clear_steps.core.teach.words.facts import MomentFact
from clear_steps.core.teach.words.notes import (
    FRET,
    Voice,
    fret_words,
    frets_together,
    gathered,
    more_words,
    own_finger,
    said_of,
    together,
)
from clear_steps.core.teach.words.repeats import Run, runs
from clear_steps.core.teach.words.rhythm import Timing
from clear_steps.core.teach.words.segments import Segment

_RUN = "run"
_SHORT = 12  # words of a cell that is told in one clause
_FEWEST_ALIKE = 3  # moments before one that is not
_LONGEST_CELL = 8  # notes that are told once and played again
_ONE_GESTURE = frozenset({Technique.PALM_MUTE, Technique.STACCATO, Technique.LET_RING, Technique.TREMOLO})


def line(segment: Segment, timings: Sequence[Timing], voice: Voice) -> Iterator[str]:
    """What is said of a line, a clause a string."""
    if segment.kind is Kind.OPEN and segment.name and segment.grip is None:
        frets = sorted({note.fret for moment in segment.moments for note in moment.notes})
        yield voice.say("harmonics-at", frets=voice.catalogue.listed(map(str, frets)))
    position = position_of(segment)
    is_run = segment.name == _RUN
    if segment.kind is Kind.POSITION and not is_run and not _covers(voice.position, segment):
        voice.position = position
        yield voice.say("position", fret=position)
    common, said_of_all = common_words(segment.moments, voice)
    if said_of_all:
        yield said_of_all
    own = [without(moment, common) for moment in segment.moments]
    for number, clause in enumerate(_clauses(own, timings, position, voice)):
        yield voice.say("run", what=clause) if is_run and not number else clause


def position_of(segment: Segment) -> int:
    """The fret under the index finger; 0 where none presses."""
    played = [fret for moment in segment.moments for fret in moment.frets.values()]
    return index_fret([*_stopped(segment), *(fret for fret in played if not fret)])


def _stopped(segment: Segment) -> list[int]:
    """Frets that the fretting hand presses."""
    notes = (note for moment in segment.moments for note in moment.notes)
    return [
        note.fret for note in notes if note.fret and not note.dead and Technique.TAP not in note.techniques
    ]


def _covers(position: int, segment: Segment) -> bool:
    """Whether a place of the hand that was told reaches all of it, or nothing needs one."""
    stopped = _stopped(segment)
    if not stopped:
        return True
    return bool(position) and position <= min(stopped) and max(stopped) < position + HAND_FRETS


def common_words(moments: Sequence[MomentFact], voice: Voice) -> tuple[frozenset[Technique], str]:
    """What is done to every note of several moments alike, and how it is said once: `all short`, `all short
    but the last`."""
    common = common_manner(moments)
    common -= voice.manner
    message = "all-of-it"
    if not common and not voice.manner and len(moments) > _FEWEST_ALIKE:
        common = common_manner(moments[:-1])
        common -= frozenset().union(*(note.techniques for note in moments[-1].notes))
        message = "all-but-last"
    said = voice.say(message, manner=", ".join(manner_words(common, voice))) if common else ""
    return common | voice.manner, said


def common_manner(moments: Sequence[MomentFact], every: bool = False) -> frozenset[Technique]:
    """What is done to every note of several moments alike: `every` technique, or those that are one
    gesture."""
    notes = [note for moment in moments for note in moment.notes if not note.dead]
    if len(moments) < 2 or not notes:
        return frozenset()
    alike = frozenset.intersection(*(note.techniques for note in notes))
    return alike - ARRIVING if every else alike & _ONE_GESTURE


def without(moment: MomentFact, common: frozenset[Technique]) -> MomentFact:
    """The moment without what is said of all."""
    notes = tuple(
        note if note.dead else replace(note, techniques=note.techniques - common) for note in moment.notes
    )
    return replace(moment, notes=notes)


def manner_words(techniques: frozenset[Technique], voice: Voice, fret: str = "") -> list[str]:
    """`muted`, `short`."""
    return [said_of(each, voice).replace(FRET, fret) for each in sorted(techniques)]


def _clauses(
    moments: Sequence[MomentFact], timings: Sequence[Timing], position: int, voice: Voice
) -> Iterator[str]:
    keys = [(each.notes, each.held, each.more, timing) for each, timing in zip(moments, timings, strict=True)]
    for is_cell, cells in groupby(
        runs(keys, _LONGEST_CELL), key=lambda run: run.times > 1 and run.length > 1
    ):
        if not is_cell:
            yield from _plain(list(cells), moments, timings, position, voice)
            continue
        for run in cells:
            own = [Run(at, 1, 1) for at in range(run.first, run.first + run.length)]
            *before, last = _plain(own, moments, timings, position, voice)
            if sum(len(clause.split()) for clause in before) > _SHORT:
                yield from before
                yield last
                yield voice.say("those-again", count=run.length, times=run.times)
            else:
                yield voice.say("cell-again", cell=", ".join([*before, last]), times=run.times)


def _plain(
    cells: Sequence[Run],
    moments: Sequence[MomentFact],
    timings: Sequence[Timing],
    position: int,
    voice: Voice,
) -> Iterator[str]:
    """Notes in order, one clause for those that lie on one string, or together on the same ones."""
    for strings, group in groupby(cells, key=lambda run: _strings(moments[run.first], voice)):
        own = list(group)
        if len(strings) > 1 and len(own) > 1:
            said = [_timed(run, moments, timings, position, voice, named=True) for run in own]
            begun, *rest = gathered(said)
            yield voice.say("on-strings", strings=voice.catalogue.listed(map(str, strings)), what=begun)
            yield from rest
            continue
        for words in gathered(_timed(run, moments, timings, position, voice) for run in own):
            yield voice.on_string(strings[0], words) if len(strings) == 1 else words


def _strings(moment: MomentFact, voice: Voice) -> tuple[int, ...]:
    """The strings it lies on; none where nothing is struck anew, or each note has a manner of its own."""
    if moment.held or (len(moment.notes) > 1 and not frets_together(moment, voice)):
        return ()
    return moment.strings


def _timed(
    run: Run,
    moments: Sequence[MomentFact],
    timings: Sequence[Timing],
    position: int,
    voice: Voice,
    named: bool = False,
) -> str:
    moment = moments[run.first]
    said = frets_together(moment, voice) if named else _note(moment, position, voice)
    if run.times > 1:
        said = voice.repeated(said, run.times)
    said = voice.timed(said, moment, timings[run.first])
    return ", ".join([said, *more_words(moment, voice)])


def _note(moment: MomentFact, position: int, voice: Voice) -> str:
    if moment.held:
        done = [fret_words(note, voice) for note in moment.notes]
        return voice.say("held-on", what=", ".join(done)) if done else voice.say("wait")
    if len(moment.notes) > 1:
        return together(moment, voice)
    (note,) = moment.notes
    return fret_words(note, voice, own_finger(note, position))
