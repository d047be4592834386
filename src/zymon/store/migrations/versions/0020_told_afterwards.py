"""Dates that are worked out afterwards, with what was known then, are told apart. Nothing is moved.

Revision 0020, after 0019.
"""

import sqlalchemy as sa
from alembic import op

revision = "0020"
down_revision = "0019"


def upgrade() -> None:
    op.add_column("forecast_record", sa.Column("afterwards", sa.Boolean(), nullable=False, server_default=sa.false()))
