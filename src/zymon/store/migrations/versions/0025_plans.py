"""Batches that are to be made; how many pieces go into a place without hooks. Nothing is moved.

Revision 0025, after 0024.
"""

import sqlalchemy as sa
from alembic import op

revision = "0025"
down_revision = "0024"


def _struck() -> list[sa.Column[object]]:
    return [
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer()),
        sa.Column("struck_by", sa.String(60)),
        sa.Column("struck_reason", sa.String(200)),
    ]


def upgrade() -> None:
    op.add_column("place", sa.Column("room", sa.Integer()))
    op.create_table(
        "plan",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("weigh_out_id", sa.Integer(), sa.ForeignKey("weigh_out.id")),
        sa.Column("batch_id", sa.Integer(), sa.ForeignKey("batch.id")),
        *_struck(),
    )
    op.create_index("ix_plan_weigh_out_id", "plan", ["weigh_out_id"])
    op.create_index("ix_plan_batch_id", "plan", ["batch_id"])
    op.create_table(
        "plan_setting",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("plan_id", sa.Integer(), sa.ForeignKey("plan.id"), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("reason", sa.String(200), nullable=False),
        sa.Column("occasion", sa.String(120), nullable=False),
        sa.Column("product", sa.String(120), nullable=False),
        sa.Column("sheet", sa.String(), nullable=False),
        sa.Column("recipe_version_id", sa.Integer(), sa.ForeignKey("recipe_version.id")),
        sa.Column("pieces", sa.Integer(), nullable=False),
        sa.Column("table_g", sa.Double(), nullable=False),
        sa.Column("place_id", sa.Integer(), sa.ForeignKey("place.id"), nullable=False),
        *(sa.Column(name, sa.Integer(), nullable=False) for name in ("wanted_s", "start_s", "wait_s", "rest_s")),
        sa.Column("frozen", sa.Boolean(), nullable=False),
        sa.Column("order_days", sa.Integer(), nullable=False),
        sa.Column("asked_chance", sa.Double(), nullable=False),
        sa.Column("told_chance", sa.Double(), nullable=False),
        *(
            sa.Column(name, sa.Integer())
            for name in ("told_hung_s", "told_done_p10_s", "told_done_p50_s", "told_done_p90_s")
        ),
        *_struck(),
    )
    op.create_index("ix_plan_setting_plan_id", "plan_setting", ["plan_id"])
