"""What survives of the tune: four scores, their mean, and one plain figure nobody can tune."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from operator import mul

from clear_steps.core.easier.salience import salience_of
from clear_steps.core.grade import TUNE_FLOOR
from clear_steps.core.score import Bar, Event, Note, Part
from clear_steps.core.score.ringing import Texture, bass_from, hearing_of, ringing_in

# Shares of the four scores in the overall one.
WEIGHTS = {"tune": 0.4, "bass": 0.15, "harmony": 0.25, "rhythm": 0.2}

_OCTAVE_CREDIT = 0.75  # the right note in another octave counts most of the way
_INNER_CREDIT = 0.9  # the right note, under another one
_LATER_CREDIT = 0.9  # a bend's target reached a moment later, by a slide
_LEAST_UNDER_OTHERS = 0.25  # of the moments on thick strings, for these to be a bass


@dataclass(frozen=True, slots=True)
class Kept:
    """Scores from 0 to 100; `same_onsets` is the share of onsets that still strike the pitch class on top.

    Of an original without a bass the score is 100 and counts nothing.
    """

    tune: float
    bass: float
    harmony: float
    rhythm: float
    overall: float
    same_onsets: float
    has_bass: bool

    def still_the_tune(self, floor: float = TUNE_FLOOR) -> bool:
        """Whether enough of the tune is left, in per cent, to be called by its name."""
        return self.tune >= floor


_Scores = tuple[float, float, float, float]


@dataclass(frozen=True, slots=True)
class _Tally:
    """Points kept and points possible of one bar, score by score."""

    kept: _Scores
    possible: _Scores
    same: int
    onsets: int


def kept(original: Part, version: Part) -> Kept:
    """How much of the original a version of it keeps."""
    return KeptSoFar(original).of(version)


class KeptSoFar:
    """Scores of a version under change: a bar that is the same object is tallied once."""

    def __init__(self, original: Part, weights: Mapping[str, float] = WEIGHTS, half_tones: int = 0) -> None:
        self._half_tones = half_tones
        self._original, self._weights = original, tuple(weights[score] for score in WEIGHTS)
        has_bass = _has_bass(original)
        self._wanted = [
            _wanted(original, bar, own, has_bass)
            for bar, own in zip(original.bars, salience_of(original), strict=True)
        ]
        self._worth = _worth_of_a_point([wanted.possible for wanted in self._wanted], self._weights)
        self._tallies: dict[
            tuple[int, int], tuple[Bar, _Tally, float]
        ] = {}  # with its points; the bar is held, so that its id stays its own

    def of(self, version: Part) -> Kept:
        """Scores of a version, compared through the transposition that was stated."""
        return _scored([self._tally(index, version) for index in range(len(version.bars))], self._weights)

    def overall(self, version: Part) -> float:
        """The overall score alone, quickly: every bar has its points of it."""
        if not any(self._worth):
            return 100.0
        return round(sum([self._counted(index, version)[2] for index in range(len(version.bars))]), 9)

    def by_bar(self, version: Part) -> tuple[float, ...]:
        """What is kept of every bar by itself, in per cent."""
        return tuple(
            _scored([self._tally(index, version)], self._weights).overall
            for index in range(len(version.bars))
        )

    def _tally(self, index: int, version: Part) -> _Tally:
        return self._counted(index, version)[1]

    def _counted(self, index: int, version: Part) -> tuple[Bar, _Tally, float]:
        bar = version.bars[index]
        key = (index, id(bar))
        if key not in self._tallies:
            as_written = bar.events == self._original.bars[index].events
            # Through the stated transposition a version's bar is heard where the original's would be.
            part = (
                self._original
                if as_written
                and version.tuning == self._original.tuning
                and version.capo == self._original.capo
                else version
            )
            tally = _against(self._wanted[index], part, bar, self._half_tones if part is version else 0)
            self._tallies[key] = (bar, tally, sum(map(mul, tally.kept, self._worth)))
        return self._tallies[key]


def _worth_of_a_point(possible: Sequence[_Scores], weights: Sequence[float]) -> tuple[float, ...]:
    """By score: what a point kept of it adds to the overall score."""
    wholes = [sum(points) for points in zip(*possible, strict=True)] or [0.0 for _ in weights]
    total = sum(weight for weight, whole in zip(weights, wholes, strict=True) if whole)
    return tuple(
        100.0 * weight / (whole * total) if whole and total else 0.0
        for weight, whole in zip(weights, wholes, strict=True)
    )


def _scored(tallies: Sequence[_Tally], weights_of_scores: Sequence[float]) -> Kept:
    if not tallies:
        return Kept(100.0, 100.0, 100.0, 100.0, 100.0, 100.0, has_bass=False)
    kept_of = map(sum, zip(*(tally.kept for tally in tallies), strict=True))
    possible = list(map(sum, zip(*(tally.possible for tally in tallies), strict=True)))
    scores = [100.0 * left / whole if whole else 100.0 for left, whole in zip(kept_of, possible, strict=True)]
    weights = [weight if whole else 0.0 for weight, whole in zip(weights_of_scores, possible, strict=True)]
    overall = (
        sum(w * s for w, s in zip(weights, scores, strict=True)) / sum(weights) if sum(weights) else 100.0
    )
    overall = round(overall, 9)  # all of everything is 100, whatever the weights
    onsets = sum(tally.onsets for tally in tallies)
    same = 100.0 * sum(tally.same for tally in tallies) / onsets if onsets else 100.0
    return Kept(scores[0], scores[1], scores[2], scores[3], overall, same, has_bass=possible[1] > 0)


@dataclass(frozen=True, slots=True)
class _Onset:
    """What the original strikes at an onset, as it is heard."""

    at: Fraction
    until: Fraction
    weight: float
    top: float
    bass: float | None  # the lowest note, where a bass string is struck


@dataclass(frozen=True, slots=True)
class _Wanted:
    """A bar of the original, ready to be compared with."""

    onsets: tuple[_Onset, ...]
    classes: dict[int, set[float]]

    @property
    def possible(self) -> _Scores:
        """Points that can be kept of it, score by score."""
        weight = sum(onset.weight for onset in self.onsets)
        return (
            weight,
            sum(onset.weight for onset in self.onsets if onset.bass is not None),
            float(len(self.classes)),
            weight,
        )


def _has_bass(part: Part) -> bool:
    """Whether the thick strings carry a voice of their own, and not a line that passes over them now and
    then."""
    if (part.picking and part.picking.plucked) or any(
        ringing.guessed & {Texture.BASS, Texture.BROKEN_CHORD}
        for bar in part.bars
        for ringing in ringing_in(bar, hearing_of(part))
    ):
        return True
    low = [
        event.struck
        for bar in part.bars
        for event in bar.events
        if any(note.string >= bass_from(part.tuning.strings) and not note.dead for note in event.struck)
    ]
    return sum(len(struck) > 1 for struck in low) >= _LEAST_UNDER_OTHERS * len(low)


def _wanted(original: Part, bar: Bar, weights: Sequence[float], has_bass: bool) -> _Wanted:
    onsets = []
    for onset, event, weight in zip(bar.onsets, bar.events, weights, strict=True):
        if event.struck:
            low = [
                _heard(original, note)
                for note in event.struck
                if has_bass and note.string >= bass_from(original.tuning.strings) and not note.dead
            ]
            onsets.append(
                _Onset(
                    onset,
                    onset + event.quarters,
                    weight,
                    max(_pitches(original, event)),
                    min(low, default=None),
                )
            )
    return _Wanted(tuple(onsets), _classes(original, bar))


def _against(wanted: _Wanted, version: Part, bar: Bar, half_tones: int) -> _Tally:
    version = replace(version, capo=version.capo - half_tones)  # heard where the original is
    there = {
        onset: _pitches(version, event)
        for onset, event in zip(bar.onsets, bar.events, strict=True)
        if event.struck
    }
    tune, bass, rhythm, same = 0.0, 0.0, 0.0, 0
    for onset in wanted.onsets:
        found = there.get(onset.at, [])
        tune += onset.weight * _credit(onset, found, there)
        rhythm += onset.weight * bool(found)
        same += any((pitch - onset.top) % 12 == 0 for pitch in found)
        if onset.bass is not None:
            bass += onset.weight * _bass_credit(onset.bass, found)
    classes = _classes(version, bar)
    beats = ((own, classes.get(beat, set())) for beat, own in wanted.classes.items())
    harmony = sum(len(own & found) / len(own | found) for own, found in beats)
    return _Tally((tune, bass, harmony, rhythm), wanted.possible, same, len(wanted.onsets))


def _pitches(part: Part, event: Event) -> list[float]:
    """What is heard of the struck notes: a bend is heard as its target."""
    return [_heard(part, note) for note in event.struck if not note.dead] or [0.0 for _ in event.struck]


def _heard(part: Part, note: Note) -> float:
    return part.pitch_of(note) + (float(note.bend.half_tones) if note.bend else 0.0)


def _credit(onset: _Onset, found: Sequence[float], there: dict[Fraction, list[float]]) -> float:
    if not found:
        return 0.0
    if max(found) == onset.top:
        return 1.0
    if onset.top in found:
        return _INNER_CREDIT
    if any(
        onset.at < at < onset.until and onset.top in pitches for at, pitches in there.items()
    ):  # where a slide arrives
        return _LATER_CREDIT
    return _OCTAVE_CREDIT if any((pitch - onset.top) % 12 == 0 for pitch in found) else 0.0


def _bass_credit(wanted: float, found: Sequence[float]) -> float:
    return (
        1.0
        if wanted in found
        else _OCTAVE_CREDIT
        if any((pitch - wanted) % 12 == 0 for pitch in found)
        else 0.0
    )


def _classes(part: Part, bar: Bar) -> dict[int, set[float]]:
    """Pitch classes sounding in each beat: what is struck, what lasts into it, what rings on."""
    beat, classes = bar.metre.beat_quarters, dict[int, set[float]]()
    rows = ringing_in(bar, hearing_of(part))
    for onset, event, ringing in zip(bar.onsets, bar.events, rows, strict=True):
        heard = {_heard(part, note) % 12 for note in (*event.notes, *ringing.notes) if not note.dead}
        if heard:
            last = (onset + event.quarters - Fraction(1, 64)) // beat
            for at in range(int(onset // beat), int(last) + 1):
                classes.setdefault(at, set()).update(heard)
    return classes
