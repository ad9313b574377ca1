"""What survives of the tune by role: scores, their mean less what makes a version unmusical, and one plain
figure nobody can tune."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from operator import mul

from clear_steps.core.easier.penalties import Edge, Penalties
from clear_steps.core.easier.wanted import (
    SCORES,
    WEIGHTS,
    WantedBar,
    WantedChord,
    WantedNote,
    classes_between,
    heard,
    how_played,
    wanted_bars,
)
from clear_steps.core.grade import TUNE_FLOOR
from clear_steps.core.score import Bar, Event, Part, Role, Technique, Tuning

_EARLY_CREDIT = 0.7  # the right note within half a beat of its time, where nothing else is wanted
_OCTAVE_CREDIT = 0.75  # the right note in another octave counts most of the way
_INNER_CREDIT = 0.9  # the right note, under another one
_LATER_CREDIT = 0.9  # a bend's target reached a moment later, by a slide
_FOREIGN = 0.5  # a chord loses so much for what sounds in it and is not in it
_MOVED_CREDIT = 0.5  # a stroke within half a beat of where it was
_PUSH_MOVED_CREDIT = 0.75  # a push struck on the beat it was held over
_BENT_CREDIT = 0.5  # a bend that became a slide
_BENDS = frozenset(how for how in Technique if how.value.startswith("bend"))


@dataclass(frozen=True, slots=True)
class Kept:
    """Scores from 0 to 100; `same_onsets` is the share of onsets that still strike the pitch class on top.

    Of an original without a bass that score is 100 and counts nothing; so do the others where there is
    nothing to keep.
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


@dataclass(frozen=True, slots=True)
class _Tally:
    """Points kept of one bar, score by score, and onsets that sound the same."""

    kept: tuple[float, ...]
    same: int


def kept(original: Part, version: Part, half_tones: int = 0) -> Kept:
    """How much of the original a version of it keeps, compared through a stated transposition."""
    return KeptSoFar(original, half_tones=half_tones).of(version)


class KeptSoFar:
    """Scores of versions of one part: a bar that is the same object is tallied once.

    `lean` says what is worth more than usual, as a factor by score.
    """

    def __init__(self, original: Part, lean: Mapping[str, float] | None = None, half_tones: int = 0) -> None:
        self._original, self._half_tones = original, half_tones
        self.wanted = wanted_bars(original)
        self._worth = _worth_of_points(original, self.wanted, lean or {})
        self._penalties = Penalties(original, self.wanted)
        # With its points; the bar is held, so that its id stays its own.
        self._tallies: dict[tuple[int, int, Tuning, int], tuple[Bar, _Tally, float]] = {}

    def of(self, version: Part) -> Kept:
        """Scores of a version."""
        tallies = [self._counted(index, version)[1] for index in range(len(version.bars))]
        possible = [sum(points) for points in zip(*(row.possible for row in self.wanted), strict=True)]
        points = [sum(row) for row in zip(*(tally.kept for tally in tallies), strict=True)]
        scores = {
            name: round(100.0 * own / whole, 9) if whole else 100.0
            for name, own, whole in zip(SCORES, points, possible, strict=bool(possible))
        }
        onsets = sum(len(row.tops) for row in self.wanted)
        same = 100.0 * sum(tally.same for tally in tallies) / onsets if onsets else 100.0
        overall, has_bass = self.overall(version), bool(possible) and possible[1] > 0
        tune, bass, harmony, rhythm = (scores.get(name, 100.0) for name in SCORES[:4])
        return Kept(tune, bass, harmony, rhythm, overall, same, has_bass)

    def overall(self, version: Part) -> float:
        """The overall score alone, quickly: every bar has its points of it."""
        if not any(map(any, self._worth)):
            return 100.0
        points = sum([self._counted(index, version)[2] for index in range(len(version.bars))])
        return round(max(points - self._penalties.of(self._as_heard(version)), 0.0), 9)

    def lost_edges(self, version: Part) -> list[Edge]:
        """Last and highest notes of phrases that a version has not."""
        return self._penalties.lost_edges(self._as_heard(version))

    def patterns_broken(self, version: Part) -> int:
        """Bars that no longer have the rhythm they shared."""
        return self._penalties.patterns_broken(version)

    def _as_heard(self, version: Part) -> Part:
        """Where the original is, through the transposition that was stated."""
        return replace(version, capo=version.capo - self._half_tones) if self._half_tones else version

    def by_bar(self, version: Part) -> tuple[float, ...]:
        """What is kept of every bar by itself, in per cent, penalties aside."""
        found = []
        for index, (wanted, worth) in enumerate(zip(self.wanted, self._worth, strict=True)):
            whole = sum(map(mul, wanted.possible, worth))
            found.append(100.0 * self._counted(index, version)[2] / whole if whole else 100.0)
        return tuple(found)

    def points_of(self, version: Part, index: int) -> float:
        """Points of the overall score that a bar keeps."""
        return self._counted(index, version)[2]

    def _counted(self, index: int, version: Part) -> tuple[Bar, _Tally, float]:
        bar = version.bars[index]
        key = (index, id(bar), version.tuning, version.capo)
        if key not in self._tallies:
            tally = self._against(index, version, bar)
            self._tallies[key] = (bar, tally, sum(map(mul, tally.kept, self._worth[index])))
        return self._tallies[key]

    def _against(self, index: int, version: Part, bar: Bar) -> _Tally:
        wanted = self.wanted[index]
        same_neck = (version.tuning, version.capo) == (self._original.tuning, self._original.capo)
        if same_neck and bar.events == self._original.bars[index].events:
            return _Tally(wanted.possible, len(wanted.tops))
        return _against(wanted, self._as_heard(version), bar)


