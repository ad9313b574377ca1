"""Long searches in threads: started, asked after, stopped."""

import threading
from collections.abc import Callable
from dataclasses import dataclass
from itertools import count

from clear_steps.core.easier import Progress, StoppedError
from clear_steps.core.errors import ClearStepsError
from clear_steps.store import NotFoundError

MOST_KEPT = 100


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

    @property
    def is_wanted(self) -> bool:
        """Whether it runs and nobody stopped it."""
        return self.state == "running" and self.wanted

    def progress(self, share: float) -> bool:
        """Note how far it is; False tells the search to stop."""
        self.done = share
        return self.wanted


@dataclass(frozen=True, slots=True)
class Found:
    """What a search found that nobody has taken yet."""

    answer: object


class Jobs:
    """The searches of this process, the latest hundred."""

    def __init__(self) -> None:
        self._jobs: dict[int, Job] = {}
        self._ids = count(1)
        self._lock = threading.Lock()

    def start(self, asked: str, work: Callable[[Progress], "int | Found"]) -> Job:
        """Run work that reports its progress and gives the id of the version it stored, or what it found.

        What is asked for while it is searched for already is that same search.
        """
        with self._lock:
            running = next((job for job in self._jobs.values() if job.asked == asked and job.is_wanted), None)
            return running or self._started(asked, work)

    def _started(self, asked: str, work: Callable[[Progress], "int | Found"]) -> Job:
        job = Job(next(self._ids), asked)
        self._jobs[job.id] = job
        for old in sorted(self._jobs)[:-MOST_KEPT]:
            del self._jobs[old]
        threading.Thread(target=_run, args=(job, work), daemon=True).start()
        return job

    def get(self, job_id: int) -> Job:
        """A job; raises NotFoundError."""
        if job_id not in self._jobs:
            raise NotFoundError(f"there is no search {job_id}")
        return self._jobs[job_id]


def _run(job: Job, work: Callable[[Progress], "int | Found"]) -> None:
    try:
        result = work(job.progress)
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
        job.state, job.message = "failed", "something went wrong on our side; nothing was stored"
        raise
