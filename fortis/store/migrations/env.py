"""Where Alembic finds the tables and the connection."""

from alembic import context

from fortis.store.tables import Table

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Table.metadata, render_as_batch=True)
with context.begin_transaction():
    context.run_migrations()
