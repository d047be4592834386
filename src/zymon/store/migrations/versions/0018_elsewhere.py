"""Where pieces hung that came from outside: a place that is none of the workshop's. Nothing is moved.

Revision 0018, after 0017.
"""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"


def upgrade() -> None:
    op.add_column("place", sa.Column("elsewhere", sa.Boolean(), nullable=False, server_default=sa.false()))
