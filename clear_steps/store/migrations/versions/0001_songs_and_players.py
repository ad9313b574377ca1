"""Songs, their revisions, players."""

import sqlalchemy as sa
from alembic import op

from clear_steps.store.once import create_table

revision = "0001"
down_revision = None


def upgrade() -> None:
    create_table(
        "songs",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    create_table(
        "revisions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("song_id", sa.Integer, sa.ForeignKey("songs.id"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("title", sa.String(200), nullable=False),
        sa.Column("text", sa.String, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("song_id", "number"),
    )
    create_table(
        "players",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String(80), nullable=False, unique=True),
        sa.Column("span_mm", sa.Float, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("players")
    op.drop_table("revisions")
    op.drop_table("songs")
