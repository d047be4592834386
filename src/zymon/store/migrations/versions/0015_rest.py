"""What a piece was when it was sealed to rest, so that the shelf is worked out without fitting it again.

Nothing is moved; of pieces that rest already it is made when the shelf is looked at. Revision 0015, after 0014.
"""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"


def upgrade() -> None:
    op.create_table(
        "rest_profile",
        sa.Column("state_id", sa.Integer(), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("sealed", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["state_id"], ["piece_state.id"]),
        sa.PrimaryKeyConstraint("state_id"),
    )
