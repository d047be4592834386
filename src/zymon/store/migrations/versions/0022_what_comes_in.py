"""Readings of a thermometer alone, pH readings that came by a file, and how files of a head are read. Nothing is moved.

Revision 0022, after 0021.
"""

import sqlalchemy as sa
from alembic import op

revision = "0022"
down_revision = "0021"

# SQLite cannot take a NOT NULL off a column: the table is written anew, row by row as it stands
_READING = """
CREATE TABLE {name} (
    {key} INTEGER NOT NULL, at_s INTEGER NOT NULL, temperature_c DOUBLE NOT NULL, rh_percent DOUBLE,
    import_id INTEGER, device_id INTEGER, PRIMARY KEY ({key}, at_s),
    FOREIGN KEY({key}) REFERENCES {of} (id),
    FOREIGN KEY(import_id) REFERENCES import_report (id), FOREIGN KEY(device_id) REFERENCES device (id)
) WITHOUT ROWID
"""
_HOUR = """
CREATE TABLE {name} (
    place_id INTEGER NOT NULL, hour_s INTEGER NOT NULL, readings INTEGER NOT NULL,
    temperature_c DOUBLE NOT NULL, temperature_min_c DOUBLE NOT NULL, temperature_max_c DOUBLE NOT NULL,
    rh_percent DOUBLE, rh_min_percent DOUBLE, rh_max_percent DOUBLE,
    PRIMARY KEY (place_id, hour_s), FOREIGN KEY(place_id) REFERENCES place (id)
) WITHOUT ROWID
"""
_AS_BEFORE = "at_s, temperature_c, rh_percent, import_id, device_id"
_HOUR_AS_BEFORE = (
    "place_id, hour_s, readings, temperature_c, temperature_min_c, temperature_max_c, rh_percent, rh_min_percent, "
    "rh_max_percent"
)


def upgrade() -> None:
    tables = (
        ("reading", _READING.format(name="reading_new", key="place_id", of="place"), f"place_id, {_AS_BEFORE}"),
        (
            "struck_reading",
            _READING.format(name="struck_reading_new", key="strike_id", of="reading_strike"),
            f"strike_id, {_AS_BEFORE}",
        ),
        ("reading_hour", _HOUR.format(name="reading_hour_new"), _HOUR_AS_BEFORE),
    )
    for name, create, columns in tables:
        op.execute(create)
        op.execute(f"INSERT INTO {name}_new ({columns}) SELECT {columns} FROM {name}")
        op.execute(f"DROP TABLE {name}")
        op.execute(f"ALTER TABLE {name}_new RENAME TO {name}")
    op.execute("ALTER TABLE ph_reading ADD COLUMN import_id INTEGER REFERENCES import_report (id)")
    op.create_table(
        "file_head",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("head", sa.String(4000), nullable=False, unique=True),
        sa.Column("answers", sa.Text(), nullable=False),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
    )
