"""What is watched at a place, what happened, who is told and what was sent. Nothing is moved.

Revision 0023, after 0022.
"""

import sqlalchemy as sa
from alembic import op

revision = "0023"
down_revision = "0022"


def upgrade() -> None:
    op.create_table(
        "alarm_band",
        sa.Column("place_id", sa.Integer(), sa.ForeignKey("place.id"), primary_key=True),
        *(sa.Column(name, sa.Double()) for name in ("low_c", "high_c", "low_rh", "high_rh")),
        sa.Column("for_minutes", sa.Integer(), nullable=False),
        sa.Column("frost", sa.Boolean(), nullable=False),
        sa.Column("silent_minutes", sa.Integer()),
        sa.Column("door_minutes", sa.Integer()),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
    )
    op.create_table(
        "alarm_event",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("kind", sa.String(16), nullable=False),
        sa.Column("place_id", sa.Integer(), sa.ForeignKey("place.id")),
        sa.Column("about", sa.String(60), nullable=False),
        sa.Column("link", sa.String(120), nullable=False),
        sa.Column("begun_s", sa.Integer(), nullable=False),
        sa.Column("seen_s", sa.Integer(), nullable=False),
        sa.Column("ended_s", sa.Integer()),
        sa.Column("worst", sa.Double()),
        sa.Column("acknowledged_s", sa.Integer()),
        sa.Column("acknowledged_by", sa.String(60)),
    )
    op.create_table(
        "alarm_person",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("way", sa.String(8), nullable=False),
        sa.Column("address", sa.Text(), nullable=False),
        sa.Column("secret", sa.String(100), nullable=False),
        sa.Column("second", sa.Boolean(), nullable=False),
        sa.Column("quiet_from", sa.Integer()),
        sa.Column("quiet_to", sa.Integer()),
        sa.Column("woken", sa.Boolean(), nullable=False),
        sa.Column("by", sa.String(60), nullable=False),
        sa.Column("at_s", sa.Integer(), nullable=False),
        sa.Column("ended_s", sa.Integer()),
        sa.Column("ended_by", sa.String(60)),
    )
    op.create_table(
        "alarm_message",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("event_id", sa.Integer(), sa.ForeignKey("alarm_event.id"), nullable=False),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("alarm_person.id"), nullable=False),
        sa.Column("due_s", sa.Integer(), nullable=False),
        sa.Column("begun_s", sa.Integer()),
        sa.Column("gone_s", sa.Integer()),
        sa.Column("tries", sa.Integer(), nullable=False),
        sa.Column("trouble", sa.String(300), nullable=False),
        sa.UniqueConstraint("event_id", "person_id"),
    )
    op.create_index("ix_alarm_message_event_id", "alarm_message", ["event_id"])
