"""What a version was asked for, the staircase it belongs to, and edits made by hand."""

import sqlalchemy as sa
from alembic import op

from clear_steps.store.once import add_column, create_table

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    add_column("versions", sa.Column("approach", sa.String, nullable=False, server_default="sound"))
    add_column("versions", sa.Column("layer", sa.String, nullable=False, server_default=""))
    add_column("versions", sa.Column("staircase", sa.Integer, nullable=True))
    create_table(
        "hand_edits",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("version_id", sa.Integer, sa.ForeignKey("versions.id"), nullable=False, index=True),
        sa.Column("edit", sa.String, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("hand_edits")
    with op.batch_alter_table("versions") as table:
        table.drop_column("staircase")
        table.drop_column("layer")
        table.drop_column("approach")
