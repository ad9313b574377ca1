"""JSON <-> frozen values of ours: what a value does not know is refused by name, never dropped."""

import json
import re
from typing import Any, Generic, TypeVar

from pydantic import TypeAdapter, ValidationError

from clear_steps.core.errors import ClearStepsError

T = TypeVar("T")
Json = Any  # what `json.loads` gives
MOST_DIGITS = 40
# A fraction of a number with a large exponent would be computed digit by digit.
_LONG_NUMBER = re.compile(rb'"\s*[+-]?[\d._/]*[eE][+-]?\d{4}|[\s:,\["][+-]?\d{41}')


class UnreadableJsonError(ClearStepsError):
    """JSON that is no value of the wanted type; the text names the field."""

    code = "unreadable"


class PlainJson(Generic[T]):
    """Writes and reads values of one type."""

    def __init__(self, kind: Any) -> None:
        self._adapter: TypeAdapter[T] = TypeAdapter(kind)

    def dump(self, value: T, indent: int | None = None) -> str:
        """The value as JSON; equal values give equal text."""
        return self._adapter.dump_json(value, indent=indent).decode()

    def load(self, content: str | bytes) -> T:
        """The value in the JSON; raises UnreadableJsonError that names the field."""
        if _LONG_NUMBER.search(content.encode() if isinstance(content, str) else content):
            raise UnreadableJsonError(f"a number in it is too long; expected at most {MOST_DIGITS} digits")
        try:
            value = self._adapter.validate_json(content)
        except ValidationError as cause:
            first = cause.errors(include_url=False)[0]
            where = ".".join(str(step) for step in first["loc"]) or "the file"
            raise UnreadableJsonError(f"{where}: {first['msg']}") from cause
        # A valid document is never deeper than its type, so it can be read and compared safely.
        _refuse_unknown(json.loads(content), self._adapter.dump_python(value, mode="json"), "")
        return value


def _refuse_unknown(written: Json, known: Json, path: str) -> None:
    if isinstance(written, dict) and isinstance(known, dict):
        for key, value in written.items():
            if key not in known:
                raise UnreadableJsonError(f"{path}{key[:40]}: Clear Steps knows no such field")
            _refuse_unknown(value, known[key], f"{path}{key}.")
    elif isinstance(written, list) and isinstance(known, list):
        for index, (mine, theirs) in enumerate(zip(written, known, strict=False)):
            _refuse_unknown(mine, theirs, f"{path}{index}.")
