"""A hold says what it says as code and values too; a stay on a hook can be struck through.

What a hold says stands as code and values beside its words, so that it can be told in another language; holds of before
keep their words and have no code. A stay that was entered by mistake is struck, with who and why. Revision 0011, after
0010.
"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    op.add_column("hold", sa.Column("says", sa.String(length=500), nullable=True))
    op.add_column("hanging", sa.Column("struck_s", sa.Integer(), nullable=True))
    op.add_column("hanging", sa.Column("struck_by", sa.String(length=60), nullable=True))
    op.add_column("hanging", sa.Column("struck_reason", sa.String(length=200), nullable=True))
