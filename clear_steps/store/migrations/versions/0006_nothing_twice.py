"""What is saved is saved once; songs can be put away; content says its schema; answers that cost time are
kept."""

import json

import sqlalchemy as sa
from alembic import op

from clear_steps.store.once import add_column, create_table

revision = "0006"
down_revision = "0005"

_WITH_SCHEMA = ("versions", "hand_edits", "student_revisions", "group_revisions", "ladder_revisions")


def upgrade() -> None:
    for table in _WITH_SCHEMA:
        add_column(table, sa.Column("schema", sa.Integer, nullable=False, server_default="1"))
    add_column("songs", sa.Column("put_away", sa.Boolean, nullable=False, server_default=sa.false()))
    add_column("songs", sa.Column("draft", sa.String, nullable=True))
    op.create_index("one_song_a_draft", "songs", ["draft"], unique=True)
    add_column("versions", sa.Column("wish", sa.String, nullable=True))
    op.create_index("one_version_a_wish", "versions", ["wish"], unique=True)
    _number_own_steps()
    _name_students()
    create_table(
        "kept_answers",
        sa.Column("key", sa.String, primary_key=True),
        sa.Column("kind", sa.String, nullable=False),
        sa.Column("made_by", sa.String, nullable=False),
        sa.Column("content", sa.String, nullable=False),
    )


def _number_own_steps() -> None:
    add_column("own_steps", sa.Column("number", sa.Integer, nullable=False, server_default="0"))
    op.execute(
        "UPDATE own_steps SET number = (SELECT count(*) FROM own_steps AS other WHERE other.song_id ="
        " own_steps.song_id AND other.part_index = own_steps.part_index AND other.id <= own_steps.id)"
    )
    op.create_index("one_own_step_a_number", "own_steps", ["song_id", "part_index", "number"], unique=True)


def _name_students() -> None:
    """The latest name of each; where two had met in one name, the later is told apart by a number."""
    add_column("students", sa.Column("name", sa.String(100), nullable=True))
    connection, taken = op.get_bind(), set[str]()
    latest = (
        "SELECT owner_id, number, content FROM student_revisions AS a WHERE number ="
        " (SELECT max(number) FROM student_revisions AS b WHERE b.owner_id = a.owner_id) ORDER BY owner_id"
    )
    for row in connection.execute(sa.text(latest)).all():
        student = json.loads(row.content)
        name, again = student["name"], 1
        while name in taken:
            again += 1
            name = f"{student['name']} {again}"
        taken.add(name)
        connection.execute(
            sa.text("UPDATE students SET name = :name WHERE id = :id"), {"name": name, "id": row.owner_id}
        )
        if again > 1:
            insert = (
                "INSERT INTO student_revisions (owner_id, number, content, saved_at)"
                " VALUES (:id, :number, :content, CURRENT_TIMESTAMP)"
            )
            content = json.dumps({**student, "name": name})
            values = {"id": row.owner_id, "number": row.number + 1, "content": content}
            connection.execute(sa.text(insert), values)
    op.create_index("one_student_a_name", "students", ["name"], unique=True)


def downgrade() -> None:
    op.drop_table("kept_answers")
    for index, table, column in (
        ("one_student_a_name", "students", "name"),
        ("one_own_step_a_number", "own_steps", "number"),
        ("one_version_a_wish", "versions", "wish"),
        ("one_song_a_draft", "songs", "draft"),
    ):
        op.drop_index(index, table)
        op.drop_column(table, column)
    op.drop_column("songs", "put_away")
    for table in _WITH_SCHEMA:
        op.drop_column(table, "schema")
