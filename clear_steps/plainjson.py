"""JSON <-> frozen values of ours: what a value does not know is refused by name, never dropped."""

import json
from typing import Any, Generic, TypeVar

from pydantic import TypeAdapter, ValidationError

from clear_steps.core.errors import InvalidValueError

T = TypeVar("T")
Json = Any  # what `json.loads` gives


class PlainJson(Generic[T]):
    """Writes and reads values of one type."""

    def __init__(self, kind: Any) -> None:
        self._adapter: TypeAdapter[T] = TypeAdapter(kind)

    def dump(self, value: T, indent: int | None = None) -> str:
        """The value as JSON; equal values give equal text."""
        return self._adapter.dump_json(value, indent=indent).decode()

    def load(self, content: str | bytes) -> T:
        """The value in the JSON; raises InvalidValueError that names the field."""
        try:
            value = self._adapter.validate_json(content)
        except ValidationError as cause:
            first = cause.errors()[0]
            where = ".".join(str(step) for step in first["loc"]) or "the file"
            raise InvalidValueError(where, _short(first["input"]), first["msg"]) from cause
        # A valid document is never deeper than its type, so it can be read and compared safely.
        self._refuse_unknown(json.loads(content), self._adapter.dump_python(value, mode="json"), "")
        return value

    def _refuse_unknown(self, written: Json, known: Json, path: str) -> None:
        if isinstance(written, dict) and isinstance(known, dict):
            for key, value in written.items():
                if key not in known:
                    raise InvalidValueError(f"{path}{key}", _short(value), "a field that Clear Steps knows")
                self._refuse_unknown(value, known[key], f"{path}{key}.")
        elif isinstance(written, list) and isinstance(known, list):
            for index, (mine, theirs) in enumerate(zip(written, known, strict=False)):
                self._refuse_unknown(mine, theirs, f"{path}{index}.")


def _short(value: object) -> object:
    """A value as it is told: long ones are cut."""
    text = str(value)
    return value if len(text) <= 60 else f"{text[:60]}..."
