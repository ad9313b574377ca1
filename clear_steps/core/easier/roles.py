"""What a section is for its player: strummed, a riff, picked, a line, a melody with its chords, a bass.

A role is guessed from the texture. All limits from memory, held against parts whose texture is known
(tests/data/figures, named by it).
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import chain, pairwise
from statistics import fmean

from clear_steps.core.score import Bar, Event, Part, Picking, Role

_CHORD = 3  # notes at once
_LOW = 4  # strings from here on are the thumb's, or a riff's (common practice, no source)
_BASS_STRINGS = 4  # no more: a bass guitar
_MOSTLY_CHORDS, _SOME_CHORDS = 0.6, 0.3  # shares of what is struck
_BASS_AND_CHORDS = 0.9
_SOME_LOW = 0.15  # and as much that is not: thumb and fingers
_MOSTLY_LOW = 0.6  # or two at once
_PINCHED, _APART = 0.3, 2  # bass and treble at once, so many strings apart
_CROSSING, _GRIP_STRINGS, _HELD = (
    0.8,
    3,
    0.6,
)  # to another string, of so many, each at one fret: a broken grip
_FEW = 3  # moments that say nothing of it
_CLEARLY = 6  # strikes of a bar whose texture is its own
_OTHERS = {Role.LINE: {Role.STRUM}, Role.RIFF: {Role.STRUM}, Role.STRUM: {Role.LINE, Role.RIFF}}
_PLUCKING = frozenset({Picking.FINGERS, Picking.THUMB_PICK})


def role_of(part: Part, bars: Sequence[Bar]) -> Role | None:
    """The role of some bars of a part; None where nothing is struck."""
    texture = _Texture(tuple(bars))
    if not texture.struck:
        return None
    if part.tuning.strings <= _BASS_STRINGS:
        return Role.BASS
    plucked = part.picking in _PLUCKING or any(bar.has_picking_fingers for bar in bars)
    with_bass = texture.chords + texture.low >= _BASS_AND_CHORDS and texture.chords >= _SOME_CHORDS
    if texture.is_broken or (plucked and _SOME_LOW <= texture.low <= 1 - _SOME_LOW):
        return Role.PICKED
    if texture.chords >= _MOSTLY_CHORDS or with_bass:
        return Role.STRUM
    if texture.pinched >= _PINCHED:
        return Role.CHORD_MELODY if texture.chords >= _SOME_CHORDS else Role.PICKED
    if texture.chords >= _SOME_CHORDS:
        return Role.CHORD_MELODY
    return Role.RIFF if max(texture.low, texture.doubled) >= _MOSTLY_LOW else Role.LINE


@dataclass(frozen=True)  # no slots: shares are kept
class _Texture:
    """Shares of the moments at which something is struck."""

    bars: tuple[Bar, ...]

    @cached_property
    def struck(self) -> list[Event]:
        return [event for bar in self.bars for event in bar.events if event.struck]

    @cached_property
    def chords(self) -> float:
        """Three notes or more, not on low strings alone."""
        return fmean(len(event.struck) >= _CHORD and event.struck[0].string < _LOW for event in self.struck)

    @cached_property
    def doubled(self) -> float:
        return fmean(len(event.struck) > 1 for event in self.struck)

    @cached_property
    def low(self) -> float:
        return fmean(all(note.string >= _LOW for note in event.struck) for event in self.struck)

    @cached_property
    def pinched(self) -> float:
        pairs = [(event.struck[0].string, event.struck[-1].string) for event in self.struck]
        return fmean(high < _LOW <= low and low - high >= _APART for high, low in pairs)

    @cached_property
    def is_broken(self) -> bool:
        """Whether most bars of several notes are one grip, a string after the other."""
        rows = [[event for event in bar.events if event.struck] for bar in self.bars]
        broken = [_is_broken(struck) for struck in rows if len(struck) > _FEW]
        return bool(broken) and 2 * sum(broken) > len(broken)


def _is_broken(struck: Sequence[Event]) -> bool:
    frets: dict[int, set[int]] = defaultdict(set)
    for note in chain.from_iterable(event.struck for event in struck):
        if note.bend is not None:
            return False
        frets[note.string].add(note.fret)
    crossing = fmean(a.struck[-1].string != b.struck[-1].string for a, b in pairwise(struck))
    held = fmean(len(own) == 1 for own in frets.values())
    alone = fmean(len(event.struck) < _CHORD for event in struck)
    return min(crossing, alone) >= _CROSSING and len(frets) >= _GRIP_STRINGS and held >= _HELD


def roles_of(part: Part) -> tuple[Role, ...]:
    """The role of every bar: what the teacher says of its section, else what the section looks like, and in a
    guessed section of the bar itself where that is clearly another."""
    starts = sorted({0, *(section.first_bar for section in part.sections)})
    said = {section.first_bar: section.role for section in part.sections}
    roles: list[Role] = []
    for start, stop in pairwise([*starts, len(part.bars)]):
        bars = part.bars[start:stop]
        role = said.get(start)
        guessed = role_of(part, bars) or Role.LINE
        roles += [role] * len(bars) if role else [_own_role(part, bar, guessed) for bar in bars]
    return tuple(roles)


def _own_role(part: Part, bar: Bar, role: Role) -> Role:
    """A strummed bar in a line, or a line between strums; anything else is what its section is."""
    if sum(bool(event.struck) for event in bar.events) < _CLEARLY:
        return role
    texture = _Texture((bar,))
    own = role_of(part, (bar,))
    whole = texture.chords == 1.0 or texture.doubled == 0.0
    return own if own in _OTHERS.get(role, set()) and whole else role
