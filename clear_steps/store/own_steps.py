"""The teacher's own Steps, beside the computed ones."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.store.clock import now
from clear_steps.store.models import OwnStepRow


class OwnSteps:
    """Own Steps within one unit of work; a change of mind adds a row."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def set(self, song_id: int, part_index: int, step: float | None) -> None:
        """Give a part a Step, or take it back; raises InvalidValueError."""
        if step is not None and not 1 <= step <= 10:
            raise InvalidValueError("own Step", step, "1 to 10")
        self._session.add(OwnStepRow(song_id=song_id, part_index=part_index, step=step, saved_at=now()))
        self._session.flush()

    def every(self) -> dict[tuple[int, int], float]:
        """(song, part index) -> Step, where one is given."""
        latest: dict[tuple[int, int], float | None] = {}
        for row in self._session.scalars(select(OwnStepRow).order_by(OwnStepRow.id)).all():
            latest[row.song_id, row.part_index] = row.step
        return {key: step for key, step in latest.items() if step is not None}
