"""Long work is done elsewhere: others are answered meanwhile, it has a time, and stops when nobody waits."""

import threading
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from clear_steps.core.easier import Progress, StoppedError
from clear_steps.core.errors import InvalidValueError, Problem, ReadError
from clear_steps.store import Database, Group, Groups, OwnSteps, Seat
from clear_steps.web.app import create_app
from clear_steps.web.remembering import MOST_BYTES, held_bytes, remembered
from clear_steps.web.versions.jobs import MOST_WAITING as MOST_SEARCHES
from clear_steps.web.versions.jobs import Jobs, Search
from clear_steps.web.workers import (
    MOST_WAITING,
    Here,
    NotWantedError,
    NotYetError,
    Processes,
    TooLongError,
    TooMuchError,
)
from tests.patience import comes_true, patience_s
from tests.web.test_api import TAB, add

MOST_S = 3.0  # that a piece of work may take here
ENDLESS_S = 3600.0  # ended by the workers, or never


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
    started = Processes(2, most_seconds=MOST_S)
    assert started.run(busy, 0.0) == "done"
    yield started
    started.close()


def test_work_that_takes_too_long_is_ended_and_the_next_is_done(processes: Processes) -> None:
    with pytest.raises(TooLongError, match="more than 3 seconds"):
        processes.run(busy, ENDLESS_S)
    assert processes.run(busy, 0.0) == "done"


def test_work_that_nobody_waits_for_is_stopped(processes: Processes) -> None:
    asked = iter([True, True, False])
    with pytest.raises(NotWantedError):
        processes.run(busy, ENDLESS_S + 1, wanted=lambda: next(asked))
    assert processes.run(busy, 0.0) == "done"


def test_what_is_wrong_comes_through_whole(processes: Processes) -> None:
    with pytest.raises(ReadError) as caught:
        processes.run(refuse, "read")
    assert [problem.line for problem in caught.value.problems] == [3, 5]
    with pytest.raises(InvalidValueError, match="tempo is 'fast'; expected a number"):
        processes.run(refuse, "value")


def test_other_requests_are_answered_while_one_takes_long(tmp_path: Path) -> None:
    class Slow(Here):
        def run(self, work, *values, **how):  # type: ignore[no-untyped-def]
            if "slow" in str(values[0]):
                gate.wait(patience_s(60))
            return work(*values)

    gate = threading.Event()

    app = create_app(Database(tmp_path), workers=Slow())
    add(app.test_client())
    slow = threading.Thread(
        target=lambda: app.test_client().post("/api/preview", json={"text": TAB.replace("Porch", "slow")})
    )
    slow.start()
    assert app.test_client().get("/api/songs").status_code == 200
    assert slow.is_alive()  # answered before that one was
    gate.set()
    slow.join()


def marked_and_busy(directory: Path) -> None:
    (directory / str(time.monotonic_ns())).touch()
    busy(ENDLESS_S)


def test_what_took_too_long_once_is_not_tried_again(processes: Processes, tmp_path: Path) -> None:
    with pytest.raises(TooLongError):
        processes.run(marked_and_busy, tmp_path)
    with pytest.raises(TooLongError):
        processes.run(marked_and_busy, tmp_path)
    assert len(list(tmp_path.iterdir())) == 1


def count(directory: Path, seconds: float) -> int:
    (directory / str(time.monotonic_ns())).touch()
    busy(seconds)
    return len(list(directory.iterdir()))


def test_who_is_not_patient_is_told_and_the_work_goes_on(processes: Processes, tmp_path: Path) -> None:
    with pytest.raises(NotYetError):
        processes.run(count, tmp_path, 1.5, patience_s=0.0)
    assert processes.run(count, tmp_path, 1.5) == 1  # the same piece of work, begun before


def test_what_comes_out_while_nobody_waits_is_kept_for_who_asks_again(
    processes: Processes, tmp_path: Path
) -> None:
    with pytest.raises(NotYetError):
        processes.run(count, tmp_path, 0.1, patience_s=0.0)
    assert comes_true(lambda: list(tmp_path.iterdir()))
    processes.run(busy, 1.0)  # long enough for the other to be done
    assert processes.run(count, tmp_path, 0.1) == 1


def test_what_takes_too_long_while_nobody_waits_is_told_to_who_asks_again(
    processes: Processes, tmp_path: Path
) -> None:
    """A page asks, is told to wait, and asks again later: it must not begin the work anew each time."""

    def asked() -> str:
        try:
            processes.run(marked_and_busy, tmp_path, patience_s=0.0)
        except (NotYetError, TooLongError) as error:
            return error.code
        return "done"

    def asked_now_and_then() -> bool:
        time.sleep(MOST_S * 1.5)  # it is given up in between
        return asked() == "too_long"

    assert asked() == "not_yet"
    assert comes_true(asked_now_and_then)
    assert len(list(tmp_path.iterdir())) == 1


def test_what_is_asked_for_by_many_at_once_is_worked_out_once(processes: Processes, tmp_path: Path) -> None:
    with ThreadPoolExecutor(20) as pool:
        found = list(pool.map(lambda _: processes.run(count, tmp_path, 1.0), range(20)))
    assert found == [1] * 20


