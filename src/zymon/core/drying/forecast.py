"""The date and its window for every piece of a place. The seam: `forecast(History) -> tuple[PieceForecast, …]`.

How it works, in order: each piece gets a body and a prior; its drying is simulated under the place's own climate;
weighings bend five parameters per piece, shared through batch and workshop, with doubtful weighings held back;
then many likely futures are run and the days on which they pass the target are counted.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from ..constants import MEAT_DENSITY_KG_M3, SECONDS_PER_DAY
from ..pieces import target_weight
from .climate import expected_air, rates
from .doubt import Doubt, name_doubts
from .geometry import body_of
from .history import History, Piece
from .learn import Tree
from .priors import OSWIN_X, TYPICAL_SALT_PERCENT, WATER_IN_LEAN, WORKSHOP_SD, piece_prior
from .transport import SORPTION_EXPONENT, Bodies, Drivers, DryingRun, dry

Array = npt.NDArray[np.float64]
Status = Literal["drying", "ready", "stalled"]

DRAWS = 64
HORIZON_DAYS = 730.0
FINE_STEPS, FAR_STEPS = 56, 14
ANNEAL = (
    0.06,
    0.02,
    0.006,
    0.0,
)  # loss fraction added to a weighing's sd, pass by pass, so that no good one is thrown out early
MODEL_SD = 0.003  # what the model cannot follow, as loss fraction
DRIFT_SD = 0.06  # how far the pace of the weeks ahead may differ from the learned one (ln)
OUTLIER_SHARE = 1 / 60
OUTLIER_WIDTH = 0.35  # spread of a mistaken weighing, loss fraction
GENTLE_AIR_USUAL = (13.0, 79.0)
GENTLE_AIR: dict[str, tuple[float, float]] = {"thin_sausage": (18.0, 58.0), "breast": (10.0, 72.0)}
SAFE_OVER_GENTLE = 1.5  # how much faster than in gentle air a piece may dry before its rim runs ahead; estimate
# A target is set where its kind still has water to give: about SPARE of the start weight, or the draw counts little
SPARE, SPARE_WIDTH, UNREACHABLE_SHARE = 0.03, 0.012, 0.02
UNUSUAL_PIECE = 40.0  # how much wider the prior of a piece becomes that its own weighings contradict together
SURE_READY = 0.6  # share of futures past the target before a piece is called ready


@dataclass(frozen=True)
class PieceForecast:
    """The answer for one piece. Times in the History's seconds; curve of losses as shares of the net start weight."""

    tag: str
    loss_percent: float
    target_weight_g: float
    rate_percent_per_day: float
    ready_p10_s: float | None
    ready_p50_s: float | None
    ready_p90_s: float | None
    status: Status
    safe_percent_per_day: float
    ring_risk: float
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


