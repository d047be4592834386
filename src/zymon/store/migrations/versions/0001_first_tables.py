"""First tables: workshop, places, pieces, weighings, climate, imports, forecasts.

Nothing to carry over. Readings are stored without a row id, in the order charts ask for them.
Revision 0001.
"""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "batch",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("code", sa.String(length=40), nullable=False),
        sa.Column("product", sa.String(length=120), nullable=False),
        sa.Column("kind", sa.String(length=20), nullable=False),
        sa.Column("shape", sa.String(length=20), nullable=False),
        sa.Column("casing", sa.String(length=20), nullable=False),
        sa.Column("fat_percent", sa.Double(), nullable=True),
        sa.Column("salt_percent", sa.Double(), nullable=True),
        sa.Column("created_s", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("code"),
    )
    op.create_table(
        "place",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("kind", sa.String(length=16), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.CheckConstraint("kind IN ('chamber', 'warm', 'salt', 'store')"),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
    )
    op.create_table(
        "workshop",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("time_zone", sa.String(length=60), nullable=False),
        sa.Column("created_s", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "import_report",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("kind", sa.String(length=16), nullable=False),
        sa.Column("file_name", sa.String(length=200), nullable=False),
        sa.Column("sha256", sa.String(length=64), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("rows_new", sa.Integer(), nullable=False),
        sa.Column("rows_same", sa.Integer(), nullable=False),
        sa.Column("rows_conflict", sa.Integer(), nullable=False),
        sa.Column("rows_left_out", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_table(
        "piece",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("tag", sa.String(length=40), nullable=False),
        sa.Column("diameter_mm", sa.Double(), nullable=True),
        sa.Column("thickness_mm", sa.Double(), nullable=True),
        sa.Column("length_mm", sa.Double(), nullable=True),
        sa.Column("start_weight_g", sa.Double(), nullable=False),
        sa.Column("tare_g", sa.Double(), nullable=False),
        sa.Column("target_loss_percent", sa.Double(), nullable=False),
        sa.Column("hung_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.ForeignKeyConstraint(
            ["batch_id"],
            ["batch.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("tag"),
    )
    with op.batch_alter_table("piece", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_piece_batch_id"), ["batch_id"], unique=False)

    op.create_table(
        "reading_hour",
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("hour_s", sa.Integer(), nullable=False),
        sa.Column("readings", sa.Integer(), nullable=False),
        sa.Column("temperature_c", sa.Double(), nullable=False),
        sa.Column("temperature_min_c", sa.Double(), nullable=False),
        sa.Column("temperature_max_c", sa.Double(), nullable=False),
        sa.Column("rh_percent", sa.Double(), nullable=False),
        sa.Column("rh_min_percent", sa.Double(), nullable=False),
        sa.Column("rh_max_percent", sa.Double(), nullable=False),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("place_id", "hour_s"),
        sqlite_with_rowid=False,
    )
    op.create_table(
        "rod",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("hooks", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("place_id", "number"),
    )
    op.create_table(
        "setpoint",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("temperature_c", sa.Double(), nullable=True),
        sa.Column("rh_percent", sa.Double(), nullable=True),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    with op.batch_alter_table("setpoint", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_setpoint_place_id"), ["place_id"], unique=False)

    op.create_table(
        "hanging",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("rod_id", sa.Integer(), nullable=False),
        sa.Column("hook", sa.Integer(), nullable=False),
        sa.Column("from_s", sa.Integer(), nullable=False),
        sa.Column("to_s", sa.Integer(), nullable=True),
        sa.Column("end_reason", sa.String(length=200), nullable=True),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.ForeignKeyConstraint(
            ["piece_id"],
            ["piece.id"],
        ),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.ForeignKeyConstraint(
            ["rod_id"],
            ["rod.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    with op.batch_alter_table("hanging", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_hanging_piece_id"), ["piece_id"], unique=False)
        batch_op.create_index(batch_op.f("ix_hanging_place_id"), ["place_id"], unique=False)
        batch_op.create_index("one_hook_per_piece", ["piece_id"], unique=True, sqlite_where=sa.text("to_s IS NULL"))
        batch_op.create_index(
            "one_piece_per_hook", ["rod_id", "hook"], unique=True, sqlite_where=sa.text("to_s IS NULL")
        )

    op.create_table(
        "reading",
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("temperature_c", sa.Double(), nullable=False),
        sa.Column("rh_percent", sa.Double(), nullable=False),
        sa.Column("import_id", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(
            ["import_id"],
            ["import_report.id"],
        ),
        sa.ForeignKeyConstraint(
            ["place_id"],
            ["place.id"],
        ),
        sa.PrimaryKeyConstraint("place_id", "at_s"),
        sqlite_with_rowid=False,
    )
    op.create_table(
        "weighing",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("gross_g", sa.Double(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("confirmed", sa.Boolean(), nullable=False),
        sa.Column("import_id", sa.Integer(), nullable=True),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(
            ["import_id"],
            ["import_report.id"],
        ),
        sa.ForeignKeyConstraint(
            ["piece_id"],
            ["piece.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    with op.batch_alter_table("weighing", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_weighing_piece_id"), ["piece_id"], unique=False)

    op.create_table(
        "forecast_record",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("weighing_id", sa.Integer(), nullable=True),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("p10_s", sa.Integer(), nullable=True),
        sa.Column("p50_s", sa.Integer(), nullable=True),
        sa.Column("p90_s", sa.Integer(), nullable=True),
        sa.Column("loss_percent", sa.Double(), nullable=False),
        sa.Column("status", sa.String(length=16), nullable=False),
        sa.ForeignKeyConstraint(
            ["piece_id"],
            ["piece.id"],
        ),
        sa.ForeignKeyConstraint(
            ["weighing_id"],
            ["weighing.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
    )
    with op.batch_alter_table("forecast_record", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_forecast_record_piece_id"), ["piece_id"], unique=False)
