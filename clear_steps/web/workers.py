"""Work that would hold the interpreter for long is done in processes of its own, each piece within a time.

Two lanes: what a page waits for, in two processes, and searches, one at a time in a third. What is asked
for while it is worked out already is that same piece of work.
"""

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from concurrent.futures.process import BrokenProcessPool
from dataclasses import dataclass
from multiprocessing import get_context
from typing import Any, Concatenate, ParamSpec, Protocol, TypeVar

from pebble import ProcessExpired, ProcessFuture, ProcessPool

from clear_steps.core.easier import Progress
from clear_steps.core.errors import ClearStepsError

T = TypeVar("T")
P = ParamSpec("P")
MOST_SECONDS = 30.0
SEARCH_SECONDS = 1800.0
TASKS_A_PROCESS = 1_000  # then it makes room for a fresh one, so that memory stays level
MOST_WAITING = 64  # pieces of work that pages wait for
MOST_KEPT = 8  # answers that came while nobody waited
_MOST_GIVEN_UP = 200  # remembered, so that what took too long is not tried at every visit
_ASKED_AGAIN_S = 0.05  # how often it is asked whether the answer is still wanted


class TooLongError(ClearStepsError):
    """A piece of work took longer than it may."""

    code = "too_long"


class NotYetError(ClearStepsError):
    """A piece of work is not done yet; it goes on, and can be asked for again."""

    code = "not_yet"


class TooMuchError(ClearStepsError):
    """So much is waiting that no more is taken."""

    code = "too_much"


class NotWantedError(ClearStepsError):
    """Nobody waits for the answer any more."""

    code = "not_wanted"


def always() -> bool:
    """The answer is wanted, however long it takes."""
    return True


class Workers(Protocol):
    """Does pieces of work: module-level functions of values that can be sent to another process."""

    def run(
        self,
        work: Callable[..., T],
        *values: object,
        wanted: Callable[[], bool] = always,
        patience_s: float | None = None,
    ) -> T:
        """The result; raises what the work raises, TooLongError, TooMuchError, NotWantedError once it is not
        wanted, or NotYetError where it is not done within the patience."""

    def search(self, work: Callable[..., T], *values: object, progress: Progress) -> T:
        """The result of a search, which is given its progress before the values; one runs at a time."""

    def close(self) -> None:
        """Let go of the processes."""


class Here:
    """Does the work at once, in the process that asks."""

    def run(
        self,
        work: Callable[..., T],
        *values: object,
        wanted: Callable[[], bool] = always,
        patience_s: float | None = None,
    ) -> T:
        """The result."""
        return work(*values)

    def search(self, work: Callable[..., T], *values: object, progress: Progress) -> T:
        """The result."""
        return work(progress, *values)

    def close(self) -> None:
        """There is nothing to let go of."""


@dataclass
class _Piece:
    """A piece of work that is under way or was not asked after since it was done, and how many wait."""

    future: ProcessFuture[Any]
    waiting: int = 0


