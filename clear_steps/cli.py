"""The command line: libraries served, backed up and restored; files graded, told, simplified, converted."""

import gc
import json
import socket
import sys
from collections.abc import Callable
from contextlib import AbstractContextManager
from dataclasses import replace
from enum import StrEnum
from fractions import Fraction
from pathlib import Path
from typing import NoReturn, TypeVar

import click

from clear_steps.core.easier import Approach, Wish, ways
from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.words import told_lines
from clear_steps.core.grade import GradeRequest, Ladder, Weighing, grade_part
from clear_steps.core.hand import Player, School
from clear_steps.core.score import Song
from clear_steps.core.teach.chunks import Order
from clear_steps.core.teach.words import Language, Names
from clear_steps.formats import Imported, import_song, write_song
from clear_steps.ladders import default_ladder, read_ladder
from clear_steps.libraries import demo_directory, demo_library, own_directory, own_library
from clear_steps.report import (
    chunks_report,
    compared_report,
    figures_report,
    fingering_report,
    grade_report,
    ways_report,
    with_scale_length,
    words_report,
)
from clear_steps.store import Database, StoreError
from clear_steps.store.backups import contents_of, restore_directory, write_backup
from clear_steps.store.database import FILE_NAME
from clear_steps.web.serving import serve_application

T = TypeVar("T")
DEFAULT_PORT = 8420
# A search makes many small values that live on: looking for cycles among them as often as usual took a tenth
# of its time.
_GC_THRESHOLDS = (50_000, 20, 20)
_LOOPBACK = ("127.0.0.1", "localhost", "::1")


@click.group()
@click.version_option(package_name="clear-steps")
def main() -> None:
    """Grade guitar parts, show where and why they are hard, and keep what you write."""
    gc.freeze()
    gc.set_threshold(*_GC_THRESHOLDS)


def _one_of(values: type[StrEnum]) -> click.Choice[str]:
    """By their values: click itself takes the names of an enumeration."""
    return click.Choice([value.value for value in values])


_PORT = click.option("--port", type=click.IntRange(1, 65535), default=DEFAULT_PORT, show_default=True)


_DATA = click.option("--data", type=click.Path(path_type=Path), help="Directory of the database.")


@main.command()
@click.option("--host", default="127.0.0.1", show_default=True, help="Only this machine's own addresses.")
@_PORT
@_DATA
def serve(host: str, port: int, data: Path | None) -> None:
    """Serve your own library on this machine."""
    if host not in _LOOPBACK:
        _stop(
            f"--host {host}: other machines could reach it without a password; expected"
            f" {', '.join(_LOOPBACK)}"
        )
    listening = _listen(host, port)
    _serve(lambda: own_library(data or own_directory(), _address(listening)), listening)


@main.command()
@_PORT
@_DATA
@click.option("--fresh", is_flag=True, help="Begin over; what stands there is kept as a copy.")
def demo(port: int, data: Path | None, fresh: bool) -> None:
    """Serve demo songs from a directory of their own; what is typed there stays."""
    listening = _listen("127.0.0.1", port)
    _serve(lambda: demo_library(data or demo_directory(port), _address(listening), fresh), listening)


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@_DATA
def backup(file: Path, data: Path | None) -> None:
    """Write everything into one file, also while the server runs."""
    directory = data or own_directory()
    if not (directory / FILE_NAME).exists():
        _stop(f"{directory} holds no library; expected the directory that `clear-steps serve` names")
    if file.exists():
        _stop(f"{file} is there already; choose another name, so that no backup is lost")
    try:
        database = Database(directory)
        write_backup(database, file)
        found = contents_of(file)
        database.close()
    except ClearStepsError as error:
        _stop(str(error))
    click.echo(f"{file}: {found.songs} songs, {found.versions} versions, {found.students} students")


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@_DATA
def restore(file: Path, data: Path | None) -> None:
    """Put a backup in the place of everything; what stands there is kept as a copy."""
    if not file.is_file():
        _stop(f"{file} is no file; expected one that `clear-steps backup` wrote")
    try:
        kept = restore_directory(data or own_directory(), file)
    except ClearStepsError as error:
        _stop(str(error))
    click.echo(f"{file} is restored; what stood there is in {kept}" if kept else f"{file} is restored")


def _address(listening: socket.socket) -> str:
    host, port = listening.getsockname()[:2]
    return f"http://{f'[{host}]' if ':' in host else host}:{port}"


