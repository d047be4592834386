"""One record: states after the hook, slices, casing by piece, sources and strikes of readings, identities, journal.

Every row stays. What ended a hanging in words becomes a state: "to rest" resting in a bag nobody named, "cut to check"
cut, "discarded" gone, "done" and anything else taken down. A weighing that was asked about and kept is `kept`; whether
it is confirmed follows from a second reading. Shape and casing of a piece start as its batch's. Revision 0009,
after 0008.
"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"

STRUCK = (
    ("by", sa.String(length=60), False),
    ("entered_s", sa.Integer(), False),
    ("struck_s", sa.Integer(), True),
    ("struck_by", sa.String(length=60), True),
    ("struck_reason", sa.String(length=200), True),
)


def _struck() -> list[sa.Column[object]]:
    return [sa.Column(name, kind, nullable=nullable) for name, kind, nullable in STRUCK]


def upgrade() -> None:
    _pieces()
    _after_the_hook()
    _readings()
    _entries()


def _pieces() -> None:
    for table, batch in (
        ("piece", "piece.batch_id"),
        ("made_piece", "made_piece.batch_id"),
    ):
        for column in ("shape", "casing"):
            op.add_column(table, sa.Column(column, sa.String(length=20), nullable=False, server_default=""))
            op.execute(f"UPDATE {table} SET {column} = (SELECT b.{column} FROM batch b WHERE b.id = {batch})")
    op.add_column("weighing", sa.Column("source", sa.String(length=10), nullable=False, server_default="hand"))
    op.execute("UPDATE weighing SET source = 'file' WHERE import_id IS NOT NULL")
    op.execute("UPDATE weighing SET source = 'round' WHERE import_id IS NULL AND uid IS NOT NULL")
    op.execute("ALTER TABLE weighing RENAME COLUMN confirmed TO kept")
    op.execute("ALTER TABLE weighing ADD COLUMN restores_id INTEGER REFERENCES weighing (id)")
    op.create_index("weighing_restores_once", "weighing", ["restores_id"], unique=True)
    # casing and shape can be corrected too: what was and what is are kept as text
    with op.batch_alter_table("correction") as correction:
        for column in ("was", "now"):
            correction.alter_column(column, type_=sa.String(length=40), existing_nullable=True)
    for column in ("was", "now"):
        op.execute(f"UPDATE correction SET {column} = printf('%.12g', {column}) WHERE {column} IS NOT NULL")
    op.add_column("weigh_out", sa.Column("meat_temperature_s", sa.Integer(), nullable=True))


def _after_the_hook() -> None:
    op.add_column("hanging", sa.Column("ended_as", sa.String(length=10), nullable=True))
    op.add_column("hanging", sa.Column("ended_by", sa.String(length=60), nullable=True))
    op.add_column("hanging", sa.Column("entered_s", sa.Integer(), nullable=False, server_default="0"))
    op.execute("UPDATE hanging SET entered_s = from_s")
    # the program wrote these reasons itself, so that its own words tell a move from a taking down
    op.execute(
        "UPDATE hanging SET ended_as = CASE WHEN end_reason LIKE 'moved to rod %'"
        " OR end_reason LIKE 'changed places, to rod %' THEN 'moved' ELSE 'down' END WHERE to_s IS NOT NULL"
    )
    op.create_table(
        "piece_state",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=10), nullable=False),
        sa.Column("how", sa.String(length=12), nullable=False),
        sa.Column("from_s", sa.Integer(), nullable=False),
        sa.Column("to_s", sa.Integer(), nullable=True),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("note", sa.String(length=300), nullable=False),
        sa.Column("against", sa.String(length=400), nullable=False),
        *_struck(),
        sa.ForeignKeyConstraint(["piece_id"], ["piece.id"]),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_piece_state_piece_id", "piece_state", ["piece_id"])
    op.create_index("ix_piece_state_place_id", "piece_state", ["place_id"])
    op.create_index(
        "one_state_per_piece",
        "piece_state",
        ["piece_id"],
        unique=True,
        sqlite_where=sa.text("to_s IS NULL AND struck_s IS NULL"),
    )
    # a piece that was down for a while and hangs again was that: its state ends where the next hanging begins
    op.execute(
        """
        INSERT INTO piece_state (piece_id, kind, how, from_s, to_s, place_id, note, against, by, entered_s)
        SELECT h.piece_id,
               CASE WHEN h.end_reason LIKE 'to rest%' THEN 'resting' WHEN h.end_reason LIKE 'cut to check%' THEN 'cut'
                    WHEN h.end_reason LIKE 'discarded%' THEN 'gone' ELSE 'down' END,
               CASE WHEN h.end_reason LIKE 'to rest%' THEN 'unknown'
                    WHEN h.end_reason LIKE 'discarded%' THEN 'discarded' ELSE '' END,
               h.to_s,
               (SELECT min(n.from_s) FROM hanging n WHERE n.piece_id = h.piece_id AND n.id > h.id),
               NULL, coalesce(h.end_reason, ''), '', h.by, h.to_s
        FROM hanging h WHERE h.to_s IS NOT NULL AND h.ended_as = 'down'
        ORDER BY h.id
        """
    )
    op.create_table(
        "piece_cut",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("piece_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("before_g", sa.Double(), nullable=False),
        sa.Column("after_g", sa.Double(), nullable=False),
        sa.Column("note", sa.String(length=300), nullable=False),
        *_struck(),
        sa.ForeignKeyConstraint(["piece_id"], ["piece.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_piece_cut_piece_id", "piece_cut", ["piece_id"])


def _readings() -> None:
    op.execute("ALTER TABLE reading ADD COLUMN device_id INTEGER REFERENCES device (id)")
    # where a place has one climate device and no file brought a reading, it is the device's
    op.execute(
        "UPDATE reading SET device_id = (SELECT min(d.id) FROM device d WHERE d.kind = 'climate' AND"
        " d.place_id = reading.place_id) WHERE import_id IS NULL AND 1 = (SELECT count(*) FROM device d"
        " WHERE d.kind = 'climate' AND d.place_id = reading.place_id)"
    )
    op.create_table(
        "reading_strike",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("place_id", sa.Integer(), nullable=False),
        sa.Column("from_s", sa.Integer(), nullable=False),
        sa.Column("to_s", sa.Integer(), nullable=False),
        sa.Column("import_id", sa.Integer(), nullable=True),
        sa.Column("reason", sa.String(length=200), nullable=False),
        sa.Column("readings", sa.Integer(), nullable=False),
        *_struck(),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"]),
        sa.ForeignKeyConstraint(["import_id"], ["import_report.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_reading_strike_place_id", "reading_strike", ["place_id"])
    op.create_table(
        "struck_reading",
        sa.Column("strike_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("temperature_c", sa.Double(), nullable=False),
        sa.Column("rh_percent", sa.Double(), nullable=False),
        sa.Column("import_id", sa.Integer(), nullable=True),
        sa.Column("device_id", sa.Integer(), nullable=True),
        sa.ForeignKeyConstraint(["strike_id"], ["reading_strike.id"]),
        sa.ForeignKeyConstraint(["import_id"], ["import_report.id"]),
        sa.ForeignKeyConstraint(["device_id"], ["device.id"]),
        sa.PrimaryKeyConstraint("strike_id", "at_s"),
        sqlite_with_rowid=False,
    )
    for name, kind in (("s", sa.Integer()), ("by", sa.String(length=60)), ("reason", sa.String(length=200))):
        op.add_column("import_report", sa.Column(f"taken_back_{name}", kind, nullable=True))
    op.add_column("setpoint", sa.Column("entered_s", sa.Integer(), nullable=False, server_default="0"))
    op.execute("UPDATE setpoint SET entered_s = at_s")
    for name, kind, nullable in STRUCK[2:]:
        op.add_column("setpoint", sa.Column(name, kind, nullable=nullable))


def _entries() -> None:
    op.create_table(
        "sent",
        sa.Column("uid", sa.String(length=60), nullable=False),
        sa.Column("what", sa.String(length=60), nullable=False),
        sa.Column("made", sa.String(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("uid"),
    )
    op.create_table(
        "journal_line",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("what", sa.String(length=40), nullable=False),
        sa.Column("row", sa.String(length=80), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=True),
        sa.Column("piece_id", sa.Integer(), nullable=True),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("before", sa.String(), nullable=False),
        sa.Column("after", sa.String(), nullable=False),
        sa.Column("reason", sa.String(length=300), nullable=False),
        sa.ForeignKeyConstraint(["batch_id"], ["batch.id"]),
        sa.ForeignKeyConstraint(["piece_id"], ["piece.id"]),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_journal_line_at_s", "journal_line", ["at_s"])
    op.create_index("ix_journal_line_batch_id", "journal_line", ["batch_id"])
    for event in ("UPDATE", "DELETE"):
        op.execute(
            f"CREATE TRIGGER journal_line_no_{event.lower()} BEFORE {event} ON journal_line"
            " BEGIN SELECT RAISE(ABORT, 'the journal is only added to'); END"
        )
