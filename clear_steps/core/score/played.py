"""The order in which written bars are played: repeats, endings, counted sections, sections like another."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import takewhile

from clear_steps.core.score.song import LAST_TIME, Bar, Part, Section, Song

MAX_PLAYED_BARS = 5000
_TIMES = re.compile(r"x(\d{1,2})")


@dataclass(frozen=True, slots=True)
class Passage:
    """A section as it is played: so many times, each time these bars (indexes); none where no section begins.
    `counted`: somebody has said how often."""

    section: Section | None
    times: int
    bars: tuple[int, ...]
    counted: bool = True

    @property
    def name(self) -> str:
        """The section's, empty where there is none."""
        return self.section.name if self.section else ""


def played_order(part: Part, order: tuple[str, ...] = ()) -> tuple[int, ...]:
    """Indexes of the written bars as played, at most MAX_PLAYED_BARS."""
    played: list[int] = []
    for passage in song_map(part, order):
        played.extend(passage.bars * passage.times)
        if len(played) > MAX_PLAYED_BARS:
            break
    return tuple(played[:MAX_PLAYED_BARS])


@dataclass(frozen=True)  # no slots: what is made of it is kept
class Route:
    """The way through the written bars (indexes): `order` as played, `apart` runs of those that are never
    played, in written order."""

    order: tuple[int, ...]
    apart: tuple[tuple[int, ...], ...]

    @cached_property
    def runs(self) -> tuple[tuple[int, ...], ...]:
        """What is played in one go, and what stands apart."""
        return (self.order, *self.apart) if self.order else self.apart

    @cached_property
    def shortened(self) -> "Route":
        """The same as far as it comes from a bar to another as never before."""
        seen: set[tuple[int | None, int]] = set()
        last = 0
        for at, step in enumerate(zip((None, *self.order), self.order, strict=False)):
            if step not in seen:
                seen.add(step)
                last = at + 1
        return Route(self.order[:last], self.apart)


def route_of(part: Part, order: tuple[str, ...] = ()) -> Route:
    """The way through a part."""
    return _route(played_order(part, order), len(part.bars))


@lru_cache(maxsize=1_000)
def _route(order: tuple[int, ...], bars: int) -> Route:
    played = set(order)
    apart: list[list[int]] = []
    for index in range(bars):
        if index in played:
            continue
        if apart and apart[-1][-1] == index - 1:
            apart[-1].append(index)
        else:
            apart.append([index])
    return Route(order, tuple(map(tuple, apart)))


def song_map(part: Part, order: tuple[str, ...] = ()) -> tuple[Passage, ...]:
    """What is played one after the other.

    `order` names sections, with a count of their own or none: `Verse x2`. Without a count the section's own
    holds; an uncounted section is played once. Names that no section has are passed over.
    """
    if not part.sections:
        return (Passage(None, 1, _unroll(part.bars, range(len(part.bars)))),)
    spans = _spans(part)
    by_name = {section.name.lower(): section for section in reversed(part.sections)}
    named = [(by_name[name.lower()], times) for name, times in map(counted, order) if name.lower() in by_name]
    chosen = named or [(section, None) for section in part.sections]
    before = tuple(range(part.sections[0].first_bar)) if not named else ()
    passages = [Passage(None, 1, before)] if before else []
    for section, times in chosen:
        written = _written(section, by_name, spans, frozenset())
        said = times or section.times
        passages.append(Passage(section, said or 1, _unroll(part.bars, written), said is not None))
    return tuple(passages)


def counted(item: str) -> tuple[str, int | None]:
    """A name of an order with its count, if it has one."""
    name, _, last = item.rpartition(" ")
    match = _TIMES.fullmatch(last)
    return (name.rstrip(), int(match[1])) if match and name.strip() else (item, None)


def unknown_sections(song: Song, order: tuple[str, ...]) -> tuple[str, ...]:
    """Names of an order that no section of the song has."""
    known = {section.name.lower() for part in song.parts for section in part.sections}
    return tuple(name for name, _ in map(counted, order) if name.lower() not in known)


def map_problems(part: Part, order: tuple[str, ...] = ()) -> tuple[str, ...]:
    """What of the map cannot be played as it is written, in words."""
    return (*_problems_of_likes(part), *_endings_never_played(part, order))


def _problems_of_likes(part: Part) -> Iterator[str]:
    spans = _spans(part)
    by_name = {section.name.lower(): section for section in reversed(part.sections)}
    for section in part.sections:
        if not section.like:
            continue
        if section.like.lower() not in by_name:
            yield f"'{section.name}' is as '{section.like}', which is no section; only its own are played"
        elif _in_a_circle(section, by_name):
            yield f"'{section.name}' is as itself by way of '{section.like}'; its own bars are played alone"
        else:
            base = len(_written(by_name[section.like.lower()], by_name, spans, frozenset({section.name})))
            yield from _misfits(section, len(spans[section.name, section.first_bar]), base)


