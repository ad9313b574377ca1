"""The teacher's own Steps, beside the computed ones."""

from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.store.clock import now
from clear_steps.store.errors import StaleRevisionError
from clear_steps.store.models import OwnStepRow


@dataclass(frozen=True, slots=True)
class OwnStep:
    """A Step of the teacher's own at its latest change of mind; none where it was taken back."""

    number: int
    step: float | None


class OwnSteps:
    """Own Steps within one unit of work; a change of mind adds a row."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def set(self, song_id: int, part_index: int, step: float | None, based_on: int) -> None:
        """Give a part a Step, or take it back; raises InvalidValueError, or StaleRevisionError.

        `based_on` is the number of the Step that it replaces, 0 where there is none yet.
        """
        if step is not None and not 1 <= step <= 10:
            raise InvalidValueError("own Step", step, "1 to 10")
        newest = select(func.max(OwnStepRow.number)).where(
            OwnStepRow.song_id == song_id, OwnStepRow.part_index == part_index
        )
        latest = self._session.scalar(newest) or 0
        if latest != based_on:
            raise StaleRevisionError(based_on, latest, "own Step")
        row = OwnStepRow(song_id=song_id, part_index=part_index, number=latest + 1, step=step, saved_at=now())
        self._session.add(row)
        self._session.flush()

    def of_song(self, song_id: int) -> dict[int, OwnStep]:
        """Part index -> the latest, also where it was taken back."""
        rows = self._session.scalars(
            select(OwnStepRow).where(OwnStepRow.song_id == song_id).order_by(OwnStepRow.number)
        )
        return {row.part_index: OwnStep(row.number, row.step) for row in rows}

    def every(self) -> dict[tuple[int, int], float]:
        """(song, part index) -> Step, where one is given."""
        latest: dict[tuple[int, int], float | None] = {}
        for row in self._session.scalars(select(OwnStepRow).order_by(OwnStepRow.number)).all():
            latest[row.song_id, row.part_index] = row.step
        return {key: step for key, step in latest.items() if step is not None}
