"""Pitched music -> Song: measures become bars that their events fill, pitches without a place get the
cheapest one."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.errors import Guess, Problem, ReadError
from clear_steps.core.grade import GradeRequest, hand_tables
from clear_steps.core.hand import Moment, Pitch, Spot, can_be_placed, place
from clear_steps.core.hand.placing import HIGHEST_FRET
from clear_steps.core.score import (
    ASSUMED_TEMPO,
    STANDARD,
    Bar,
    BarLength,
    Event,
    Metre,
    Note,
    Part,
    Section,
    Song,
    Technique,
    cut_bars,
    name_of,
    usual_scale_mm,
)
from clear_steps.formats.bounds import MAX_BARS, MAX_EVENTS, MAX_NOTES, MAX_PARTS
from clear_steps.formats.finishing import with_chords, with_texts, with_true_ties
from clear_steps.formats.pitched import Imported, PitchedMeasure, PitchedNote, PitchedPart, PitchedSong
from clear_steps.ladders import default_ladder

MAX_TOLD = 500  # of what was not placed
_OCTAVES = (0, -12, 12, -24, 24)


def assembled(pitched: PitchedSong) -> Imported:
    """The song, with every pitch on a neck; raises ReadError where there is nothing to play or far too
    much."""
    parts = [part for part in pitched.parts if any(measure.notes for measure in part.measures)]
    _check_size(parts)
    tempo = parts[0].measures[0].tempo
    song = Song(pitched.title, tempo, parts=())
    log = _Log(list(pitched.guesses), list(pitched.left_out))
    if tempo is None:
        log.guessed("no tempo is written", f"{ASSUMED_TEMPO} quarter notes a minute are assumed")
    built = tuple(_Assembler(part, song.playing_tempo, log).part() for part in parts)
    return Imported(
        replace(song, parts=built),
        tuple(map(counted_notes, built)),
        tuple(log.guesses),
        tuple(log.not_placed),
    )


def counted_notes(part: Part) -> str:
    """`66 notes in 8 bars of the part`."""
    return (
        f"{sum(len(event.struck) for _, _, event in part.events())} notes in {len(part.bars)} bars of"
        f" {part.name or 'the part'}"
    )


def _check_size(parts: Sequence[PitchedPart]) -> None:
    if not parts:
        raise ReadError((Problem(1, 1, "no notes with a pitch were found in the file"),))
    if len(parts) > MAX_PARTS:
        raise ReadError((Problem(1, 1, f"the file has {len(parts)} parts; expected at most {MAX_PARTS}"),))
    crowded = max(len({note.onset for note in measure.notes}) for part in parts for measure in part.measures)
    if crowded > MAX_EVENTS:
        message = f"a bar of the file has notes at {crowded:,} moments; expected at most {MAX_EVENTS}"
        raise ReadError((Problem(1, 1, message),))
    bars, notes = (
        max(len(part.measures) for part in parts),
        sum(len(measure.notes) for part in parts for measure in part.measures),
    )
    if bars > MAX_BARS or notes > MAX_NOTES:
        raise ReadError(
            (
                Problem(
                    1,
                    1,
                    f"the file has {bars:,} bars and {notes:,} notes; expected at most {MAX_BARS} and"
                    f" {MAX_NOTES:,}",
                ),
            )
        )


@dataclass
class _Log:
    guesses: list[Guess]
    not_placed: list[str]

    def guessed(self, what: str, taken: str) -> None:
        self.guesses.append(Guess(0, 0, what, taken))


@dataclass(frozen=True, slots=True)
class _Group:
    """Notes that start together, and until when the first of them to end sounds."""

    bar: int
    onset: Fraction
    quarters: Fraction
    notes: tuple[PitchedNote, ...]


class _Assembler:
    """Builds one part."""

    def __init__(self, part: PitchedPart, tempo: Fraction, log: _Log) -> None:
        self._part, self._tempo, self._log = part, tempo, log
        self._tuning = part.tuning or STANDARD
        self._ringing = 0

    def part(self) -> Part:
        """The part, its notes placed."""
        name = self._part.name
        self._fill_short_measures()
        if self._part.tuning is None and any(
            note.spot is None for measure in self._part.measures for note in measure.notes
        ):
            self._log.guessed(
                f"{name or 'the part'} has no tab",
                "its notes are placed on a guitar in standard tuning by what costs the hand least",
            )
        # Told before the notes are placed, which takes time.
        metres = [self._metre(index, measure) for index, measure in enumerate(self._part.measures)]
        shift = self._octave_shift()
        groups = [self._thinned(group) for group in self._groups(shift)]
        spots = iter(self._placed([group for group in groups if group.notes]))
        by_bar: dict[int, list[tuple[_Group, Sequence[Spot]]]] = {}
        for group in groups:
            by_bar.setdefault(group.bar, []).append((group, next(spots) if group.notes else ()))
        bars = tuple(
            self._bar(index, measure, metre, by_bar.get(index, []))
            for index, (measure, metre) in enumerate(zip(self._part.measures, metres, strict=True))
        )
        bars, struck = with_true_ties(bars)
        if struck:
            self._log.guessed(
                f"{struck} notes of {name or 'the part'} are tied to another pitch", "they are struck"
            )
        if self._ringing:
            self._log.guessed(
                f"{self._ringing} notes of {name or 'the part'} sound over later ones",
                "they are written as left to ring",
            )
        sections = tuple(
            Section(measure.section, index)
            for index, measure in enumerate(self._part.measures)
            if measure.section
        )
        scale = usual_scale_mm(self._tuning)
        return Part(name, self._tuning, self._part.capo, scale_length_mm=scale, bars=bars, sections=sections)

    def _fill_short_measures(self) -> None:
        """A rest fills each, but for a pickup and those that a repeat cuts in two."""
        measures = self._part.measures
        lengths = [
            BarLength(
                own.length, own.metre.quarters, own.repeat_start, own.repeat_times > 0 or own.double_bar
            )
            for own in measures
        ]
        cut = cut_bars(lengths)
        for index, (own, held) in enumerate(zip(measures, lengths, strict=True)):
            own.pickup = own.pickup or index in cut
            if held.short and not own.pickup:
                own.length = held.whole
                self._log.guessed(
                    f"bar {self._number(index)} holds {held.quarters} of {held.whole} quarters",
                    "a rest fills it",
                )

    def _octave_shift(self) -> int:
        """Octaves, in half tones, by which pitches without a place are moved.

        A file that says in which octave it sounds is moved only if it lies outside the neck; other notation
        is
        read as guitarists read it, sounding an octave lower, where it fits so (common practice, no source).
        """
        free = [note.midi for measure in self._part.measures for note in measure.notes if note.spot is None]
        if not free:
            return 0
        low, high = min(self._tuning.pitches) + self._part.capo, max(self._tuning.pitches) + HIGHEST_FRET
        wanted = 0 if self._part.at_pitch else -12
        best = min(
            _OCTAVES,
            key=lambda shift: (sum(not low <= midi + shift <= high for midi in free), abs(shift - wanted)),
        )
        if best:
            way, octaves = ("up" if best > 0 else "down"), abs(best) // 12
            self._log.guessed(
                f"{self._part.name or 'the part'} {self._why_moved}",
                f"it is played {octaves} octave{'s' * (octaves > 1)} {way}, as it lies on the guitar",
            )
        return best

    @property
    def _why_moved(self) -> str:
        return "lies off the neck" if self._part.at_pitch else "does not say in which octave it sounds"

    def _groups(self, shift: int) -> Iterator[_Group]:
        for index, measure in enumerate(self._part.measures):
            starting: dict[Fraction, list[PitchedNote]] = {}
            for note in measure.notes:
                if note.onset >= measure.length or note.quarters <= 0:
                    self._leave_out(index, note, "it has no length")
                    continue
                moved = replace(note, midi=note.midi + shift) if note.spot is None else note
                starting.setdefault(note.onset, []).append(moved)
            onsets = sorted(starting)
            for onset, end in zip(onsets, [*onsets[1:], measure.length], strict=False):
                notes = starting[onset]
                lasting = min(max(note.quarters for note in notes), end - onset)
                alike = {(note.midi, note.spot): note for note in notes}
                yield _Group(index, onset, lasting, tuple(_one_a_string(list(alike.values()))))

    def _thinned(self, group: _Group) -> _Group:
        """The group without what cannot be placed; the outer notes stay longest."""
        notes = []
        for note in sorted(group.notes, key=lambda note: note.midi):
            if self._fits([note]):
                notes.append(note)
            else:
                self._leave_out(group.bar, note, "it lies outside the neck")
        while len(notes) > self._tuning.strings or (notes and not self._fits(notes)):
            gone = notes.pop(len(notes) // 2 if len(notes) > 2 else 0)
            self._leave_out(group.bar, gone, "no string is left for it within the hand's reach")
        return replace(group, notes=tuple(notes))

    def _fits(self, notes: Sequence[PitchedNote]) -> bool:
        return can_be_placed([_pitch(note) for note in notes], self._tuning, self._part.capo)

    def _leave_out(self, bar: int, note: PitchedNote, why: str) -> None:
        if len(self._log.not_placed) >= MAX_TOLD:
            return
        beat = float(note.onset / self._part.measures[bar].metre.beat_quarters) + 1
        self._log.not_placed.append(f"bar {self._number(bar)}, beat {beat:.4g}: {name_of(note.midi)}; {why}")

    def _number(self, index: int) -> int:
        return index if self._part.measures[0].pickup else index + 1

    def _placed(self, groups: Sequence[_Group]) -> tuple[tuple[Spot, ...], ...]:
        if all(note.spot for group in groups for note in group.notes):
            return tuple(tuple(Spot(*note.spot) for note in group.notes if note.spot) for group in groups)
        # For the middle of the preset hands: places must not depend on who happens to be listed first.
        part = Part(
            tuning=self._tuning,
            capo=self._part.capo,
            scale_length_mm=usual_scale_mm(self._tuning),
        )
        tables = hand_tables(part, default_ladder(), GradeRequest(hands=("medium",)))
        found = place(list(self._moments(groups)), self._tuning, self._part.capo, tables)
        if (
            found is None
        ):  # every moment can be placed alone, so only notes that must keep a string are in the way
            free = [
                Moment(
                    moment.seconds,
                    tuple(replace(pitch, follows=None) for pitch in moment.pitches),
                    moment.held,
                )
                for moment in self._moments(groups)
            ]
            found = place(free, self._tuning, self._part.capo, tables)
        assert found is not None
        return found

    def _moments(self, groups: Sequence[_Group]) -> Iterator[Moment]:
        starts, at = [], Fraction(0)
        for measure in self._part.measures:
            starts.append(at)
            at += measure.length
        before: _Group | None = None
        sounding: list[PitchedNote] = []  # struck in the moment before, then held in it
        for group in groups:
            now = starts[group.bar] + group.onset
            waited = now - (starts[before.bar] + before.onset) if before else Fraction(0)
            # For the hand what rings ends with the bar: there the grip is renewed.
            held = [
                at
                for at, note in enumerate(sounding)
                if before and before.bar == group.bar and note.onset + note.quarters > group.onset
            ]
            yield Moment(
                float(waited * 60 / self._tempo),
                tuple(_pitch(note, before.notes if before else ()) for note in group.notes),
                tuple(held),
            )
            before, sounding = group, [*group.notes, *(sounding[at] for at in held)]

    def _bar(
        self,
        index: int,
        measure: PitchedMeasure,
        metre: Metre,
        groups: Sequence[tuple[_Group, Sequence[Spot]]],
    ) -> Bar:
        events: list[Event] = []
        at = Fraction(0)
        for group, spots in groups:
            if group.onset > at:
                events.append(Event(group.onset - at))
            events.append(self._event(group, spots))
            at = group.onset + group.quarters
        if at < measure.length:
            events.append(Event(measure.length - at))
        bar = Bar(
            metre,
            tuple(events),
            measure.tempo if index else None,
            measure.repeat_start,
            measure.repeat_times,
            measure.endings,
            measure.double_bar,
        )
        bar = replace(bar, events=with_texts(bar, measure.texts))
        bar = replace(bar, events=with_chords(bar, measure.chords))
        return replace(bar, pickup=measure.pickup and bar.quarters < bar.metre.quarters)

    def _metre(self, index: int, measure: PitchedMeasure) -> Metre:
        """The measure's own metre, or the one that what it holds fits; raises ReadError."""
        if measure.pickup or measure.length == measure.metre.quarters:
            return measure.metre
        for unit in (4, 8, 16, 32):
            beats = measure.length * unit / 4
            if beats.denominator == 1 and 1 <= beats <= 32:
                self._log.guessed(
                    f"bar {self._number(index)} holds {beats}/{unit}, not {measure.metre}",
                    "it is written so",
                )
                return Metre(int(beats), unit)
        raise ReadError(
            (
                Problem(
                    1,
                    1,
                    f"bar {self._number(index)} is {measure.length} quarter notes long; expected a length"
                    " that a metre can name",
                ),
            )
        )

    def _event(self, group: _Group, spots: Sequence[Spot]) -> Event:
        if not group.notes:
            return Event(group.quarters)
        rings = any(note.quarters > group.quarters for note in group.notes)
        words = frozenset().union(*(note.words for note in group.notes)) | (
            {Technique.LET_RING} if rings else frozenset()
        )
        self._ringing += rings and not any(Technique.LET_RING in note.words for note in group.notes)
        notes = (
            Note(
                spot.string,
                0 if Technique.DEAD in note.techniques else spot.fret,
                note.techniques,
                note.bend,
                note.tied,
                note.finger,
                note.picking,
                note.uncertain,
                note.optional,
            )
            for note, spot in zip(group.notes, spots, strict=True)
        )
        stroke = next((note.stroke for note in group.notes if note.stroke), None)
        own = frozenset().union(*(note.own_words for note in group.notes))
        return Event(
            group.quarters,
            tuple(sorted(notes, key=lambda note: note.string)),
            words,
            stroke,
            own_techniques=own,
        )


def _one_a_string(notes: list[PitchedNote]) -> Iterator[PitchedNote]:
    """Notes that start together; of two on one string the second loses its place and looks for another."""
    taken: set[int] = set()
    for note in notes:
        string = note.spot[0] if note.spot else 0
        yield replace(note, spot=None) if string in taken else note
        taken |= {string} - {0}


def _pitch(note: PitchedNote, before: Sequence[PitchedNote] = ()) -> Pitch:
    follows = (
        next((at for at, other in enumerate(before) if other.midi == note.midi), None) if note.tied else None
    )
    return Pitch(note.midi, Spot(*note.spot) if note.spot else None, follows)
