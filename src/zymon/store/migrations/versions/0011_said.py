"""What a hold says stands as code and values beside its words, so that it can be told in another language.

Holds of before keep their words and have no code. Revision 0011, after 0010.
"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    op.add_column("hold", sa.Column("says", sa.String(length=500), nullable=True))
