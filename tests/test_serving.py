"""Starting the program: the demo touches nothing that is not its own, and what goes wrong is a sentence."""

import json
import signal
import socket
import sqlite3
import subprocess
import sys
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from urllib.request import Request, urlopen

import pytest
from click.testing import CliRunner, Result
from sqlalchemy import event

from clear_steps.cli import main
from clear_steps.store import BusyError, Database, NoRoomError, Songs
from clear_steps.store.backups import contents_of
from clear_steps.store.copies import CopyKind, kept_copies
from clear_steps.store.database import FILE_NAME
from clear_steps.store.marked import open_marked
from tests.patience import comes_true, patience_s

RUN = """e|-0-1-3-5-|
B|---------|
G|---------|
D|---------|
A|---------|
E|---------|
"""


def run(*arguments: object) -> Result:
    return CliRunner().invoke(main, [str(argument) for argument in arguments])


@pytest.fixture
def port() -> int:
    return free_port()


def free_port() -> int:
    with closing(socket.socket()) as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


@contextmanager
def started(*arguments: object) -> Iterator[subprocess.Popen[str]]:
    command = [sys.executable, "-u", "-c", "from clear_steps.cli import main; main()", *map(str, arguments)]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True)
    try:
        yield process
    finally:
        process.send_signal(signal.SIGINT)
        process.wait(patience_s(20))


def post(port: int, path: str, body: dict[str, object]) -> None:
    content = json.dumps(body).encode()
    urlopen(Request(f"http://127.0.0.1:{port}{path}", content, {"Content-Type": "application/json"})).close()


def answers(port: int) -> str:
    told: list[str] = []

    def look() -> bool:
        try:
            with urlopen(f"http://127.0.0.1:{port}/api/songs") as answer:
                told.append(str(answer.read().decode()))
        except OSError:
            return False
        return True

    assert comes_true(look, 20), "the server did not start"
    return told[-1]


def files_in(directory: Path) -> dict[str, bytes]:
    return {
        str(file.relative_to(directory)): file.read_bytes() for file in directory.rglob("*") if file.is_file()
    }


def test_the_demo_leaves_other_files_alone_and_keeps_what_is_typed(tmp_path: Path, port: int) -> None:
    (tmp_path / "notes.txt").write_text("years of work")
    with started("demo", "--port", port, "--data", tmp_path) as process:
        assert "Rolling pins" in answers(port)
        post(port, "/api/songs", {"text": f"Title: Porch\n\n{RUN}"})
        process.kill()
    with started("demo", "--port", port, "--data", tmp_path):
        told = answers(port)
        assert (told.count('"title":') >= 7, "Porch" in told) == (True, True)
    with started("demo", "--fresh", "--port", port, "--data", tmp_path):
        assert "Porch" not in answers(port)
    assert (tmp_path / "notes.txt").read_text() == "years of work"
    (kept,) = (copy for copy in kept_copies(tmp_path / FILE_NAME) if copy.kind is CopyKind.REPLACED)
    assert contents_of(tmp_path / kept.name).songs == 7


def test_a_start_says_at_once_what_it_does(tmp_path: Path, port: int) -> None:
    with started("demo", "--port", port, "--data", tmp_path) as process:
        assert process.stdout is not None
        assert "Opening the library" in process.stdout.readline()
        assert f"http://127.0.0.1:{port}" in process.stdout.readline()
        answers(port)


def test_a_second_server_of_the_same_data_is_told_where_the_first_is(tmp_path: Path, port: int) -> None:
    with started("demo", "--port", port, "--data", tmp_path):
        answers(port)
        before = (tmp_path / FILE_NAME).stat().st_ino
        for command in (("demo",), ("demo", "--fresh"), ("serve",)):
            result = run(*command, "--port", free_port(), "--data", tmp_path)
            assert (result.exit_code, result.stderr.count("\n")) == (2, 1)
            assert f"in use by Clear Steps at http://127.0.0.1:{port}" in result.stderr
        assert (tmp_path / FILE_NAME).stat().st_ino == before


def test_a_backup_is_had_while_the_server_runs_and_restored_elsewhere(tmp_path: Path, port: int) -> None:
    data, file = tmp_path / "data", tmp_path / "all.sqlite3"
    with started("demo", "--port", port, "--data", data):
        answers(port)
        told = run("backup", file, "--data", data)
        assert (told.exit_code, "6 songs, 6 versions, 3 students" in told.stdout) == (0, True)
        assert "in use by" in run("restore", file, "--data", data).stderr
    assert "is there already" in run("backup", file, "--data", data).stderr
    assert "holds no library" in run("backup", tmp_path / "b", "--data", tmp_path / "no").stderr
    assert run("restore", file, "--data", tmp_path / "new").exit_code == 0
    with started("serve", "--port", port, "--data", tmp_path / "new"):
        assert "Rolling pins" in answers(port)


def test_a_database_that_is_no_demos_is_never_touched(tmp_path: Path, port: int) -> None:
    database = Database(tmp_path)
    with database.session() as session:
        Songs(session).add("Porch", "one")
    database.close()
    (tmp_path / "notes.txt").write_text("years of work")
    before = files_in(tmp_path)
    result = run("demo", "--port", port, "--data", tmp_path)
    assert (result.exit_code, result.stderr.count("\n")) == (2, 1)
    assert "is no demo's, and is left alone" in result.stderr
    assert files_in(tmp_path) == before


