"""Cut faces as they were seen beside what was predicted, and lines for next time. Nothing is moved.

Revision 0016, after 0015.
"""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"


def _struck() -> list[sa.Column[Any]]:
    return [
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(60), nullable=True),
        sa.Column("struck_reason", sa.String(200), nullable=True),
    ]


def upgrade() -> None:
    op.create_table(
        "cut_face",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("uid", sa.String(60), nullable=False, unique=True),
        sa.Column("piece_id", sa.Integer(), sa.ForeignKey("piece.id"), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("seen", sa.String(), nullable=False),
        sa.Column("predicted", sa.String(), nullable=False),
        sa.Column("told", sa.String(), nullable=False),
        sa.Column("verdict", sa.String(10), nullable=False),
        sa.Column("note", sa.String(300), nullable=False),
        *_struck(),
    )
    op.create_index("ix_cut_face_piece_id", "cut_face", ["piece_id"])
    op.create_table(
        "next_time",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("uid", sa.String(60), nullable=False, unique=True),
        sa.Column("face_id", sa.Integer(), sa.ForeignKey("cut_face.id"), nullable=False),
        sa.Column("batch_id", sa.Integer(), sa.ForeignKey("batch.id"), nullable=False),
        sa.Column("recipe_id", sa.Integer(), sa.ForeignKey("recipe.id"), nullable=True),
        sa.Column("product", sa.String(120), nullable=False),
        sa.Column("says", sa.String(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("version_id", sa.Integer(), sa.ForeignKey("recipe_version.id"), nullable=True),
        *_struck(),
    )
    for name in ("face_id", "batch_id", "recipe_id", "product"):
        op.create_index(f"ix_next_time_{name}", "next_time", [name])
