"""An edit of a part as a value: what was written, what stands instead, why, and what it costs."""

from bisect import bisect_right
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property

from clear_steps.core.score import Bar, Event, Metre, Part, Tuning
from clear_steps.core.score.moving import moved_events

HAND = "hand"  # the kind of an edit that the teacher made


@dataclass(frozen=True)  # no slots: what is asked for often is kept
class Change:
    """Events of one bar from `start` (quarters) on, and what stands there instead; equally long, unless the
    bar gets another metre."""

    bar: int
    start: Fraction
    before: tuple[Event, ...]
    after: tuple[Event, ...]
    metre: Metre | None = None

    @cached_property
    def stop(self) -> Fraction:
        """Where the change ends in the bar, in quarters, before or after it, whichever is later."""
        return self.start + max(
            sum((event.quarters for event in events), Fraction(0)) for events in (self.before, self.after)
        )

    def elsewhere(self, bar: int, frets: int) -> "Change | None":
        """The same in another bar that is its bar moved along the neck; None where a note has no fret
        there."""
        before, after = moved_events(self.before, frets), moved_events(self.after, frets)
        if before is None or after is None:
            return None
        return replace(self, bar=bar, before=before, after=after)

    def overlaps(self, other: "Change") -> bool:
        """Whether both touch the same stretch of the same bar."""
        return self.bar == other.bar and self.start < other.stop and other.start < self.stop


@dataclass(frozen=True, slots=True)
class Setup:
    """Another tuning and capo; the result sits `half_tones` above the original."""

    tuning: Tuning
    capo: int
    half_tones: int


@dataclass(frozen=True, slots=True)
class Edit:
    """One thing a teacher can keep or refuse; `loss` is in points of what was kept of the whole song."""

    id: int
    kind: str
    changes: tuple[Change, ...]
    reason: str
    effect: str
    loss: float
    builds_on: tuple[int, ...] = ()
    setup: Setup | None = None  # of an edit that touches the whole song
    says: str = ""  # to a student: what to play now

    @property
    def bars(self) -> tuple[int, ...]:
        """Indexes of the bars it touches."""
        return tuple(sorted({change.bar for change in self.changes}))


def alike(part: Part, edits: Sequence[Edit]) -> dict[int, int]:
    """By id: the first of the edits that a teacher counts as one change: the same done in one section."""
    starts = [section.first_bar for section in part.sections]
    firsts: dict[object, int] = {}
    found = {}
    for edit in edits:
        section = bisect_right(starts, min(edit.bars, default=0))
        own = edit.id if edit.kind == HAND else 0  # what a teacher did is a change each
        found[edit.id] = firsts.setdefault((edit.kind, edit.says, section, own), edit.id)
    return found


def applied(part: Part, changes: Iterable[Change]) -> Part | None:
    """The part with changes made in order; None if what one replaces is not there."""
    bars = list(part.bars)
    for change in changes:
        changed = _changed(bars[change.bar], change) if change.bar < len(bars) else None
        if changed is None:
            return None
        bars[change.bar] = changed
    return replace(part, bars=tuple(bars))


def _changed(bar: Bar, change: Change) -> Bar | None:
    tick, between = divmod(change.start.numerator * bar.ticks_a_quarter, change.start.denominator)
    if between or tick not in bar.ticks[:-1]:
        return None
    first = bar.ticks.index(tick)
    last = first + len(change.before)
    if bar.events[first:last] != change.before:
        return None
    return replace(
        bar, metre=change.metre or bar.metre, events=(*bar.events[:first], *change.after, *bar.events[last:])
    )


def refused_with(edits: Sequence[Edit], refused: Iterable[int]) -> frozenset[int]:
    """The ids refused, and all that build on them."""
    gone = set(refused)
    for edit in edits:
        if gone & set(edit.builds_on):
            gone.add(edit.id)
    return frozenset(gone)


def version_of(part: Part, edits: Sequence[Edit], refused: Iterable[int] = ()) -> Part:
    """The original with the kept edits; always made afresh, whatever was refused before."""
    return standing(part, edits, refused)[0]


def standing(part: Part, edits: Sequence[Edit], refused: Iterable[int] = ()) -> tuple[Part, frozenset[int]]:
    """The original with the kept edits, and the ids of those that do not stand: refused, built on such a
    one, or without what they replace.

    A bar changed by hand while another edit of it was refused no longer finds its notes once that one is
    taken back; it stands again when it is refused.
    """
    gone = refused_with(edits, refused)
    version = applied(part, (change for edit in edits if edit.id not in gone for change in edit.changes))
    if version is None:
        version, gone = _as_far_as_they_fit(part, edits, gone)
    for edit in edits:
        if edit.setup and edit.id not in gone:
            version = replace(version, tuning=edit.setup.tuning, capo=edit.setup.capo)
    return version, gone


def _as_far_as_they_fit(
    part: Part, edits: Sequence[Edit], refused: frozenset[int]
) -> tuple[Part, frozenset[int]]:
    gone, version = set(refused), part
    for edit in edits:
        fitted = None if edit.id in gone or gone & set(edit.builds_on) else applied(version, edit.changes)
        if fitted is None:
            gone.add(edit.id)
        else:
            version = fitted
    return version, frozenset(gone)


def transposition(edits: Sequence[Edit], refused: Iterable[int] = ()) -> int:
    """Half tones by which the kept edits say the version sits above the original."""
    gone = refused_with(edits, refused)
    return sum(edit.setup.half_tones for edit in edits if edit.setup and edit.id not in gone)


def dependencies(edits: Sequence[Edit], changes: Sequence[Change]) -> tuple[int, ...]:
    """Ids of the edits that new changes build on: the ones that touched the same stretch."""
    return tuple(
        edit.id for edit in edits if any(old.overlaps(new) for old in edit.changes for new in changes)
    )
