"""Commands of songs in files: graded, fingered, cut, told, simplified, compared, converted."""

import json
import sys
from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum
from fractions import Fraction
from pathlib import Path

import click

from clear_steps.cli.told import imported, ladder_of, or_none, or_stop, song_of, tell
from clear_steps.core.easier import Approach, Wish, ways
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.words import told_lines
from clear_steps.core.grade import GradeRequest, Weighing, grade_part
from clear_steps.core.hand import Player, School
from clear_steps.core.score import Song
from clear_steps.core.teach.chunks import Order
from clear_steps.core.teach.words import Language, Names
from clear_steps.formats import write_song
from clear_steps.ladders import default_ladder
from clear_steps.report import (
    chunks_report,
    compared_report,
    figures_report,
    fingering_report,
    grade_report,
    shapes_report,
    ways_report,
    with_scale_length,
    words_report,
)
from clear_steps.report.grades import Json


def _one_of(values: type[StrEnum]) -> click.Choice[str]:
    """By their values: click itself takes the names of an enumeration."""
    return click.Choice([value.value for value in values])


def _rows_told(song: Song, report: Json, kind: str) -> Iterator[Json]:
    """The rows of a report, part by part; of several parts each is named first."""
    for part, found in zip(song.parts, report["parts"], strict=True):
        if len(song.parts) > 1:
            click.echo(f"{part.name}:")
        yield from found[kind]


def _ends(row: Json) -> str:
    return " to ".join(f"bar {row[end]['bar']} at {row[end]['onset']}" for end in ("from", "to"))


@click.command()
@click.argument("files", nargs=-1, required=True, type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="The whole grade as JSON.")
@click.option("--tempo", type=click.FloatRange(10, 400), help="A practice tempo, quarters a minute.")
@click.option(
    "--hand-span",
    type=click.FloatRange(40, 200),
    default=100.0,
    show_default=True,
    help="Comfortable span, mm.",
)
@click.option("--scale-length", type=click.FloatRange(300, 900), help="Scale length, mm.")
@click.option("--school", type=_one_of(School), default=School.BALANCED.value, show_default=True)
@click.option("--weighing", type=_one_of(Weighing), default=Weighing.BALANCED.value, show_default=True)
@click.option("--ladder", "ladder_file", type=click.Path(path_type=Path), help="A ladder file.")
def grade(
    files: tuple[Path, ...],
    as_json: bool,
    tempo: float | None,
    hand_span: float,
    scale_length: float | None,
    school: School,
    weighing: Weighing,
    ladder_file: Path | None,
) -> None:
    """Grade songs and say where and why they are hard."""
    ladder = ladder_of(ladder_file) if ladder_file else default_ladder()
    practice = None if tempo is None else Fraction(tempo).limit_denominator(1000)
    request = GradeRequest(Player(hand_span), School(school), Weighing(weighing), practice)
    songs, failed = [], False
    for file in files:
        found = or_none(file, imported)
        failed |= found is None
        if found is None:
            continue
        song = with_scale_length(found.song, scale_length)
        found = replace(found, song=song)
        songs += [
            grade_report(str(file), found, part, grade_part(song, part, ladder, request))
            for part in song.parts
        ]
        if not as_json:
            tell(file, found)
    if as_json:
        player = {"span_mm": request.player.span_mm, "reach_mm": round(request.player.reach_mm, 2)}
        click.echo(json.dumps({"ladder": ladder.name, "player": player, "songs": songs}, indent=1))
    else:
        for row in songs:
            names = " / ".join(filter(None, (row["title"], row["part"])))
            click.echo(
                f"{row['step']:.2f}  {names}  ({row['tempo']:g}{', assumed' if row['tempo_assumed'] else ''})"
            )
    sys.exit(2 if failed else 0)


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="Every note with its finger as JSON.")
def fingering(file: Path, as_json: bool) -> None:
    """The finger of every note."""
    song = or_stop(file, song_of)
    report = fingering_report(song, default_ladder())
    if as_json:
        click.echo(json.dumps(report, indent=1))
        return
    for part in report["parts"]:
        for bar in part["bars"]:
            notes = [
                f"{note['string']}:{note['fret']}={note['finger']}"
                for event in bar["events"]
                for note in event["notes"]
            ]
            click.echo(f"bar {bar['number']}: {' '.join(notes)}")
        for told in part["pins_not_kept"]:
            click.echo(told, err=True)


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="Every place as JSON.")
def figures(file: Path, as_json: bool) -> None:
    """What comes back in a song: the same again, moved, but for a note, or by a rule."""
    song = or_stop(file, song_of)
    if as_json:
        click.echo(json.dumps(figures_report(song), indent=1))
        return
    for part in song.parts:
        if len(song.parts) > 1:
            click.echo(f"{part.name}:")
        for line in told_lines(part, coming_back(part, song.order)):
            click.echo(line)


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="Every stretch as JSON.")
def shapes(file: Path, as_json: bool) -> None:
    """What a player sees: grips held and carried, places of the hand, open strings."""
    song = or_stop(file, song_of)
    report = shapes_report(song, default_ladder())
    if as_json:
        click.echo(json.dumps(report, indent=1))
        return
    for row in _rows_told(song, report, "stretches"):
        told = " ".join(filter(None, (row["kind"], row["name"], row["grip"])))
        click.echo(f"{_ends(row)}: {told}")


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--order", "by", type=_one_of(Order), default=Order.TOP.value, show_default=True)
@click.option("--json", "as_json", is_flag=True, help="Every chunk as JSON.")
def chunks(file: Path, by: str, as_json: bool) -> None:
    """A song cut into what is learnt at a time, in an order of learning."""
    song = or_stop(file, song_of)
    report = chunks_report(song, default_ladder(), Order(by))
    if as_json:
        click.echo(json.dumps(report, indent=1))
        return
    for row in _rows_told(song, report, "chunks"):
        click.echo(f"{row['name']}: {_ends(row)}, Step {row['step']:.1f}")


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--language", type=_one_of(Language), default=Language.ENGLISH.value, show_default=True)
@click.option(
    "--names",
    type=_one_of(Names),
    default=Names.LETTERS.value,
    show_default=True,
    help="How chords are called.",
)
@click.option("--json", "as_json", is_flag=True, help="Every sentence as JSON.")
def words(file: Path, language: str, names: str, as_json: bool) -> None:
    """What a teacher says of a song, chunk by chunk."""
    song = or_stop(file, song_of)
    report = words_report(song, default_ladder(), Language(language), Names(names))
    if as_json:
        click.echo(json.dumps(report, indent=1, ensure_ascii=False))
        return
    for row in _rows_told(song, report, "chunks"):
        click.echo(f"{row['name']}: {' '.join(row['sentences'])}")


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "--step", "target", type=click.FloatRange(1, 10), required=True, help="The Step the version may have."
)
@click.option(
    "--approach",
    type=_one_of(Approach),
    default=Approach.SOUND.value,
    show_default=True,
    help="What to give up last.",
)
@click.option("--out", type=click.Path(path_type=Path), help="Write the version to this file.")
@click.option("--json", "as_json", is_flag=True, help="Edits, grades and what was kept as JSON.")
def simplify(file: Path, target: float, approach: str, out: Path | None, as_json: bool) -> None:
    """Write an easier version of the first part, and say what it gave up."""
    song = or_stop(file, song_of)
    part = song.parts[0]
    answers = ways(song, part, default_ladder(), Wish((target,), Approach(approach)))
    found, report = answers[0].easiest, ways_report(song, part, answers)
    if out:
        or_stop(
            out,
            lambda target_file: target_file.write_bytes(
                write_song(target_file.name, replace(song, parts=(found.version, *song.parts[1:])))
            ),
        )
    if as_json:
        click.echo(json.dumps(report, indent=1))
        return
    reached = "reached" if found.reached else "NOT reached"
    click.echo(
        f"Step {found.before.step:.2f} -> {found.after.step:.2f}, target {target:g} {reached}; kept"
        f" {found.kept.overall:.0f} %, {len(found.edits)} edits"
    )
    for row in report["blocking"]:
        click.echo(f"bar {row['bar']} stays at Step {row['step']:.2f} by {row['measure']}")
    for way in report["ways"]:
        click.echo(f"{way['name']}: Step {way['step']:.2f}, kept {way['kept']:.0f} %. {way['sentence']}")
    click.echo(report["tab"])


