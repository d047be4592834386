"""A simulated chamber that lives on: thermostat and humidistat that only switch, door, and the water of its pieces.

It speaks the open interface as a real device would; what it sends is marked as simulated by its device.
"""

from dataclasses import dataclass, field

import numpy as np

STEP_S = 60.0
LOSS_PER_HOUR = 0.04  # of the difference to the weather, through the walls
COOLER_C_PER_HOUR, HEATER_C_PER_HOUR = 6.0, 3.0
DRIER_RH_PER_HOUR, DAMPER_RH_PER_HOUR = 22.0, 18.0
HYSTERESIS_C, HYSTERESIS_RH = 0.5, 2.5
RH_PER_GRAM_HOUR = 0.012  # what a gram of water an hour does to the humidity
DOOR_SHARE = 0.25  # of the air that is changed in a minute with the door open
DOORS_PER_DAY = 3.0
DAY_S = 86_400.0


@dataclass
class LiveChamber:
    """A chamber's state, stepped minute by minute; a place without a controller follows the weather."""

    setpoint_c: float | None
    setpoint_rh_percent: float | None
    temperature_c: float
    rh_percent: float
    load_g_per_hour: float = 0.0
    weather_share: float = 0.06
    seed: int = 1
    cooling: bool = field(default=False)
    heating: bool = field(default=False)
    drying: bool = field(default=False)
    wetting: bool = field(default=False)

    def __post_init__(self) -> None:
        self._rng = np.random.default_rng(self.seed)

    def step(self, at_s: float) -> None:
        """One minute. Parameters: at_s [s], which gives the weather of the season and the hour."""
        hours = STEP_S / 3600
        season = -np.cos(2 * np.pi * (at_s - 20 * DAY_S) / (365.25 * DAY_S))
        outside_c = 11 + 9 * season - 4 * np.cos(2 * np.pi * (at_s / DAY_S - 0.1))
        self.temperature_c += LOSS_PER_HOUR * hours * (outside_c - self.temperature_c)
        self.rh_percent += 0.3 * hours * (72 - self.rh_percent) * self.weather_share
        self.rh_percent += self.load_g_per_hour * RH_PER_GRAM_HOUR * hours
        if self._rng.random() < DOORS_PER_DAY * STEP_S / DAY_S:
            self.temperature_c += DOOR_SHARE * (outside_c - self.temperature_c)
            self.rh_percent += DOOR_SHARE * (65 - self.rh_percent)
        if self.setpoint_c is not None:
            off = self.temperature_c - self.setpoint_c
            self.cooling = off > (-HYSTERESIS_C if self.cooling else HYSTERESIS_C)
            self.heating = off < (HYSTERESIS_C if self.heating else -HYSTERESIS_C)
            self.temperature_c += hours * (HEATER_C_PER_HOUR * self.heating - COOLER_C_PER_HOUR * self.cooling)
        if self.setpoint_rh_percent is not None:
            off = self.rh_percent - self.setpoint_rh_percent
            self.drying = off > (-HYSTERESIS_RH if self.drying else HYSTERESIS_RH)
            self.wetting = off < (HYSTERESIS_RH if self.wetting else -HYSTERESIS_RH)
            self.rh_percent += hours * (DAMPER_RH_PER_HOUR * self.wetting - DRIER_RH_PER_HOUR * self.drying)
        self.rh_percent = float(np.clip(self.rh_percent, 15.0, 99.0))

    def reading(self) -> tuple[float, float]:
        """What its sensor shows: temperature [°C] and humidity [%], to a tenth."""
        c = self.temperature_c + self._rng.normal(0, 0.05)
        rh = self.rh_percent + self._rng.normal(0, 0.3)
        return round(float(c), 1), round(float(np.clip(rh, 0, 100)), 1)
