"""People, the browsers they are signed in from, trusted tablets; the address for tablets; the end of a device;
where a record was brought in from.

Revision 0021, after 0020. Nothing is moved: a workshop without people opens as before.
"""

import sqlalchemy as sa
from alembic import op

revision = "0021"
down_revision = "0020"


def upgrade() -> None:
    op.create_table(
        "person",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("role", sa.String(12), nullable=False),
        sa.Column("passphrase_hash", sa.String(200)),
        sa.Column("pin_hash", sa.String(200)),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("failures", sa.Integer(), nullable=False),
        sa.Column("failed_s", sa.Integer()),
        sa.Column("ended_s", sa.Integer()),
        sa.Column("ended_by", sa.String(60)),
    )
    op.create_table(
        "tablet",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("token_sha256", sa.String(64), nullable=False, unique=True),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
        sa.Column("ended_s", sa.Integer()),
        sa.Column("ended_by", sa.String(60)),
    )
    op.create_table(
        "sign_in",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id"), nullable=False, index=True),
        sa.Column("tablet_id", sa.Integer(), sa.ForeignKey("tablet.id")),
        sa.Column("use", sa.String(10), nullable=False),
        sa.Column("token_sha256", sa.String(64), nullable=False, unique=True),
        sa.Column("browser", sa.String(120), nullable=False),
        sa.Column("began_s", sa.Integer(), nullable=False),
        sa.Column("ends_s", sa.Integer()),
        sa.Column("last_s", sa.Integer(), nullable=False),
        sa.Column("confirmed_s", sa.Integer()),
        sa.Column("ended_s", sa.Integer()),
        sa.Column("ended_by", sa.String(60)),
    )
    op.create_table(
        "brought_in",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("file_name", sa.String(200), nullable=False),
        sa.Column("sha256", sa.String(64), nullable=False),
        sa.Column("made_s", sa.Integer(), nullable=False),
    )
    op.add_column("workshop", sa.Column("address", sa.String(200)))
    op.add_column("device", sa.Column("ended_s", sa.Integer()))
    op.add_column("device", sa.Column("ended_by", sa.String(60)))
