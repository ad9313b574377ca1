"""Each class of error to a status and the one shape of body."""

from apiflask import APIFlask, HTTPError
from apiflask.types import ResponseReturnValueType
from flask import current_app
from werkzeug.exceptions import HTTPException

from clear_steps.core.errors import ClearStepsError, ReadError
from clear_steps.store import (
    BusyError,
    FileGoneError,
    NameTakenError,
    NoBackupError,
    NoRoomError,
    NotFoundError,
    SavedAtOnceError,
    StaleRevisionError,
    StoreError,
)
from clear_steps.web.schemas import ErrorModel, problem_model
from clear_steps.web.workers import NotWantedError, NotYetError, TooMuchError

# The first that fits counts.
_STATUS: tuple[tuple[type[ClearStepsError], int], ...] = (
    (StaleRevisionError, 409),
    (NameTakenError, 409),
    (SavedAtOnceError, 409),
    (NotFoundError, 404),
    (NoRoomError, 507),
    (NoBackupError, 422),
    (FileGoneError, 503),
    (BusyError, 503),
    (StoreError, 503),
    (NotWantedError, 499),
    (NotYetError, 503),
    (TooMuchError, 503),
    (ClearStepsError, 422),
)


def handle_errors(app: APIFlask) -> None:
    """Answer every error with ErrorModel; what nobody foresaw is logged and told without its trace."""
    app.error_processor(_from_apiflask)

    @app.errorhandler(ClearStepsError)
    def _ours(error: ClearStepsError) -> tuple[dict[str, object], int]:
        status = next(status for kind, status in _STATUS if isinstance(error, kind))
        problems = (
            [problem_model(problem) for problem in error.problems] if isinstance(error, ReadError) else []
        )
        message = problems[0].message if problems else str(error)
        body = ErrorModel(
            code=error.code, message=message, place=problems[0].place if problems else None, problems=problems
        )
        return body.model_dump(), status

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> tuple[dict[str, object], int]:
        code = (error.name or "error").lower().replace(" ", "_")
        return ErrorModel(
            code=code, message=error.description or "the request could not be answered"
        ).model_dump(), error.code or 500

    @app.errorhandler(Exception)
    def _unforeseen(error: Exception) -> tuple[dict[str, object], int]:
        current_app.logger.exception("unforeseen error", exc_info=error)
        message = "something went wrong on our side; nothing was stored"
        return ErrorModel(code="internal", message=message).model_dump(), 500


def _from_apiflask(error: HTTPError) -> ResponseReturnValueType:
    """What APIFlask found wrong with a request, in words that name the field."""
    fields = _flat(error.detail) if isinstance(error.detail, dict) else []
    message = "; ".join(fields) or str(error.message)
    return (
        ErrorModel(code="invalid" if fields else "error", message=message).model_dump(),
        error.status_code,
        error.headers,
    )


def _flat(detail: object, path: str = "") -> list[str]:
    if isinstance(detail, dict):
        return [
            text
            for key, value in detail.items()
            for text in _flat(value, path if key in ("json", "query") else f"{path}.{key}".strip("."))
        ]
    if isinstance(detail, list):
        return [text for value in detail for text in _flat(value, path)]
    return [f"{path}: {detail}" if path else str(detail)]
