"""The players' repository."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.hand import Habits, LittleFinger, Player
from clear_steps.store.errors import NotFoundError
from clear_steps.store.models import PlayerRow


@dataclass(frozen=True, slots=True)
class StoredPlayer:
    """A named hand."""

    id: int
    name: str
    player: Player


class Players:
    """Players within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def every(self) -> list[StoredPlayer]:
        """All players by name."""
        rows = self._session.scalars(select(PlayerRow).order_by(PlayerRow.name)).all()
        return [_stored(row) for row in rows]

    def add(self, name: str, player: Player) -> StoredPlayer:
        """Store a new player; raises InvalidValueError for a taken or empty name."""
        row = PlayerRow(name=self._free_name(name, None), span_mm=player.span_mm)
        _write(row, player)
        self._session.add(row)
        self._session.flush()
        return _stored(row)

    def change(self, player_id: int, name: str, player: Player) -> StoredPlayer:
        """Replace a player's name, span and habits; raises NotFoundError or InvalidValueError."""
        row = self._session.get(PlayerRow, player_id)
        if row is None:
            raise NotFoundError(f"there is no player {player_id}")
        row.name = self._free_name(name, player_id)
        _write(row, player)
        return _stored(row)

    def _free_name(self, name: str, own_id: int | None) -> str:
        wanted = " ".join(name.split())
        taken = self._session.scalars(select(PlayerRow.id).where(PlayerRow.name == wanted)).first()
        if not wanted or len(wanted) > 80 or taken not in (None, own_id):
            raise InvalidValueError("player's name", name, "1 to 80 letters that no other player has")
        return wanted


def _write(row: PlayerRow, player: Player) -> None:
    row.span_mm, row.little_finger, row.thumb_over = player.span_mm, str(player.habits.little_finger), player.habits.thumb_over


def _stored(row: PlayerRow) -> StoredPlayer:
    return StoredPlayer(row.id, row.name, Player(row.span_mm, Habits(LittleFinger(row.little_finger), row.thumb_over)))
