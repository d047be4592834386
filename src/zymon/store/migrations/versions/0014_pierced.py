"""Whether a piece was pierced before it was salted: salt finds its way sooner. Nobody said so of pieces of before.

Nothing is moved. Revision 0014, after 0013.
"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    op.add_column("salt_piece", sa.Column("pierced", sa.Boolean(), nullable=False, server_default=sa.false()))
