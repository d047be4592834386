"""What a place is and how its air moves, as people have them; nobody said it of places of before.

Nothing is moved. Revision 0012, after 0011.
"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    op.add_column("place", sa.Column("sort", sa.String(length=20), nullable=True))
    op.add_column("place", sa.Column("stirring", sa.String(length=8), nullable=True))