class _Chamber:
    """The arrays behind one forecast: bodies, grids, priors and weighings of n pieces."""

    def __init__(self, history: History) -> None:
        self.pieces = history.pieces
        self.now_s = history.now_s
        self.air = expected_air(history.log, history.setpoint_c, history.setpoint_rh_percent, history.now_s)
        ps = self.pieces
        body = [body_of(p.kind, p.shape, p.net_start_g, p.diameter_mm, p.thickness_mm, p.length_mm) for p in ps]
        prior = [
            piece_prior(p.kind, p.shape, p.casing, b, p.fat_percent, p.salt_percent, self.air.ahead_temperature_c)
            for p, b in zip(ps, body, strict=True)
        ]
        self.mean = np.array([q.mean for q in prior])
        self.half_thickness = np.array([b.half_thickness_m for b in body])
        self.curvature = np.array([b.curvature for b in body])
        fat = np.array([q.fat_fraction for q in prior])
        salt = np.array([q.salt_fraction for q in prior])
        self.dry_matter = np.maximum((1 - WATER_IN_LEAN) * (1 - fat), 0.05) + salt
        self.sorption = OSWIN_X * np.sqrt(np.maximum(salt, 0.005) * 100 / TYPICAL_SALT_PERCENT)
        names = {name: i for i, name in enumerate(dict.fromkeys(p.batch for p in ps))}
        batch_of = np.array([names[p.batch] for p in ps], dtype=np.int64)
        first = [int(np.argmax(batch_of == b)) for b in range(len(names))]
        self.tree = Tree(
            np.diag(WORKSHOP_SD**2),
            np.array([prior[i].batch_cov for i in first]),
            np.array([q.piece_cov for q in prior]),
            batch_of,
        )
        self.hung = np.array([p.hung_at_s for p in ps])
        self.target = np.array([p.target_loss_percent for p in ps]) / 100
        self.reference = np.zeros(0)  # until the grid is set there is none
        self._weighings()
        self._grid()

    def _weighings(self) -> None:
        """Weighings up to now, padded to the longest row: time, loss, sd, mask, each (w, n)."""
        used = [[w for w in p.weighings if w.at_s <= self.now_s] for p in self.pieces]
        rows = max((len(u) for u in used), default=0)
        n = len(self.pieces)
        self.used = used
        self.w_at, self.w_loss = np.zeros((rows, n)), np.zeros((rows, n))
        self.w_sd, self.w_mask = np.ones((rows, n)), np.zeros((rows, n), dtype=bool)
        for i, (p, us) in enumerate(zip(self.pieces, used, strict=True)):
            scale_g = max(1.0, p.start_weight_g / 500)  # a scale that suits the piece
            for j, w in enumerate(us):
                self.w_at[j, i] = w.at_s - p.hung_at_s
                self.w_loss[j, i] = p.loss_fraction(w.gross_g)
                self.w_sd[j, i] = np.hypot(MODEL_SD, scale_g / p.net_start_g)
                self.w_mask[j, i] = True

    def _grid(self) -> None:
        """Time grid of each piece: fine while it dries, coarse to the horizon; then the air over each step."""
        n = len(self.pieces)
        horizon = HORIZON_DAYS * SECONDS_PER_DAY
        rough = np.repeat((np.geomspace(0.1, HORIZON_DAYS, 41) * SECONDS_PER_DAY)[:, None], n, axis=1)
        rough[0] = 0.0
        self._set_drivers(rough)
        cross = crossing(rough, self.run(self.mean).loss, self.target)
        elapsed = np.maximum(self.now_s - self.hung, 0.0)
        self.reference = np.clip(np.where(np.isfinite(cross), cross, 0.4 * horizon), 2 * SECONDS_PER_DAY, 0.4 * horizon)
        fine = np.minimum(np.maximum(1.35 * self.reference, 1.1 * elapsed), 0.9 * horizon)
        near = (np.linspace(0, 1, FINE_STEPS + 1) ** 1.35)[:, None] * fine
        far = fine * (np.maximum(horizon, elapsed * 1.5) / fine) ** (np.arange(1, FAR_STEPS + 1)[:, None] / FAR_STEPS)
        self._set_drivers(np.concatenate([near, far]))

    def reachable(self, theta: Array) -> Array:
        """How believable draws (s, n, 5) are, given that makers set targets which a piece of its kind can reach.

        Judged by the plateau in the usual air of the kind, not in this place's air: the target tells of the piece,
        and drier air must never make slow pieces more believable.
        """
        rh = np.array([GENTLE_AIR.get(p.kind, GENTLE_AIR_USUAL)[1] for p in self.pieces]) / 100
        bound_x = self.sorption * (rh / (1 - rh)) ** (1 / SORPTION_EXPONENT)
        spare = theta[..., 2] - bound_x * self.dry_matter - self.target
        return np.asarray(UNREACHABLE_SHARE + (1 - UNREACHABLE_SHARE) / (1 + np.exp(-(spare - SPARE) / SPARE_WIDTH)))

    def set_gentle(self) -> None:
        """How each piece would dry, by its prior, in the gentle air its kind is known to take well."""
        gentle = [GENTLE_AIR.get(p.kind, GENTLE_AIR_USUAL) for p in self.pieces]
        still = np.array(gentle, dtype=np.float64).T
        saturation, vapour, arrhenius, _ = rates(still[0], still[1])
        steps = len(self.middle)
        self.saturation, self.vapour, self.arrhenius = (np.tile(v, (steps, 1)) for v in (saturation, vapour, arrhenius))
        self.gentle_loss = self.run(self.mean).loss

    def _set_drivers(self, time_s: Array) -> None:
        self.time_s = time_s
        self.saturation, self.vapour, self.arrhenius = self.air.means(time_s + self.hung)
        middle = (time_s[1:] + time_s[:-1]) / 2
        self.ahead = np.clip((time_s[1:] + self.hung - self.now_s) / np.diff(time_s, axis=0), 0.0, 1.0)
        self.middle: Array = middle

    def run(self, theta: Array, future: "Future | None" = None) -> DryingRun:
        """Simulate with parameters theta (…, n, 5), draws side by side. Loss comes back as (m+1, draws·n)."""
        flat = theta.reshape(-1, theta.shape[-1])
        copies = len(flat) // len(self.pieces)

        def wide(a: Array) -> Array:
            return np.tile(a, (1,) * (a.ndim - 1) + (copies,))

        bodies = Bodies(
            wide(self.half_thickness),
            wide(self.curvature),
            np.clip(flat[:, 2], 0.12, 0.85),
            wide(self.dry_matter),
            np.full(len(flat), MEAT_DENSITY_KG_M3),
            np.exp(flat[:, 1]),
            np.exp(flat[:, 0]),
            wide(self.sorption),
            np.exp(flat[:, 3]),
        )
        if not len(self.reference):
            pace = np.ones((len(self.middle), len(flat)))
        else:
            pace = np.exp(flat[:, 4] * np.clip(wide(self.middle / self.reference) * 2 - 1, -1.0, 1.5))
        saturation, vapour = wide(self.saturation), wide(self.vapour)
        if future is not None:
            ahead = wide(self.ahead)
            pace = pace * np.exp(ahead * future.drift)
            p0, v0 = self.air.ahead[0], self.air.ahead[1]
            p1 = p0 * np.exp(0.066 * future.offset_c)  # p_sat grows 6.6 % per °C near 12 °C
            v1 = p1 * np.clip(self.air.ahead_rh_percent + future.offset_rh, 1.0, 99.0) / 100
            saturation = saturation + ahead * (p1 - p0)
            vapour = vapour + ahead * (v1 - v0)
        return dry(bodies, Drivers(wide(self.time_s), saturation, vapour, wide(self.arrhenius), pace))

    def losses_at_weighings(self, loss: Array) -> Array:
        """Loss at each weighing, shape (w, copies·n), by linear interpolation on the grid."""
        copies = loss.shape[1] // len(self.pieces)
        out = np.zeros((len(self.w_at), loss.shape[1]))
        n = len(self.pieces)
        for i in range(n):
            k = len(self.used[i])
            if k:
                j = np.clip(np.searchsorted(self.time_s[:, i], self.w_at[:k, i]) - 1, 0, len(self.time_s) - 2)
                t0, t1 = self.time_s[j, i], self.time_s[j + 1, i]
                share = ((self.w_at[:k, i] - t0) / (t1 - t0))[:, None]
                columns = i + n * np.arange(copies)
                out[:k, columns] = loss[j][:, columns] * (1 - share) + loss[j + 1][:, columns] * share
        return out


