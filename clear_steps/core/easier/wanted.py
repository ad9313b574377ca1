"""What of a bar must survive, by its role: notes of the tune and of the bass, the harmony of each half bar,
the strokes of the pattern, how notes are played.

All weights from memory, settled before the search was built on them.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.easier.chordbook import shapes_sound_above
from clear_steps.core.easier.roles import roles_of
from clear_steps.core.easier.salience import salience_of
from clear_steps.core.easier.voices import Voices, moves, voices_of
from clear_steps.core.score import Bar, Event, Note, Part, Role, Technique
from clear_steps.core.score.chords import Chord, parse_chord
from clear_steps.core.shapes import shapes_in
from clear_steps.core.shapes.ringing import hearing_of, ringing_in

# Shares of the five scores by role.
SCORES = ("tune", "bass", "harmony", "rhythm", "articulation")
WEIGHTS: Mapping[Role, Mapping[str, float]] = {
    Role.STRUM: dict(zip(SCORES, (0.25, 0.10, 0.30, 0.30, 0.05), strict=True)),
    Role.RIFF: dict(zip(SCORES, (0.50, 0.05, 0.10, 0.25, 0.10), strict=True)),
    Role.PICKED: dict(zip(SCORES, (0.45, 0.25, 0.10, 0.15, 0.05), strict=True)),
    Role.LINE: dict(zip(SCORES, (0.65, 0.0, 0.0, 0.22, 0.13), strict=True)),
    Role.CHORD_MELODY: dict(zip(SCORES, (0.50, 0.20, 0.15, 0.10, 0.05), strict=True)),
    Role.BASS: dict(zip(SCORES, (0.60, 0.0, 0.0, 0.30, 0.10), strict=True)),
}
_STAYS = (
    0.25  # of its weight: a note of a riff that neither moves nor is accented, a walk's own passing notes
)
_RESTATED = 0.4  # a chord that goes on into another bar
_WEAK_BASS = 0.3  # off the strong beats
_ACCENTED = 1.5
_INTO_THE_CHANGE = 0.8  # the last note of a bass before a bar line
_STRONG = -1  # metrical weight of the bar's start and its middle
_INTERVALS = {0: 1.0, 3: 0.8, 4: 0.8, 10: 0.4, 11: 0.4, 7: 0.2}  # of a chord, above its root
_OTHER_INTERVAL = 0.4
_STROKES = {0: 1.2, -1: 1.0, -2: 1.0}  # by metrical weight; others half
_OFF_THE_BEAT = 0.5
# Ringing is how the hand lies, shown by the grips; what is fretted or slid to instead is the tune's.
_HOW = frozenset(Technique) - {Technique.LET_RING, Technique.SHIFT_SLIDE}


@dataclass(frozen=True, slots=True)
class WantedNote:
    """A pitch as it is heard, from an onset (quarters) to the next one."""

    at: Fraction
    until: Fraction
    pitch: float
    weight: float
    carries: bool = True  # the tune; not what only goes on


@dataclass(frozen=True, slots=True)
class WantedChord:
    """What sounds from an onset on: how much each pitch class matters, 1 in all, and what may sound
    besides."""

    at: Fraction
    until: Fraction
    classes: Mapping[int, float]
    allowed: frozenset[int]
    weight: float


@dataclass(frozen=True, slots=True)
class WantedStroke:
    """An onset of the pattern; one before the bar line whose notes are held over is wanted where they are
    held to."""

    at: Fraction
    weight: float
    pushed: bool = False


@dataclass(frozen=True, slots=True)
class WantedBar:
    """A bar of the original, ready to be compared with."""

    role: Role
    tune: tuple[WantedNote, ...]
    changes: tuple[WantedChord, ...]  # of a strummed bar they are its tune
    bass: tuple[WantedNote, ...]
    harmony: tuple[WantedChord, ...]
    strokes: tuple[WantedStroke, ...]
    how: tuple[tuple[Fraction, Technique], ...]
    tops: tuple[tuple[Fraction, float | None], ...]  # the plain figure: the highest pitch of each onset

    @property
    def possible(self) -> tuple[float, ...]:
        """Points that can be kept of it, score by score."""
        tune = self.changes if self.role is Role.STRUM else self.tune
        rows = (tune, self.bass, self.harmony, self.strokes)
        return (*(sum(row.weight for row in own) for own in rows), float(len(self.how)))


def wanted_bars(part: Part, role: Role | None = None) -> tuple[WantedBar, ...]:
    """What of every bar must survive, of one role where it is known."""
    roles = (role,) * len(part.bars) if role else roles_of(part)
    voices = voices_of(part, part.bars, roles)
    rows = enumerate(zip(part.bars, roles, voices, salience_of(part), strict=True))
    names = names_in_force(part.bars)
    return tuple(
        _wanted(_Of(part, index, bar, role, own, weights, names[index]))
        for index, (bar, role, own, weights) in rows
    )


@dataclass(frozen=True, slots=True)
class _Of:
    part: Part
    index: int
    bar: Bar
    role: Role
    voices: Sequence[Voices]
    weights: Sequence[float]
    names: Sequence[tuple[Fraction, str]]

    def rows(self) -> Iterator[tuple[Fraction, Fraction, Event, Voices, float]]:
        """Onset, end, event, its voices and its weight."""
        for onset, event, voices, weight in zip(
            self.bar.onsets, self.bar.events, self.voices, self.weights, strict=True
        ):
            yield onset, onset + event.quarters, event, voices, weight


def _wanted(of: _Of) -> WantedBar:
    struck = [(onset, event) for onset, _, event, _, _ in of.rows() if event.struck]
    return WantedBar(
        of.role,
        tuple(_tune(of)),
        tuple(_changes(of)) if of.role is Role.STRUM else (),
        tuple(_bass(of)),
        tuple(_harmony(of)) if WEIGHTS[of.role]["harmony"] else (),
        tuple(_strokes(of)),
        tuple((onset, how) for onset, event in struck for how in sorted(how_played(event) & _HOW)),
        tuple((onset, _top(of.part, event)) for onset, event in struck),
    )


def _top(part: Part, event: Event) -> float | None:
    """The highest pitch struck; none of muted hits."""
    return max((heard(part, note) for note in event.struck if not note.dead), default=None)


def heard(part: Part, note: Note) -> float:
    """The MIDI pitch that is heard: of a bend its target."""
    return part.pitch_of(note) + (float(note.bend.half_tones) if note.bend else 0.0)


def how_played(event: Event) -> frozenset[Technique]:
    """Every technique on what an event strikes."""
    return frozenset().union(*(event.techniques_of(note) for note in event.struck))


def _tune(of: _Of) -> Iterator[WantedNote]:
    moving = moves(of.voices)
    rows = list(of.rows())
    for number, (onset, until, event, voices, weight) in enumerate(rows):
        if voices.tune is None or not event.struck:
            continue
        carries = True
        if of.role is Role.RIFF:
            carries = moving[number] or Technique.ACCENT in how_played(event)
            weight *= 1.0 if carries else _STAYS
        if of.role is Role.BASS:
            share = _bass_weight(of, number, onset, moving[number])
            carries, weight = share > _STAYS, weight * share
        yield WantedNote(onset, until, heard(of.part, voices.tune), weight, carries)


def _bass_weight(of: _Of, number: int, onset: Fraction, moving: bool) -> float:
    """Roots stand on the strong beats; the last note walks into the change."""
    if of.bar.metre.weight_at(of.part.starts_at(of.index) + onset) >= _STRONG:
        return 1.0
    last = max(at for at, event in enumerate(of.bar.events) if event.struck)
    return _INTO_THE_CHANGE if number == last and moving else _STAYS


def _bass(of: _Of) -> Iterator[WantedNote]:
    for onset, until, _, voices, weight in of.rows():
        if voices.bass is None:
            continue
        strong = of.bar.metre.weight_at(of.part.starts_at(of.index) + onset) >= _STRONG
        yield WantedNote(onset, until, heard(of.part, voices.bass), weight * (1.0 if strong else _WEAK_BASS))


def _strokes(of: _Of) -> Iterator[WantedStroke]:
    begins = of.part.starts_at(of.index)
    for onset, until, event, _, _ in of.rows():
        held_over = until == of.bar.quarters and _is_held_over(of.part, of.index)
        tied_here = onset == 0 and bool(event.notes) and not event.struck
        if (not event.struck or held_over) and not tied_here:
            continue
        weight = _STROKES.get(of.bar.metre.weight_at(begins + onset), _OFF_THE_BEAT)
        accented = Technique.ACCENT in how_played(event)
        yield WantedStroke(onset, weight * (_ACCENTED if accented else 1.0), tied_here)


def _is_held_over(part: Part, index: int) -> bool:
    """Whether all that a bar ends with is held into the next one."""
    if index + 1 >= len(part.bars) or not part.bars[index + 1].events:
        return False
    first = part.bars[index + 1].events[0]
    return bool(first.notes) and not first.struck


def names_in_force(bars: Sequence[Bar]) -> list[list[tuple[Fraction, str]]]:
    """For every bar the chord names that hold in it, by onset: the one from before at 0, until another is
    written."""
    before, found = "", []
    for bar in bars:
        row = [
            (onset, event.chord) for onset, event in zip(bar.onsets, bar.events, strict=True) if event.chord
        ]
        if not row or row[0][0] > 0:
            row.insert(0, (Fraction(0), before))
        before = row[-1][1]
        found.append(row)
    return found


def name_at(names: Sequence[tuple[Fraction, str]], onset: Fraction) -> str:
    """The chord name that holds at an onset."""
    return next((name for at, name in reversed(names) if at <= onset), "")


def half_bars(bar: Bar) -> int:
    """How many chords a bar may have: two where it halves into beats."""
    return 2 if bar.metre.beats % 2 == 0 and bar.quarters >= 2 * bar.metre.beat_quarters else 1


def _harmony(of: _Of) -> Iterator[WantedChord]:
    length = of.bar.quarters / half_bars(of.bar)
    for number in range(half_bars(of.bar)):
        start = number * length
        yield from _chord(of, start, start + length, 1.0)


def _changes(of: _Of) -> Iterator[WantedChord]:
    """Where another chord begins, and the bar's start; a push into a beat begins on it."""
    half_beat = of.bar.metre.beat_quarters / 2
    starts: dict[Fraction, float] = {Fraction(0): _RESTATED}
    if of.index == 0 or _clash(_ends_with(of.part.bars[of.index - 1]), _begins_with(of.bar)):
        starts[Fraction(0)] = 1.0
    held: dict[int, int] = {}  # by string, of the chord so far
    for onset, _, event, _, _ in of.rows():
        own = {note.string: note.fret for note in event.notes if not note.dead}
        is_chord = len(own) > 1 and any(held.get(string, fret) != fret for string, fret in own.items())
        if event.struck and onset > 0 and (event.chord or is_chord):
            beat = -(-onset // of.bar.metre.beat_quarters) * of.bar.metre.beat_quarters
            starts[beat if beat - onset <= half_beat else onset] = 1.0
            held = {}
        held |= own if len(own) > 1 else {}
    for start in sorted(at for at in starts if at < of.bar.quarters):
        later = [at for at in starts if at > start]
        yield from _chord(of, start, min([*later, of.bar.quarters]), starts[start])


def _clash(before: Mapping[int, int], after: Mapping[int, int]) -> bool:
    """Whether a grip has given way to another: some string is stopped elsewhere."""
    return any(before.get(string, fret) != fret for string, fret in after.items()) or not before


def _ends_with(bar: Bar) -> dict[int, int]:
    return _fullest(event for event in reversed(bar.events))


def _begins_with(bar: Bar) -> dict[int, int]:
    return _fullest(iter(bar.events))


def _fullest(events: Iterator[Event]) -> dict[int, int]:
    """Frets by string of the first of some events that strikes several strings."""
    chord = next((event for event in events if len(event.notes) > 1), None)
    return {note.string: note.fret for note in chord.notes if not note.dead} if chord else {}


def _chord(of: _Of, start: Fraction, stop: Fraction, weight: float) -> Iterator[WantedChord]:
    """The chord between two onsets: by its name, else by what sounds; none of silence."""
    sounding = classes_between(of.part, of.bar, start, stop)
    if not sounding:
        return
    named = parse_chord(name_at(of.names, start))
    if named:
        above = shapes_sound_above(of.part)
        allowed = frozenset((pitch + above) % 12 for pitch in named.classes)
        yield WantedChord(start, stop, _shares(_named(named, above)), allowed, weight)
        return
    lowest = min(sounding, key=lambda row: row.pitch)
    lasting: dict[int, float] = {}
    for row in sounding:
        share = row.weight * (1.5 if (row.pitch - lowest.pitch) % 12 == 0 else 1.0)
        lasting[int(row.pitch) % 12] = lasting.get(int(row.pitch) % 12, 0.0) + share
    yield WantedChord(start, stop, _shares(lasting), frozenset(lasting), weight)


def _named(chord: Chord, above: int) -> dict[int, float]:
    return {
        (chord.root + interval + above) % 12: _INTERVALS.get(interval, _OTHER_INTERVAL)
        for interval in chord.intervals
    }


def _shares(weights: Mapping[int, float]) -> dict[int, float]:
    whole = sum(weights.values())
    return {pitch: weight / whole for pitch, weight in weights.items()}


def classes_between(part: Part, bar: Bar, start: Fraction, stop: Fraction) -> list[WantedNote]:
    """What sounds in a stretch of a bar, each weighed by how long (quarters): struck, held or ringing on."""
    rows = ringing_in(bar, hearing_of(part), shapes_in(bar, part.tuning))
    found = []
    for onset, event, ringing in zip(bar.onsets, bar.events, rows, strict=True):
        begins, ends = max(onset, start), min(onset + event.quarters, stop)
        if ends > begins:
            found += [
                WantedNote(begins, ends, heard(part, note), float(ends - begins))
                for note in (*event.notes, *ringing.notes)
                if not note.dead
            ]
    return found
