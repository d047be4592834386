"""The measures of a batch that causes are weighed by. A measure that nobody took is not there: it speaks for nothing.

Each has the value that the table compares, and the values that its sentence names.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field

from ..say import Value
from .table import MARKS

LONGEST_WARM_DAYS = 2.0  # after which a longer dry stage adds no more
ACID_PH = 5.3  # as in `degree_hours`: sour enough


@dataclass(frozen=True)
class Measured:
    """A measure: the value that is compared, and what its sentence names."""

    value: float
    says: Mapping[str, Value] = field(default_factory=dict)


Records = Mapping[str, Measured]


def pull_of_air(rh_percent: float, set_percent: float) -> float:
    """How much harder drier air pulls at a piece than the air that was set (ln).

    Parameters: rh_percent, set_percent [%].

    >>> round(pull_of_air(60, 80), 2)
    0.69
    """
    return math.log(max(100 - rh_percent, 1.0) / max(100 - set_percent, 1.0))


def of_warm_stage(warm_rh_percent: float | None, warm_hours: float) -> dict[str, Measured]:
    """How the air of the warm stage pulled at the skin. Parameters: warm_rh_percent [%], None unlogged; warm_hours [h].

    >>> of_warm_stage(60.0, 48.0)["warm_pull"].value > of_warm_stage(60.0, 12.0)["warm_pull"].value
    True
    """
    if warm_rh_percent is None:
        return {}
    pull = pull_of_air(warm_rh_percent, MARKS["warm_dry_rh_percent"]) * min(warm_hours / 24, LONGEST_WARM_DAYS)
    return {"warm_pull": Measured(pull, {"rh_percent": round(warm_rh_percent), "hours": round(warm_hours)})}


def of_packing(net_g: float | None, diameter_mm: float | None, length_mm: float | None) -> dict[str, Measured]:
    """How heavy the mince of a cylinder lies in its casing. Parameters: net_g [g], diameter_mm, length_mm [mm].

    >>> round(of_packing(842, 60, 300)["packed"].value, 2)
    0.99
    """
    if net_g is None or diameter_mm is None or length_mm is None:
        return {}
    ml = math.pi * (diameter_mm / 2) ** 2 * length_mm / 1000
    return {"packed": Measured(net_g / ml, {"g_per_ml": round(net_g / ml, 2)})}


def of_acid(lowest_ph: float | None, dextrose_percent: float | None, culture: bool | None) -> dict[str, Measured]:
    """How sour it became, and of what; what nobody measured or said is None.

    Parameters: lowest_ph; dextrose_percent [% of the meat]; culture, whether one went in.
    """
    found = {}
    if lowest_ph is not None:
        shown = {"ph": round(lowest_ph, 2)}
        found["lowest_ph"] = Measured(lowest_ph, shown)
        found["acid_gap"] = Measured(lowest_ph - ACID_PH, shown)
    if dextrose_percent is not None:
        found["dextrose"] = Measured(dextrose_percent, {"percent": round(dextrose_percent, 2)})
    if culture is not None:
        found["culture"] = Measured(float(culture))
    return found


def of_salt(
    salt_percent: float | None, loss_percent: float | None, taken_share: float | None, core_share: float | None
) -> dict[str, Measured]:
    """How much salt is in the finished piece, how much of what was meant it took up, how far it had come.

    Parameters: salt_percent [% of the meat]; loss_percent [%]; taken_share, of the salt that was meant to be taken up
    (ways with free salt only); core_share, of its level that the core had when it came out. What is not known is None.
    """
    found = {}
    if salt_percent is not None and loss_percent is not None and loss_percent < 95:
        finished = salt_percent / (1 - loss_percent / 100)
        found["salt_finished"] = Measured(
            finished, {"percent": round(salt_percent, 2), "finished_percent": round(finished, 1)}
        )
    if taken_share is not None:
        found["salt_taken"] = Measured(taken_share, {"share_percent": round(100 * taken_share)})
    if core_share is not None:
        found["core_share"] = Measured(core_share, {"share_percent": round(100 * min(core_share, 1.0))})
    return found


def plain(**values: float | None) -> dict[str, Measured]:
    """Measures whose sentence names the value itself; what is None is not there. Parameters: values, by measure.

    >>> plain(mix_c=6.0, cold_c=None)
    {'mix_c': Measured(value=6.0, says={'value': 6.0})}
    """
    return {name: Measured(value, {"value": round(value, 1)}) for name, value in values.items() if value is not None}
