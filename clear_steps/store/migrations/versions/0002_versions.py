"""Easier versions and what was refused of them."""

import sqlalchemy as sa
from alembic import op

from clear_steps.store.once import create_table

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    create_table(
        "versions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("song_id", sa.Integer, sa.ForeignKey("songs.id"), nullable=False, index=True),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("part_index", sa.Integer, nullable=False),
        sa.Column("target", sa.Float, nullable=False),
        sa.Column("edits", sa.String, nullable=False),
        sa.Column("blocking", sa.String, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    create_table(
        "version_choices",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("version_id", sa.Integer, sa.ForeignKey("versions.id"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("refused", sa.String, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("version_id", "number"),
    )


def downgrade() -> None:
    op.drop_table("version_choices")
    op.drop_table("versions")
