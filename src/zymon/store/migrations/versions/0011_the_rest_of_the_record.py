"""What the record could not yet hold: a stay taken back, several mixes, where the meat lay before its salt.

What a hold says stands as code and values beside its words, so that it can be told in another language; holds of before
keep their words and have no code. A stay on a hook that was entered by mistake is struck, with who and why. A
batch can have several mixes, each weighed out by itself; a piece belongs to one of them, or to the first. Where meat
lay before it was salted, stuffed or hung, and how warm it was mixed, can be noted of any batch. Nothing is moved.
Revision 0011, after 0010.
"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    op.add_column("hold", sa.Column("says", sa.String(length=500), nullable=True))
    op.add_column("hanging", sa.Column("struck_s", sa.Integer(), nullable=True))
    op.add_column("hanging", sa.Column("struck_by", sa.String(length=60), nullable=True))
    op.add_column("hanging", sa.Column("struck_reason", sa.String(length=200), nullable=True))
    op.create_table(
        "meat_note",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=8), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("to_s", sa.Integer(), nullable=True),
        sa.Column("place_id", sa.Integer(), nullable=True),
        sa.Column("temperature_c", sa.Double(), nullable=True),
        sa.Column("note", sa.String(length=200), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.Column("entered_s", sa.Integer(), nullable=False),
        sa.Column("struck_s", sa.Integer(), nullable=True),
        sa.Column("struck_by", sa.String(length=60), nullable=True),
        sa.Column("struck_reason", sa.String(length=200), nullable=True),
        sa.ForeignKeyConstraint(["batch_id"], ["batch.id"]),
        sa.ForeignKeyConstraint(["place_id"], ["place.id"]),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("ix_meat_note_batch_id", "meat_note", ["batch_id"])
    op.create_table(
        "mix",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("batch_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("weigh_out_id", sa.Integer(), nullable=False),
        sa.Column("sheet", sa.String(), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("by", sa.String(length=60), nullable=False),
        sa.ForeignKeyConstraint(["batch_id"], ["making.batch_id"]),
        sa.ForeignKeyConstraint(["weigh_out_id"], ["weigh_out.id"]),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("weigh_out_id"),
    )
    op.create_index("ix_mix_batch_id", "mix", ["batch_id"])
    op.execute("ALTER TABLE made_piece ADD COLUMN mix_id INTEGER REFERENCES mix (id)")
