"""Alembic's entry: runs inside the connection that the database opened."""

from alembic import context

from zymon.store import (  # noqa: F401 -- their tables belong to the same metadata
    alarm_models,
    bench_models,
    cut_models,
    evidence_models,
    file_heads,
    hang_models,
    house_models,
    keep_models,
    plan_models,
    salt_models,
    warm_models,
)
from zymon.store.models import Base

connection = context.config.attributes["connection"]
context.configure(connection=connection, target_metadata=Base.metadata, render_as_batch=True, transactional_ddl=False)
context.run_migrations()
