"""What teachers say of made-up passages: the fingers they accept, which is harder
(tests/data/calibration)."""

import csv
from functools import cache
from pathlib import Path

import pytest

from clear_steps.core.grade import Grading, grade_song
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.outside.accepted_fingers import judged

TEACHER = Path(__file__).parents[1] / "data/calibration/teacher"
NOTES_FLOOR, PASSAGES_FLOOR, MOST_MOVES = 0.95, 0.85, 1
PAIRS_FLOOR = 44
HARDER_BY = 0.3


@cache
def grading(name: str) -> Grading:
    return grade_song(read_tab((TEACHER / f"{name}.tab").read_text()).song, default_ladder())[0]


@pytest.mark.parametrize("factor", [0.5, 0.75, 1.0, 1.5, 2.0])
def test_the_fingers_are_those_that_teachers_accept_at_every_tempo(factor: float) -> None:
    passages = judged(factor)
    assert len(passages) == 55
    notes, right = sum(each.notes for each in passages), sum(each.right for each in passages)
    whole = [each for each in passages if not each.faults]
    faults = [(each.name, each.faults) for each in passages if each.faults]
    assert right / notes >= NOTES_FLOOR, faults
    assert len(whole) / len(passages) >= PASSAGES_FLOOR, faults
    assert sum(each.moved for each in passages) <= MOST_MOVES, faults


def test_what_a_teacher_calls_harder_is_harder() -> None:
    with (TEACHER / "pairs.csv").open() as file:
        pairs = [(row["harder"], row["easier"]) for row in csv.DictReader(file)]
    wrong = [pair for pair in pairs if grading(pair[0]).step - grading(pair[1]).step < HARDER_BY]
    assert len(pairs) == 48
    assert len(pairs) - len(wrong) >= PAIRS_FLOOR, wrong


@pytest.mark.parametrize(
    ("name", "words"),
    [
        ("bend-whole-at-first-fret-70", "bend at the 1st to 3rd fret"),
        ("bend-whole-index-at-ten-70", "bend by the index alone"),
        ("bend-whole-little-at-ten-70", "bend by the little finger"),
        ("oblique-bend-little-holds-70", "bend beside a note that is held"),
        ("hammer-pull-third-and-little-90", "slur between ring and little finger"),
        ("hammers-from-nowhere-90", "hammer-on from nowhere"),
        ("harmonics-four-and-three-70", "harmonic over the 3rd, 4th or 9th fret"),
    ],
)
def test_the_evidence_says_what_makes_a_technique_harder(name: str, words: str) -> None:
    said = [bar.findings["technique"].evidence for bar in grading(name).bars]
    assert any(words in evidence for evidence in said), said


@pytest.mark.parametrize("name", ["bend-whole-ring-at-ten-70", "harmonics-twelve-70"])
def test_what_makes_a_technique_easier_is_no_reason(name: str) -> None:
    assert not any("(" in bar.findings["technique"].evidence for bar in grading(name).bars)


def test_a_long_slide_is_harder_than_a_short_one() -> None:
    def step(fret: int) -> float:
        tab = "\n".join(
            f"{n}|{f'3-----/{fret}' if n == 'G' else '-' * (7 + len(str(fret)))}|" for n in "eBGDAE"
        )
        song = read_tab(f"Tempo: 70\nTime: 4/4\nTuning: standard\n\n{tab}").song
        return grade_song(song, default_ladder())[0].bars[0].findings["technique"].step

    assert step(12) == pytest.approx(step(5) + 0.5)


def test_a_barre_behind_a_capo_is_as_hard_as_its_fret_from_the_nut() -> None:
    """Common practice, no source: an F shape at capo 7 is a barre at the 8th fret."""
    low, high = (grading(f"f-shape-{name}-80").step for name in ("no-capo", "capo-seven"))
    assert low - high == pytest.approx(1.0, abs=0.1)
