"""The command line, on which scripts depend."""

import json
from pathlib import Path

import pytest
from click.testing import CliRunner, Result

from clear_steps.cli import main

CALIBRATION = Path(__file__).parent / "data" / "calibration"
VERSIONS = CALIBRATION.parent / "versions"


def run(*arguments: object) -> Result:
    return CliRunner().invoke(main, [str(argument) for argument in arguments])


def test_grade_prints_the_json_as_specified() -> None:
    result = run(
        "grade",
        CALIBRATION / "gallop-110.tab",
        CALIBRATION / "bass-alone-90.tab",
        "--json",
        "--hand-span",
        90,
    )
    assert result.exit_code == 0
    report = json.loads(result.stdout)
    assert set(report) == {"ladder", "player", "songs"}
    assert report["player"] == {"span_mm": 90.0, "reach_mm": 126.0}
    song = report["songs"][0]
    assert set(song) == {
        "file",
        "title",
        "part",
        "tempo",
        "tempo_assumed",
        "step",
        "peak",
        "typical",
        "stamina",
        "to_learn",
        "guessed",
        "bars",
    }
    assert set(song["to_learn"]) == {"bars", "grips", "patterns", "sittings"}
    bar = song["bars"][0]
    assert set(bar) == {"number", "step", "measures", "added"}
    assert (bar["number"], song["tempo"], song["tempo_assumed"]) == (1, 110.0, False)
    assert set(bar["measures"]["speed"]) == {"step", "value", "unit", "place", "evidence"}
    assert bar["measures"]["speed"]["place"] == {"onset": "0", "strings": [6]}
    assert bar["measures"]["technique"] == {
        "step": 0,
        "value": None,
        "unit": "techniques/s",
        "place": None,
        "evidence": "",
    }


def test_a_practice_tempo_and_a_longer_scale_change_the_grade() -> None:
    def step(*options: object) -> float:
        return float(
            json.loads(run("grade", CALIBRATION / "four-frets-at-first-120.tab", "--json", *options).stdout)[
                "songs"
            ][0]["step"]
        )

    assert step("--tempo", 60) < step() < step("--scale-length", 800)


def test_fingering_gives_every_note_a_finger_and_its_pitch() -> None:
    report = json.loads(run("fingering", CALIBRATION / "tapped-90.tab", "--json").stdout)
    notes = report["parts"][0]["bars"][0]["events"][0]["notes"]
    assert notes == [{"string": 2, "fret": 12, "finger": None, "pitch": 71, "dead": False, "tied": False}]
    second = report["parts"][0]["bars"][0]["events"][1]
    assert second["onset"] == "1/4"
    assert second["notes"][0]["finger"] in (1, 2, 3, 4)


def test_shapes_prints_the_json_as_specified() -> None:
    file = CALIBRATION / "shapes/strum-three-chords.tab"
    (part,) = json.loads(run("shapes", file, "--json").stdout)["parts"]
    first = part["stretches"][0]
    assert first["from"] == {"bar": 1, "onset": "0"}
    assert first["to"] == {"bar": 2, "onset": "7/2"}
    assert (first["kind"], first["name"], first["written"]) == ("held", "G", "G")
    assert (first["grip"], first["fingers"], first["places"]) == ("320003", "210003", [])
    assert first["pattern"] == {"cell": "4", "strokes": "D-DU-UDU", "onsets": None, "guess": False}
    assert "bar 3 at 0 to bar 3 at 7/2: held C x32010" in run("shapes", file).stdout