def _listen(host: str, port: int) -> socket.socket:
    """The port, taken before any file is touched."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    listening = socket.socket(family, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((host, port))
        listening.listen(128)
    except OSError as error:
        _stop(f"port {port} cannot be used ({error.strerror}); choose another with --port")
    return listening


def _serve(opened: Callable[[], AbstractContextManager[Database]], listening: socket.socket) -> None:
    """Open a library and serve it until Ctrl+C; says first what takes a moment."""
    click.echo("Opening the library ...")
    try:
        with opened() as database:
            click.echo(f"Clear Steps is at {_address(listening)} (stop with Ctrl+C); data in {database.path}")
            serve_application(database, listening)
    except StoreError as error:
        _stop(str(error))


@main.command()
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
    ladder = _ladder(ladder_file) if ladder_file else default_ladder()
    practice = None if tempo is None else Fraction(tempo).limit_denominator(1000)
    request = GradeRequest(Player(hand_span), School(school), Weighing(weighing), practice)
    songs, failed = [], False
    for file in files:
        found = _or_none(file, _import)
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
            _tell(file, found)
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


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="Every note with its finger as JSON.")
def fingering(file: Path, as_json: bool) -> None:
    """The finger of every note."""
    song = _or_stop(file, _read)
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


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="Every place as JSON.")
def figures(file: Path, as_json: bool) -> None:
    """What comes back in a song: the same again, moved, but for a note, or by a rule."""
    song = _or_stop(file, _read)
    if as_json:
        click.echo(json.dumps(figures_report(song), indent=1))
        return
    for part in song.parts:
        if len(song.parts) > 1:
            click.echo(f"{part.name}:")
        for line in told_lines(part, coming_back(part, song.order)):
            click.echo(line)


@main.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--order", "by", type=_one_of(Order), default=Order.TOP.value, show_default=True)
@click.option("--json", "as_json", is_flag=True, help="Every chunk as JSON.")
def chunks(file: Path, by: str, as_json: bool) -> None:
    """A song cut into what is learnt at a time, in an order of learning."""
    song = _or_stop(file, _read)
    report = chunks_report(song, default_ladder(), Order(by))
    if as_json:
        click.echo(json.dumps(report, indent=1))
        return
    for part, found in zip(song.parts, report["parts"], strict=True):
        if len(song.parts) > 1:
            click.echo(f"{part.name}:")
        for row in found["chunks"]:
            ends = [f"bar {row[end]['bar']} at {row[end]['onset']}" for end in ("from", "to")]
            click.echo(f"{row['name']}: {' to '.join(ends)}, Step {row['step']:.1f}")


@main.command()
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
    song = _or_stop(file, _read)
    report = words_report(song, default_ladder(), Language(language), Names(names))
    if as_json:
        click.echo(json.dumps(report, indent=1, ensure_ascii=False))
        return
    for part, found in zip(song.parts, report["parts"], strict=True):
        if len(song.parts) > 1:
            click.echo(f"{part.name}:")
        for row in found["chunks"]:
            click.echo(f"{row['name']}: {' '.join(row['sentences'])}")


@main.command()
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
    song = _or_stop(file, _read)
    part = song.parts[0]
    answers = ways(song, part, default_ladder(), Wish((target,), Approach(approach)))
    found, report = answers[0].easiest, ways_report(song, part, answers)
    if out:
        _or_stop(
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


@main.command()
@click.argument("original", type=click.Path(path_type=Path))
@click.argument("version", type=click.Path(path_type=Path))
@click.option("--half-tones", default=0, show_default=True, help="The version sounds so much higher.")
@click.option("--json", "as_json", is_flag=True)
def compare(original: Path, version: Path, half_tones: int, as_json: bool) -> None:
    """Hold a version somebody wrote against its original: Steps, what is kept, laws broken."""
    song, other = _or_stop(original, _read), _or_stop(version, _read)
    report = _or_stop(version, lambda _: compared_report(song, other, default_ladder(), half_tones))
    if as_json:
        click.echo(json.dumps(report, indent=1))
        return
    kept, steps = report["kept"], (report["before"]["step"], report["after"]["step"])
    click.echo(f"Step {steps[0]:.2f} -> {steps[1]:.2f}; kept {kept['overall']:.0f} %")
    click.echo(", ".join(f"{name} {kept[name]:.0f} %" for name in ("tune", "bass", "harmony", "rhythm")))
    for row in report["laws"]:
        click.echo(f"not so: {row['law']} (bar {', '.join(map(str, row['bars']))})")


@main.command()
@click.argument("source", type=click.Path(path_type=Path))
@click.argument("target", type=click.Path(path_type=Path))
def convert(source: Path, target: Path) -> None:
    """Convert by file ending: .tab .txt .json .musicxml .mxl .abc in, .tab .txt .json .musicxml .mid out."""
    song = _or_stop(source, _read)
    _or_stop(target, lambda file: file.write_bytes(write_song(file.name, song)))


def _ladder(file: Path) -> Ladder:
    """The ladder in a file; rows that the shipped one lent are told on standard error."""
    reading = _or_stop(file, lambda file: read_ladder(file.read_bytes()))
    if reading.filled:
        click.echo(f"{file}: taken from the ladder that ships: {', '.join(reading.filled)}", err=True)
    return reading.ladder


def _import(file: Path) -> Imported:
    return import_song(file.name, file.read_bytes())


def _read(file: Path) -> Song:
    """The song of a file; what was guessed is told on standard error."""
    found = _import(file)
    _tell(file, found)
    return found.song


def _tell(file: Path, found: Imported) -> None:
    for guess in found.guesses:
        click.echo(f"{file}:{guess.line}: guessed: {guess.message}", err=True)
    for what in found.not_placed:
        click.echo(f"{file}: left out: {what}", err=True)


def _or_none(file: Path, work: Callable[[Path], T]) -> T | None:
    """The work's result; a file that cannot be used is told in one line on standard error."""
    try:
        return work(file)
    except ReadError as error:
        problem = error.problems[0]
    except ClearStepsError as error:
        problem = Problem(1, 1, str(error))
    except OSError as error:
        problem = Problem(1, 1, f"{error.strerror}; expected a file that can be used")
    click.echo(f"{file}:{problem}", err=True)
    return None


def _or_stop(file: Path, work: Callable[[Path], T]) -> T:
    result = _or_none(file, work)
    if result is None:
        sys.exit(2)
    return result


def _stop(message: str) -> NoReturn:
    click.echo(message, err=True)
    sys.exit(2)
