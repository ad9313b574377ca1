"""What to play: a version in a student's words, by pattern, shapes and what is left out, never by what was
done to it."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from clear_steps.core.easier.edit import Edit, version_of
from clear_steps.core.easier.words import does
from clear_steps.core.score import Event, Part
from clear_steps.core.score.chords import parse_chord
from clear_steps.core.score.words import capital, listed

_SHAPES = frozenset({"chord", "retune", "capo"})
_MOST_SHAPES = 6  # told of one song
_A_CHORD = 3
_TOLD = 3  # in a sentence
_SILENT = frozenset({"strike"})  # what nobody needs to be told apart


@dataclass(frozen=True, slots=True)
class Saying:
    """One thing to play, the bars (indexes) it is for, and whether these are all that sound."""

    text: str
    bars: tuple[int, ...]
    everywhere: bool

    def words(self, part: Part) -> str:
        """A sentence, with its bars where they are not all."""
        own = capital(self.text)
        return f"{own}." if self.everywhere else f"{own} ({bars_words(part, self.bars)})."


def what_to_play(part: Part, edits: Sequence[Edit]) -> tuple[Saying, ...]:
    """Everything that the kept edits ask of a player, what most bars need first; the shapes by name."""
    version = version_of(part, edits)
    sounding = {index for index, bar in enumerate(part.bars) if not bar.silent}
    bars: dict[str, set[int]] = {}
    for edit in edits:
        if edit.kind not in _SILENT:
            bars.setdefault(edit.says or does(edit.kind), set()).update(edit.bars)
    counted = sorted(bars.items(), key=lambda row: -len(row[1]))
    said = [Saying(text, tuple(sorted(own)), own >= sounding) for text, own in counted]
    shapes = ", ".join(f"{name} is {frets}" for name, frets in _shapes(version, edits))
    return (*said, *([Saying(shapes, (), True)] if shapes else ()))


def sentence(part: Part, edits: Sequence[Edit]) -> str:
    """The most important of what there is to play, as one sentence a teacher would say."""
    said = [saying.text for saying in what_to_play(part, edits)][:_TOLD]
    return f"{capital('; '.join(said))}." if said else "All the notes, as written."


def _shapes(version: Part, edits: Iterable[Edit]) -> list[tuple[str, str]]:
    """Chords by name that have another shape now, with their frets from the lowest string."""
    found: Counter[tuple[str, str]] = Counter()
    for edit in edits:
        if edit.kind not in _SHAPES:
            continue
        for index in edit.bars:
            for event in version.bars[index].events:
                name = event.chord
                if parse_chord(name) and len(event.notes) >= _A_CHORD:
                    found[name, _frets(version, event)] += 1
    return [row for row, _ in found.most_common(_MOST_SHAPES)]


def _frets(part: Part, event: Event) -> str:
    own = {note.string: note.fret for note in event.notes}
    signs = [str(own[string]) if string in own else "x" for string in range(part.tuning.strings, 0, -1)]
    return ("" if max(own.values()) < 10 else "-").join(signs)


def bars_words(part: Part, bars: Sequence[int]) -> str:
    """`bar 3`, `bars 1 to 4 and 9`."""
    runs: list[list[int]] = []
    for index in sorted(bars):
        if runs and index == runs[-1][-1] + 1:
            runs[-1].append(index)
        else:
            runs.append([index])
    number = part.bar_number
    told = [f"{number(run[0])} to {number(run[-1])}" if len(run) > 1 else str(number(run[0])) for run in runs]
    return f"bar{'s' if len(bars) > 1 else ''} {listed(told)}"
