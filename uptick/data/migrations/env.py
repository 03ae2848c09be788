"""Runs the migrations on the connection that `uptick.data.database.migrate` hands over."""

from alembic import context

from uptick.data.tables import metadata

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=metadata)
with context.begin_transaction():
    context.run_migrations()
