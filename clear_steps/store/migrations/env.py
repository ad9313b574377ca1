"""Alembic's entry: runs on the connection, and within the transaction, that the database hands over."""

from alembic import context

from clear_steps.store.models import Base

context.configure(
    connection=context.config.attributes["connection"], target_metadata=Base.metadata, render_as_batch=True
)
context.run_migrations()
