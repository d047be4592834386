"""The Bench: recipes with versions, lots, weigh-outs, batches as made with their holds, pieces before they hang.

Nothing to carry over: batches hung before stay as they are, without a making. Revision 0003, after 0002.
"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.create_table(
        "lot",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=16), nullable=False),
        sa.Column("code", sa.String(length=40), nullable=False),
        sa.Column("what", sa.String(length=120), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.CheckConstraint("kind IN ('meat', 'curing_salt', 'culture', 'casing', 'other')"),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("code"),
    )
    op.create_table(
        "recipe",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("created_s", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
    )
    op.create_table(
        "recipe_version",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("recipe_id", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("sheet", sa.String(), nullable=False),
        sa.Column("reason", sa.String(length=300), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["recipe_id"],
            ["recipe.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("recipe_id", "number"),
    )
    op.create_index(op.f("ix_recipe_version_recipe_id"), "recipe_version", ["recipe_id"], unique=False)
    op.create_table(
        "weigh_out",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("recipe_version_id", sa.Integer(), nullable=True),
        sa.Column("product", sa.String(length=120), nullable=False),
        sa.Column("sheet", sa.String(), nullable=False),
        sa.Column("profile", sa.String(length=20), nullable=False),
        sa.Column("started_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("meat_temperature_c", sa.Double(), nullable=True),
        sa.Column("ended_s", sa.Integer(), nullable=True),
        sa.Column("end", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["recipe_version_id"],
            ["recipe_version.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "making",
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("weigh_out_id", sa.Integer(), nullable=True),
        sa.Column("sheet", sa.String(), nullable=False),
        sa.Column("profile", sa.String(length=20), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("pinch_place_id", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["batch.id"],
        ),
        sa.ForeignKeyConstraint(
            ["pinch_place_id"],
            ["place.id"],
        ),
        sa.ForeignKeyConstraint(
            ["weigh_out_id"],
            ["weigh_out.id"],
        ),
        sa.PrimaryKeyConstraint("batch_id"),
        sa.UniqueConstraint("weigh_out_id"),
    )
    op.create_table(
        "weigh_entry",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("weigh_out_id", sa.Integer(), nullable=False),
        sa.Column("uid", sa.String(length=40), nullable=False),
        sa.Column("key", sa.String(length=40), nullable=False),
        sa.Column("grams", sa.Double(), nullable=False),
        sa.Column("rescale", sa.Double(), nullable=True),
        sa.Column("lot_id", sa.Integer(), nullable=True),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["lot_id"],
            ["lot.id"],
        ),
        sa.ForeignKeyConstraint(
            ["weigh_out_id"],
            ["weigh_out.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("uid"),
    )
    op.create_index(op.f("ix_weigh_entry_lot_id"), "weigh_entry", ["lot_id"], unique=False)
    op.create_index(op.f("ix_weigh_entry_weigh_out_id"), "weigh_entry", ["weigh_out_id"], unique=False)
    op.create_table(
        "hold",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("text", sa.String(length=300), nullable=False),
        sa.Column("source", sa.String(length=300), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("answered_s", sa.Integer(), nullable=True),
        sa.Column("answered_by", sa.String(length=60), nullable=True),
        sa.Column("reason", sa.String(length=200), nullable=True),
        sa.Column("legal_basis", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index(op.f("ix_hold_batch_id"), "hold", ["batch_id"], unique=False)
    op.create_table(
        "made_piece",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("tag", sa.String(length=40), nullable=False),
        sa.Column("gross_g", sa.Double(), nullable=False),
        sa.Column("casing_g", sa.Double(), nullable=False),
        sa.Column("net_g", sa.Double(), nullable=False),
        sa.Column("string_g", sa.Double(), nullable=False),
        sa.Column("coat_g", sa.Double(), nullable=False),
        sa.Column("raw_g", sa.Double(), nullable=True),
        sa.Column("cured_g", sa.Double(), nullable=True),
        sa.Column("diameter_mm", sa.Double(), nullable=True),
        sa.Column("thickness_mm", sa.Double(), nullable=True),
        sa.Column("length_mm", sa.Double(), nullable=True),
        sa.Column("target_loss_percent", sa.Double(), nullable=False),
        sa.Column("loss_basis", sa.String(length=8), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.ForeignKeyConstraint(
            ["piece_id"],
            ["piece.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("piece_id"),
        sa.UniqueConstraint("tag"),
    )
    op.create_index(op.f("ix_made_piece_batch_id"), "made_piece", ["batch_id"], unique=False)
