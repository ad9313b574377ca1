"""Long searches, one after another: asked for, followed, stopped."""

import logging
import secrets
import threading
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Generic, TypeVar

from clear_steps.core.easier import Progress, StoppedError
from clear_steps.core.errors import ClearStepsError
from clear_steps.store import NotFoundError
from clear_steps.web.workers import TooMuchError

T = TypeVar("T")
MOST_KEPT = 50
MOST_WAITING = 8  # searches; one runs besides
FORGOTTEN_S = 150.0  # a search that no page has asked after for so long is stopped


@dataclass
class Job:
    """One search; `version_id` is set when it has finished."""

    id: int
    asked: str  # a digest of all that was asked for
    state: str = "running"
    done: float = 0.0
    version_id: int | None = None
    message: str = ""
    wanted: bool = True
    answer: object = None  # ways found, until one is taken
    asked_after: float = field(default_factory=time.monotonic)

    @property
    def is_wanted(self) -> bool:
        """Whether it waits or runs, nobody stopped it, and somebody asks after it."""
        return self.state == "running" and self.wanted and time.monotonic() - self.asked_after < FORGOTTEN_S

    def progress(self, share: float) -> bool:
        """Note how far it is; False tells the search to stop."""
        self.done, self.message = share, ""
        return self.is_wanted


@dataclass(frozen=True, slots=True)
class Found:
    """What a search found that nobody has taken yet."""

    answer: object


@dataclass(frozen=True)
class Search(Generic[T]):
    """Finds something under a progress, and stores it: as the id of a version, or until it is taken."""

    find: Callable[[Progress], T]
    store: Callable[[T], int | Found]


class Jobs:
    """The searches of this server, the latest fifty; they run one after another."""

    def __init__(self) -> None:
        self._jobs: dict[int, Job] = {}
        self._waiting: deque[tuple[Job, Search[object]]] = deque()
        self._lock = threading.Lock()
        self._thread: threading.Thread | None = None

    def start(self, asked: str, search: Search[T]) -> Job:
        """Let a search wait for its turn; what is asked for while it waits or runs is that same search.

        Raises TooMuchError where too many wait.
        """
        with self._lock:
            known = next((job for job in self._jobs.values() if job.asked == asked and job.is_wanted), None)
            if known:
                known.asked_after = time.monotonic()
                return known
            if sum(job.is_wanted for job in self._jobs.values()) > MOST_WAITING:
                raise TooMuchError(
                    f"{MOST_WAITING} searches wait already; stop one, or try again in a moment"
                )
            # Not counted up: a page that outlives a restart must not find another's search under its number.
            job = Job(secrets.randbits(48), asked)
            self._keep(job)
            self._waiting.append((job, search))  # type: ignore[arg-type]  # what it finds is its own affair
            self._wake(job)
            return job

    def _keep(self, job: Job) -> None:
        self._jobs[job.id] = job
        ended = [each for each in self._jobs.values() if not each.is_wanted]
        for old in ended[: max(len(self._jobs) - MOST_KEPT, 0)]:
            del self._jobs[old.id]

    def _wake(self, job: Job) -> None:
        if self._thread is not None:
            job.message = "Waits for the search before it."
            return
        self._thread = threading.Thread(target=self._run_all, daemon=True)
        self._thread.start()

    def get(self, job_id: int) -> Job:
        """A job, which is asked after by this; raises NotFoundError."""
        job = self._jobs.get(job_id)
        if job is None:
            raise NotFoundError("there is no such search any more; ask for it again")
        job.asked_after = time.monotonic()
        return job

    def stop_all(self) -> None:
        """Stop what waits and what runs: the songs that were asked about are replaced."""
        with self._lock:
            for job in self._jobs.values():
                job.wanted = False

    def _run_all(self) -> None:
        while True:
            with self._lock:
                if not self._waiting:
                    self._thread = None
                    return
                job, search = self._waiting.popleft()
            _run(job, search)


def _run(job: Job, search: Search[object]) -> None:
    try:
        if not job.progress(0.0):
            raise StoppedError
        found = search.find(job.progress)
        if not job.is_wanted:
            raise StoppedError
        result = search.store(found)
        if isinstance(result, Found):
            job.answer = result.answer
        else:
            job.version_id = result
        job.done, job.state = 1.0, "finished"
    except StoppedError:
        job.state = "stopped"
    except ClearStepsError as error:
        job.state, job.message = "failed", str(error)
    except Exception:
        logging.getLogger(__name__).exception("a search failed")
        job.state, job.message = "failed", "something went wrong on our side; nothing was stored"
