"""Long work is done elsewhere: others are answered meanwhile, it has a time, and stops when nobody waits."""

import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from clear_steps.core.errors import InvalidValueError, Problem, ReadError
from clear_steps.store import Database
from clear_steps.web.app import create_app
from clear_steps.web.workers import Here, NotWantedError, Processes, TooLongError
from tests.web.test_api import TAB, add


def busy(seconds: float) -> str:
    stop = time.monotonic() + seconds
    while time.monotonic() < stop:
        pass
    return "done"


def refuse(kind: str) -> str:
    if kind == "read":
        raise ReadError((Problem(3, 4, "this is wrong"), Problem(5, 6, "that too")))
    raise InvalidValueError("tempo", "fast", "a number")


@pytest.fixture(scope="module")
def processes() -> Iterator[Processes]:
    started = Processes(2, most_seconds=3.0)
    assert started.run(busy, 0.0) == "done"
    yield started
    started.close()


def test_work_that_takes_too_long_is_ended_and_the_next_is_done(processes: Processes) -> None:
    began = time.monotonic()
    with pytest.raises(TooLongError, match="more than 3 seconds"):
        processes.run(busy, 60.0)
    assert time.monotonic() - began < 10
    assert processes.run(busy, 0.0) == "done"


def test_work_that_nobody_waits_for_is_stopped(processes: Processes) -> None:
    asked = iter([True, True, False])
    began = time.monotonic()
    with pytest.raises(NotWantedError):
        processes.run(busy, 60.0, wanted=lambda: next(asked))
    assert time.monotonic() - began < 2
    assert processes.run(busy, 0.0) == "done"


def test_what_is_wrong_comes_through_whole(processes: Processes) -> None:
    with pytest.raises(ReadError) as caught:
        processes.run(refuse, "read")
    assert [problem.line for problem in caught.value.problems] == [3, 5]
    with pytest.raises(InvalidValueError, match="tempo is 'fast'; expected a number"):
        processes.run(refuse, "value")


def test_other_requests_are_answered_while_one_takes_long(tmp_path: Path, processes: Processes) -> None:
    class Slow(Here):
        def run(self, work, *values, wanted=None):  # type: ignore[no-untyped-def]
            slow = "slow" in str(values[0])
            return processes.run(busy, 2.0) and work(*values) if slow else work(*values)

    app = create_app(Database(tmp_path), workers=Slow())
    add(app.test_client())
    slow = threading.Thread(
        target=lambda: app.test_client().post("/api/preview", json={"text": TAB.replace("Porch", "slow")})
    )
    slow.start()
    began = time.monotonic()
    assert app.test_client().get("/api/songs").status_code == 200
    assert time.monotonic() - began < 1.5
    assert slow.is_alive()
    slow.join()
