"""What can go wrong when something stored is asked for or replaced."""

from clear_steps.core.errors import ClearStepsError


class NotFoundError(ClearStepsError):
    """Nothing is stored under that number."""

    code = "not_found"


class StaleRevisionError(ClearStepsError):
    """Somebody saved a newer revision since; nothing was overwritten."""

    code = "stale_revision"

    def __init__(self, based_on: int, latest: int) -> None:
        self.latest = latest
        super().__init__(
            f"your text is based on revision {based_on}, but revision {latest} has been saved since; nothing"
            " was overwritten"
        )
