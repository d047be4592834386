"""Stock: packs and what became of them, costs of a batch, words for allergens. Nothing is moved.

Revision 0017, after 0016.
"""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"


def _struck() -> list[sa.Column[Any]]:
    return [
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(60), nullable=True),
        sa.Column("struck_reason", sa.String(200), nullable=True),
    ]


def _identity() -> list[sa.Column[Any]]:
    return [
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("uid", sa.String(60), nullable=False, unique=True),
    ]


def upgrade() -> None:
    op.create_table(
        "pack",
        *_identity(),
        sa.Column("piece_id", sa.Integer(), sa.ForeignKey("piece.id"), nullable=False),
        sa.Column("parent_id", sa.Integer(), sa.ForeignKey("pack.id"), nullable=True),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("net_g", sa.Double(), nullable=False),
        sa.Column("form", sa.String(8), nullable=False),
        sa.Column("wrap", sa.String(8), nullable=False),
        sa.Column("keep_at", sa.String(8), nullable=False),
        sa.Column("place_id", sa.Integer(), sa.ForeignKey("place.id"), nullable=True),
        sa.Column("period_days", sa.Integer(), nullable=True),
        sa.Column("ingredients", sa.String(2000), nullable=True),
        sa.Column("note", sa.String(300), nullable=False),
        *_struck(),
    )
    op.create_table(
        "pack_event",
        *_identity(),
        sa.Column("pack_id", sa.Integer(), sa.ForeignKey("pack.id"), nullable=False),
        sa.Column("kind", sa.String(8), nullable=False),
        sa.Column("how", sa.String(10), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("to_whom", sa.String(120), nullable=False),
        sa.Column("note", sa.String(300), nullable=False),
        *_struck(),
    )
    op.create_table(
        "batch_cost",
        *_identity(),
        sa.Column("batch_id", sa.Integer(), sa.ForeignKey("batch.id"), nullable=False),
        sa.Column("kind", sa.String(8), nullable=False),
        sa.Column("amount", sa.Double(), nullable=False),
        sa.Column("note", sa.String(200), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        *_struck(),
    )
    op.create_table(
        "allergen_word",
        *_identity(),
        sa.Column("word", sa.String(80), nullable=False),
        sa.Column("allergens", sa.String(200), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        *_struck(),
    )
    op.create_index("ix_pack_piece_id", "pack", ["piece_id"])
    op.create_index("ix_pack_place_id", "pack", ["place_id"])
    op.create_index("ix_pack_event_pack_id", "pack_event", ["pack_id"])
    op.create_index("ix_batch_cost_batch_id", "batch_cost", ["batch_id"])
