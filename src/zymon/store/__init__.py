"""What is kept: SQLAlchemy models, sessions, migrations, and queries by station.

May import the core; knows nothing of the web. Times are whole seconds since 1970 UTC in columns named `_s`;
weights are grams as entered. What a person entered is never overwritten or deleted: it is struck through.
"""

from . import hang_models  # noqa: F401 -- tables name each other: a piece what was felt of it
