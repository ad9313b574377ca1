"""The one place that asks what time it is."""

from datetime import UTC, datetime


def now() -> datetime:
    """Now in UTC, without a zone as SQLite keeps it."""
    return datetime.now(UTC).replace(tzinfo=None)
