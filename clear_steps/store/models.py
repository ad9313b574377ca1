"""Tables. A song owns its revisions; nothing in them is ever changed."""

from datetime import datetime
from typing import ClassVar

from sqlalchemy import ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, declared_attr, mapped_column


class Base(DeclarativeBase):
    """Base of all tables."""


class RevisionOf:
    """One save, as JSON, of what lives in the table `owner`; `schema` says in which shape."""

    owner: ClassVar[str]

    id: Mapped[int] = mapped_column(primary_key=True)
    number: Mapped[int]
    content: Mapped[str]
    schema: Mapped[int] = mapped_column(default=1)
    saved_at: Mapped[datetime]

    @declared_attr
    def owner_id(cls) -> Mapped[int]:  # noqa: N805, the mapper's own convention
        """Whose save it is."""
        return mapped_column(ForeignKey(f"{cls.owner}.id"), index=True)

    @declared_attr.directive
    def __table_args__(cls) -> tuple[UniqueConstraint]:  # noqa: N805, as above
        return (UniqueConstraint("owner_id", "number"),)


class SongRow(Base):
    """A transcription; what it says is in its latest revision."""

    __tablename__ = "songs"
    id: Mapped[int] = mapped_column(primary_key=True)
    put_away: Mapped[bool] = mapped_column(default=False)  # out of sight, never deleted
    draft: Mapped[str | None] = mapped_column(unique=True)  # of the page it was first saved from
    created_at: Mapped[datetime]


class RevisionRow(Base):
    """One save of a song's text, as the teacher typed it."""

    __tablename__ = "revisions"
    __table_args__ = (UniqueConstraint("song_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    number: Mapped[int]
    title: Mapped[str] = mapped_column(String(200))
    text: Mapped[str]
    saved_at: Mapped[datetime]


class VersionRow(Base):
    """An easier version of one revision of a song; its edits never change, choices are added."""

    __tablename__ = "versions"
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    revision: Mapped[int]
    part_index: Mapped[int]
    target: Mapped[float]
    edits: Mapped[str]  # JSON
    blocking: Mapped[str]  # JSON
    schema: Mapped[int] = mapped_column(default=1)  # of both
    approach: Mapped[str] = mapped_column(default="sound")
    layer: Mapped[str] = mapped_column(default="")
    staircase: Mapped[int | None]  # one number for all versions found together
    student: Mapped[str] = mapped_column(default="")  # JSON: for whom it was written, as they were then
    wish: Mapped[str | None] = mapped_column(unique=True)  # what was asked for, as a digest
    put_away: Mapped[bool] = mapped_column(default=False)  # out of sight, never deleted
    created_at: Mapped[datetime]


class ChoiceRow(Base):
    """Which edits of a version a teacher refused, one row a change of mind."""

    __tablename__ = "version_choices"
    __table_args__ = (UniqueConstraint("version_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    version_id: Mapped[int] = mapped_column(ForeignKey("versions.id"), index=True)
    number: Mapped[int]
    refused: Mapped[str]  # JSON list of edit ids
    saved_at: Mapped[datetime]


class HandEditRow(Base):
    """An edit that the teacher made on a version, in the order they were made."""

    __tablename__ = "hand_edits"
    id: Mapped[int] = mapped_column(primary_key=True)
    version_id: Mapped[int] = mapped_column(ForeignKey("versions.id"), index=True)
    edit: Mapped[str]  # JSON
    schema: Mapped[int] = mapped_column(default=1)
    saved_at: Mapped[datetime]


class StudentRow(Base):
    """Somebody who plays; what is known of them is in the latest revision, `name` is the name it says."""

    __tablename__ = "students"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str | None] = mapped_column(unique=True)
    created_at: Mapped[datetime]


class StudentRevisionRow(RevisionOf, Base):
    """One save of a student."""

    __tablename__ = "student_revisions"
    owner = "students"


class GroupRow(Base):
    """Players of one song together; who plays what is in the latest revision."""

    __tablename__ = "groups"
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    created_at: Mapped[datetime]


class GroupRevisionRow(RevisionOf, Base):
    """One save of a group."""

    __tablename__ = "group_revisions"
    owner = "groups"


class LadderRow(Base):
    """A teacher's ladder; what it says is in its latest revision. At most one is in use, else the shipped
    one."""

    __tablename__ = "ladders"
    id: Mapped[int] = mapped_column(primary_key=True)
    in_use: Mapped[bool]
    created_at: Mapped[datetime]


class LadderRevisionRow(RevisionOf, Base):
    """One save of a ladder, in the shape of a ladder file."""

    __tablename__ = "ladder_revisions"
    owner = "ladders"


class OwnStepRow(Base):
    """The Step a teacher gives a part, one row a change of mind; without a step it was taken back."""

    __tablename__ = "own_steps"
    __table_args__ = (UniqueConstraint("song_id", "part_index", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    part_index: Mapped[int]
    number: Mapped[int]
    step: Mapped[float | None]
    saved_at: Mapped[datetime]


class ChunkingRow(Base):
    """Where a teacher cuts a part of one revision into chunks, one row a change of mind; empty where it was
    given back to the proposal."""

    __tablename__ = "chunkings"
    __table_args__ = (UniqueConstraint("song_id", "part_index", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    part_index: Mapped[int]
    number: Mapped[int]
    revision: Mapped[int]
    content: Mapped[str]  # JSON
    schema: Mapped[int]
    saved_at: Mapped[datetime]


class LessonSheetRow(Base):
    """What stands on a song's sheet for a student, or for anybody; one row a change of mind."""

    __tablename__ = "lesson_sheets"
    __table_args__ = (UniqueConstraint("song_id", "student_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    student_id: Mapped[int | None] = mapped_column(ForeignKey("students.id"), index=True)
    number: Mapped[int]
    content: Mapped[str]  # JSON
    schema: Mapped[int]
    saved_at: Mapped[datetime]


class KeptAnswerRow(Base):
    """An answer that took time, under a digest of all that it depends on; it can be made again at any
    time."""

    __tablename__ = "kept_answers"
    key: Mapped[str] = mapped_column(primary_key=True)
    kind: Mapped[str]
    made_by: Mapped[str]  # which state of the program made it
    content: Mapped[str]  # JSON
