"""Tables. A song owns its revisions; nothing in them is ever changed."""

from datetime import datetime

from sqlalchemy import ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    """Base of all tables."""


class SongRow(Base):
    """A transcription; what it says is in its latest revision."""

    __tablename__ = "songs"
    id: Mapped[int] = mapped_column(primary_key=True)
    created_at: Mapped[datetime]
    revisions: Mapped[list["RevisionRow"]] = relationship(
        back_populates="song", order_by="RevisionRow.number"
    )


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
    song: Mapped[SongRow] = relationship(back_populates="revisions")


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
    approach: Mapped[str] = mapped_column(default="sound")
    layer: Mapped[str] = mapped_column(default="")
    staircase: Mapped[int | None]  # one number for all versions found together
    student: Mapped[str] = mapped_column(default="")  # JSON: for whom it was written, as they were then
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
    saved_at: Mapped[datetime]


class StudentRow(Base):
    """Somebody who plays; what is known of them is in the latest revision."""

    __tablename__ = "students"
    id: Mapped[int] = mapped_column(primary_key=True)
    created_at: Mapped[datetime]


class StudentRevisionRow(Base):
    """One save of a student, as JSON."""

    __tablename__ = "student_revisions"
    __table_args__ = (UniqueConstraint("owner_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    owner_id: Mapped[int] = mapped_column(ForeignKey("students.id"), index=True)
    number: Mapped[int]
    content: Mapped[str]
    saved_at: Mapped[datetime]


class GroupRow(Base):
    """Players of one song together; who plays what is in the latest revision."""

    __tablename__ = "groups"
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    created_at: Mapped[datetime]


class GroupRevisionRow(Base):
    """One save of a group, as JSON."""

    __tablename__ = "group_revisions"
    __table_args__ = (UniqueConstraint("owner_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    owner_id: Mapped[int] = mapped_column(ForeignKey("groups.id"), index=True)
    number: Mapped[int]
    content: Mapped[str]
    saved_at: Mapped[datetime]


class LadderRow(Base):
    """A teacher's ladder; what it says is in its latest revision. At most one is in use, else the one that
    ships."""

    __tablename__ = "ladders"
    id: Mapped[int] = mapped_column(primary_key=True)
    in_use: Mapped[bool]
    created_at: Mapped[datetime]


class LadderRevisionRow(Base):
    """One save of a ladder, as JSON in the shape of a ladder file."""

    __tablename__ = "ladder_revisions"
    __table_args__ = (UniqueConstraint("owner_id", "number"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    owner_id: Mapped[int] = mapped_column(ForeignKey("ladders.id"), index=True)
    number: Mapped[int]
    content: Mapped[str]
    saved_at: Mapped[datetime]


class OwnStepRow(Base):
    """The Step a teacher gives a part, one row a change of mind; without a step it was taken back."""

    __tablename__ = "own_steps"
    id: Mapped[int] = mapped_column(primary_key=True)
    song_id: Mapped[int] = mapped_column(ForeignKey("songs.id"), index=True)
    part_index: Mapped[int]
    step: Mapped[float | None]
    saved_at: Mapped[datetime]
