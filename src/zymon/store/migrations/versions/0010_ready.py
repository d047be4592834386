"""Ready means ready: what the ledger has to know of every batch, made here or not.

Limits, use and how it is done stand with the batch, so that pieces hung as they came have a ledger too; signatures,
laboratory values and parasite steps belong to a batch, not to its making. Laboratory values get their unit, what they
were taken of and their piece; parasite steps their species. "Even" of an inspection becomes "yielding": it was neither
soft nor hard, and nobody called it firm. A muscle that went in salt without lying on the Bench was given its family's
curing salt unasked: whether any went in is not known until somebody says. Every row stays. Revision 0010, after 0009.
"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"

STRUCK = (
    ("by", sa.String(length=60), False),
    ("entered_s", sa.Integer(), False),
    ("struck_s", sa.Integer(), True),
    ("struck_by", sa.String(length=60), True),
    ("struck_reason", sa.String(length=200), True),
)
# columns of the tables that belong to a batch from here on
OF_A_BATCH = {
    "hurdle_signature": ("hurdle", "reason", "by", "at_s"),
    "profile_change": ("was", "now", "by", "at_s"),
    "lab_result": ("at_s", "what", "value", "loss_percent", "note", *(name for name, _, _ in STRUCK)),
    "ph_reading": (
        "uid",
        "at_s",
        "ph",
        "sample_c",
        "meter_id",
        "confirmed",
        *(name for name, _, _ in STRUCK),
    ),
    "parasite_step": ("way", "temperature_c", "days", "thickness_cm", "note", *(name for name, _, _ in STRUCK)),
}


def upgrade() -> None:
    for name, kind, usual in (("profile", 20, "us"), ("use", 8, "raw"), ("done_by", 8, "weight")):
        op.add_column("batch", sa.Column(name, sa.String(length=kind), nullable=False, server_default=usual))
    op.execute(
        "UPDATE batch SET profile = (SELECT m.profile FROM making m WHERE m.batch_id = batch.id)"
        " WHERE id IN (SELECT batch_id FROM making)"
    )
    op.execute("ALTER TABLE making DROP COLUMN profile")
    op.add_column("workshop", sa.Column("people", sa.Integer(), nullable=True))
    for table in OF_A_BATCH:
        _to_batch(table)
    _laboratory_and_parasites()
    op.execute("UPDATE hang_event SET found = replace(found, '\"even\"', '\"yielding\"') WHERE kind = 'inspect'")
    op.execute(
        "UPDATE making SET sheet = json_set(sheet, '$.curing_known', json('false')) WHERE weigh_out_id IS NULL"
        " AND batch_id IN (SELECT batch_id FROM salt_piece)"
    )
    op.create_table(
        "went_in",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("species", sa.String(length=20), nullable=True),
        *(sa.Column(name, sa.Double(), nullable=True) for name in ("fat_percent", "salt_percent", "curing_percent")),
        sa.Column("nitrite_fraction", sa.Double(), nullable=True),
        sa.Column("nitrate_fraction", sa.Double(), nullable=True),
        sa.Column("curing", sa.String(length=8), nullable=False),
        *_struck(),
        sa.ForeignKeyConstraint(["batch_id"], ["batch.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_went_in_batch_id", "went_in", ["batch_id"])
    for table, columns in (
        ("hurdle_correction", (("was", 10), ("reason", 300), ("by", 60))),
        ("deviation_step", (("step", 12), ("note", 300))),
    ):
        op.create_table(
            table,
            sa.Column("id", sa.Integer(), nullable=False),
            sa.Column("batch_id", sa.Integer(), nullable=False),
            sa.Column("hurdle", sa.String(length=30), nullable=False),
            sa.Column("at_s", sa.Integer(), nullable=False),
            *(sa.Column(name, sa.String(length=length), nullable=False) for name, length in columns),
            *(_struck() if table == "deviation_step" else []),
            sa.ForeignKeyConstraint(["batch_id"], ["batch.id"]),
            sa.PrimaryKeyConstraint("id"),
        )
        op.create_index(f"ix_{table}_batch_id", table, ["batch_id"])


def _struck() -> list[sa.Column[object]]:
    return [sa.Column(name, kind, nullable=nullable) for name, kind, nullable in STRUCK]


def _to_batch(table: str) -> None:
    """The same rows under the same ids, whose batch need not have been made here."""
    found = op.get_bind().execute(sa.text(f"SELECT sql FROM sqlite_master WHERE name = '{table}'")).scalar_one()
    wanted = found.replace("making (batch_id)", "batch (id)").replace(f"TABLE {table}", f"TABLE {table}_new")
    wanted = wanted.replace(f'TABLE "{table}"', f"TABLE {table}_new")
    if wanted.count("batch (id)") != 1:
        raise RuntimeError(f"{table} is not as it should be: {found}")
    op.execute(wanted)
    columns = ", ".join(f'"{name}"' for name in ("id", "batch_id", *OF_A_BATCH[table]))
    op.execute(f"INSERT INTO {table}_new ({columns}) SELECT {columns} FROM {table}")
    op.execute(f"DROP TABLE {table}")
    op.execute(f"ALTER TABLE {table}_new RENAME TO {table}")
    op.create_index(f"ix_{table}_batch_id", table, ["batch_id"])


def _laboratory_and_parasites() -> None:
    op.add_column("lab_result", sa.Column("unit", sa.String(length=10), nullable=False, server_default=""))
    op.add_column("lab_result", sa.Column("taken_of", sa.String(length=8), nullable=False, server_default="product"))
    op.add_column("lab_result", sa.Column("tag", sa.String(length=40), nullable=True))
    op.execute("UPDATE lab_result SET taken_of = 'mix' WHERE what = 'nitrite_in'")
    op.execute(
        "UPDATE lab_result SET what = 'nitrite', unit = 'mg/kg' WHERE what IN ('nitrite_in', 'residual_nitrite')"
    )
    op.execute("UPDATE lab_result SET unit = '%' WHERE what = 'salt'")
    # a count was never asked for: a nought was an absence, anything else a finding
    op.execute("UPDATE lab_result SET unit = 'in 25 g', value = min(value, 1) WHERE what = 'salmonella'")
    op.execute(
        "UPDATE lab_result SET unit = CASE WHEN value <= 1 THEN 'in 25 g' ELSE 'cfu/g' END WHERE what = 'listeria'"
    )
    op.execute("UPDATE lab_result SET value = min(value, 1) WHERE what = 'staphylococcal_enterotoxin'")
    op.add_column("parasite_step", sa.Column("species", sa.String(length=20), nullable=False, server_default="pork"))
    op.execute(
        "UPDATE parasite_step SET species = coalesce((SELECT json_extract(m.sheet, '$.plan.species') FROM making m"
        " WHERE m.batch_id = parasite_step.batch_id), 'pork')"
    )