def _ring(c: _Chamber, i: int, loss_now: float, elapsed_s: float) -> tuple[float, float]:
    """Safe pace [% a day] at this loss, and the risk of a dry ring 0…1.

    A piece that reached its loss in half the time that gentle air takes is drying too fast: its rim has run ahead of
    its core. Estimate; the bound is a rule of practice, not a measurement of the piece.
    """
    time_s, gentle = c.time_s[:, i], c.gentle_loss[:, i]
    day = SECONDS_PER_DAY
    at = float(np.interp(loss_now, gentle, time_s))
    pace = float(np.interp(at + day / 2, time_s, gentle) - np.interp(at - day / 2, time_s, gentle))
    safe_percent = 100 * SAFE_OVER_GENTLE * pace
    if elapsed_s < day or loss_now < 0.01:
        return safe_percent, 0.0
    ratio = at / elapsed_s / SAFE_OVER_GENTLE
    return safe_percent, float(ratio**4 / (1 + ratio**4))


@dataclass(frozen=True)
class Future:
    """Draws of what nobody knows: offset of the air and drift of the pace, each (draws·n,)."""

    offset_c: Array
    offset_rh: Array
    drift: Array


def crossing(time_s: Array, loss: Array, target: Array) -> Array:
    """First time at which each column of loss passes its target, by linear interpolation; inf when never.

    Parameters: time_s [s] and loss [share] (m+1, …, n); target [share] (n,).

    >>> crossing(np.array([[0.0], [10.0]]), np.array([[0.0], [0.4]]), np.array([0.3]))
    array([7.5])
    """
    past = loss >= target
    j = np.maximum(np.argmax(past, axis=0), 1)[None]
    never = ~past.any(axis=0)
    l0, l1 = (np.take_along_axis(loss, k, axis=0)[0] for k in (j - 1, j))
    t0, t1 = (np.take_along_axis(time_s, k, axis=0)[0] for k in (j - 1, j))
    share = np.clip((target - l0) / np.maximum(l1 - l0, 1e-12), 0.0, 1.0)
    return np.where(never, np.inf, t0 + share * (t1 - t0))