class Processes:
    """A few processes that are started when first needed; one that takes too long is ended."""

    def __init__(self, count: int = 2, most_seconds: float = MOST_SECONDS) -> None:
        self._count, self._most_seconds = count, most_seconds
        self._context = get_context("spawn")  # a fork of a server with threads would keep their locks
        self._pool: ProcessPool | None = None
        self._searching: ProcessPool | None = None
        self._shared = self._context.Array("d", 2, lock=False)
        self._pieces: dict[Hashable, _Piece] = {}
        self._given_up: OrderedDict[Hashable, str] = OrderedDict()
        self._lock = threading.Lock()

    def run(
        self,
        work: Callable[..., T],
        *values: object,
        wanted: Callable[[], bool] = always,
        patience_s: float | None = None,
    ) -> T:
        """The result, once a process is free and has it."""
        key = _key(work, values)
        piece = self._joined(key, work, values)
        try:
            result: T = self._awaited(key, piece, wanted, patience_s)
            return result
        finally:
            with self._lock:
                piece.waiting -= 1
                if piece.future.done() and self._pieces.get(key) is piece:
                    del self._pieces[key]

    def _joined(self, key: Hashable, work: Callable[..., T], values: tuple[object, ...]) -> _Piece:
        with self._lock:
            if key in self._given_up:
                raise TooLongError(self._given_up[key])
            piece = self._pieces.get(key)
            if piece is None:
                self._make_room()
                future = self._quick().schedule(work, args=values, timeout=self._most_seconds)
                piece = self._pieces[key] = _Piece(future)
            piece.waiting += 1
            return piece

    def _make_room(self) -> None:
        """Of what came out while nobody waited the latest few are kept for who asks again."""
        done = [key for key, each in self._pieces.items() if each.future.done()]
        for key in done[:-MOST_KEPT]:
            del self._pieces[key]
        if len(self._pieces) - len(done[-MOST_KEPT:]) >= MOST_WAITING:
            raise TooMuchError("too much is being worked out at the moment; try again in a moment")

    def _awaited(
        self, key: Hashable, piece: _Piece, wanted: Callable[[], bool], patience_s: float | None
    ) -> Any:
        waited = 0.0
        while True:
            try:
                return piece.future.result(timeout=_ASKED_AGAIN_S)
            except TimeoutError as cause:
                if piece.future.done():
                    raise self._give_up(key, f"takes more than {self._most_seconds:g} seconds") from cause
                waited += _ASKED_AGAIN_S
                if patience_s is not None and waited >= patience_s:
                    raise NotYetError("this is still being worked out") from cause
                if not wanted():
                    self._leave(key, piece)
                    raise NotWantedError("nobody waits for the answer any more") from cause
            except ProcessExpired as cause:
                raise self._give_up(key, "takes more memory than there is") from cause
            except BrokenProcessPool as cause:
                with self._lock:
                    self._pool = None  # another one is started for what comes next
                raise TooMuchError("the work was broken off; try again") from cause

    def _leave(self, key: Hashable, piece: _Piece) -> None:
        """Stop the work if this was the last who waited for it."""
        with self._lock:
            if piece.waiting == 1:
                self._pieces.pop(key, None)
                piece.future.cancel()  # type: ignore[no-untyped-call]  # the package has no types here

    def _give_up(self, key: Hashable, why: str) -> TooLongError:
        message = f"this {why} to work out; try it in smaller pieces"
        with self._lock:
            self._given_up[key] = message
            while len(self._given_up) > _MOST_GIVEN_UP:
                self._given_up.popitem(last=False)
        return TooLongError(message)

    def search(self, work: Callable[..., T], *values: object, progress: Progress) -> T:
        """The result of a search in the process that is there for them; whoever asks asks one by one."""
        self._shared[:] = [0.0, 1.0]
        if self._searching is None:
            self._searching = ProcessPool(
                1, initializer=_share, initargs=(self._shared,), context=self._context
            )
        future = self._searching.schedule(_searched, args=(work, *values), timeout=SEARCH_SECONDS)
        while True:
            try:
                result: T = future.result(timeout=_ASKED_AGAIN_S)
                return result
            except TimeoutError as cause:
                if future.done():
                    raise TooLongError("this search takes too long; ask for it section by section") from cause
                self._shared[1] = float(progress(self._shared[0]))
            except ProcessExpired as cause:
                raise TooLongError("this search takes more memory than there is") from cause

    def start(self) -> None:
        """Begin to start the processes, without waiting for them."""
        with self._lock:
            self._quick().schedule(always)

    def close(self) -> None:
        """End the processes."""
        for pool in (self._pool, self._searching):
            if pool is not None:
                pool.stop()  # type: ignore[no-untyped-call]  # as above
                pool.join()

    def _quick(self) -> ProcessPool:
        if self._pool is None:
            self._pool = ProcessPool(self._count, max_tasks=TASKS_A_PROCESS, context=self._context)
        return self._pool


def _key(work: Callable[..., object], values: tuple[object, ...]) -> Hashable:
    """By what a piece of work is known again; what cannot be compared is a piece of its own."""
    try:
        hash(values)
    except TypeError:
        return object()
    return (work, values)


_shared: Any = None  # in a process that searches: the share done, and whether to go on


def _share(shared: Any) -> None:
    global _shared
    _shared = shared


def _progress(share: float) -> bool:
    _shared[0] = share
    return bool(_shared[1])


def _searched(work: Callable[Concatenate[Progress, P], T], *values: P.args, **named: P.kwargs) -> T:
    return work(_progress, *values, **named)
