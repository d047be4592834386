"""What the Bench's routes share."""

from zymon.core.limits import LimitProfile
from zymon.limits import shipped
from zymon.store.places import NotFoundError


def profile(name: str) -> LimitProfile:
    """The limit profile of an id. Raises NotFoundError."""
    if name not in shipped():
        raise NotFoundError(f"there is no limit profile {name}")
    return shipped()[name]


def attachment(name: str) -> dict[str, str]:
    """Headers that let a browser keep an answer as a file."""
    plain = "".join(c if c.isascii() and (c.isalnum() or c in "-_.") else "-" for c in name)
    return {"Content-Disposition": f'attachment; filename="{plain}"'}
