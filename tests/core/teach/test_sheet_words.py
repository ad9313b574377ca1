"""What a sheet says beside the notes: in either language what makes it hard and what helps, and cautions."""

import pytest

from clear_steps.core.figures import coming_back
from clear_steps.core.grade import MEASURES, grade_song
from clear_steps.core.hand import Player
from clear_steps.core.teach import Caution, cautions
from clear_steps.core.teach.words import Language, care_sentences, catalogue_of, hard_sentences
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder


@pytest.mark.parametrize("language", Language)
@pytest.mark.parametrize("number", range(6))
def test_what_is_hard_names_the_hardest_bar_and_what_helps(number: int, language: Language) -> None:
    song = read_tab(demo_texts()[number]).song
    for part, grading in zip(song.parts, grade_song(song, default_ladder()), strict=True):
        said = hard_sentences(part, grading, coming_back(part, song.order), language)
        peak = max((grading.bars[index] for index in grading.peak_bars), key=lambda bar: bar.step)
        assert len(said) == 3
        bar = "compás" if language is Language.SPANISH else "bar"
        assert f"{bar} {peak.number}" in said[0]
        helps = MEASURES[peak.hardest_measure].help_in(language)
        assert said[2].casefold().endswith(helps.casefold())


def test_every_measure_and_every_caution_has_its_words() -> None:
    spanish = catalogue_of(Language.SPANISH)
    assert all(row.said_in("es") != row.spoken for row in MEASURES.values())
    assert all(row.help_in("es") != row.help_in("en") != "" for row in MEASURES.values())
    found = {
        each.kind
        for text in demo_texts()
        for song in [read_tab(text).song]
        for part, grading in zip(song.parts, grade_song(song, default_ladder()), strict=True)
        for each in cautions(part, grading, Player(78))
    }
    assert all(
        spanish.has_own(f"caution-{kind}") for kind in found | {"stretch", "barre", "picking", "tension"}
    )


def test_cautions_are_said_once_and_pain_last() -> None:
    twice = [Caution("barre", "a barre"), Caution("barre", "a barre")]
    assert len(care_sentences(twice, Language.ENGLISH)) == 2
    spanish = care_sentences(twice, Language.SPANISH)
    assert spanish[0].startswith("Una cejilla larga")
    assert "dolor" in spanish[1]
