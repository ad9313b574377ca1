"""Six invented pieces for a first look, and the script that seeds them."""

import tempfile
from dataclasses import dataclass
from importlib.resources import files
from pathlib import Path

from pydantic import TypeAdapter

from clear_steps.core.easier import Blocking, Edit, easier
from clear_steps.core.grade import HardestShape, Limits
from clear_steps.core.hand import Player
from clear_steps.core.score import Technique
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from clear_steps.store import Database, NewVersion, Songs, Student, Students, Versions
from clear_steps.store.backups import restore, write_backup
from clear_steps.store.marked import open_marked
from clear_steps.store.songs import DEMO_DRAFT

# The Step of the version each piece ships with, in the order of the files.
TARGETS = (4.0, 4.0, 3.0, 3.0, 4.0, 6.0)
_STUDENTS = (
    Student(
        "Mira",
        Player(100.0),
        Limits(
            5.0,
            frozenset({Technique.TAP, Technique.BEND_WHOLE, Technique.PINCH_HARMONIC}),
            HardestShape.SMALL_BARRE,
        ),
        comfortable_step=4.5,
    ),
    Student(
        "Tomke",
        Player(78.0),
        Limits(
            2.5,
            frozenset(Technique) - {Technique.LET_RING, Technique.SLIDE, Technique.ACCENT},
            HardestShape.NO_BARRE,
        ),
        comfortable_step=2.5,
    ),
    Student("Anselm", Player(115.0), Limits(8.0), comfortable_step=6.0),
)


def demo_texts() -> list[str]:
    """Tab text of every demo piece, by file name."""
    folder = files(__package__).joinpath("songs")
    return [
        entry.read_text(encoding="utf-8")
        for entry in sorted(folder.iterdir(), key=lambda entry: entry.name)
        if entry.name.endswith(".tab")
    ]


@dataclass(frozen=True)
class ShippedVersion:
    """A version found beforehand by `python -m clear_steps.demo`, so that the demo opens at once."""

    target: float
    edits: tuple[Edit, ...]
    blocking: tuple[Blocking, ...]


_SHIPPED = TypeAdapter(tuple[ShippedVersion, ...])


def demo_versions() -> tuple[ShippedVersion, ...]:
    """One version a piece, in the order of the texts."""
    return _SHIPPED.validate_json(files(__package__).joinpath("versions.json").read_bytes())


def found_versions() -> bytes:
    """The shipped versions, searched for anew, as JSON."""
    found = []
    for text, target in zip(demo_texts(), TARGETS, strict=True):
        song = read_tab(text).song
        result = easier(song, song.parts[0], default_ladder(), target)
        found.append(ShippedVersion(target, result.edits, result.blocking))
    return _SHIPPED.dump_json(tuple(found), exclude_defaults=True) + b"\n"


def seed(database: Database) -> int:
    """Put in the demo pieces that are not there, each with its version, and say how many that were; with the
    first of them come the students. What is there already is left as it is."""
    with database.session() as session:
        songs, versions, students = Songs(session), Versions(session), Students(session)
        texts = demo_texts()
        missing = [text for text in texts if songs.of_draft(draft_name(text)) is None]
        if len(missing) == len(texts):
            taken = {stored.student.name for stored in students.every()}
            for student in _STUDENTS:
                if student.name not in taken:
                    students.add(student)
        for text, shipped in zip(texts, demo_versions(), strict=True):
            if text in missing:
                stored = songs.add(read_tab(text).song.title, text, draft_name(text))
                versions.add(NewVersion(stored.id, 1, 0, shipped.target, shipped.edits, shipped.blocking))
    return len(missing)


def draft_name(text: str) -> str:
    """The name by which a demo piece is known again, whatever becomes of its text."""
    title = read_tab(text).song.title
    return f"{DEMO_DRAFT}{title}"


def begin_over(database: Database) -> Path:
    """Put a fresh demo in the place of everything, and give the copy of what stood there."""
    with tempfile.TemporaryDirectory(prefix="demo-") as directory:
        fresh = open_marked(Path(directory))
        seed(fresh)
        begun = write_backup(fresh, Path(directory) / "begun.sqlite3")
        fresh.close()
        return restore(database, begun, "the demo")
