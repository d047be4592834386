"""What is seen and done at the hook, devices that send readings, sensors put to the test; a weighing's own identity.

Weighings from before keep none: they were never sent twice. Revision 0007, after 0006.
"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.create_table(
        "device",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=60), nullable=False),
        sa.Column("kind", sa.String(length=10), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("token_sha256", sa.String(length=64), nullable=False),
        sa.Column("simulated", sa.Boolean(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("last_s", sa.Integer(), nullable=True),
        sa.Column("taken", sa.Integer(), nullable=False),
        sa.Column("repeated", sa.Integer(), nullable=False),
        sa.Column("late", sa.Integer(), nullable=False),
        sa.Column("impossible", sa.Integer(), nullable=False),
        sa.Column("value", sa.Double(), nullable=True),
        sa.Column("value_s", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
        sa.UniqueConstraint("token_sha256"),
    )
    op.create_index("ix_device_place_id", "device", ["place_id"])

    op.create_table(
        "sensor_test",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("shown_rh_percent", sa.Double(), nullable=False),
        sa.Column("true_rh_percent", sa.Double(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_sensor_test_place_id", "sensor_test", ["place_id"])

    op.create_table(
        "hang_event",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("uid", sa.String(length=60), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=12), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("found", sa.String(), nullable=True),
        sa.Column("note", sa.String(length=300), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["piece_id"],
            ["piece.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("uid"),
    )
    op.create_index("ix_hang_event_piece_id", "hang_event", ["piece_id"])

    # added in place: the table is not made anew, for forecasts refer to its rows
    op.add_column("weighing", sa.Column("uid", sa.String(length=60), nullable=True))
    op.create_index("weighing_uid", "weighing", ["uid"], unique=True)
