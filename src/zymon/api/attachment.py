"""Answers that a browser keeps as a file."""

import re
from datetime import datetime


def attachment(name: str) -> dict[str, str]:
    """Headers that let a browser keep an answer as a file."""
    plain = "".join(c if c.isascii() and (c.isalnum() or c in "-_.") else "-" for c in name)
    return {"Content-Disposition": f'attachment; filename="{plain}"'}


def file_stem(name: str, at: datetime) -> str:
    """A file name for an export: what it is of and the day."""
    return f"{re.sub(r'[^a-z0-9]+', '-', name.lower()).strip('-') or 'place'}-{at:%Y-%m-%d}"