def test_simplify_prints_the_json_as_specified_and_writes_the_version(tmp_path: Path) -> None:
    out = tmp_path / "easier.tab"
    result = run("simplify", CALIBRATION / "two-step-bends-90.tab", "--step", 4, "--out", out, "--json")
    assert result.exit_code == 0
    report = json.loads(result.stdout)
    assert set(report) == {"target", "reached", "before", "after", "kept", "edits", "blocking", "tab", "ways"}
    assert (report["target"], report["reached"], report["blocking"]) == (4.0, True, [])
    assert report["before"]["step"] > 6 > 4.05 > report["after"]["step"]
    assert set(report["kept"]) == {"tune", "bass", "harmony", "rhythm", "overall", "same_onsets"}
    assert set(report["edits"][0]) == {"id", "kind", "bars", "reason", "effect", "loss", "builds_on"}
    assert out.read_text() == report["tab"]
    assert 1 <= len(report["ways"]) <= 3
    assert set(report["ways"][0]) == {"name", "sentence", "step", "kept", "tab"}
    assert report["ways"][0]["tab"] == report["tab"]
    again = json.loads(run("grade", out, "--json").stdout)["songs"][0]
    assert again["step"] == report["after"]["step"]


def test_compare_holds_a_version_against_its_original() -> None:
    result = run(
        "compare", VERSIONS / "22-flat-key-strum.tab", VERSIONS / "teacher/22-flat-key.tab", "--json"
    )
    assert result.exit_code == 0
    report = json.loads(result.stdout)
    assert set(report) == {"before", "after", "kept", "laws"}
    assert report["before"]["step"] > report["after"]["step"]
    assert (len(report["before"]["bars"]), len(report["after"]["bars"])) == (8, 8)
    assert set(report["kept"]) == {"tune", "bass", "harmony", "rhythm", "overall", "same_onsets"}
    assert report["kept"]["harmony"] == 100
    assert report["laws"] == []


def test_compare_names_the_laws_that_a_version_breaks_and_the_bars(tmp_path: Path) -> None:
    quiet = tmp_path / "quiet.tab"
    rows = "".join(f"  {name}|{'0' if name == 'e' else '-'}-|{'--|' * 7}\n" for name in "eBGDAE")
    quiet.write_text(f"Tempo: 84\n\nlen|w {'|Rw' * 7}|\n{rows.replace('  e|', '  E|')}")
    report = json.loads(run("compare", VERSIONS / "22-flat-key-strum.tab", quiet, "--json").stdout)
    broken = {row["law"]: row["bars"] for row in report["laws"]}
    assert broken["a bar that sounded goes on sounding"] == [2, 3, 4, 5, 6, 7, 8]
    assert broken["chord names stay as they are written"] == [1, 2, 3, 4, 5, 6, 7, 8]


def test_a_version_of_another_length_is_one_clear_line() -> None:
    result = run("compare", VERSIONS / "01-mute-riff.tab", VERSIONS / "18-waltz-barre.tab")
    assert result.exit_code == 2
    assert "bars of the version is 8; expected as many as the original has, 4" in result.stderr


@pytest.mark.parametrize("ending", [".json", ".txt"])
def test_convert_and_back_gives_an_equal_grade(tmp_path: Path, ending: str) -> None:
    source, other = CALIBRATION / "tapped-90.tab", tmp_path / f"song{ending}"
    assert run("convert", source, other).exit_code == 0
    steps = [json.loads(run("grade", file, "--json").stdout)["songs"][0]["step"] for file in (source, other)]
    assert steps[0] == steps[1]


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("bad.tab", b"Tempo: fast\n", ":1:1: no tab was found in the text"),
        ("empty.tab", b"", ":1:1: the text is empty"),
        ("latin.txt", b"caf\xe9", ":1:1: no tab was found in the text"),
        ("song.json", b"{}x", ":1:1: the file: Invalid JSON"),
        ("song.odt", b"", ":1:1: '.odt' files cannot be read; expected one of .tab .txt .json"),
        ("missing.tab", None, ":1:1: No such file or directory"),
    ],
)
def test_a_file_that_cannot_be_read_is_one_line_and_status_2(
    tmp_path: Path, name: str, content: bytes | None, words: str
) -> None:
    file = tmp_path / name
    if content is not None:
        file.write_bytes(content)
    result = run("grade", file, CALIBRATION / "gallop-110.tab", "--json")
    assert result.exit_code == 2
    assert result.stderr.startswith(f"{file}{words}")
    assert result.stderr.count("\n") == 1
    assert len(json.loads(result.stdout)["songs"]) == 1


