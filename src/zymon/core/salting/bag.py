"""A piece in salt as declared, with what was done to it that moves the salt, and the cold it lies in."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..constants import GAS_CONSTANT_J_MOL_K, ZERO_CELSIUS_K
from ..curing import Geometry
from ..drying.climate import Log
from ..errors import OutOfRangeError, require
from .ways import REGISTRY, Way, is_free

Array = npt.NDArray[np.float64]

REFERENCE_C = 3.0  # a usual salting fridge [°C]
# Salt in lean muscle at 2–4 °C: literature 1.5–3.5e-10 m²/s; the spread covers muscles and the way it lies in the bag
DIFFUSIVITY_M2_S = 2.3e-10
DIFFUSIVITY_SPREAD = 1.45  # factor either way that holds four in five
ACTIVATION_J_MOL = 25_000.0
PIERCED = 2.5  # times as fast as in whole meat; estimate of practice, where a day does what else takes two or three
FREEZES_C = -2.0  # below it the water stands still, and the salt with it


def diffusivity(temperature_c: Array, fat_percent: float = 0.0) -> Array:
    """Diffusivity of salt in muscle [m²/s].

    Parameters: temperature_c [°C]; fat_percent [%] 0…80, through which no salt goes. Arrhenius about 3 °C.
    Source: range of the literature for pork; the fat's part is an estimate.

    >>> float(diffusivity(np.array(3.0)))
    2.3e-10
    """
    require("fat", fat_percent, 0.0, 80.0, "%")
    kelvin = np.asarray(temperature_c, dtype=np.float64) + ZERO_CELSIUS_K
    speed = np.exp(ACTIVATION_J_MOL / GAS_CONSTANT_J_MOL_K * (1 / (REFERENCE_C + ZERO_CELSIUS_K) - 1 / kelvin))
    thawed = np.asarray(temperature_c) >= FREEZES_C
    return np.asarray(DIFFUSIVITY_M2_S * (1 - fat_percent / 100) * np.where(thawed, speed, 0.0))


@dataclass(frozen=True)
class Step:
    """Something that changes how the salt meets the meat: the way, a dose laid on, a soak, the end of it all."""

    at_s: float
    kind: Literal["lay", "soak", "out"]
    way: Way = "measured"
    percent: float = 0.0  # laid on, of the raw weight; or the aim of free salt
    free_salt: bool = False
    hours: float = 0.0  # of a soak


@dataclass(frozen=True)
class Cold:
    """The temperature of the places a piece lies in, in time order: the log up to now, what is expected after it."""

    log: Log
    ahead_c: float

    def warmth(self, at_s: Array) -> Array:
        """Time weighted by how fast salt moves at the temperature [s at 3 °C]. Parameters: at_s [s]."""
        relative = diffusivity(np.append(self.log.temperature_c, self.ahead_c)) / DIFFUSIVITY_M2_S
        t = self.log.time_s
        if not len(t):
            return np.asarray(at_s * relative[-1])
        sums = np.concatenate([[0.0], np.cumsum((relative[1:-1] + relative[:-2]) / 2 * np.diff(t))])
        after = np.maximum(at_s - t[-1], 0.0) * relative[-1]
        before = np.minimum(at_s - t[0], 0.0) * relative[0]
        return np.asarray(np.interp(at_s, t, sums) + after + before)


@dataclass(frozen=True)
class Bag:
    """A piece in salt. across_mm: diameter, or thickness of a slab. Raises OutOfRangeError for what no piece can be."""

    geometry: Geometry
    across_mm: float
    weight_g: float
    fat_percent: float
    steps: tuple[Step, ...]  # the first lays the salt on
    cold: Cold
    rules: tuple[str, ...] = ("linear", "square", "diffusion")
    margin_percent: float = 0.0
    skin_share: float = 0.0  # of the surface, through which no salt goes
    pierced: bool = False  # salt and brine find their way into the holes

    def __post_init__(self) -> None:
        require("thickness", self.across_mm, 3.0, 400.0, "mm")
        require("weight", self.weight_g, 0.0, 50_000.0, "g", open_low=True)
        require("fat", self.fat_percent, 0.0, 80.0, "%")
        require("share under skin", self.skin_share, 0.0, 0.8, "")
        if not self.steps or self.steps[0].kind != "lay":
            raise OutOfRangeError("refused.not_salted_yet")
        for step in self.steps:
            if step.kind == "lay":
                require("salt", step.percent, 0.3, 12.0, "%")
            if step.kind == "soak":
                require("soak", step.hours, 0.0, 96.0, "h", open_low=True)
        if any(b.at_s < a.at_s for a, b in zip(self.steps, self.steps[1:], strict=False)):
            raise OutOfRangeError("refused.before_in_salt")

    @property
    def in_s(self) -> float:
        """When it was put in [s]."""
        return self.steps[0].at_s

    @property
    def out_s(self) -> float | None:
        """When it came out of the salt [s], or None."""
        return next((s.at_s for s in self.steps if s.kind == "out"), None)

    @property
    def laid(self) -> Step:
        """How it is salted now."""
        return [s for s in self.steps if s.kind == "lay"][-1]

    @property
    def dose_is_known(self) -> bool:
        """Whether what lies on it was weighed and is all that it can take up."""
        return not self.free and REGISTRY[self.laid.way].dose_is_known

    @property
    def free(self) -> bool:
        """Whether more salt lies on it than it is to take up."""
        return is_free(self.laid.way, self.laid.free_salt)
