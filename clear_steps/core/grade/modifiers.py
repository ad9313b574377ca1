"""What makes one and the same technique harder or easier: the finger, the place, the company."""

from collections.abc import Callable
from dataclasses import dataclass

from clear_steps.core.grade.ladder import Modifier
from clear_steps.core.grade.played import Moment
from clear_steps.core.score import Finger, Note, Technique

_BENDS = frozenset(technique for technique in Technique if technique.name.startswith("BEND"))
_REAL_BENDS = _BENDS - {
    Technique.BEND_QUARTER
}  # a quarter tone is a mere push that any finger gives anywhere
_SLURS = frozenset({Technique.HAMMER_ON, Technique.PULL_OFF})
_NEAR_NUT_FRET = 3  # a string is stiffest so near its end
_HELPED_FROM_FRET = 5  # from here a bend has give and helpers have room
_SHORT_SLIDE_FRETS = 4
_EASY_NODES, _HARD_NODES = frozenset({12}), frozenset({3, 4, 9})


@dataclass(frozen=True, slots=True)
class Use:
    """One technique on one note, and the moment before on the way to it."""

    note: Note
    moment: Moment
    before: Moment | None

    @property
    def finger(self) -> Finger | None:
        """That presses the note."""
        return self.moment.grip.finger_on(self.note.string) if self.moment.grip else None

    @property
    def note_before(self) -> Note | None:
        """On the same string, in the moment before."""
        notes = self.before.event.notes if self.before else ()
        return next((note for note in notes if note.string == self.note.string), None)


def _weak_slur(use: Use) -> bool:
    before = use.before.grip.finger_on(use.note.string) if use.before and use.before.grip else None
    return use.note_before is not None and {before, use.finger} == {Finger.RING, Finger.LITTLE}


def _beside_held(use: Use) -> bool:
    """A unison bend has a row of its own."""
    grip = use.moment.grip
    if Technique.UNISON_BEND in use.moment.event.techniques_of(use.note):
        return False
    return grip is not None and any(spot.string != use.note.string for _, spot in grip.presses)


def _helped(use: Use) -> bool:
    grip = use.moment.grip
    helpers = grip.helpers_on(use.note.string) if grip else ()
    return use.note.fret >= _HELPED_FROM_FRET and use.finger is Finger.RING and len(helpers) == 2


def _long_slide(use: Use) -> bool:
    before = use.note_before
    return before is not None and abs(use.note.fret - before.fret) > _SHORT_SLIDE_FRETS


@dataclass(frozen=True, slots=True)
class ModifierRow:
    """Which techniques it bears on, and when."""

    techniques: frozenset[Technique]
    applies: Callable[[Use], bool]


MODIFIERS: dict[Modifier, ModifierRow] = {
    Modifier.BEND_HELPED: ModifierRow(_BENDS, _helped),
    Modifier.BEND_NEAR_NUT: ModifierRow(_REAL_BENDS, lambda use: use.note.fret <= _NEAR_NUT_FRET),
    Modifier.BEND_BY_INDEX: ModifierRow(_REAL_BENDS, lambda use: use.finger is Finger.INDEX),
    Modifier.BEND_BY_LITTLE: ModifierRow(_REAL_BENDS, lambda use: use.finger is Finger.LITTLE),
    Modifier.BEND_BESIDE_HELD: ModifierRow(_REAL_BENDS, _beside_held),
    Modifier.SLUR_WEAK: ModifierRow(_SLURS, _weak_slur),
    Modifier.SLUR_FROM_NOWHERE: ModifierRow(
        frozenset({Technique.HAMMER_ON}), lambda use: use.note_before is None
    ),
    Modifier.SLIDE_LONG: ModifierRow(frozenset({Technique.SLIDE, Technique.SHIFT_SLIDE}), _long_slide),
    Modifier.HARMONIC_EASY: ModifierRow(
        frozenset({Technique.NATURAL_HARMONIC}), lambda use: use.note.fret in _EASY_NODES
    ),
    Modifier.HARMONIC_HARD: ModifierRow(
        frozenset({Technique.NATURAL_HARMONIC}), lambda use: use.note.fret in _HARD_NODES
    ),
}


def modifiers_of(technique: Technique, use: Use) -> tuple[Modifier, ...]:
    """What bears on a technique as this note uses it."""
    return tuple(
        modifier for modifier, row in MODIFIERS.items() if technique in row.techniques and row.applies(use)
    )
