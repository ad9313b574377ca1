"""Work that would hold the interpreter for long is done in processes of its own, each piece within a time."""

import threading
from collections.abc import Callable
from multiprocessing import get_context
from typing import Protocol, TypeVar

from pebble import ProcessExpired, ProcessPool

from clear_steps.core.errors import ClearStepsError

T = TypeVar("T")
MOST_SECONDS = 30.0
_ASKED_AGAIN_S = 0.05  # how often it is asked whether the answer is still wanted


class TooLongError(ClearStepsError):
    """A piece of work took longer than it may."""

    code = "too_long"


class NotWantedError(ClearStepsError):
    """Nobody waits for the answer any more."""

    code = "not_wanted"


def always() -> bool:
    """The answer is wanted, however long it takes."""
    return True


class Workers(Protocol):
    """Does pieces of work: module-level functions of values that can be sent to another process."""

    def run(self, work: Callable[..., T], *values: object, wanted: Callable[[], bool] = always) -> T:
        """The result; raises what the work raises, TooLongError, or NotWantedError once it is not wanted."""

    def close(self) -> None:
        """Let go of the processes."""


class Here:
    """Does the work at once, in the process that asks."""

    def run(self, work: Callable[..., T], *values: object, wanted: Callable[[], bool] = always) -> T:
        """The result."""
        return work(*values)

    def close(self) -> None:
        """There is nothing to let go of."""


class Processes:
    """A few processes that are started when first needed; one that takes too long is ended."""

    def __init__(self, count: int = 2, most_seconds: float = MOST_SECONDS) -> None:
        self._count, self._most_seconds = count, most_seconds
        self._pool: ProcessPool | None = None
        self._lock = threading.Lock()

    def run(self, work: Callable[..., T], *values: object, wanted: Callable[[], bool] = always) -> T:
        """The result, once a process is free and has it."""
        future = self._started().schedule(work, args=values, timeout=self._most_seconds)
        while True:
            try:
                result: T = future.result(timeout=_ASKED_AGAIN_S)
                return result
            except TimeoutError as cause:
                if future.done():
                    seconds = f"{self._most_seconds:g} seconds"
                    message = f"this takes more than {seconds} to work out; try it in smaller pieces"
                    raise TooLongError(message) from cause
                if not wanted():
                    future.cancel()  # type: ignore[no-untyped-call]  # the package has no types here
                    raise NotWantedError("nobody waits for the answer any more") from cause
            except ProcessExpired as cause:
                message = "working this out used up the memory there is; try it in smaller pieces"
                raise TooLongError(message) from cause

    def start(self) -> None:
        """Begin to start the processes, without waiting for them."""
        self._started().schedule(always)

    def close(self) -> None:
        """End the processes."""
        if self._pool is not None:
            self._pool.stop()  # type: ignore[no-untyped-call]  # as above
            self._pool.join()

    def _started(self) -> ProcessPool:
        with self._lock:
            if self._pool is None:
                # Not forked: a server's threads would leave locks behind in the copies.
                self._pool = ProcessPool(self._count, context=get_context("spawn"))
            return self._pool