def _misfits(section: Section, own: int, base: int) -> Iterator[str]:
    if own != len(section.differs):
        yield (
            f"'{section.name}' holds {own} bars and says that {len(section.differs)} of '{section.like}'"
            " differ; those that have no place are not played"
        )
    if far := [number for number in section.differs if number > base]:
        yield f"'{section.name}' changes bar {far[0]} of '{section.like}', which has {base}"


def _in_a_circle(section: Section, by_name: dict[str, Section]) -> bool:
    seen = {section.name.lower()}
    while section.like and section.like.lower() in by_name:
        section = by_name[section.like.lower()]
        if section.name.lower() in seen:
            return True
        seen.add(section.name.lower())
    return False


def _endings_never_played(part: Part, order: tuple[str, ...]) -> Iterator[str]:
    passages = song_map(part, order)
    played = {index for passage in passages for index in passage.bars}
    named = {passage.name for passage in passages}
    for index, bar in enumerate(part.bars):
        if not bar.endings or index in played or (index and part.bars[index - 1].endings == bar.endings):
            continue
        home = next((s.name for s in reversed(part.sections) if s.first_bar <= index), "")
        if home not in named:
            continue  # the whole section is not played
        numbers = ", ".join("last" if number == LAST_TIME else str(number) for number in bar.endings)
        yield (
            f"ending {numbers} at bar {part.bar_number(index)} is never played: its repeat is not played"
            " that often"
        )


def _spans(part: Part) -> dict[tuple[str, int], range]:
    """The written bars of every section, by its name and first bar."""
    ends = [section.first_bar for section in part.sections][1:] + [len(part.bars)] * bool(part.sections)
    return {
        (section.name, section.first_bar): range(section.first_bar, end)
        for section, end in zip(part.sections, ends, strict=True)
    }


def _written(
    section: Section, by_name: dict[str, Section], spans: dict[tuple[str, int], range], seen: frozenset[str]
) -> Sequence[int]:
    """The bars of a section in written order; those of the one it is like, but for its own."""
    own = spans[section.name, section.first_bar]
    other = by_name.get(section.like.lower()) if section.like else None
    if other is None or other.name in seen or other is section:
        return own
    bars = list(_written(other, by_name, spans, seen | {section.name}))
    for number, index in zip(section.differs, own, strict=False):
        if 1 <= number <= len(bars):
            bars[number - 1] = index
    return bars


def _unroll(bars: tuple[Bar, ...], written: Sequence[int]) -> tuple[int, ...]:
    """Play repeat signs and endings of bars (indexes) once through."""
    played: list[int] = []
    start, pass_number, at = 0, 1, 0
    while at < len(written) and len(played) <= MAX_PLAYED_BARS:
        bar = bars[written[at]]
        if bar.repeat_start and at != start:
            start, pass_number = at, 1
        if bar.endings and not _sounds(bar, pass_number, _endings_at(bars, written, at)):
            at += 1
            continue
        played.append(written[at])
        if bar.repeat_times and pass_number < bar.passes:
            pass_number += 1
            at = start
            continue
        if (bar.repeat_times or bar.endings) and not _more_endings(bars, written, at):
            start, pass_number = at + 1, 1
        at += 1
    return tuple(played)


def _sounds(bar: Bar, pass_number: int, group: Sequence[Bar]) -> bool:
    """Whether an ending is played this time. Where the last time has one of its own, what is repeated before
    it is played all other times."""
    passes = max((other.passes for other in group if other.repeat_times), default=1)
    if LAST_TIME in bar.endings:
        return pass_number >= passes
    if pass_number in bar.endings:
        return True
    last = any(LAST_TIME in other.endings for other in group)
    return last and bool(bar.repeat_times) and max(bar.endings) < pass_number < passes


def _endings_at(bars: tuple[Bar, ...], written: Sequence[int], at: int) -> list[Bar]:
    """The bars with endings that stand beside one another around one of them."""
    first = at
    while first > 0 and bars[written[first - 1]].endings:
        first -= 1
    return list(takewhile(lambda bar: bool(bar.endings), (bars[index] for index in written[first:])))


def _more_endings(bars: tuple[Bar, ...], written: Sequence[int], at: int) -> bool:
    return at + 1 < len(written) and bool(bars[written[at]].endings) and bool(bars[written[at + 1]].endings)
