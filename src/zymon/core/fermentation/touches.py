"""What the hand does to a batch in the warm besides measuring: spray, cool, mould or vinegar, to the hook."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from ..say import Said, said

TouchKind = Literal["spray", "cool", "mould", "vinegar", "hang"]

DRY_RH = 78.0  # under it the skin dries while it should not; usual boxes stand at 80–95 %
SPRAY_EVERY_HOURS = 6.0  # hours; usual practice in a dry box
COOL_WITHIN_HOURS, SURFACE_WITHIN_HOURS, HANG_WITHIN_HOURS = 4.0, 24.0, 24.0  # hours after it is sour; usual practice


@dataclass(frozen=True)
class Touch:
    """Something to do, one way or the other, within hours since stuffing; `cost`: what putting it off does."""

    ways: tuple[TouchKind, ...]
    firm: bool
    from_hour: float
    latest_hour: float
    cost: Said


def touches(
    done_hour: Mapping[str, float], now_hour: float, measured_hour: float | None, box_rh_percent: float | None
) -> list[Touch]:
    """What is next: while it ferments water on the skin of goods in a dry box; once sour, cool, skin, hook.

    Parameters: done_hour [h], when each kind of touch was last done; now_hour [h]; measured_hour [h], of the first
    measured 5.3, or None; box_rh_percent [%] lately, or None. Hours since stuffing. Source: usual practice.

    >>> [t.ways for t in touches({}, 30.0, 28.0, 90.0)]
    [('cool',), ('mould', 'vinegar'), ('hang',)]
    """
    if measured_hour is None:
        if box_rh_percent is None or box_rh_percent >= DRY_RH:
            return []
        due = done_hour.get("spray", now_hour - SPRAY_EVERY_HOURS) + SPRAY_EVERY_HOURS
        return [Touch(("spray",), False, due, due + SPRAY_EVERY_HOURS, said("cost.skin_closes"))]
    found = []
    if "cool" not in done_hour:
        found.append(Touch(("cool",), True, measured_hour, measured_hour + COOL_WITHIN_HOURS, said("cost.sours_on")))
    if "mould" not in done_hour and "vinegar" not in done_hour:
        found.append(
            Touch(
                ("mould", "vinegar"), False, measured_hour, measured_hour + SURFACE_WITHIN_HOURS,
                said("cost.first_mould"),
            )
        )  # fmt: skip
    found.append(
        Touch(("hang",), False, measured_hour, measured_hour + HANG_WITHIN_HOURS, said("cost.not_known_meanwhile"))
    )
    return found