STEPS = np.array([0.05, 0.05, 0.004, 0.05, 0.03])  # finite differences


def _learn(c: _Chamber) -> tuple[Array, Array, Array, Array]:
    """Fit by Gauss-Newton passes. Returns θ (n, 5), information, vector, good share of weighings (w, n)."""
    n, p = c.mean.shape
    if not c.w_mask.any():
        return c.mean.copy(), np.zeros((n, p, p)), np.zeros((n, p)), np.ones_like(c.w_loss)
    theta, information, vector, good = _passes(c)
    held = (c.w_mask & (good < 0.5)).sum(axis=0)
    unusual = (held >= 2) & (held > 0.4 * c.w_mask.sum(axis=0))
    if unusual.any():  # several weighings that agree against the prior: the piece is unusual, not the scale
        c.tree.piece_cov[unusual] *= UNUSUAL_PIECE
        theta, information, vector, good = _passes(c)
    return theta, information, vector, good


def _passes(c: _Chamber) -> tuple[Array, Array, Array, Array]:
    n, p = c.mean.shape
    theta = c.mean.copy()
    for extra in ANNEAL:
        points = np.concatenate([theta[None], theta[None] + np.eye(p)[:, None, :] * STEPS[:, None, None]])
        at = c.losses_at_weighings(c.run(points).loss).reshape(-1, p + 1, n)
        base = at[:, 0]
        slope = (at[:, 1:] - base[:, None]) / STEPS[:, None]  # (w, p, n)
        residual = c.w_loss - base
        sd = np.hypot(c.w_sd, extra)
        fits = (1 - OUTLIER_SHARE) * np.exp(-0.5 * (residual / sd) ** 2 / 1.5) / sd
        good = np.where(c.w_mask, fits / (fits + OUTLIER_SHARE / OUTLIER_WIDTH), 0.0)
        # heavy tails: a weighing that fits badly counts for less, one that cannot be right for nothing
        weight = good * 5.0 / (4.0 + (residual / sd) ** 2) / sd**2
        information = np.einsum("wpn,wn,wqn->npq", slope, weight, slope)
        aim = residual + np.einsum("wpn,np->wn", slope, theta - c.mean)
        vector = np.einsum("wpn,wn,wn->np", slope, weight, aim)
        theta = c.mean + c.tree.mean(information, vector)
    return theta, information, vector, good