def test_no_more_is_taken_than_can_wait() -> None:
    started = Processes(1)
    try:
        for number in range(MOST_WAITING):
            with pytest.raises(NotYetError):
                started.run(busy, 5.0 + number, patience_s=0.0)
        with pytest.raises(TooMuchError, match="try again in a moment"):
            started.run(busy, 4.0)
    finally:
        started.close()


def search(progress: Progress, steps: int) -> int:
    for step in range(steps):
        if not progress(step / steps):
            raise StoppedError
        time.sleep(0.02)
    return steps


def test_a_search_tells_how_far_it_is_and_can_be_stopped(processes: Processes) -> None:
    told: list[float] = []

    def follow(share: float) -> bool:
        told.append(share)
        return share < 0.5

    assert processes.search(search, 40, progress=lambda share: told.append(share) is None) == 40
    assert max(told) > 0.5
    with pytest.raises(StoppedError):
        processes.search(search, 400, progress=follow)


def waiting_search(gate: threading.Event) -> Search[int]:
    return Search(lambda progress: gate.wait(10) and 7, lambda found: found)


def test_searches_wait_for_one_another_and_the_same_is_asked_for_once() -> None:
    jobs, gate = Jobs(), threading.Event()
    first = jobs.start("a", waiting_search(gate))
    assert jobs.start("a", waiting_search(gate)) is first
    waiting = [jobs.start(f"b{number}", waiting_search(gate)) for number in range(MOST_SEARCHES)]
    assert waiting[0].message.startswith("Waits for")
    with pytest.raises(TooMuchError, match="searches wait already"):
        jobs.start("one too many", waiting_search(gate))
    waiting[1].wanted = False
    jobs.start("room again", waiting_search(gate))
    gate.set()
    assert comes_true(lambda: all(job.state != "running" for job in waiting))
    assert [job.state for job in waiting] == ["finished", "stopped"] + ["finished"] * (MOST_SEARCHES - 2)


def test_a_search_is_not_found_under_the_number_of_another_after_a_restart() -> None:
    gate = threading.Event()
    gate.set()
    assert Jobs().start("a", waiting_search(gate)).id != Jobs().start("a", waiting_search(gate)).id


def test_what_a_process_keeps_is_bounded_by_bytes() -> None:
    asked = []

    @remembered(lambda values, _: MOST_BYTES // 4)
    def squared(number: int) -> int:
        asked.append(number)
        return number * number

    for number in (1, 2, 1, 3, 4, 5, 1, 2):
        assert squared(number) == number * number
        assert held_bytes() <= MOST_BYTES
    assert asked == [1, 2, 3, 4, 5, 2]


class Slow(Here):
    """Everything is done at once but what has to do with a slow song."""

    def run(self, work, *values, **how):  # type: ignore[no-untyped-def]
        if "A slow one" in str(values):
            raise NotYetError("not yet") if how.get("patience_s") else TooLongError("takes too long")
        return work(*values)


@pytest.fixture
def beside_a_slow_song(tmp_path: Path) -> FlaskClient:
    client = create_app(Database(tmp_path), workers=Slow()).test_client()
    add(client)
    stored = client.post("/api/songs", json={"text": TAB.replace("Porch", "A slow one")})
    assert (stored.status_code, stored.json["waiting"], stored.json["analysis"]) == (201, True, None)
    return client


def test_one_song_that_takes_too_long_is_nobody_elses_affair(beside_a_slow_song: FlaskClient) -> None:
    client = beside_a_slow_song
    assert client.get("/api/songs/2").json["title"] == "A slow one"
    assert client.get("/api/songs/1").json["analysis"]["title"] == "Porch"

    def cards() -> dict[str, dict[str, object]]:
        return {card["title"]: card for card in client.get("/api/songs").json["songs"]}

    assert comes_true(lambda: cards()["A slow one"]["problem"])
    assert cards()["A slow one"]["problem"] == "takes too long"
    assert cards()["Porch"]["grade"]


def test_a_students_songs_are_listed_with_the_one_that_takes_too_long(
    beside_a_slow_song: FlaskClient,
) -> None:
    client = beside_a_slow_song
    student = client.post("/api/students", json={"name": "Ilka", "span_mm": 100}).json["id"]
    with client.application.extensions["clear_steps_database"].session() as session:
        for song in (1, 2):
            Groups(session).add(song, Group("Thursday", (Seat("Ilka", 0, None, student),)))
    slow, porch = client.get(f"/api/students/{student}/songs").json["songs"]
    assert (slow["title"], slow["step"], slow["problem"]) == ("A slow one", None, "takes too long")
    assert porch["step"] > 1
    assert not porch["problem"]


def test_ladders_are_tried_and_compared_without_the_song_that_takes_too_long(
    beside_a_slow_song: FlaskClient,
) -> None:
    client = beside_a_slow_song
    ladder = client.get("/api/ladder").json["ladder"]
    tried = client.post("/api/ladder/preview", json={"ladder": ladder}).json
    assert ([song["title"] for song in tried["songs"]], tried["left_out"]) == (["Porch"], 1)
    with client.application.extensions["clear_steps_database"].session() as session:
        for song in (1, 2):
            OwnSteps(session).set(song, 0, 5.0, 0)
    found = client.get("/api/differences").json
    assert [row["title"] for row in found["differences"]] == ["Porch"]
    assert (found["waiting"], found["not_graded"]) == (0, ["A slow one: takes too long"])
