"""What is taken to ring on though nobody wrote it: told as a guess, which the teacher can switch off."""

from clear_steps.core.score import Part
from clear_steps.core.shapes.ringing import Texture, ringing_notes

_WORDS = {
    Texture.BROKEN_CHORD: "the notes of the broken chord ring on to the change of grip",
    Texture.BASS: "the bass rings on under the other voice",
    Texture.DRONE: "the open string rings on as a drone",
}


def guessed_ringing(part: Part) -> tuple[str, ...]:
    """A sentence a texture: `Bars 1, 2 and 5: the bass rings on under the other voice.`"""
    bars: dict[Texture, list[int]] = {}
    for index, rows in enumerate(ringing_notes(part)):
        for texture in sorted(frozenset[Texture]().union(*(row.guessed for row in rows))):
            bars.setdefault(texture, []).append(part.bar_number(index))
    return tuple(f"{_bars(numbers)}: {_WORDS[texture]}." for texture, numbers in bars.items())


def _bars(numbers: list[int]) -> str:
    """`Bar 3`, `Bars 1-4 and 7`."""
    runs: list[tuple[int, int]] = []
    for number in numbers:
        if runs and number == runs[-1][1] + 1:
            runs[-1] = (runs[-1][0], number)
        else:
            runs.append((number, number))
    names = [str(first) if first == last else f"{first}-{last}" for first, last in runs]
    listed = names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
    return f"Bar{'s' if len(numbers) > 1 else ''} {listed}"
