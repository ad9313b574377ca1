"""A language is a catalogue, with English where a phrase is missing; rows carry their own words."""

import re
from dataclasses import replace

import pytest

from clear_steps.core.score import TECHNIQUES, Technique
from clear_steps.core.teach.words import Catalogue, Language, catalogue_of
from clear_steps.core.teach.words.catalogue import MESSAGES
from clear_steps.core.teach.words.notes import NoteFact, Voice, fret_words
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from tests.core.teach.test_words import ENGLISH_LEFT, told

TEN = """
down = nedåt
up = uppåt
open = öppen
dead = död
strum = ackord
same = likadant
hold = håll { $name }
wait = vänta
as-before = som förut
all-open = allt öppet
"""


def messages(language: Language) -> set[str]:
    lines = (MESSAGES / f"{language}.ftl").read_text(encoding="utf-8").splitlines()
    return {line.split(" =")[0] for line in lines if " =" in line and line[0].isalpha()}


def test_spanish_has_every_message_that_english_has() -> None:
    assert messages(Language.ENGLISH) <= messages(Language.SPANISH)


def test_a_third_language_of_ten_phrases_changes_only_those() -> None:
    third = Catalogue("sv", TEN)
    assert third.say("down") == "nedåt"
    assert third.say("hold", name="G") == "håll G"
    assert third.say("on-string", string=3, what="7") == catalogue_of(Language.ENGLISH).say(
        "on-string", string=3, what="7"
    )
    changed = [name for name in messages(Language.ENGLISH) if third.has_own(name)]
    assert len(changed) == 10


def test_a_message_nobody_has_is_a_programming_error() -> None:
    with pytest.raises(KeyError):
        catalogue_of(Language.SPANISH).say("no-such-message")


def test_a_technique_without_words_is_said_by_its_name(monkeypatch: pytest.MonkeyPatch) -> None:
    row = TECHNIQUES[Technique.VIBRATO]
    monkeypatch.setitem(TECHNIQUES, Technique.VIBRATO, replace(row, said={}, name="wobble"))
    voice = Voice(catalogue_of(Language.SPANISH))
    assert fret_words(NoteFact(3, 7, techniques=frozenset({Technique.VIBRATO})), voice) == "7, wobble"


@pytest.mark.parametrize("technique", Technique)
def test_every_technique_has_words_in_both_languages(technique: Technique) -> None:
    row = TECHNIQUES[technique]
    if row.said:
        assert row.said_in("es") != row.said_in("en")
    else:  # said by the bend or the dead stroke itself
        assert technique.startswith(("bend_", "release", "dead"))


def test_harmonics_and_what_a_chunk_goes_on_from_are_named_in_spanish() -> None:
    rows = "".join(f"  {name}|--------|\n" for name in "BGDAE")
    text = f"Tempo: 90\nTime: 2/4\nTuning: standard\n\nlen|q   q   |\n  e|<12>-<7>|\n{rows}"
    song = read_tab(text).song
    said = " ".join(" ".join(row.sentences) for row in told(song, song.parts[0], Language.SPANISH)[1])
    assert said.startswith("Armónicos en el 7 y 12")
    assert "harmonics" not in said


@pytest.mark.parametrize("number", range(6))
def test_spanish_directions_have_nothing_english_left(number: int) -> None:
    song = read_tab(demo_texts()[number]).song
    for part in song.parts:
        for row in told(song, part, Language.SPANISH)[1]:
            said = re.sub(r"“[^”]*”", "", " ".join(row.sentences))
            assert not re.search(ENGLISH_LEFT, said, re.IGNORECASE), said