@pytest.mark.parametrize("content", [b"", b"not a database at all"])
def test_a_file_of_that_name_that_is_no_database_is_never_touched(
    tmp_path: Path, port: int, content: bytes
) -> None:
    (tmp_path / FILE_NAME).write_bytes(content)
    result = run("demo", "--port", port, "--data", tmp_path)
    assert (result.exit_code, files_in(tmp_path)) == (2, {FILE_NAME: content})


def test_a_second_demo_on_a_taken_port_touches_nothing(tmp_path: Path, port: int) -> None:
    open_marked(tmp_path).close()
    before = files_in(tmp_path)
    with closing(socket.socket()) as taken:
        taken.bind(("127.0.0.1", port))
        taken.listen()
        result = run("demo", "--port", port, "--data", tmp_path)
    assert (result.exit_code, "choose another with --port" in result.stderr) == (2, True)
    assert files_in(tmp_path) == before


def test_an_ordinary_database_has_no_mark(tmp_path: Path) -> None:
    Database(tmp_path).close()
    with closing(sqlite3.connect(tmp_path / FILE_NAME)) as connection:
        assert connection.execute("PRAGMA application_id").fetchone() == (0,)


def newer(directory: Path) -> Path:
    Database(directory).close()
    with closing(sqlite3.connect(directory / FILE_NAME)) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
        connection.commit()
    return directory


def corrupt(directory: Path) -> Path:
    (directory / FILE_NAME).write_bytes(b"no database, but long enough to be looked into" * 100)
    return directory


def truncated(directory: Path) -> Path:
    database = Database(directory)
    with database.session() as session:
        for number in range(50):
            Songs(session).add("Porch", f"text {number}" * 500)
    database.close()
    with closing(sqlite3.connect(directory / FILE_NAME)) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    path = directory / FILE_NAME
    path.write_bytes(path.read_bytes()[: path.stat().st_size // 2])
    return directory


def a_file(directory: Path) -> Path:
    (directory / "data").write_text("a file")
    return directory / "data"


@pytest.mark.parametrize(
    ("make", "words"),
    [
        (newer, "was written by a newer Clear Steps"),
        (corrupt, "is damaged"),
        (truncated, "is damaged"),
        (a_file, "is a file; expected a directory"),
    ],
    ids=lambda value: getattr(value, "__name__", ""),
)
def test_a_start_that_fails_is_one_sentence(tmp_path: Path, port: int, make, words: str) -> None:  # type: ignore[no-untyped-def]
    result = run("serve", "--port", port, "--data", make(tmp_path))
    assert (result.exit_code, result.stderr.count("\n")) == (2, 1), result.stderr
    assert words in result.stderr


def test_a_directory_that_cannot_be_made_is_one_sentence(port: int) -> None:
    result = run("serve", "--port", port, "--data", "/proc/clear-steps")
    assert (result.exit_code, result.stderr.count("\n")) == (2, 1)
    assert "/proc/clear-steps cannot be made" in result.stderr


def test_a_file_that_cannot_be_written_says_so_and_stores_nothing(tmp_path: Path) -> None:
    database = Database(tmp_path)
    event.listen(
        database._engine, "connect", lambda connection, _: connection.execute("PRAGMA query_only=ON")
    )
    database.close()  # what is opened from now on may only read, as on a read-only disk
    words = "cannot be written, it is read-only; nothing was stored"
    with pytest.raises(NoRoomError, match=words), database.session() as session:
        Songs(session).add("Porch", "one")


def test_a_file_that_another_program_holds_says_so(tmp_path: Path) -> None:
    database = Database(tmp_path)
    event.listen(
        database._engine, "connect", lambda connection, _: connection.execute("PRAGMA busy_timeout=50")
    )
    database.close()
    with closing(sqlite3.connect(database.path, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        with pytest.raises(BusyError, match="another program is writing"), database.session() as session:
            Songs(session).add("Porch", "one")


@pytest.mark.parametrize("port_number", [0, 65536, -1, "x"])
def test_a_port_out_of_range_is_told(port_number: object) -> None:
    result = run("serve", f"--port={port_number}")
    assert (result.exit_code, "--port" in result.stderr) == (2, True)


def test_another_host_is_refused_without_a_password() -> None:
    result = run("serve", "--host", "0.0.0.0")
    assert (result.exit_code, "without a password" in result.stderr) == (2, True)


def test_answers_are_compressed_and_files_of_the_page_are_kept_by_the_browser(
    tmp_path: Path, port: int
) -> None:
    with started("demo", "--port", port, "--data", tmp_path):
        answers(port)
        page = urlopen(f"http://127.0.0.1:{port}/").read().decode()
        script = page.split('src="')[1].split('"')[0]
        with urlopen(
            Request(f"http://127.0.0.1:{port}{script}", headers={"Accept-Encoding": "gzip"})
        ) as answer:
            assert "max-age=31536000" in answer.headers["Cache-Control"]
            assert answer.headers["Content-Encoding"] == "gzip"
        with urlopen(
            Request(f"http://127.0.0.1:{port}/api/songs", headers={"Accept-Encoding": "gzip"})
        ) as answer:
            assert answer.headers["Content-Encoding"] == "gzip"
