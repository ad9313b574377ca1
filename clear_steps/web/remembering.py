"""What a process keeps between two answers: one store for all of it, bounded by bytes."""

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from functools import wraps
from typing import Any, ParamSpec, TypeVar

P = ParamSpec("P")
T = TypeVar("T")
BytesOf = Callable[[tuple[Any, ...], Any], int]  # of the values asked with, and the answer
MOST_BYTES = 12 * 2**20
_store: OrderedDict[Hashable, tuple[object, int]] = OrderedDict()  # by what was asked: the answer, its bytes
_lock = threading.Lock()
_held_bytes = 0


def remembered(bytes_of: BytesOf) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """Keep the latest answers of a pure function of values; `bytes_of` says from the values and the answer
    about how much memory an answer takes."""

    def decorate(work: Callable[P, T]) -> Callable[P, T]:
        @wraps(work)
        def remembering(*values: P.args, **named: P.kwargs) -> T:
            key = (work, values, tuple(named.items()))
            with _lock:
                if key in _store:
                    _store.move_to_end(key)
                    return _store[key][0]  # type: ignore[return-value]  # what this function gave
            answer = work(*values, **named)
            _keep(key, answer, bytes_of(values, answer))
            return answer

        return remembering

    return decorate


def held_bytes() -> int:
    """How much is kept at the moment."""
    return _held_bytes


def _keep(key: Hashable, answer: object, size: int) -> None:
    global _held_bytes
    with _lock:
        if size > MOST_BYTES or key in _store:
            return
        _store[key] = (answer, size)
        _held_bytes += size
        while _held_bytes > MOST_BYTES:
            _, (_, freed) = _store.popitem(last=False)
            _held_bytes -= freed
