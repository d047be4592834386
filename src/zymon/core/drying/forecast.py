"""The date and its window for every piece of a place. The seam: `forecast(History)`, or `fitted(History)` to ask more.

How it works, in order: each piece gets a body and a prior; its drying is simulated under the place's own climate;
weighings bend five parameters per piece, shared through batch and workshop, with doubtful weighings held back;
then many likely futures are run and the days on which they pass the target are counted.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..constants import SECONDS_PER_DAY
from .arrays import HORIZON_DAYS, Arrays, Future, crossing
from .climate import expected_air
from .doubt import Doubt, name_doubts
from .draws import even_normals
from .feel import RingSeen, how_believable, rim_and_core, ring_seen
from .fit import fit
from .history import History, Piece
from .hooks import learn_hooks, worth_using

Array = npt.NDArray[np.float64]
Status = Literal["drying", "ready", "stalled"]

DRAWS = 64
# How far the pace of the weeks ahead may differ from the learned one (ln). Of an irregular muscle no one body is quite
# like it: its last weeks, when only the thick parts are wet, follow its first ones less and less
DRIFT_SD, IRREGULAR_DRIFT_SD = 0.015, 0.06
IRREGULAR_LATE_DRIFT_SD = 0.38  # on top of it at the end of its usual way; fitted to simulated hangings
SAFE_OVER_GENTLE = 1.5  # how much faster than in gentle air a piece may dry before its rim runs ahead; estimate
LIKELY_REACHED = 0.5  # share of the futures that have to get to the target before a date is told
NEXT_TO_NOTHING = 1e-9  # the weight of a future that never gets there, where the others are asked for their dates
SURE_READY = 0.6  # share of futures past the target before a piece is called ready


@dataclass(frozen=True)
class PieceForecast:
    """The answer for one piece. Times in the History's seconds; curve of losses as shares of the net start weight.

    Of a piece that the scale cannot call done there is no weight, date or chance of a target, and nothing is "ready".
    """

    tag: str
    loss_percent: float
    loss_p10_percent: float
    loss_p90_percent: float
    target_weight_g: float | None
    rate_percent_per_day: float
    rate_p10_percent_per_day: float
    rate_p90_percent_per_day: float
    ready_p10_s: float | None
    ready_p50_s: float | None
    ready_p90_s: float | None
    usual_s: tuple[float, float, float] | None  # when it has likely lost what is usual, of a piece without such dates
    status: Status
    reaches: float | None  # share of the futures that get to the target within the horizon; the dates are theirs
    safe_percent_per_day: float
    gentle_days: float  # that gentle air takes to this loss
    ring_risk: float  # that the rim runs ahead, by the pace
    ring: RingSeen  # the ring that is there now, by the model
    doubts: tuple[Doubt, ...]
    curve_s: Array
    curve_p10: Array
    curve_p50: Array
    curve_p90: Array

    def loss_at(self, at_s: float) -> tuple[float, float, float]:
        """Expected loss at a time as low, middle, high of the 80 % window [share]."""
        low, mid, high = (
            float(np.interp(at_s, self.curve_s, c)) for c in (self.curve_p10, self.curve_p50, self.curve_p90)
        )
        return low, mid, high


@dataclass(frozen=True)
class Change:
    """A what-if: what to set from now on; None leaves a thing as it is. Air: 1 as now, 2 twice the air at the piece."""

    temperature_c: float | None = None
    rh_percent: float | None = None
    air: float = 1.0
    target_loss_percent: float | None = None


class Fitted:
    """A place whose weighings have been taken in: answers for every piece, what-ifs and a look inside."""

    def __init__(self, history: History, draws: int = DRAWS) -> None:
        self.history = history
        now_s = history.now_s
        air = replace(
            expected_air(
                history.log, history.setpoint_c, history.setpoint_rh_percent, now_s, history.surroundings.usual
            ),
            ln_air=history.surroundings.ln_air(history.usual_c),
            elsewhere={name: expected_air(log, None, None, now_s) for name, log in history.elsewhere.items()},
        )
        c = Arrays(history.pieces, air, history.now_s)
        piece_cov = c.tree.piece_cov.copy()  # the fit widens that of unusual pieces; a draughty hook is no such thing
        self.theta, self.information, self.vector, self.good = fit(c)
        self.hooks = learn_hooks(c, self.information, self.vector, piece_cov)
        differ = worth_using(self.hooks)
        if differ:  # what the hooks did is taken off their pieces, and the pieces are fitted again
            c = Arrays(history.pieces, air, history.now_s, hook_air=differ)
            self.theta, self.information, self.vector, self.good = fit(c)
        self.arrays = c
        p = c.mean.shape[1]
        # What is not known is drawn alike for every piece: a date does not move because a neighbour came
        noise = even_normals(draws, 3 * p + 3)
        of_workshop, of_batch, of_piece = (noise[:, None, i * p : (i + 1) * p] for i in range(3))
        batches, n = len(c.tree.batch_cov), len(c.pieces)
        noise_of = np.concatenate([of_workshop, of_batch.repeat(batches, axis=1), of_piece.repeat(n, axis=1)], axis=1)
        self.sampled = c.mean + c.tree.draw(self.information, self.vector, noise_of)
        self.weight = c.reachable(self.sampled)  # how believable each draw is, (draws, n)
        self._felt()
        self.ahead = noise[:, -3:] * (air.sd_c, air.sd_rh_percent, 1.0)

    @cached_property
    def forecasts(self) -> tuple[PieceForecast, ...]:
        """One forecast per piece, in order."""
        made = _forecasts(self.arrays, self.sampled, self._future(self.arrays), self.good, self.weight)
        return tuple(replace(f, ring=ring) for f, ring in zip(made, self._rings_now(), strict=True))

    @cached_property
    def profiles(self) -> Array:
        """Water per dry matter [kg/kg] of every piece by its most likely parameters, (m+1, shells, n) on its grid."""
        profiles = self.arrays.run(self.theta, keep=True).profiles
        assert profiles is not None
        return profiles

    def _rings_now(self) -> list[RingSeen]:
        """The ring that every piece has now, by its most likely parameters."""
        c, n = self.arrays, len(self.arrays.pieces)
        step = np.abs(c.time_s - np.maximum(c.now_s - c.hung, 0.0)).argmin(axis=0)  # one point of the grid lies at now
        profiles = c.run(self.theta, keep=True, steps=int(step.max())).profiles
        assert profiles is not None
        rim, core = rim_and_core(profiles[step, :, np.arange(n)].T)
        return [ring_seen(float(r), float(k)) for r, k in zip(rim, core, strict=True)]

    def _felt(self) -> None:
        """What fingers said of a piece makes some of its draws more believable than others, and moves its middle."""
        for i, piece in enumerate(self.arrays.pieces):
            feel = next((f for f in reversed(piece.feels) if piece.hung_at_s < f.at_s <= self.arrays.now_s), None)
            if feel is None:
                continue
            alone = self.changed([i], Change())
            run = alone.run(self.sampled[:, i : i + 1], keep=True)
            assert run.profiles is not None
            time_s = alone.time_s[:, 0]
            j = int(np.clip(np.searchsorted(time_s, feel.at_s - piece.hung_at_s), 1, len(time_s) - 1))
            rim, core = rim_and_core(run.profiles[j])
            believed = how_believable(feel.rim, rim) * how_believable(feel.core, core)
            self.weight[:, i] *= believed
            self.theta[i] += believed @ (self.sampled[:, i] - self.sampled[:, i].mean(axis=0)) / believed.sum()

    def air_at(self, hook: str) -> float:
        """How much air a hook gives against the usual of the place [-]. Parameters: hook, its name."""
        return float(np.exp(self.arrays.hook_air.get(hook, 0.0)))

    def what_if(self, index: int, change: Change) -> PieceForecast:
        """The forecast of one piece if something changed from now on; what it has lost so far stays.

        Parameters: index, of the piece in the history; change.
        """
        return self.what_ifs([index], change)[0]

    def what_ifs(self, pick: Sequence[int], change: Change) -> tuple[PieceForecast, ...]:
        """The same of several pieces at once. Parameters: pick, their indices in the history; change."""
        some = self.changed(pick, change)
        # how believable a draw is was told by the target the maker set, not by the one asked about
        weight = self.weight[:, pick]
        future = replace(self._future(some), ln_draught=float(np.log(change.air)))
        return _forecasts(some, self.sampled[:, pick], future, self.good[:, pick], weight)

    def changed(self, pick: Sequence[int], change: Change) -> Arrays:
        """Some pieces in the air and with the target of a change; more air at them comes with the future.

        Parameters: pick, their indices in the history; change.
        """
        c, air = self.arrays, self.arrays.air
        temperature_c = air.ahead_temperature_c if change.temperature_c is None else change.temperature_c
        rh_percent = air.ahead_rh_percent if change.rh_percent is None else change.rh_percent
        if (temperature_c, rh_percent) != (air.ahead_temperature_c, air.ahead_rh_percent):
            air = air.set_otherwise(c.now_s, temperature_c, rh_percent)
        target = change.target_loss_percent
        pieces = tuple(
            c.pieces[i] if target is None else replace(c.pieces[i], target_loss_percent=target) for i in pick
        )
        # another target must not change what the piece did so far
        return Arrays(pieces, air, c.now_s, span_s=c.span_s[list(pick)], hook_air=c.hook_air)

    def _future(self, c: Arrays) -> Future:
        return weeks_ahead(c, self.ahead)


def drift_sd(c: Arrays) -> Array:
    """How far the pace of the weeks ahead may differ from the learned one, one standard deviation of ln, shape (n,).

    Parameters: c, the arrays of a place. Source: simulated hangings; see docs/forecast.md.
    """
    gone = np.clip((c.now_s - c.hung) / c.span_s, 0.0, 1.0)
    irregular = np.array([piece.shape == "irregular" for piece in c.pieces])
    return np.where(irregular, IRREGULAR_DRIFT_SD + IRREGULAR_LATE_DRIFT_SD * gone, DRIFT_SD)


def weeks_ahead(c: Arrays, ahead: Array) -> Future:
    """The air and the pace to come in each draw, for every piece.

    Parameters: c, the arrays of a place; ahead (draws, 3), offsets of the air [°C], [%] and a normal of the pace.
    """
    offset_c, offset_rh, drift = np.repeat(ahead, len(c.pieces), axis=0).T
    return Future(offset_c, offset_rh, drift * np.tile(drift_sd(c), len(ahead)))


def fitted(history: History, draws: int = DRAWS) -> Fitted:
    """Take the weighings of a place in, to ask for dates, what-ifs and the inside.

    Parameters: history, with one piece at least; draws [-] of the future, even.
    """
    return Fitted(history, draws)


def forecast(history: History, draws: int = DRAWS) -> tuple[PieceForecast, ...]:
    """Forecast every piece of a place.

    Parameters: history; draws [-] of the future, even. Nothing after history.now_s is used.
    Returns one PieceForecast per piece, in order.
    """
    return Fitted(history, draws).forecasts if history.pieces else ()


def _forecasts(c: Arrays, sampled: Array, future: Future, good: Array, weight: Array) -> tuple[PieceForecast, ...]:
    draws, n = sampled.shape[:2]
    loss = c.run(sampled, future).loss.reshape(-1, draws, n)
    cross = crossing(np.repeat(c.time_s[:, None], draws, axis=1), loss, c.target)
    within = cross <= horizon_s(c)
    dates = weighted_quantiles(cross, np.where(within, weight, NEXT_TO_NOTHING * weight))
    curve = weighted_quantiles(loss, np.broadcast_to(weight, loss.shape))
    reaches = (weight * within).sum(axis=0) / weight.sum(axis=0)
    pace = _pace_now(c, loss, weight)
    return tuple(
        _answer(c, i, cross[:, i], weight[:, i], dates[:, i], float(reaches[i]), curve[:, :, i], pace[:, i], good[:, i])
        for i in range(n)
    )


def _pace_now(c: Arrays, loss: Array, weight: Array) -> Array:
    """10 and 90 % of the pace over the step of the grid that begins now [share/s], shape (2, n)."""
    column = np.arange(len(c.pieces))
    step = np.clip((c.time_s < np.maximum(c.now_s - c.hung, 0.0)).sum(axis=0), 0, len(c.time_s) - 2)
    moved = loss[step + 1, :, column] - loss[step, :, column]  # (n, draws)
    pace = moved.T / (c.time_s[step + 1, column] - c.time_s[step, column])
    return weighted_quantiles(pace, weight)[[0, 2]]


def horizon_s(c: Arrays) -> Array:
    """Up to when after it was hung a piece may get to its target for it to count [s], shape (n,)."""
    elapsed = np.maximum(c.now_s - c.hung, 0.0)
    return np.asarray(np.maximum(HORIZON_DAYS * SECONDS_PER_DAY, elapsed + 30 * SECONDS_PER_DAY))


def weighted_quantiles(values: Array, weight: Array) -> Array:
    """10, 50 and 90 % quantiles over the draws, which lie on the last axis but one; shape (3, …, n).

    Parameters: values, weight (…, draws, n), weight above 0.
    Linear between two draws, so that a hair's breadth more weight moves a date by no more than that; beside a draw that
    never gets there the nearer of the two is taken.
    """
    order = np.argsort(values, axis=-2)
    ranked = np.take_along_axis(values, order, axis=-2)
    sorted_weight = np.take_along_axis(weight, order, axis=-2)
    upto = np.cumsum(sorted_weight, axis=-2)
    place = (upto - sorted_weight / 2) / upto[..., -1:, :]  # of the middle of each draw, 0…1
    out = []
    for q in (0.1, 0.5, 0.9):
        j = np.clip((place < q).sum(axis=-2), 1, values.shape[-2] - 1)[..., None, :]
        low, high = (np.take_along_axis(ranked, k, axis=-2)[..., 0, :] for k in (j - 1, j))
        p0, p1 = (np.take_along_axis(place, k, axis=-2)[..., 0, :] for k in (j - 1, j))
        share = np.clip((q - p0) / (p1 - p0), 0.0, 1.0)
        finite = np.isfinite(high)
        between = low + share * np.where(finite, high - np.where(finite, low, 0.0), 0.0)
        out.append(np.where(finite, between, np.where(share < 0.5, low, high)))
    return np.array(out)


def _answer(
    c: Arrays,
    i: int,
    cross: Array,
    weight: Array,
    quantiles: Array,
    reaches: float,
    curve: Array,
    pace: Array,
    good: Array,
) -> PieceForecast:
    piece: Piece = c.pieces[i]
    time_s = c.time_s[:, i]
    elapsed = max(c.now_s - piece.hung_at_s, 0.0)
    p10, p50, p90 = (float(q) for q in quantiles)
    low, mid, high = curve
    loss_now = float(np.interp(elapsed, time_s, mid))
    day = SECONDS_PER_DAY
    rate = float(np.interp(elapsed + day / 2, time_s, mid) - np.interp(max(elapsed - day / 2, 0.0), time_s, mid))
    rate /= 1.0 if elapsed >= day / 2 else (elapsed + day / 2) / day
    ready = bool(weight[cross <= elapsed].sum() >= SURE_READY * weight.sum()) and loss_now >= c.target[i]
    ready = ready and piece.by_weight
    dates: tuple[float | None, float | None, float | None]
    status: Status
    if ready:
        status, dates = "ready", (min(p10, elapsed), min(p50, elapsed), min(p90, elapsed))
    elif not piece.by_weight:
        status, dates = "drying", (None, None, None)
    elif reaches < LIKELY_REACHED:
        status, dates = "stalled", (None, None, None)
    else:
        status, dates = "drying", (max(p10, elapsed), max(p50, elapsed), max(p90, elapsed))
    hung = piece.hung_at_s
    p10_s, p50_s, p90_s = (None if d is None else hung + d for d in dates)
    if status == "drying" and p50_s is not None and p50_s <= c.now_s:  # about now: never a date behind the clock
        p50_s = c.now_s + 0.02 * (c.reference[i])
        p90_s = max(p90_s or p50_s, p50_s)
    k = len(c.used[i])
    safe_percent, gentle_days, ring_risk = _ring(time_s, c.gentle[:, i], loss_now, elapsed)
    return PieceForecast(
        tag=piece.tag,
        loss_percent=100 * loss_now,
        loss_p10_percent=100 * float(np.interp(elapsed, time_s, low)),
        loss_p90_percent=100 * float(np.interp(elapsed, time_s, high)),
        target_weight_g=piece.target_gross_g,
        rate_percent_per_day=100 * max(rate, 0.0),
        rate_p10_percent_per_day=100 * day * max(float(pace[0]), 0.0),
        rate_p90_percent_per_day=100 * day * max(float(pace[1]), 0.0),
        ready_p10_s=p10_s,
        ready_p50_s=p50_s,
        ready_p90_s=p90_s,
        usual_s=None if piece.by_weight or reaches < LIKELY_REACHED else (hung + p10, hung + p50, hung + p90),
        status=status,
        reaches=None if not piece.by_weight else 1.0 if ready else reaches,
        safe_percent_per_day=safe_percent,
        gentle_days=gentle_days,
        ring_risk=ring_risk,
        ring="even",
        doubts=name_doubts(
            piece, c.used[i], good[:k], [float(np.interp(w.at_s - hung, time_s, mid)) for w in c.used[i]]
        ),
        curve_s=hung + time_s,
        curve_p10=low,
        curve_p50=mid,
        curve_p90=high,
    )


def _ring(time_s: Array, gentle: Array, loss_now: float, elapsed_s: float) -> tuple[float, float, float]:
    """Safe pace [% a day] at this loss, how long gentle air takes to it [days], and the risk of a dry ring 0…1.

    A piece that reached its loss in half the time that gentle air takes is drying too fast: its rim has run ahead of
    its core. Estimate; the bound is a rule of practice, not a measurement of the piece.
    """
    day = SECONDS_PER_DAY
    at = float(np.interp(loss_now, gentle, time_s))
    pace = float(np.interp(at + day / 2, time_s, gentle) - np.interp(at - day / 2, time_s, gentle))
    safe_percent = 100 * SAFE_OVER_GENTLE * pace
    if elapsed_s < day or loss_now < 0.01:
        return safe_percent, at / day, 0.0
    ratio = at / elapsed_s / SAFE_OVER_GENTLE
    return safe_percent, at / day, float(ratio**4 / (1 + ratio**4))
