"""Fingers that the teacher wrote down and no hand can take there: told, not passed over in silence."""

from clear_steps.core.grade.step import Grading
from clear_steps.core.hand import is_fretted
from clear_steps.core.score import Note, Part
from clear_steps.core.score.words import bar_words, beat_words, capital, finger_words, string_words


def pins_not_kept(part: Part, grading: Grading) -> tuple[str, ...]:
    """`Bar 3, beat 1: the first finger cannot lie on the 2nd string with the others; the third takes it.`"""
    found = []
    for (index, number), grip in sorted(grading.grips.items()):
        bar = part.bars[index]
        for note in bar.events[number].notes:
            taken = grip.finger_on(note.string)
            if note.finger and is_fretted(note) and taken and taken != note.finger:
                beat = beat_words(part.starts_at(index) + bar.onsets[number], bar.metre)
                found.append(f"{capital(bar_words(part.bar_number(index)))}, {beat}: {_told(note, taken)}")
    return tuple(found)


def _told(note: Note, taken: str) -> str:
    assert note.finger is not None  # only pins are told
    place = f"the {string_words((note.string,))}"
    wanted, other = finger_words((note.finger,)), finger_words((taken,))
    return f"the {wanted} cannot lie on {place} as written; the {other} takes it."
