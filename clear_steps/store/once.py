"""Steps of a migration that may have been taken before.

Versions of this program before 0006 changed tables outside of transactions: a kill in the middle left files
with some of a migration's tables and not its number. Such files are opened and finished.
"""

import sqlalchemy as sa
from alembic import op


def create_table(name: str, *rows: sa.schema.SchemaItem) -> None:
    """Make a table, unless it is there."""
    if not sa.inspect(op.get_bind()).has_table(name):
        op.create_table(name, *rows)


def add_column(table: str, column: sa.Column[object]) -> None:
    """Add a column, unless it is there."""
    if column.name not in {row["name"] for row in sa.inspect(op.get_bind()).get_columns(table)}:
        op.add_column(table, column)
