"""What a version was asked for, the staircase it belongs to, and edits made by hand."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    with op.batch_alter_table("versions") as table:
        table.add_column(sa.Column("approach", sa.String, nullable=False, server_default="sound"))
        table.add_column(sa.Column("layer", sa.String, nullable=False, server_default=""))
        table.add_column(sa.Column("staircase", sa.Integer, nullable=True))
    op.create_table(
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
