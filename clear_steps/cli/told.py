"""Files read for a command; whatever is wrong with one is told in one line on standard error."""

import sys
from collections.abc import Callable
from pathlib import Path
from typing import NoReturn, TypeVar

import click

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Song
from clear_steps.formats import Imported, import_song
from clear_steps.ladders import read_ladder

T = TypeVar("T")


def ladder_of(file: Path) -> Ladder:
    """The ladder in a file; rows that the shipped one lent are told on standard error."""
    reading = or_stop(file, lambda file: read_ladder(file.read_bytes()))
    if reading.filled:
        click.echo(f"{file}: taken from the ladder that ships: {', '.join(reading.filled)}", err=True)
    return reading.ladder


def imported(file: Path) -> Imported:
    """What a file holds, by its ending; raises ReadError or OSError."""
    return import_song(file.name, file.read_bytes())


def song_of(file: Path) -> Song:
    """The song of a file; what was guessed is told on standard error."""
    found = imported(file)
    tell(file, found)
    return found.song


def tell(file: Path, found: Imported) -> None:
    """Say what was guessed and what was left out."""
    for guess in found.guesses:
        click.echo(f"{file}:{guess.line}: guessed: {guess.message}", err=True)
    for what in found.not_placed:
        click.echo(f"{file}: left out: {what}", err=True)


def or_none(file: Path, work: Callable[[Path], T]) -> T | None:
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


def or_stop(file: Path, work: Callable[[Path], T]) -> T:
    """The same, and the command ends where there is none."""
    result = or_none(file, work)
    if result is None:
        sys.exit(2)
    return result


def stop(message: str) -> NoReturn:
    """End the command with a message."""
    click.echo(message, err=True)
    sys.exit(2)
