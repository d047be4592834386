"""Corrections of what was declared of a piece: the wrong value stays on record beside the right one.

Nothing to carry over. Revision 0002, after 0001.
"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.create_table(
        "correction",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("field", sa.String(length=30), nullable=False),
        sa.Column("was", sa.Double(), nullable=True),
        sa.Column("now", sa.Double(), nullable=True),
        sa.Column("reason", sa.String(length=200), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["piece_id"], ["piece.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_correction_piece_id", "correction", ["piece_id"])
