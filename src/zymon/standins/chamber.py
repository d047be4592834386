"""A simulated drying chamber: an on/off controller against the weather, with outages and a drifting sensor."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
DAY_S = 86_400.0
YEAR_S = 365.25 * DAY_S


@dataclass(frozen=True)
class SimulatedChamber:
    """What the controller holds, how well, and how much of the weather comes through."""

    temperature_c: float
    rh_percent: float
    band_c: float = 0.4
    band_rh: float = 2.5
    weather_share: float = 0.05  # share of the outdoor swing that reaches the inside
    drift_rh_per_year: float = 0.0  # a sensor that reads more and more
    outages: tuple[tuple[float, float], ...] = ()  # from, to [s]; the controller is off

    def log(self, time_s: Array, seed: int) -> tuple[Array, Array]:
        """Readings at the given times.

        Parameters: time_s [s], rising; seed [-]. Returns temperature [°C] and humidity [%] as the sensor shows them,
        rounded to 0.1 as loggers do.
        """
        rng = np.random.default_rng(seed)
        n = len(time_s)
        step = float(time_s[1] - time_s[0]) if n > 1 else 600.0
        season = -np.cos(2 * np.pi * (time_s - 20 * DAY_S) / YEAR_S)  # coldest about 20 January
        daily = -np.cos(2 * np.pi * (time_s / DAY_S - 0.1))
        outdoor_c = 11 + 9 * season + 4 * daily + _wander(rng, n, step, 3 * DAY_S, 3.0)
        cycle = np.sin(2 * np.pi * time_s / 2_700 + 3 * _wander(rng, n, step, 6 * 3600, 1.0))
        c = self.temperature_c + self.band_c * cycle + self.weather_share * (outdoor_c - 11)
        c += _wander(rng, n, step, 2 * DAY_S, 0.25)
        rh = self.rh_percent - self.band_rh * cycle + _wander(rng, n, step, 1.5 * DAY_S, 0.9)
        rh -= self.weather_share * 6 * season
        for start, end in self.outages:
            since = np.clip((time_s - start) / 3600, 0, None)
            off = np.where(time_s < end, 1 - np.exp(-since / 5), 0.0)
            after = np.where(time_s >= end, np.exp(-np.clip(time_s - end, 0, None) / 3600 / 2.5), 0.0) * (
                1 - np.exp(-(end - start) / 3600 / 5)
            )
            share = off + after
            c += share * 0.45 * (outdoor_c - c)
            rh += share * (93 - rh)
        rh += self.drift_rh_per_year * (time_s - time_s[0]) / YEAR_S
        rh = np.clip(rh + rng.normal(0, 0.4, n), 5, 99.9)
        return np.asarray(np.round(c + rng.normal(0, 0.08, n), 1), np.float64), np.asarray(np.round(rh, 1), np.float64)


def _wander(rng: np.random.Generator, n: int, step_s: float, time_scale_s: float, sd: float) -> Array:
    """A smooth random walk with a given spread and time scale, by interpolation between knots."""
    knots = max(4, int(n * step_s / time_scale_s) + 3)
    return np.asarray(np.interp(np.arange(n) * step_s / time_scale_s, np.arange(knots), rng.normal(0, sd, knots)))
