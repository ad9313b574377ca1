"""Versions that a teacher wrote by hand, held against what the search finds.

Source: ten made-up passages and seven hand-written versions of six of them (tests/data/versions, teacher/); a
check of the scale, not of every law: a person may write what the search may not.
"""

from pathlib import Path

import pytest

from clear_steps.core.easier import Wish, kept, ways
from clear_steps.core.easier.laws import Pair, broken_laws
from clear_steps.core.grade import grade_part
from clear_steps.core.score import Part, Song
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder

LADDER = default_ladder()
FOLDER = Path(__file__).parents[1] / "data/versions"
BY_HAND = {
    "01-mute-riff": "01-mute-riff",
    "12-capo-thumb": "12-capo-thumb",
    "14-tied-push": "14-tied-push",
    "18-waltz": "18-waltz-barre",
    "22-flat-key": "22-flat-key-strum",
    "25-skank": "25-skank",
    "25b-skank-half": "25-skank",
}


def read(*names: str) -> Song:
    return read_tab(FOLDER.joinpath(*names).read_text()).song


def pair(name: str) -> tuple[Song, Part, Song, Part]:
    song, version = read(f"{BY_HAND[name]}.tab"), read("teacher", f"{name}.tab")
    return song, song.parts[0], version, version.parts[0]


@pytest.mark.parametrize("name", BY_HAND)
def test_the_best_way_keeps_at_least_as_much_as_a_teacher_at_the_same_step(name: str) -> None:
    song, part, other, version = pair(name)
    grading = grade_part(other, version, LADDER)
    step = max([grading.step, *(bar.step for bar in grading.bars)])
    best = ways(song, part, LADDER, Wish((step,)))[0].easiest
    assert best.reached
    assert best.kept.overall >= kept(part, version).overall


@pytest.mark.parametrize("name", BY_HAND)
def test_what_a_teacher_wrote_by_hand_is_still_the_tune_by_our_scale(name: str) -> None:
    _, part, _, version = pair(name)
    assert kept(part, version).still_the_tune()
    assert not broken_laws(Pair(part, version, shapes=LADDER.chord_shapes))


@pytest.mark.parametrize("file", sorted(FOLDER.glob("*.tab")), ids=lambda file: file.stem)
@pytest.mark.parametrize("target", [4.0, 3.0])
def test_every_passage_comes_down_to_a_middle_step_within_the_laws(file: Path, target: float) -> None:
    song = read(file.name)
    part = song.parts[0]
    for way in ways(song, part, LADDER, Wish((target,))):
        if way.name == "as it is written, with less":
            assert way.easiest.reached
        if not way.wish.layer and way.wish.approach != "strum":  # another part altogether keeps other things
            broken = broken_laws(Pair(part, way.easiest.version, shapes=LADDER.chord_shapes))
            assert not [law.name for law, _ in broken if law.floor == 1.0], way.name
