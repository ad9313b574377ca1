"""What a section is for its player, against parts whose texture is known (named by it)."""

from pathlib import Path

import pytest

from clear_steps.core.easier import role_of
from clear_steps.core.score import Part, Role
from clear_steps.demo import demo_texts
from clear_steps.formats import read_song
from clear_steps.formats.tabtext import read_tab

FIGURES = Path(__file__).parents[2] / "data/figures"
BY_NAME = {
    "strum": Role.STRUM,
    "riff": Role.RIFF,
    "pick": Role.PICKED,
    "melody": Role.LINE,
    "solo": Role.LINE,
    "bass": Role.BASS,
}
FEWEST_RIGHT = 0.95


def test_a_role_is_guessed_from_the_texture() -> None:
    wrong, count = [], 0
    for file in sorted(FIGURES.glob("*/*.tab")):
        texture = file.stem.split("-")[0]
        if texture in BY_NAME:
            count += 1
            part = read_song(file.name, file.read_bytes()).parts[0]
            if role_of(part, part.bars) is not BY_NAME[texture]:
                wrong.append(file.stem)
    assert count > 50
    assert len(wrong) <= (1 - FEWEST_RIGHT) * count, wrong


@pytest.mark.parametrize(
    ("piece", "roles"),
    [
        (0, [Role.PICKED]),
        (1, [Role.RIFF]),
        (2, [Role.STRUM, Role.RIFF]),
        (3, [Role.PICKED]),
        (4, [Role.RIFF]),
        (5, [Role.LINE]),
    ],
)
def test_the_parts_of_the_demo_are_what_a_teacher_calls_them(piece: int, roles: list[Role]) -> None:
    parts = read_tab(demo_texts()[piece]).song.parts
    assert [role_of(part, part.bars) for part in parts] == roles


def test_silence_has_no_role() -> None:
    assert role_of(Part(), ()) is None
