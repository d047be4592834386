"""The rods of a place."""

from typing import Annotated

from pydantic import Field

from zymon.store import rods as store

from ..premises import Premises
from ..schemas import RecordIn
from . import schemas as s
from .room import room


class RodIn(RecordIn):
    """A rod: its hooks, and how far apart they are; null where nobody measured it."""

    hooks: Annotated[int, Field(ge=1, le=60)]
    hook_spacing_mm: Annotated[float, Field(ge=20, le=2000, allow_inf_nan=False)] | None = None


def change(shop: Premises, rod_id: int, body: RodIn) -> s.Room:
    """Give a rod more or fewer hooks, or say how far apart they are; a hook in use is not taken away."""
    with shop.recording(body, f"rod {rod_id}") as entry:
        if entry.new:
            store.change_rod(entry.session, rod_id, body.hooks, body.hook_spacing_mm)
            entry.came("rod", rod_id)
        place_id = store.rod(entry.session, rod_id).place_id
    return room(shop, place_id)


def add(shop: Premises, place_id: int, body: RodIn) -> s.Room:
    """Put another rod up."""
    with shop.recording(body, f"new rod {place_id}") as entry:
        if entry.new:
            entry.came("rod", store.add_rod(entry.session, place_id, body.hooks, body.hook_spacing_mm).id)
    return room(shop, place_id)
