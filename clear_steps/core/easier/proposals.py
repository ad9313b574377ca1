"""What the kinds of edit propose for a bar, where it hangs together, with what would be kept."""

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from clear_steps.core.easier.edit import Change, applied
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.kinds import Kind
from clear_steps.core.score import Bar, Part, Role

_BARS_BEFORE = 2  # at most, that a kind looks at, or that must hang together with the bar


@dataclass(frozen=True, slots=True)
class Proposed:
    """Changes of one kind, the version they make, and what it keeps of the whole, in per cent."""

    kind: Kind
    changes: tuple[Change, ...]
    version: Part
    kept: float


@dataclass(frozen=True, slots=True)
class _Rewriting:
    """Changes that hang together, and the bars they make, by index."""

    changes: tuple[Change, ...]
    bars: dict[int, Bar]


class Proposals:
    """Proposals for the bars of versions of one part; equal bars are one object, so that each is judged
    once."""

    def __init__(
        self,
        original: Part,
        kinds: Mapping[str, Kind],
        scores: KeptSoFar,
        roles: Sequence[Role],
        refused: Collection[tuple[int, str]] = (),
    ) -> None:
        self.kinds, self.roles, self._scores, self._refused = kinds, roles, scores, refused
        self._known_bars: dict[Bar, Bar] = {bar: bar for bar in original.bars}
        self._rewritings: dict[tuple[object, ...], tuple[_Rewriting, ...]] = {}

    def kinds_for(self, index: int) -> list[str]:
        """Names of the kinds that are tried on a bar."""
        return [name for name, kind in self.kinds.items() if self._is_for(kind, index)]

    def _is_for(self, kind: Kind, index: int) -> bool:
        wanted = not kind.asked_only and (index, kind.name) not in self._refused
        return wanted and self.roles[index] in kind.roles

    def of(
        self, version: Part, index: int, worth_trying: Callable[[Kind], bool] = lambda _: True
    ) -> Iterator[Proposed]:
        """What every kind that is worth trying proposes for a bar."""
        for kind in filter(worth_trying, self.kinds.values()):
            yield from self.of_kind(kind, version, index)

    def of_kind(self, kind: Kind, version: Part, index: int) -> Iterator[Proposed]:
        """What one kind proposes for a bar; nothing where it is not for such music."""
        if not self._is_for(kind, index):
            return
        for rewriting in self._rewritten(kind, version, index):
            made = replace(
                version, bars=tuple(rewriting.bars.get(at, bar) for at, bar in enumerate(version.bars))
            )
            yield Proposed(kind, rewriting.changes, made, self._scores.overall(made))

    def _rewritten(self, kind: Kind, version: Part, index: int) -> tuple[_Rewriting, ...]:
        """The same bar between the same others gets the same proposals: what a kind looks at is known by
        identity."""
        seen = version.bars[0 if kind.looks_back else max(index - _BARS_BEFORE, 0) : index + 2]
        key = (kind.name, index, *map(id, seen))
        if key not in self._rewritings:
            proposed = (
                (changes, self.made(version, changes, index)) for changes in kind.propose(version, index)
            )
            self._rewritings[key] = tuple(
                _Rewriting(changes, _touched(changes, made, index)) for changes, made in proposed if made
            )
        return self._rewritings[key]

    def made(self, version: Part, changes: Sequence[Change], index: int) -> Part | None:
        """The version with changes of or near one bar; None if they do not fit or hang together."""
        made = applied(version, changes)
        touched = {change.bar for change in changes}
        if made is None or not all(
            made.bars[at].quarters == version.bars[at].quarters and _keeps_its_ties(made, at)
            for at in touched
        ):
            return None
        known = {
            at: self._known_bars.setdefault(bar, bar) for at, bar in _touched(changes, made, index).items()
        }
        return replace(made, bars=tuple(known.get(at, bar) for at, bar in enumerate(made.bars)))

    def known(self, version: Part) -> Part:
        """The version with every bar the object that equal bars are."""
        return replace(version, bars=tuple(self._known_bars.setdefault(bar, bar) for bar in version.bars))


def _touched(changes: Sequence[Change], made: Part, index: int) -> dict[int, Bar]:
    return {at: made.bars[at] for at in {change.bar for change in changes} | {index}}


def _keeps_its_ties(part: Part, index: int) -> bool:
    """No tie in the bar or into the next one has lost the note it holds on; no two notes share a string."""
    bars = part.bars[max(index - 1, 0) : index + 2]
    before: dict[int, int] = {}
    for at, bar in enumerate(bars):
        for event in bar.events:
            frets = {note.string: note.fret for note in event.notes}
            hangs = any(note.tied and before.get(note.string) != note.fret for note in event.notes)
            if len(frets) < len(event.notes) or (hangs and (at > 0 or index == 0)):
                return False
            before = frets
    return True
