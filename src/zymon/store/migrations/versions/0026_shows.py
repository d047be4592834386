"""In which language and units somebody reads, and the workshop where nobody chose. Nothing is moved.

Revision 0026, after 0025.
"""

import sqlalchemy as sa
from alembic import op

revision = "0026"
down_revision = "0025"


def upgrade() -> None:
    op.add_column("person", sa.Column("shows", sa.String(200)))
    op.add_column("workshop", sa.Column("shows", sa.String(200)))