@click.command()
@click.argument("original", type=click.Path(path_type=Path))
@click.argument("version", type=click.Path(path_type=Path))
@click.option("--half-tones", default=0, show_default=True, help="The version sounds so much higher.")
@click.option("--json", "as_json", is_flag=True)
def compare(original: Path, version: Path, half_tones: int, as_json: bool) -> None:
    """Hold a version somebody wrote against its original: Steps, what is kept, laws broken."""
    song, other = or_stop(original, song_of), or_stop(version, song_of)
    report = or_stop(version, lambda _: compared_report(song, other, default_ladder(), half_tones))
    if as_json:
        click.echo(json.dumps(report, indent=1))
        return
    kept, steps = report["kept"], (report["before"]["step"], report["after"]["step"])
    click.echo(f"Step {steps[0]:.2f} -> {steps[1]:.2f}; kept {kept['overall']:.0f} %")
    click.echo(", ".join(f"{name} {kept[name]:.0f} %" for name in ("tune", "bass", "harmony", "rhythm")))
    for row in report["laws"]:
        click.echo(f"not so: {row['law']} (bar {', '.join(map(str, row['bars']))})")


@click.command()
@click.argument("source", type=click.Path(path_type=Path))
@click.argument("target", type=click.Path(path_type=Path))
def convert(source: Path, target: Path) -> None:
    """Convert by file ending: .tab .txt .json .musicxml .mxl .abc in, .tab .txt .json .musicxml .mid out."""
    song = or_stop(source, song_of)
    or_stop(target, lambda file: file.write_bytes(write_song(file.name, song)))


COMMANDS = (grade, fingering, shapes, figures, chunks, words, simplify, compare, convert)
