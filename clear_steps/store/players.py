"""The players' repository."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.hand import Player
from clear_steps.store.errors import NotFoundError
from clear_steps.store.models import PlayerRow


@dataclass(frozen=True, slots=True)
class StoredPlayer:
    """A named hand."""

    id: int
    name: str
    span_mm: float


class Players:
    """Players within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def every(self) -> list[StoredPlayer]:
        """All players by name."""
        rows = self._session.scalars(select(PlayerRow).order_by(PlayerRow.name)).all()
        return [StoredPlayer(row.id, row.name, row.span_mm) for row in rows]

    def add(self, name: str, span_mm: float) -> StoredPlayer:
        """Store a new player; raises InvalidValueError for a taken or empty name or an impossible span."""
        row = PlayerRow(name=self._free_name(name, None), span_mm=Player(span_mm).span_mm)
        self._session.add(row)
        self._session.flush()
        return StoredPlayer(row.id, row.name, row.span_mm)

    def change(self, player_id: int, name: str, span_mm: float) -> StoredPlayer:
        """Replace a player's name and span; raises NotFoundError or InvalidValueError."""
        row = self._session.get(PlayerRow, player_id)
        if row is None:
            raise NotFoundError(f"there is no player {player_id}")
        row.name, row.span_mm = self._free_name(name, player_id), Player(span_mm).span_mm
        return StoredPlayer(row.id, row.name, row.span_mm)

    def _free_name(self, name: str, own_id: int | None) -> str:
        wanted = " ".join(name.split())
        taken = self._session.scalars(select(PlayerRow.id).where(PlayerRow.name == wanted)).first()
        if not wanted or len(wanted) > 80 or taken not in (None, own_id):
            raise InvalidValueError("player's name", name, "1 to 80 letters that no other player has")
        return wanted
