"""Ladders with their revisions, the teacher's own Steps, and what players are used to."""

import sqlalchemy as sa
from alembic import op

from clear_steps.store.once import add_column, create_table

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    create_table(
        "ladders",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("in_use", sa.Boolean, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    create_table(
        "ladder_revisions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("ladder_id", sa.Integer, sa.ForeignKey("ladders.id"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("content", sa.String, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("ladder_id", "number"),
    )
    create_table(
        "own_steps",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("song_id", sa.Integer, sa.ForeignKey("songs.id"), nullable=False, index=True),
        sa.Column("part_index", sa.Integer, nullable=False),
        sa.Column("step", sa.Float, nullable=True),
        sa.Column("saved_at", sa.DateTime, nullable=False),
    )
    add_column("players", sa.Column("little_finger", sa.String, nullable=False, server_default="usual"))
    add_column("players", sa.Column("thumb_over", sa.Boolean, nullable=False, server_default=sa.false()))


def downgrade() -> None:
    with op.batch_alter_table("players") as table:
        table.drop_column("thumb_over")
        table.drop_column("little_finger")
    op.drop_table("own_steps")
    op.drop_table("ladder_revisions")
    op.drop_table("ladders")
