"""The warm stage: pH, meters, what was done to a batch; laboratory values, parasite steps and profiles of the maker.

Nothing to carry over: a batch without a stage is one of which the warm stage is not known. Revision 0006, after 0005.
"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.create_table(
        "ph_meter",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=60), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
    )
    op.create_table(
        "user_profile",
        sa.Column("id", sa.String(length=20), nullable=False),
        sa.Column("data", sa.String(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "meter_calibration",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("meter_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("slope_percent", sa.Double(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.ForeignKeyConstraint(
            ["meter_id"],
            ["ph_meter.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_meter_calibration_meter_id", "meter_calibration", ["meter_id"], unique=False)
    op.create_table(
        "batch_event",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("uid", sa.String(length=60), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=16), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("note", sa.String(length=300), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("uid"),
    )
    op.create_index("ix_batch_event_batch_id", "batch_event", ["batch_id"], unique=False)
    op.create_table(
        "lab_result",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("what", sa.String(length=40), nullable=False),
        sa.Column("value", sa.Double(), nullable=False),
        sa.Column("loss_percent", sa.Double(), nullable=True),
        sa.Column("note", sa.String(length=200), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_lab_result_batch_id", "lab_result", ["batch_id"], unique=False)
    op.create_table(
        "parasite_step",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("way", sa.String(length=12), nullable=False),
        sa.Column("temperature_c", sa.Double(), nullable=True),
        sa.Column("days", sa.Double(), nullable=True),
        sa.Column("thickness_cm", sa.Double(), nullable=True),
        sa.Column("note", sa.String(length=200), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_parasite_step_batch_id", "parasite_step", ["batch_id"], unique=False)
    op.create_table(
        "ph_reading",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("uid", sa.String(length=60), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("ph", sa.Double(), nullable=False),
        sa.Column("sample_c", sa.Double(), nullable=True),
        sa.Column("meter_id", sa.Integer(), nullable=True),
        sa.Column("confirmed", sa.Boolean(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.ForeignKeyConstraint(
            ["meter_id"],
            ["ph_meter.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("uid"),
    )
    op.create_index("ix_ph_reading_batch_id", "ph_reading", ["batch_id"], unique=False)
    op.create_table(
        "profile_change",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("was", sa.String(length=20), nullable=False),
        sa.Column("now", sa.String(length=20), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_profile_change_batch_id", "profile_change", ["batch_id"], unique=False)
    op.create_table(
        "warm_stage",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("stuffed_s", sa.Integer(), nullable=False),
        sa.Column("culture", sa.String(length=10), nullable=True),
        sa.Column("dextrose_percent", sa.Double(), nullable=True),
        sa.Column("salt_percent", sa.Double(), nullable=True),
        sa.Column("start_ph", sa.Double(), nullable=True),
        sa.Column("target_ph", sa.Double(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["making.batch_id"],
        ),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_warm_stage_batch_id", "warm_stage", ["batch_id"], unique=False)
    op.create_index("ix_warm_stage_place_id", "warm_stage", ["place_id"], unique=False)
