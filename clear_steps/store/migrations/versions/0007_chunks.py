"""Where a teacher cuts a part into chunks, and what stands on the sheet a student takes home; every change of
mind kept."""

import sqlalchemy as sa
from alembic import op

from clear_steps.store.once import create_table

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    create_table(
        "chunkings",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("song_id", sa.Integer, sa.ForeignKey("songs.id"), nullable=False, index=True),
        sa.Column("part_index", sa.Integer, nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("content", sa.String, nullable=False),
        sa.Column("schema", sa.Integer, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("song_id", "part_index", "number"),
    )
    create_table(
        "lesson_sheets",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("song_id", sa.Integer, sa.ForeignKey("songs.id"), nullable=False, index=True),
        sa.Column("student_id", sa.Integer, sa.ForeignKey("students.id"), nullable=True, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("content", sa.String, nullable=False),
        sa.Column("schema", sa.Integer, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("song_id", "student_id", "number"),
    )


def downgrade() -> None:
    op.drop_table("lesson_sheets")
    op.drop_table("chunkings")
