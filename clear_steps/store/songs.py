"""The songs' repository: every save is a revision, nothing is overwritten."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from clear_steps.store.clock import now
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.models import RevisionRow, SongRow


@dataclass(frozen=True, slots=True)
class StoredRevision:
    """One save of a song."""

    number: int
    title: str
    text: str
    saved_at: datetime


@dataclass(frozen=True, slots=True)
class StoredSong:
    """A song with its latest revision."""

    id: int
    latest: StoredRevision


class Songs:
    """Songs within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def add(self, title: str, text: str) -> StoredSong:
        """Store a new song as its revision 1."""
        row = SongRow(created_at=now())
        self._session.add(row)
        self._session.flush()
        return StoredSong(row.id, self._save(row.id, 1, title, text))

    def every(self) -> list[StoredSong]:
        """All songs by title."""
        ids = self._session.scalars(select(SongRow.id)).all()
        return sorted(
            (StoredSong(song, self._latest(song)) for song in ids),
            key=lambda song: (song.latest.title.lower(), song.id),
        )

    def get(self, song_id: int) -> StoredSong:
        """One song; raises NotFoundError."""
        return StoredSong(song_id, self._latest(song_id))

    def revisions(self, song_id: int) -> list[StoredRevision]:
        """Every revision, oldest first; raises NotFoundError."""
        rows = self._session.scalars(
            select(RevisionRow).where(RevisionRow.song_id == song_id).order_by(RevisionRow.number)
        ).all()
        if not rows:
            raise NotFoundError(f"there is no song {song_id}")
        return [_revision(row) for row in rows]

    def revision(self, song_id: int, number: int) -> StoredRevision:
        """One revision; raises NotFoundError."""
        row = self._session.scalars(
            select(RevisionRow).where(RevisionRow.song_id == song_id, RevisionRow.number == number)
        ).first()
        if row is None:
            raise NotFoundError(f"song {song_id} has no revision {number}")
        return _revision(row)

    def save(self, song_id: int, based_on: int, title: str, text: str) -> StoredRevision:
        """Add a revision; raises StaleRevisionError if a newer one than `based_on` exists."""
        latest = self._latest(song_id).number
        if latest != based_on:
            raise StaleRevisionError(based_on, latest)
        try:
            return self._save(song_id, latest + 1, title, text)
        except IntegrityError as cause:  # somebody saved between the look and the write
            raise StaleRevisionError(based_on, latest + 1) from cause

    def _latest(self, song_id: int) -> StoredRevision:
        row = self._session.scalars(
            select(RevisionRow)
            .where(RevisionRow.song_id == song_id)
            .order_by(RevisionRow.number.desc())
            .limit(1)
        ).first()
        if row is None:
            raise NotFoundError(f"there is no song {song_id}")
        return _revision(row)

    def _save(self, song_id: int, number: int, title: str, text: str) -> StoredRevision:
        row = RevisionRow(song_id=song_id, number=number, title=title[:200], text=text, saved_at=now())
        self._session.add(row)
        self._session.flush()
        return _revision(row)


def _revision(row: RevisionRow) -> StoredRevision:
    return StoredRevision(row.number, row.title, row.text, row.saved_at)