def _normals(draws: int, rows: int, p: int) -> Array:
    """Standard normals in antithetic pairs, always the same ones, shape (draws, rows, p)."""
    half = np.random.default_rng(20_240_101).standard_normal((draws // 2, rows, p))
    return np.concatenate([half, -half])


def forecast(history: History, draws: int = DRAWS) -> tuple[PieceForecast, ...]:
    """Forecast every piece of a place.

    Parameters: history; draws [-] of the future, even. Nothing after history.now_s is used.
    Returns one PieceForecast per piece, in order.
    """
    if not history.pieces:
        return ()
    c = _Chamber(history)
    _theta, information, vector, good = _learn(c)
    n, p = c.mean.shape
    b = len(c.tree.batch_cov)
    noise = _normals(draws, 1 + b + n + 1 + n, p)
    sampled = c.mean + c.tree.draw(information, vector, noise[:, : 1 + b + n])
    air = noise[:, 1 + b + n]
    future = Future(
        np.repeat(air[:, 0] * c.air.sd_c, n),
        np.repeat(air[:, 1] * c.air.sd_rh_percent, n),
        (np.repeat(air[:, 2], n).reshape(draws, n) * 0.6 + noise[:, 2 + b + n :, 0] * 0.8).ravel() * DRIFT_SD,
    )
    loss = c.run(sampled, future).loss
    c.set_gentle()
    loss = loss.reshape(len(loss), draws, n)
    cross = crossing(np.repeat(c.time_s[:, None], draws, axis=1), loss, c.target)
    weight = c.reachable(sampled)
    dates = weighted_quantiles(cross, weight)
    curve = weighted_quantiles(loss, np.broadcast_to(weight, loss.shape))
    return tuple(_answer(c, i, cross[:, i], weight[:, i], dates[:, i], curve[:, :, i], good[:, i]) for i in range(n))


def weighted_quantiles(values: Array, weight: Array) -> Array:
    """10, 50 and 90 % quantiles over the draws, which lie on the last axis but one; shape (3, …, n).

    Parameters: values, weight (…, draws, n), weight above 0.
    """
    order = np.argsort(values, axis=-2)
    ranked = np.take_along_axis(values, order, axis=-2)
    share = np.cumsum(np.take_along_axis(weight, order, axis=-2), axis=-2)
    share /= share[..., -1:, :]
    out = []
    for q in (0.1, 0.5, 0.9):
        j = np.argmax(share >= q - 1e-12, axis=-2)[..., None, :]
        out.append(np.take_along_axis(ranked, j, axis=-2)[..., 0, :])
    return np.array(out)


def _answer(
    c: _Chamber, i: int, cross: Array, weight: Array, quantiles: Array, curve: Array, good: Array
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
    horizon = max(HORIZON_DAYS * day, elapsed + 30 * day)
    dates: tuple[float | None, float | None, float | None]
    status: Status
    if ready:
        status, dates = "ready", (min(p10, elapsed), min(p50, elapsed), min(p90, elapsed))
    elif not np.isfinite(p50) or p50 > horizon:
        status, dates = "stalled", (None, None, None)
    else:
        status, dates = "drying", (max(p10, elapsed), max(p50, elapsed), max(min(p90, horizon), elapsed))
    hung = piece.hung_at_s
    p10_s, p50_s, p90_s = (None if d is None else hung + d for d in dates)
    if status == "drying" and p50_s is not None and p50_s <= c.now_s:  # about now: never a date behind the clock
        p50_s = c.now_s + 0.02 * (c.reference[i])
        p90_s = max(p90_s or p50_s, p50_s)
    k = len(c.used[i])
    safe_percent, ring_risk = _ring(c, i, loss_now, elapsed)
    return PieceForecast(
        tag=piece.tag,
        loss_percent=100 * loss_now,
        target_weight_g=target_weight(piece.start_weight_g, piece.tare_g, piece.target_loss_percent).target_gross_g,
        rate_percent_per_day=100 * max(rate, 0.0),
        ready_p10_s=p10_s,
        ready_p50_s=p50_s,
        ready_p90_s=p90_s,
        status=status,
        safe_percent_per_day=safe_percent,
        ring_risk=ring_risk,
        doubts=name_doubts(
            piece, c.used[i], good[:k], [float(np.interp(w.at_s - hung, time_s, mid)) for w in c.used[i]]
        ),
        curve_s=hung + time_s,
        curve_p10=low,
        curve_p50=mid,
        curve_p90=high,
    )