def test_convert_to_an_unknown_ending_writes_nothing(tmp_path: Path) -> None:
    result = run("convert", CALIBRATION / "gallop-110.tab", tmp_path / "song.odt")
    assert result.exit_code == 2
    assert list(tmp_path.iterdir()) == []


FIGURES = CALIBRATION.parent / "figures/given"


def test_figures_prints_the_json_as_specified() -> None:
    result = run("figures", FIGURES / "riff-two-frets-lower.tab", "--json")
    (part,) = json.loads(result.stdout)["parts"]
    assert set(part) == {"figures", "rules"}
    riff = next(figure for figure in part["figures"] if figure["times"] == 6)
    assert riff["places"][0] == {
        "from": {"bar": 1, "onset": "0"},
        "to": {"bar": 1, "onset": "3"},
        "as": "first",
        "by": 0,
        "but": [],
    }
    assert [(place["as"], place["by"]) for place in riff["places"][1:3]] == [("moved", -2), ("moved", -4)]
    assert part["rules"][0] == {
        "from": {"bar": 1, "onset": "0"},
        "to": {"bar": 3, "onset": "3"},
        "notes": 6,
        "by": -2,
        "of": "frets",
        "rule": "each bar two frets lower",
    }


def test_a_figure_of_one_voice_names_its_strings() -> None:
    result = run("figures", FIGURES.parent / "own/pick-other-bass.tab", "--json")
    (figure,) = json.loads(result.stdout)["parts"][0]["figures"]
    assert figure["strings"] == [1, 2]


def test_figures_are_told_in_words() -> None:
    result = run("figures", FIGURES / "melody-pickup.tab")
    assert result.stdout.splitlines() == [
        "Beat 4 of bar 0 to beat 1 of bar 2, three times",
        "  beat 4 of bar 2 to beat 1 of bar 4: the same but for beat 4 of bar 3 and beat 1 of bar 4",
        "  beat 4 of bar 6 to beat 1 of bar 8: the same",
    ]


def test_chunks_prints_the_json_as_specified() -> None:
    result = run("chunks", FIGURES / "riff-two-frets-lower.tab", "--json")
    (part,) = json.loads(result.stdout)["parts"]
    first = part["chunks"][0]
    assert {"name", "from", "to", "step", "figure"} <= set(first)
    assert first["from"] == {"bar": 1, "onset": "0"}
    assert first["figure"] is not None
    assert [row["name"] for row in part["chunks"][:2]] == ["a", "b"]


@pytest.mark.parametrize("order", ["top", "hardest", "used", "riffs", "layers"])
def test_chunks_come_in_an_order(order: str) -> None:
    result = run("chunks", FIGURES / "solo-bend-lick.tab", "--order", order, "--json")
    rows = json.loads(result.stdout)["parts"][0]["chunks"]
    assert order != "hardest" or rows[0]["step"] == max(row["step"] for row in rows)
    assert len(rows) >= 3


@pytest.mark.parametrize(
    ("command", "option", "value"),
    [
        ("grade", "--school", "move"),
        ("grade", "--weighing", "whole"),
        ("simplify", "--approach", "groove"),
    ],
)
def test_choices_are_named_as_they_are_written_down(command: str, option: str, value: str) -> None:
    more = ["--step", 4] if command == "simplify" else []
    result = run(command, CALIBRATION / "gallop-110.tab", option, value, *more)
    assert result.exit_code == 0, result.output


def test_words_prints_the_json_as_specified() -> None:
    result = run("words", FIGURES / "riff-two-frets-lower.tab", "--json")
    rows = json.loads(result.stdout)["parts"][0]["chunks"]
    assert rows[0]["sentences"][0] == "Power chords on the 5th: 7 twice, 10, 7, 9, 7."
    assert rows[1] == {"name": "b", "sentences": ["The same as a, two frets lower."]}


def test_words_are_said_in_spanish_with_do_re_mi() -> None:
    result = run("words", FIGURES / "pick-waltz.tab", "--language", "es", "--names", "solfege", "--json")
    rows = json.loads(result.stdout)["parts"][0]["chunks"]
    assert rows[0]["sentences"][0].startswith("Mantén lam: pulgar 5, luego rasgueo dos veces")
