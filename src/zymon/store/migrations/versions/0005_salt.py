"""Pieces in salt and what is done to them.

Nothing to carry over: until now whole muscle went from the Bench to the hook with two weights and no story between.
Revision 0005, after 0004.
"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "salt_piece",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("tag", sa.String(length=40), nullable=False),
        sa.Column("geometry", sa.String(length=10), nullable=False),
        sa.Column("across_mm", sa.Double(), nullable=False),
        sa.Column("raw_g", sa.Double(), nullable=False),
        sa.Column("skin_share", sa.Double(), nullable=False),
        sa.Column("rules", sa.String(length=60), nullable=False),
        sa.Column("margin_percent", sa.Double(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("made_piece_id", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(["batch_id"], ["making.batch_id"]),
        sa.ForeignKeyConstraint(["made_piece_id"], ["made_piece.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("made_piece_id"),
        sa.UniqueConstraint("tag"),
    )
    op.create_index("ix_salt_piece_batch_id", "salt_piece", ["batch_id"])
    op.create_table(
        "salt_event",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("uid", sa.String(length=60), nullable=False),
        sa.Column("salt_piece_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=12), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("value", sa.Double(), nullable=True),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("container", sa.String(length=40), nullable=True),
        sa.Column("way", sa.String(length=20), nullable=True),
        sa.Column("free_salt", sa.Boolean(), nullable=True),
        sa.Column("percent", sa.Double(), nullable=True),
        sa.Column("note", sa.String(length=300), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"]),
        sa.ForeignKeyConstraint(["salt_piece_id"], ["salt_piece.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("uid"),
    )
    op.create_index("ix_salt_event_salt_piece_id", "salt_event", ["salt_piece_id"])
    op.create_index("ix_salt_event_place_id", "salt_event", ["place_id"])
