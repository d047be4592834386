"""Places as people have them: the air that is usual in each kind, its spread, and how much it moves.

What nobody set and no thermometer told is taken as usual for the kind of place, and said beside the answer.
"""

import math
from dataclasses import dataclass
from typing import Literal, get_args

from ..say import Said, said

Sort = Literal[
    "drying_chamber", "fridge_with_fan", "household_fridge", "cellar", "room", "fan_room", "dehydrator", "smokehouse",
    "garage",
]  # fmt: skip
Stirring = Literal["still", "gentle", "strong"]
SORTS: tuple[Sort, ...] = get_args(Sort)
STIRRINGS: tuple[Stirring, ...] = get_args(Stirring)


# How much air the pieces get against gently moved air; estimates
STILL, STRONG = 0.58, 1.1
STIRRED: dict[Stirring, float] = {"still": STILL, "gentle": 1.0, "strong": STRONG}


@dataclass(frozen=True)
class UsualAir:
    """What the air of a kind of place usually is, and one standard deviation between places of the kind [°C, %].

    `air`: how much of it the pieces get against gently moved air [-].
    """

    temperature_c: float
    sd_c: float
    rh_percent: float
    sd_rh: float
    air: float


# Estimates of practice, from what makers report of such places
USUAL: dict[Sort, UsualAir] = {
    "drying_chamber": UsualAir(13.0, 2.0, 78.0, 5.0, 1.0),
    "fridge_with_fan": UsualAir(10.0, 3.0, 73.0, 7.0, 1.0),
    "household_fridge": UsualAir(3.0, 1.2, 48.0, 9.0, STILL),
    "cellar": UsualAir(12.0, 2.5, 77.0, 6.0, 0.85),
    "room": UsualAir(19.5, 1.5, 50.0, 8.0, 0.8),
    "fan_room": UsualAir(18.0, 2.0, 57.0, 8.0, STRONG),
    "dehydrator": UsualAir(35.0, 3.0, 35.0, 8.0, STRONG),
    "smokehouse": UsualAir(8.0, 4.0, 78.0, 7.0, 0.46),
    "garage": UsualAir(9.0, 4.5, 74.0, 8.0, 0.85),
}
# Where nobody said what kind of place it is
UNKNOWN = UsualAir(13.0, 2.4, 78.0, 7.2, 1.0)

FROST_C = 0.0  # colder air freezes what hangs in it

# A place of which nobody said how its air moves is the likelier a household fridge the colder it is
COLD_C, COLD_WIDTH_C = 6.5, 0.3


@dataclass(frozen=True)
class Surroundings:
    """What was said of a place: what it is, and how its air moves; None where nobody said."""

    sort: Sort | None = None
    stirring: Stirring | None = None

    @property
    def usual(self) -> UsualAir:
        """The air that is usual in such a place."""
        return UNKNOWN if self.sort is None else USUAL[self.sort]

    @property
    def usual_said(self) -> Said:
        """What the air of such a place usually is, to be said before anything was measured there."""
        air = self.usual
        return said("place.usual", c=air.temperature_c, sd_c=air.sd_c, rh_percent=air.rh_percent, sd_rh=air.sd_rh)

    def ln_air(self, temperature_c: float) -> float:
        """ln of how much air the pieces get against gently moved air [-], without a step at any temperature.

        Parameters: temperature_c [°C], usual of the place: it tells only where nobody said what kind of place it is.

        >>> Surroundings("household_fridge").ln_air(12.0) == Surroundings(stirring="still").ln_air(2.0)
        True
        """
        if self.stirring is not None:
            return math.log(STIRRED[self.stirring])
        if self.sort is not None:
            return math.log(self.usual.air)
        still = 1.0 / (1.0 + math.exp((temperature_c - COLD_C) / COLD_WIDTH_C))
        return still * math.log(STILL)

    def assumed(
        self,
        logged: bool,
        setpoint_c: float | None,
        setpoint_rh_percent: float | None,
        humidity_logged: bool = True,
    ) -> tuple[Said, ...]:
        """What is taken as usual of the air, or as set, because no thermometer told; empty where readings tell.

        Parameters: logged, whether there are readings; setpoint_c [°C], setpoint_rh_percent [%], None where not set;
        humidity_logged, whether they tell of humidity too.
        """
        usual, sort = self.usual, self.sort or "unknown"
        if logged and humidity_logged:
            return ()
        if logged and setpoint_rh_percent is not None:
            return (said("assumed.humidity_as_set", rh_percent=setpoint_rh_percent),)
        found = []
        if setpoint_c is None and not logged:
            found.append(said("assumed.temperature", c=usual.temperature_c, sd_c=usual.sd_c, sort=sort))
        if setpoint_rh_percent is None:
            found.append(said("assumed.humidity", rh_percent=usual.rh_percent, sd_rh=usual.sd_rh, sort=sort))
        if not logged and (setpoint_c is not None or setpoint_rh_percent is not None):
            found.append(said("assumed.as_set"))
        return tuple(found)
