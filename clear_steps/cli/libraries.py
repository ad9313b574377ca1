"""Commands of whole libraries: served, backed up, restored."""

import socket
from collections.abc import Callable
from contextlib import AbstractContextManager
from pathlib import Path

import click

from clear_steps.cli.told import stop
from clear_steps.core.errors import ClearStepsError
from clear_steps.libraries import demo_directory, demo_library, own_directory, own_library
from clear_steps.store import Database, StoreError
from clear_steps.store.backups import contents_of, restore_directory, write_backup
from clear_steps.store.database import FILE_NAME
from clear_steps.web.serving import serve_application

DEFAULT_PORT = 8420
_LOOPBACK = ("127.0.0.1", "localhost", "::1")
_PORT = click.option("--port", type=click.IntRange(1, 65535), default=DEFAULT_PORT, show_default=True)


_DATA = click.option("--data", type=click.Path(path_type=Path), help="Directory of the database.")


@click.command()
@click.option("--host", default="127.0.0.1", show_default=True, help="Only this machine's own addresses.")
@_PORT
@_DATA
def serve(host: str, port: int, data: Path | None) -> None:
    """Serve your own library on this machine."""
    if host not in _LOOPBACK:
        stop(
            f"--host {host}: other machines could reach it without a password; expected"
            f" {', '.join(_LOOPBACK)}"
        )
    listening = _listen(host, port)
    _serve(lambda: own_library(data or own_directory(), _address(listening)), listening)


@click.command()
@_PORT
@_DATA
@click.option("--fresh", is_flag=True, help="Begin over; what stands there is kept as a copy.")
def demo(port: int, data: Path | None, fresh: bool) -> None:
    """Serve demo songs from a directory of their own; what is typed there stays."""
    listening = _listen("127.0.0.1", port)
    _serve(lambda: demo_library(data or demo_directory(port), _address(listening), fresh), listening)


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@_DATA
def backup(file: Path, data: Path | None) -> None:
    """Write everything into one file, also while the server runs."""
    directory = data or own_directory()
    if not (directory / FILE_NAME).exists():
        stop(f"{directory} holds no library; expected the directory that `clear-steps serve` names")
    if file.exists():
        stop(f"{file} is there already; choose another name, so that no backup is lost")
    try:
        database = Database(directory)
        write_backup(database, file)
        found = contents_of(file)
        database.close()
    except ClearStepsError as error:
        stop(str(error))
    click.echo(f"{file}: {found.songs} songs, {found.versions} versions, {found.students} students")


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@_DATA
def restore(file: Path, data: Path | None) -> None:
    """Put a backup in the place of everything; what stands there is kept as a copy."""
    if not file.is_file():
        stop(f"{file} is no file; expected one that `clear-steps backup` wrote")
    try:
        kept = restore_directory(data or own_directory(), file)
    except ClearStepsError as error:
        stop(str(error))
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
        stop(f"port {port} cannot be used ({error.strerror}); choose another with --port")
    return listening


def _serve(opened: Callable[[], AbstractContextManager[Database]], listening: socket.socket) -> None:
    """Open a library and serve it until Ctrl+C; says first what takes a moment."""
    click.echo("Opening the library ...")
    try:
        with opened() as database:
            click.echo(f"Clear Steps is at {_address(listening)} (stop with Ctrl+C); data in {database.path}")
            serve_application(database, listening)
    except StoreError as error:
        stop(str(error))


COMMANDS = (serve, demo, backup, restore)
