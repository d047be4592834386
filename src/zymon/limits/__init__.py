"""Reference limits by jurisdiction, as data files with source and date. May import the core only."""

import json
from functools import cache
from importlib.resources import files
from typing import Any

from zymon.core.limits import DegreeHourStep, DegreeHourTable, IngoingLimits, LimitProfile

SHIPPED = ("us", "eu")
OPTIONAL = ("sources", "residual_nitrite_mg_per_kg", "residual_as", "listeria_zero", "unchilled", "made_by")


def profile_from(data: dict[str, Any]) -> LimitProfile:
    """A profile from its data, as shipped or as added by the user.

    Raises KeyError or TypeError for data of another shape.
    """
    table = data["degree_hours"]
    return LimitProfile(
        **{key: data[key] for key in ("id", "name", "source", "as_of", "check", "counted_as")},
        minced=IngoingLimits(**data["minced"]),
        intact=IngoingLimits(**data["intact"]),
        belly=IngoingLimits(**data["belly"]),
        degree_hours=DegreeHourTable(
            table["unit"], table["threshold"], tuple(DegreeHourStep(**step) for step in table["steps"])
        ),
        **{key: data[key] for key in OPTIONAL if data.get(key) is not None},
        does_not_know=tuple(data.get("does_not_know", ())),
    )


@cache
def shipped() -> dict[str, LimitProfile]:
    """The profiles that come with Zymon, by id."""
    folder = files(__name__)
    return {name: profile_from(json.loads((folder / f"{name}.json").read_text())) for name in SHIPPED}
