"""Way 13, what only the teacher decides: one change asked for on some bars, with the Step it would give."""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from clear_steps.core.easier.edit import Change, Edit, applied, dependencies, standing
from clear_steps.core.easier.heights import TOLERANCE
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.plans import Builder, same
from clear_steps.core.easier.playing import bars_words
from clear_steps.core.easier.roles import roles_of
from clear_steps.core.easier.telling import change_between
from clear_steps.core.easier.wanted import wanted_bars
from clear_steps.core.easier.ways import choices_of
from clear_steps.core.easier.words import does
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import GradeRequest, Ladder, grade_part
from clear_steps.core.score import Part, Song
from clear_steps.core.score.blending import Notes, blended
from clear_steps.core.score.words import capital


@dataclass(frozen=True, slots=True)
class Asked:
    """One change that may be asked for: its kind, what it says to a student, what it makes, and the Steps of
    the song and of the hardest of the bars then."""

    kind: str
    says: str
    changes: tuple[Change, ...]
    step: float
    bar_step: float


def offers(
    song: Song,
    part: Part,
    bars: Sequence[int],
    ladder: Ladder,
    request: GradeRequest = GradeRequest(),
    notes: Notes | None = None,
) -> tuple[Asked, ...]:
    """What applies to some bars (indexes) of a part as it stands, or to some notes of them alone, by options
    of their ways and by kinds of edit; each result once. Raises InvalidValueError for bars that are not
    there."""
    if not bars or not all(0 <= index < len(part.bars) for index in bars):
        raise InvalidValueError("bars", ", ".join(map(str, bars)) or "none", f"0 to {len(part.bars) - 1}")
    found: dict[tuple[object, ...], Asked] = {}
    said = set[tuple[str, str]]()  # by which a change is asked for: the first of those that say the same
    tried = itertools.chain(_by_ways(part, bars, ladder), _by_kinds(part, bars))
    for kind, says, whole in tried:
        made = blended(part, whole, notes) if notes else whole
        if made is None:
            continue
        rows = zip(part.bars, made.bars, strict=True)
        changes = tuple(
            change_between(index, was, now)
            for index, (was, now) in enumerate(rows)
            if was.events != now.events
        )
        key = tuple(made.bars[change.bar].events for change in changes)
        if changes and key not in found and (kind, says) not in said:
            said.add((kind, says))
            grading = grade_part(song, made, ladder, request)
            hardest = max(grading.bars[index].step for index in bars)
            found[key] = Asked(kind, says, changes, grading.step, hardest)
    return tuple(found.values())


def _by_ways(part: Part, bars: Sequence[int], ladder: Ladder) -> Iterator[tuple[str, str, Part]]:
    wanted = wanted_bars(part)
    builder = Builder(part, wanted, choices_of(part, wanted, ladder), ladder)
    role = builder.roles[bars[0]]
    own = [index for index in bars if builder.roles[index] is role]
    nothing = builder.nothing()
    for at, choice in enumerate(builder.choices[bars[0]]):
        for number, option in enumerate(choice.options, start=1):
            row = nothing[bars[0]].with_option(at, number)
            yield option.kind, option.says, builder.made(same(nothing, own, row))


def _by_kinds(part: Part, bars: Sequence[int]) -> Iterator[tuple[str, str, Part]]:
    """Every kind's first proposal, bar after bar; those that no search takes by itself too."""
    roles = {roles_of(part)[index] for index in bars}
    for kind in (own for own in KINDS.values() if own.asked_only or roles <= own.roles):
        made = part
        for index in bars:
            first = next(kind.propose(made, index), None)
            made = (applied(made, first) if first else None) or made
        if all(made.bars[index].quarters == part.bars[index].quarters for index in bars):
            yield kind.name, kind.does, made


def asked_edit(
    song: Song,
    part: Part,
    edits: Sequence[Edit],
    refused: Sequence[int],
    wanted: tuple[str, str],
    bars: Sequence[int],
    ladder: Ladder,
    request: GradeRequest = GradeRequest(),
    notes: Notes | None = None,
) -> Edit:
    """The change of a kind, with what it says, as an edit of a version; raises InvalidValueError where it
    does not apply."""
    version, gone = standing(part, edits, refused)
    kind, says = wanted
    found = offers(song, version, bars, ladder, request, notes)
    own = next((each for each in found if (each.kind, each.says) == wanted), None)
    if own is None:
        raise InvalidValueError("change", says or does(kind), "one that applies to these bars")
    before = grade_part(song, version, ladder, request).step
    where = bars_words(part, [change.bar for change in own.changes])
    kept = [edit for edit in edits if edit.id not in gone]
    harder = " (harder)" if own.step > before + TOLERANCE else ""
    return replace(
        Edit(
            max((edit.id for edit in edits), default=0) + 1,
            kind,
            own.changes,
            f"{capital(where)}: asked for.",
            f"{where}: the song's Step {before:.1f} to {own.step:.1f}{harder}",
            0.0,
            dependencies(kept, own.changes),
        ),
        says=says,
    )
