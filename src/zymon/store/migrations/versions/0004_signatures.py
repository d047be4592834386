"""Signatures: somebody answers for an unknown hurdle of a batch, with a reason.

Nothing to carry over. Revision 0004, after 0003.
"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "hurdle_signature",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("hurdle", sa.String(length=30), nullable=False),
        sa.Column("reason", sa.String(length=200), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["batch_id"], ["making.batch_id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_hurdle_signature_batch_id", "hurdle_signature", ["batch_id"])
