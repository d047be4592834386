"""A piece without a scale: what it weighed when it was hung, and what it should weigh, may be unknown.

Whether a piece is done by weight, feel or days, and after how many days, can be said of it; of pieces of before that
is as their batch says. Whether its skin or its bone was left on can be said too. Every value is kept: a column that may
be empty takes the place of one that could not. Revision 0013, after 0012.
"""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"

MAY_BE_EMPTY = {"piece": ("start_weight_g", "target_loss_percent"), "made_piece": ("gross_g", "target_loss_percent")}


def upgrade() -> None:
    for table, columns in MAY_BE_EMPTY.items():
        for column in columns:
            op.add_column(table, sa.Column(f"{column}_kept", sa.Double(), nullable=True))
            op.execute(f"UPDATE {table} SET {column}_kept = {column}")
            op.drop_column(table, column)
            op.execute(f"ALTER TABLE {table} RENAME COLUMN {column}_kept TO {column}")
    op.add_column("piece", sa.Column("done_by", sa.String(length=8), nullable=True))
    op.add_column("piece", sa.Column("done_days", sa.Integer(), nullable=True))
    op.add_column("piece", sa.Column("skin", sa.Boolean(), nullable=True))
    op.add_column("piece", sa.Column("bone", sa.Boolean(), nullable=True))