def _worth_of_points(
    part: Part, wanted: Sequence[WantedBar], lean: Mapping[str, float]
) -> list[tuple[float, ...]]:
    """For every bar, by score: what a point kept of it adds to the overall score. A role counts as long as
    it sounds; of what it has nothing to keep of, the others count more."""
    beats = dict.fromkeys(Role, 0.0)
    possible = {role: [0.0] * len(SCORES) for role in Role}
    for bar, row in zip(part.bars, wanted, strict=True):
        beats[row.role] += bar.sounding_beats
        possible[row.role] = [a + b for a, b in zip(possible[row.role], row.possible, strict=True)]
    whole = sum(beats.values())
    worth: dict[Role, tuple[float, ...]] = {}
    for role in Role:
        weights = [WEIGHTS[role][score] * lean.get(score, 1.0) for score in SCORES]
        total = sum(weight for weight, points in zip(weights, possible[role], strict=True) if points)
        share = 100.0 * beats[role] / whole if whole else 0.0
        worth[role] = tuple(
            share * weight / (points * total) if points and total else 0.0
            for weight, points in zip(weights, possible[role], strict=True)
        )
    return [worth[row.role] for row in wanted]


_Heard = Mapping[Fraction, tuple[Event, tuple[float, ...]]]
"""By onset: what is struck there, and its pitches."""


def _against(wanted: WantedBar, version: Part, bar: Bar) -> _Tally:
    there = {
        onset: (event, tuple(heard(version, note) for note in event.struck if not note.dead))
        for onset, event in zip(bar.onsets, bar.events, strict=True)
        if event.struck
    }
    half_beat = bar.metre.beat_quarters / 2
    tunes, basses = {note.at for note in wanted.tune}, {note.at for note in wanted.bass}
    tune = (
        sum(row.weight * _chord_credit(row, version, bar) for row in wanted.changes)
        if wanted.role is Role.STRUM
        else sum(row.weight * _note_credit(row, there, half_beat, tunes) for row in wanted.tune)
    )
    bass = sum(row.weight * _note_credit(row, there, half_beat, basses) for row in wanted.bass)
    harmony = sum(row.weight * _chord_credit(row, version, bar) for row in wanted.harmony)
    return _Tally(
        (tune, bass, harmony, _strokes_kept(wanted, there, bar), _how_kept(wanted, there)),
        sum(
            at in there and (top is None or any((pitch - top) % 12 == 0 for pitch in there[at][1]))
            for at, top in wanted.tops
        ),
    )


def _at(there: _Heard, onset: Fraction) -> tuple[float, ...]:
    return there[onset][1] if onset in there else ()


def _note_credit(row: WantedNote, there: _Heard, half_beat: Fraction, taken: Collection[Fraction]) -> float:
    """The pitch itself outermost, under others, an octave away, or reached before the next onset; or within
    half a beat, where nothing else was."""
    found = _at(there, row.at)
    if found and row.pitch in (min(found), max(found)):
        return 1.0
    if row.pitch in found:
        return _INNER_CREDIT
    if found and any(row.at < at < row.until and row.pitch in own for at, (_, own) in there.items()):
        return _LATER_CREDIT
    if any((pitch - row.pitch) % 12 == 0 for pitch in found):
        return _OCTAVE_CREDIT
    near = (own for at, (_, own) in there.items() if 0 < abs(at - row.at) <= half_beat and at not in taken)
    return _EARLY_CREDIT if any(row.pitch in own for own in near) else 0.0


def _chord_credit(row: WantedChord, version: Part, bar: Bar) -> float:
    """How much of a chord sounds where it is wanted, less what does not belong there."""
    sounding = classes_between(version, bar, row.at, row.until)
    if not sounding:
        return 0.0
    there = {int(note.pitch) % 12 for note in sounding}
    whole = sum(note.weight for note in sounding)
    foreign = sum(note.weight for note in sounding if int(note.pitch) % 12 not in row.allowed) / whole
    return max(sum(share for pitch, share in row.classes.items() if pitch in there) - _FOREIGN * foreign, 0.0)


def _strokes_kept(wanted: WantedBar, there: _Heard, bar: Bar) -> float:
    near = bar.metre.beat_quarters / 2
    own = {row.at for row in wanted.strokes}
    new = [at for at in there if at not in own]
    kept = 0.0
    for row in wanted.strokes:
        if row.pushed:
            held = bool(bar.events) and bool(bar.events[0].notes)
            kept += row.weight * (0.0 if not held else _PUSH_MOVED_CREDIT if row.at in there else 1.0)
        elif row.at in there:
            kept += row.weight
        elif any(abs(at - row.at) <= near for at in new):
            kept += row.weight * _MOVED_CREDIT
    return kept


def _how_kept(wanted: WantedBar, there: _Heard) -> float:
    kept = 0.0
    for onset, how in wanted.how:
        played = how_played(there[onset][0]) if onset in there else frozenset()
        slid = how in _BENDS and any(
            Technique.SLIDE in how_played(event) for at, (event, _) in there.items() if at >= onset
        )
        kept += 1.0 if how in played else _BENT_CREDIT if slid else 0.0
    return kept
