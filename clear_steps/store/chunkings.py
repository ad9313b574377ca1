"""Where teachers cut a part into chunks: kept by where each begins, every save a revision."""

from dataclasses import dataclass
from fractions import Fraction

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.plainjson import PlainJson
from clear_steps.store.clock import now
from clear_steps.store.errors import StaleRevisionError
from clear_steps.store.models import ChunkingRow
from clear_steps.store.revised import SCHEMA, read_stored

MOST_CHUNKS = 500
LONGEST_NAME = 60


@dataclass(frozen=True, slots=True)
class ChunkStart:
    """A chunk by the bar (index) and the onset (quarters) it begins at, and the name it was given."""

    bar: int
    onset: Fraction
    name: str = ""


@dataclass(frozen=True, slots=True)
class Chunking:
    """The latest cut of a part; `revision` is the song's that it was made on. No starts: as proposed."""

    number: int
    revision: int
    starts: tuple[ChunkStart, ...]


_STARTS: PlainJson[tuple[ChunkStart, ...]] = PlainJson(tuple[ChunkStart, ...])


class Chunkings:
    """Cuts within one unit of work; a change of mind adds a row."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def latest(self, song_id: int, part_index: int) -> Chunking:
        """The latest cut, number 0 where nothing was saved yet."""
        statement = (
            select(ChunkingRow)
            .where(ChunkingRow.song_id == song_id, ChunkingRow.part_index == part_index)
            .order_by(ChunkingRow.number.desc())
            .limit(1)
        )
        row = self._session.scalars(statement).first()
        if row is None:
            return Chunking(0, 0, ())
        return Chunking(row.number, row.revision, read_stored(_STARTS, row.content, row.schema, "chunking"))

    def save(
        self, song_id: int, part_index: int, based_on: int, revision: int, starts: tuple[ChunkStart, ...]
    ) -> None:
        """Keep a cut; raises InvalidValueError, or StaleRevisionError where a newer one than `based_on`
        exists."""
        if len(starts) > MOST_CHUNKS:
            raise InvalidValueError("chunks", len(starts), f"at most {MOST_CHUNKS}")
        if long := next((start.name for start in starts if len(start.name) > LONGEST_NAME), None):
            raise InvalidValueError("name of a chunk", long[:80], f"at most {LONGEST_NAME} letters")
        latest = self.latest(song_id, part_index).number
        if latest != based_on:
            raise StaleRevisionError(based_on, latest, "chunks")
        row = ChunkingRow(song_id=song_id, part_index=part_index, number=latest + 1, revision=revision)
        row.content, row.schema, row.saved_at = _STARTS.dump(starts), SCHEMA, now()
        self._session.add(row)
        self._session.flush()
