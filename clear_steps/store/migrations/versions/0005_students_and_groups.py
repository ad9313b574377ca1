"""Students with limits in place of players, every save of one kept; groups; for whom a version was
written."""

import json

import sqlalchemy as sa
from alembic import op

from clear_steps.store.once import add_column, create_table

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    _owned("students", "student_revisions")
    _players_to_students()
    op.drop_table("players")
    _owned(
        "groups",
        "group_revisions",
        sa.Column("song_id", sa.Integer, sa.ForeignKey("songs.id"), nullable=False, index=True),
    )
    op.execute("ALTER TABLE ladder_revisions RENAME COLUMN ladder_id TO owner_id")
    add_column("versions", sa.Column("student", sa.String, nullable=False, server_default=""))
    add_column("versions", sa.Column("put_away", sa.Boolean, nullable=False, server_default=sa.false()))


def _owned(owners: str, revisions: str, *columns: sa.Column[int]) -> None:
    create_table(
        owners,
        sa.Column("id", sa.Integer, primary_key=True),
        *columns,
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    create_table(
        revisions,
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("owner_id", sa.Integer, sa.ForeignKey(f"{owners}.id"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("content", sa.String, nullable=False),
        sa.Column("saved_at", sa.DateTime, nullable=False),
        sa.UniqueConstraint("owner_id", "number"),
    )


def _players_to_students() -> None:
    connection = op.get_bind()
    for row in connection.execute(
        sa.text("SELECT id, name, span_mm, little_finger, thumb_over FROM players")
    ).all():
        habits = {"little_finger": row.little_finger, "thumb_over": bool(row.thumb_over)}
        content = json.dumps({"name": row.name, "player": {"span_mm": row.span_mm, "habits": habits}})
        connection.execute(
            sa.text("INSERT INTO students (id, created_at) VALUES (:id, CURRENT_TIMESTAMP)"), {"id": row.id}
        )
        connection.execute(
            sa.text(
                "INSERT INTO student_revisions (owner_id, number, content, saved_at) VALUES (:id, 1,"
                " :content, CURRENT_TIMESTAMP)"
            ),
            {"id": row.id, "content": content},
        )


def downgrade() -> None:
    with op.batch_alter_table("versions") as table:
        table.drop_column("put_away")
        table.drop_column("student")
    op.execute("ALTER TABLE ladder_revisions RENAME COLUMN owner_id TO ladder_id")
    op.drop_table("group_revisions")
    op.drop_table("groups")
    op.create_table(
        "players",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String(80), nullable=False, unique=True),
        sa.Column("span_mm", sa.Float, nullable=False),
        sa.Column("little_finger", sa.String, nullable=False, server_default="usual"),
        sa.Column("thumb_over", sa.Boolean, nullable=False, server_default=sa.false()),
    )
    _students_to_players()
    op.drop_table("student_revisions")
    op.drop_table("students")


def _students_to_players() -> None:
    connection = op.get_bind()
    latest = (
        "SELECT owner_id, content FROM student_revisions AS a WHERE number = (SELECT max(number) FROM"
        " student_revisions AS b WHERE b.owner_id = a.owner_id)"
    )
    for row in connection.execute(sa.text(latest)).all():
        student = json.loads(row.content)
        connection.execute(
            sa.text(
                "INSERT INTO players (id, name, span_mm, little_finger, thumb_over) VALUES (:id, :name,"
                " :span_mm, :little_finger, :thumb_over)"
            ),
            {
                "id": row.owner_id,
                "name": student["name"],
                "span_mm": student["player"]["span_mm"],
                **student["player"]["habits"],
            },
        )
