"""The air around the pieces: what the log says it was, and what it is likely to be from now on."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np
import numpy.typing as npt

from ..air import saturation_pressure
from ..constants import GAS_CONSTANT_J_MOL_K, SECONDS_PER_DAY, ZERO_CELSIUS_K
from .habit import HABIT_DAYS, habit_of
from .season import season_ahead
from .surroundings import UNKNOWN, UsualAir
from .transport import DIFFUSION_ACTIVATION_J_MOL, REFERENCE_TEMPERATURE_C

Array = npt.NDArray[np.float64]

GAP_S = 1.5 * SECONDS_PER_DAY  # a silence longer than this is filled with the habit of the place, not a straight line
# How far one reading a day lies from the mean of its day, one standard deviation; estimate
SPOT_SD_C, SPOT_SD_RH = 1.5, 7.0
# How far the mean of the coming weeks may lie from the habit, one standard deviation; estimate from year-long logs
FUTURE_SD_C, FUTURE_SD_RH = 0.6, 1.7
# A set point this warm and damp is meant for the first days only; then it is stepped down to a drying climate
STEP_ABOVE_C, STEP_ABOVE_RH, STEP_AFTER_DAYS, STEP_TO = 15.0, 83.0, 5.0, (13.5, 79.0)
STEP_NOT_AFTER_DAYS = 14  # a place that was kept like this for longer will be kept like this
FUTURE_SD_C_UNLOGGED, FUTURE_SD_RH_UNLOGGED = 1.5, 3.5
# A place that nobody controls follows the weather: less sure than its last weeks, unless a year of it is known
FUTURE_SD_C_FREE, FUTURE_SD_RH_FREE = 2.0, 4.0
SHOWN_WEEKS = 8  # of the season ahead, whose mean is called the air to come


@dataclass(frozen=True)
class Log:
    """Readings in time order: seconds since any epoch, °C, %. Shape (k,) each; k may be 0.

    Humidity is NaN where only a thermometer told.
    """

    time_s: Array
    temperature_c: Array
    rh_percent: Array

    def until(self, now_s: float) -> "Log":
        """The readings up to and including `now_s` [s]."""
        k = int(np.searchsorted(self.time_s, now_s, side="right"))
        return Log(self.time_s[:k], self.temperature_c[:k], self.rh_percent[:k])

    @property
    def of_humidity(self) -> "Log":
        """The readings that tell of humidity too."""
        told = np.isfinite(self.rh_percent)
        return self if told.all() else Log(self.time_s[told], self.temperature_c[told], self.rh_percent[told])

    def with_humidity(self, otherwise_percent: float) -> "Log":
        """The same readings, with a humidity where only a thermometer told.

        Between readings of humidity it goes straight from one to the next; further than GAP_S from any it is taken as
        usual. Parameters: otherwise_percent [%], as set or as usual in such a place.
        """
        told = self.of_humidity
        if told is self:
            return self
        filled = np.full(len(self.time_s), otherwise_percent)
        if len(told.time_s):
            between = np.interp(self.time_s, told.time_s, told.rh_percent)
            after = np.searchsorted(told.time_s, self.time_s).clip(0, len(told.time_s) - 1)
            before = (after - 1).clip(0)
            away = np.minimum(*(np.abs(told.time_s[side] - self.time_s) for side in (after, before)))
            filled = np.where(away <= GAP_S, between, filled)
        return Log(self.time_s, self.temperature_c, filled)


def or_none(values: Array) -> list[float | None]:
    """Values to a tenth, None in place of NaN. Parameters: values [any]."""
    return [None if np.isnan(value) else round(float(value), 1) for value in values]


@dataclass(frozen=True)
class Air:
    """A climate that can be averaged over any span: the log up to now, the expected air after it."""

    time_s: Array
    cumulative: Array  # (4, k): integrals of 1·p_sat, p_vapour, Arrhenius factor, humidity
    ahead: Array  # (4,): the expected rates after the last reading
    ahead_temperature_c: float
    ahead_rh_percent: float
    before: Array  # (4,): rates before the first reading
    sd_c: float
    sd_rh_percent: float
    logged: bool
    ln_air: float = 0.0  # of the place against gently moved air
    elsewhere: Mapping[str, "Air"] = field(default_factory=dict)  # other places, by name

    def set_otherwise(self, now_s: float, temperature_c: float, rh_percent: float) -> "Air":
        """The same past with another air from now on. Parameters: now_s [s]; temperature_c [°C]; rh_percent [%]."""
        k = max(int(np.searchsorted(self.time_s, now_s, side="right")), 1)
        return replace(
            self,
            time_s=self.time_s[:k],
            cumulative=self.cumulative[:, :k],
            ahead=rates(np.array(temperature_c), np.array(rh_percent)),
            ahead_temperature_c=temperature_c,
            ahead_rh_percent=rh_percent,
        )

    def means(self, edges_s: Array) -> tuple[Array, Array, Array]:
        """Mean saturation pressure [Pa], vapour pressure [Pa] and Arrhenius factor [-] between edges.

        Parameters: edges_s [s], shape (m+1, n), rising along the first axis.
        """
        dt = np.maximum(np.diff(edges_s, axis=0), 1e-9)
        out = []
        first, last = self.time_s[0], self.time_s[-1]
        after = np.maximum(edges_s - last, 0.0)
        early = np.minimum(edges_s - first, 0.0)
        for i in range(3):
            c = np.interp(edges_s, self.time_s, self.cumulative[i]) + after * self.ahead[i] + early * self.before[i]
            out.append(np.diff(c, axis=0) / dt)
        return out[0], out[1], out[2]


def rates(temperature_c: Array, rh_percent: Array) -> Array:
    """The four quantities that drive drying, at each reading, shape (4, …).

    Parameters: temperature_c [°C]; rh_percent [%]. Returns p_sat [Pa], p_vapour [Pa], Arrhenius factor [-], RH [%].
    """
    p_sat = saturation_pressure(temperature_c)
    kelvin = np.asarray(temperature_c) + ZERO_CELSIUS_K
    reference = REFERENCE_TEMPERATURE_C + ZERO_CELSIUS_K
    arrhenius = np.exp(DIFFUSION_ACTIVATION_J_MOL / GAS_CONSTANT_J_MOL_K * (1 / reference - 1 / kelvin))
    return np.stack([p_sat, p_sat * np.asarray(rh_percent) / 100, arrhenius, np.asarray(rh_percent, dtype=np.float64)])


def expected_air(
    log: Log, setpoint_c: float | None, setpoint_rh_percent: float | None, now_s: float, usual: UsualAir = UNKNOWN
) -> Air:
    """Join the log with what is expected after it.

    Parameters: log, nothing after now_s is used; setpoint_c [°C] and setpoint_rh_percent [%], None when not known;
    now_s [s]; usual, the air of such a place, where neither a set point nor readings tell.
    The habit is the mean of the last weeks; the more days logged since the last jump of the climate, the more it
    counts against the set point. Where nobody sets a temperature the weeks ahead go as they did a year ago, if known.
    Where a thermometer alone told, humidity is as set or as usual, and no surer than that.
    """
    base = (
        usual.temperature_c if setpoint_c is None else setpoint_c,
        usual.rh_percent if setpoint_rh_percent is None else setpoint_rh_percent,
    )
    told = log.until(now_s)
    humid = told.of_humidity.time_s
    humidity_told = bool(len(humid)) and humid[-1] >= now_s - HABIT_DAYS * SECONDS_PER_DAY
    log = told.with_humidity(base[1])
    k = len(log.time_s)
    known = setpoint_c is not None and setpoint_rh_percent is not None
    sd_c, sd_rh = FUTURE_SD_C, FUTURE_SD_RH
    ahead_c, ahead_rh = base
    if k == 0:
        sd_c = usual.sd_c if setpoint_c is None else FUTURE_SD_C_UNLOGGED
        sd_rh = usual.sd_rh if setpoint_rh_percent is None else FUTURE_SD_RH_UNLOGGED
        time_s = np.array([now_s])
        cumulative = np.zeros((4, 1))
        rate = rates(np.array(base[0]), np.array(base[1]))
        return Air(time_s, cumulative, rate, base[0], base[1], rate, sd_c, sd_rh, logged=False)
    habit = habit_of(log.time_s, log.temperature_c, log.rh_percent, now_s, setpoint_c, setpoint_rh_percent)
    if habit.days:
        set_share = habit.days / (habit.days + 2.0)
        told_c, told_rh = (
            set_share if known else sd**2 / (sd**2 + spot**2 / habit.readings)
            for sd, spot in ((usual.sd_c, SPOT_SD_C), (usual.sd_rh, SPOT_SD_RH))
        )
        ahead_c += told_c * (habit.temperature_c - base[0])
        ahead_rh += told_rh * (habit.rh_percent - base[1])
        if not known:  # a few readings typed by hand tell less than a log
            sd_c = max(sd_c, np.sqrt(told_c) * SPOT_SD_C / np.sqrt(habit.readings))
            sd_rh = max(sd_rh, np.sqrt(told_rh) * SPOT_SD_RH / np.sqrt(habit.readings))
    sd_c *= 1 + 1.0 / (1 + habit.days)
    sd_rh *= 1 + 1.0 / (1 + habit.days)
    if not humidity_told:
        sd_rh = max(sd_rh, usual.sd_rh if setpoint_rh_percent is None else FUTURE_SD_RH_UNLOGGED)
    values = rates(log.temperature_c, log.rh_percent)
    time_s = log.time_s
    if known and base[0] >= STEP_ABOVE_C and base[1] >= STEP_ABOVE_RH and habit.days < STEP_NOT_AFTER_DAYS:
        until = rates(np.array([ahead_c, ahead_c]), np.array([ahead_rh, ahead_rh]))
        time_s = np.concatenate([time_s, [now_s + 1.0, now_s + STEP_AFTER_DAYS * SECONDS_PER_DAY]])
        values = np.concatenate([values, until], axis=1)
        ahead_c, ahead_rh = STEP_TO
        sd_rh += 1.0
    season = None
    if setpoint_c is None:
        season = season_ahead(log.time_s, log.temperature_c, log.rh_percent, now_s)
        if season is None:
            sd_c, sd_rh = max(sd_c, FUTURE_SD_C_FREE), max(sd_rh, FUTURE_SD_RH_FREE)
        else:
            time_s = np.concatenate([time_s, season[0]])
            values = np.concatenate([values, rates(season[1], season[2])], axis=1)
            ahead_c, ahead_rh = (float(row[:SHOWN_WEEKS].mean()) for row in season[1:])
    ahead = rates(np.array(ahead_c), np.array(ahead_rh))
    dt = np.diff(time_s)
    mean = (values[:, 1:] + values[:, :-1]) / 2
    mean = np.where((dt > GAP_S) & (time_s[1:] <= now_s), ahead[:, None], mean)
    cumulative = np.concatenate([np.zeros((4, 1)), np.cumsum(mean * dt, axis=1)], axis=1)
    first_days = log.time_s <= log.time_s[0] + 3 * SECONDS_PER_DAY
    before = values[:, :k][:, first_days].mean(axis=1)
    return Air(time_s, cumulative, ahead, ahead_c, ahead_rh, before, sd_c, sd_rh, logged=True)
