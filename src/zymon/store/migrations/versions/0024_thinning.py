"""Readings of long ago can be thinned: what each stands for. Nothing is moved.

Revision 0024, after 0023.
"""

import sqlalchemy as sa
from alembic import op

revision = "0024"
down_revision = "0023"


def upgrade() -> None:
    op.create_table(
        "thinning",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("before_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("readings_before", sa.Integer(), nullable=False),
        sa.Column("readings_after", sa.Integer(), nullable=False),
        sa.Column("ended_s", sa.Integer()),
    )
    op.create_table(
        "thinned_reading",
        sa.Column("place_id", sa.Integer(), sa.ForeignKey("place.id"), primary_key=True),
        sa.Column("at_s", sa.Integer(), primary_key=True),
        sa.Column("strike_id", sa.Integer(), primary_key=True),
        sa.Column("to_s", sa.Integer(), nullable=False),
        sa.Column("readings", sa.Integer(), nullable=False),
        sa.Column("temperature_min_c", sa.Double(), nullable=False),
        sa.Column("temperature_max_c", sa.Double(), nullable=False),
        sa.Column("rh_min_percent", sa.Double()),
        sa.Column("rh_max_percent", sa.Double()),
        sqlite_with_rowid=False,
    )
