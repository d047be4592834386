"""The five ways to salt whole muscle: how the salt meets the meat, whether it may wait, what is done day by day."""

from dataclasses import dataclass
from typing import Literal, get_args

from ..say import Said, said

Way = Literal["measured", "buried", "rub_and_drain", "pressed", "by_thickness"]
WAYS: tuple[str, ...] = get_args(Way)
Kind = Literal["elastic", "firm"]
# measured: all that was weighed goes in; sticks: what stays on the meat, never weighed; free: more than it takes up
Dose = Literal["measured", "sticks", "free"]
CareKind = Literal["turn", "drain", "rub", "check"]


@dataclass(frozen=True)
class Care:
    """Something to do again and again: every so many hours, in a span of days from the putting in."""

    kind: CareKind
    every_hours: float
    may_wait_hours: float  # beyond its time
    cost: Said  # what leaving it out does
    first_hours: float | None = None  # when it is due first; None: after a whole span
    to_day: float = 400.0


@dataclass(frozen=True)
class SaltingWay:
    """A way in words and figures; shed_percent is the liquid to be expected by its end, low and high."""

    name: str
    says: str
    clock: str
    waits: str
    shed_percent: tuple[float, float]
    latest_days_more: float | None  # how long it may wait past its day; None: as long as it takes
    care: tuple[Care, ...]
    after: Literal["blot", "rinse"]
    dose: Dose
    may_be_free: bool = False  # when it is said so, more salt lies on it than it is to take up

    @property
    def dose_is_known(self) -> bool:
        """Whether what went in is known from the sheet: the ledger counts it; else its core has to be reached."""
        return self.dose == "measured"


_TURN = Care("turn", 36, 36, said("cost.upper_side_slow"))

# Hours, shares and percents as each way is usually worked
REGISTRY: dict[Way, SaltingWay] = {
    "measured": SaltingWay(
        "measured",
        "the exact share, all of it in the bag, no air",
        "days by thickness",
        "may wait: extra days or weeks do no harm, it cannot oversalt",
        (2, 10),
        None,
        (_TURN,),
        "blot",
        "measured",
    ),
    "buried": SaltingWay(
        "buried",
        "a bed and a cover of salt",
        "hours or days by size and weight",
        "may not wait: every extra day salts more",
        (4, 15),
        0.0,
        (Care("check", 24, 12, said("cost.stays_raw")), Care("drain", 24, 24, said("cost.lies_in_brine"), 12)),
        "rinse",
        "free",
    ),
    "rub_and_drain": SaltingWay(
        "rub and drain",
        "what sticks is the dose; on a rack, so that the brine drains",
        "until no more liquid comes and it is stiff: 5–10 days",
        "may wait a few days",
        (5, 14),
        4.0,
        (
            Care("drain", 18, 12, said("cost.lies_in_brine")),
            Care("rub", 24, 24, said("cost.wet_face"), to_day=3.0),
            _TURN,
        ),
        "blot",
        "sticks",
    ),
    "pressed": SaltingWay(
        "pressed",
        "salted, wrapped, under a weight",
        "24 hours to a week",
        "a measured dose may wait; free salt may not",
        (4, 14),
        3.0,
        (Care("turn", 24, 12, said("cost.pressed_flat")),),
        "blot",
        "measured",
        True,
    ),
    "by_thickness": SaltingWay(
        "dose by thickness",
        "thin pieces a little under, thick ones a little over the same share",
        "about a week",
        "may wait a few days",
        (3, 10),
        5.0,
        (Care("turn", 24, 24, _TURN.cost), Care("drain", 48, 24, said("cost.underside_faster"))),
        "blot",
        "measured",
    ),
}


TOO_EARLY_SHARE = 0.5  # of the level its core settles at, under which coming out is said to be early; practice


def out_is_early(way: Way, free_salt: bool, core_share: float) -> bool:
    """Whether a piece would come out of a measured dose long before its core has its salt.

    Parameters: way; free_salt; core_share, of the level that the core settles at.

    >>> out_is_early("measured", False, 0.49), out_is_early("measured", False, 0.5), out_is_early("buried", False, 0.1)
    (True, False, False)
    """
    return not is_free(way, free_salt) and core_share < TOO_EARLY_SHARE


def kind_of(way: Way, free_salt: bool) -> Kind:
    """Whether a way may wait. Parameters: way; free_salt, true where more salt lies on it than it is to take up.

    >>> kind_of("measured", False)
    'elastic'
    """
    return "firm" if free_salt or REGISTRY[way].dose == "free" else "elastic"


def is_free(way: Way, free_salt: bool) -> bool:
    """Whether more salt lies on the meat than it is to take up. Parameters: way; free_salt."""
    return REGISTRY[way].dose == "free" or (REGISTRY[way].may_be_free and free_salt)
