"""The songs' repository: every save is a revision, nothing is overwritten."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from clear_steps.store.clock import now
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.models import RevisionRow, SongRow

DEMO_DRAFT = "demo: "  # begins the draft's name of a song that the program put in


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
    put_away: bool = False
    is_demo: bool = False  # put in by the program


class Songs:
    """Songs within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def add(self, title: str, text: str, draft: str | None = None) -> StoredSong:
        """Store a new song as its revision 1.

        A draft is one song: saved once more it is the song that is there, with a further revision where the
        text has changed since.
        """
        if (there := self.of_draft(draft)) is not None:
            if there.latest.text != text:
                self._save(there.id, there.latest.number + 1, title, text)
            return self.get(there.id)
        row = SongRow(put_away=False, draft=draft, created_at=now())
        self._session.add(row)
        self._session.flush()
        return StoredSong(row.id, self._save(row.id, 1, title, text), is_demo=_is_demo(draft))

    def of_draft(self, draft: str | None) -> StoredSong | None:
        """The song that a draft became, if it did."""
        row = self._session.scalars(select(SongRow).where(SongRow.draft == draft)).first() if draft else None
        return self.get(row.id) if row else None

    def every(self) -> list[StoredSong]:
        """All songs by title, those put away too."""
        newest = select(RevisionRow.song_id, func.max(RevisionRow.number).label("number"))
        latest = newest.group_by(RevisionRow.song_id).subquery()
        rows = self._session.execute(
            select(SongRow.id, SongRow.put_away, SongRow.draft, *_REVISION)
            .join(RevisionRow, RevisionRow.song_id == SongRow.id)
            .join(latest, (latest.c.song_id == RevisionRow.song_id) & (latest.c.number == RevisionRow.number))
        )
        songs = [StoredSong(row[0], StoredRevision(*row[3:]), row[1], _is_demo(row[2])) for row in rows]
        return sorted(songs, key=lambda song: (song.latest.title.lower(), song.id))

    def get(self, song_id: int) -> StoredSong:
        """One song; raises NotFoundError."""
        row = self._row(song_id)
        return StoredSong(song_id, self._latest(song_id), row.put_away, _is_demo(row.draft))

    def put_away(self, song_id: int, away: bool) -> StoredSong:
        """Take a song out of sight, or bring it back; all of it stays stored either way."""
        self._row(song_id).put_away = away
        self._session.flush()
        return self.get(song_id)

    def revisions(self, song_id: int) -> list[StoredRevision]:
        """Every revision, oldest first; raises NotFoundError."""
        self._row(song_id)
        statement = select(RevisionRow).where(RevisionRow.song_id == song_id).order_by(RevisionRow.number)
        return [_revision(row) for row in self._session.scalars(statement)]

    def revision(self, song_id: int, number: int) -> StoredRevision:
        """One revision; raises NotFoundError."""
        statement = select(RevisionRow).where(RevisionRow.song_id == song_id, RevisionRow.number == number)
        row = self._session.scalars(statement).first()
        if row is None:
            raise NotFoundError(f"song {song_id} has no revision {number}")
        return _revision(row)

    def save(self, song_id: int, based_on: int, title: str, text: str) -> StoredRevision:
        """Add a revision; raises StaleRevisionError if a newer one than `based_on` exists."""
        latest = self._latest(song_id).number
        if latest != based_on:
            raise StaleRevisionError(based_on, latest)
        return self._save(song_id, latest + 1, title, text)

    def _row(self, song_id: int) -> SongRow:
        row = self._session.get(SongRow, song_id)
        if row is None:
            raise NotFoundError(f"there is no song {song_id}")
        return row

    def _latest(self, song_id: int) -> StoredRevision:
        newest = RevisionRow.number.desc()
        statement = select(RevisionRow).where(RevisionRow.song_id == song_id).order_by(newest).limit(1)
        row = self._session.scalars(statement).first()
        if row is None:
            raise NotFoundError(f"there is no song {song_id}")
        return _revision(row)

    def _save(self, song_id: int, number: int, title: str, text: str) -> StoredRevision:
        row = RevisionRow(song_id=song_id, number=number, title=title[:200], text=text, saved_at=now())
        self._session.add(row)
        self._session.flush()
        return _revision(row)


def _is_demo(draft: str | None) -> bool:
    return draft is not None and draft.startswith(DEMO_DRAFT)


_REVISION = (RevisionRow.number, RevisionRow.title, RevisionRow.text, RevisionRow.saved_at)


def _revision(row: RevisionRow) -> StoredRevision:
    return StoredRevision(row.number, row.title, row.text, row.saved_at)
