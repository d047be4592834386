"""The arrays behind one forecast: bodies, time grids, air and weighings of all pieces of a place, side by side."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from ..constants import MEAT_DENSITY_KG_M3, SECONDS_PER_DAY
from ..water import SORPTION_EXPONENT, sorption_x
from .climate import Air, rates
from .geometry import body_of, one_faced
from .history import Piece
from .learn import Tree
from .priors import WATER_IN_LEAN, WORKSHOP_SD, piece_prior
from .transport import Bodies, Drivers, DryingRun, dry

Array = npt.NDArray[np.float64]

HORIZON_DAYS = 730.0  # longer than any usual goods hang
FINE_STEPS, FAR_STEPS = 56, 14
LN_NO_AIR = -30.0  # ln of the air at a piece that is off its hook: none reaches it
MODEL_SD = 0.002  # what the model cannot follow, as loss fraction
TREND_SETTLES = 2.5  # how soon the pace of a piece becomes what it stays, per usual way to its target; estimate
GENTLE_AIR_USUAL = (13.0, 79.0)  # [°C], [%]: air that is gentle to goods of any other kind; usual practice
# the same of goods that dry quickly, or are eaten soon
GENTLE_AIR: dict[str, tuple[float, float]] = {"thin_sausage": (18.0, 58.0), "breast": (10.0, 72.0)}
# A target is set where its kind still has water to give: about SPARE of the start weight, or the draw counts little
SPARE, SPARE_WIDTH, UNREACHABLE_SHARE = 0.03, 0.012, 0.02


@dataclass(frozen=True)
class Future:
    """Draws of what nobody knows: offset of the air and drift of the pace, each (draws·n,)."""

    offset_c: Array
    offset_rh: Array
    drift: Array
    ln_draught: float = 0.0  # how much more air reaches the piece from now on


class Arrays:
    """Bodies, grids, priors and weighings of n pieces in one air."""

    def __init__(
        self,
        pieces: tuple[Piece, ...],
        air: Air,
        now_s: float,
        span_s: Array | None = None,
        hook_air: Mapping[str, float] | None = None,
    ) -> None:
        """Set up; span_s (n,), over which a trend runs, is each piece's way to its target in gentle air unless given.

        Not in the air to come: what a piece did so far must not change because a knob is turned or it is moved.

        hook_air: ln of the air at hooks that differ from the usual.
        """
        self.pieces, self.air, self.now_s = pieces, air, now_s
        self.hook_air = hook_air or {}
        ps = self.pieces
        body = [body_of(p.kind, p.shape, p.net_start_g, p.diameter_mm, p.thickness_mm, p.length_mm) for p in ps]
        prior = [
            piece_prior(p.kind, p.shape, p.casing, b, p.fat_percent, p.salt_percent, self.air.ln_air)
            for p, b in zip(ps, body, strict=True)
        ]
        self.mean = np.array([q.mean for q in prior])
        self.half_thickness = np.array(
            [b.half_thickness_m * one_faced(p.shape, p.skin) for p, b in zip(ps, body, strict=True)]
        )
        self.curvature = np.array([b.curvature for b in body])
        self.size_sd = np.array([b.size_sd for b in body])
        fat = np.array([q.fat_fraction for q in prior])
        salt = np.array([q.salt_fraction for q in prior])
        self.dry_matter = np.maximum((1 - WATER_IN_LEAN) * (1 - fat), 0.05) + salt
        self.sorption = sorption_x(salt * 100)
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
        self.target = np.array([p.aim_percent for p in ps]) / 100
        self.span_s = np.zeros(0)  # until the grid is set there is none
        self._weighings()
        self._grid()
        self.span_s = _within_reason(crossing(self.time_s, self.gentle, self.target)) if span_s is None else span_s

    def _weighings(self) -> None:
        """Weighings up to now, padded to the longest row: time, loss, sd, mask, each (w, n)."""
        # of what it lost nothing is known where its start was not weighed
        used = [[w for w in p.weighings if w.at_s <= self.now_s and p.start_weight_g is not None] for p in self.pieces]
        rows = max((len(u) for u in used), default=0)
        n = len(self.pieces)
        self.used = used
        self.w_at, self.w_loss = np.zeros((rows, n)), np.zeros((rows, n))
        self.w_sd, self.w_mask = np.ones((rows, n)), np.zeros((rows, n), dtype=bool)
        self.w_sure = np.zeros((rows, n), dtype=bool)  # a second reading agrees: it counts fully
        # a scale that suits the piece
        self.w_sd_new = np.array(
            [np.hypot(MODEL_SD, max(1.0, (p.net_start_g + p.tare_g) / 500) / p.net_start_g) for p in self.pieces]
        )
        for i, (p, us) in enumerate(zip(self.pieces, used, strict=True)):
            for j, w in enumerate(us):
                self.w_at[j, i] = w.at_s - p.hung_at_s
                self.w_loss[j, i] = p.loss_fraction(w.gross_g)
                self.w_sd[j, i] = self.w_sd_new[i]
                self.w_mask[j, i] = True
                self.w_sure[j, i] = w.confirmed

    def _grid(self) -> None:
        """Time grid of each piece: fine while it dries, coarse to the horizon; then the air over each step."""
        n = len(self.pieces)
        horizon = HORIZON_DAYS * SECONDS_PER_DAY
        rough = np.repeat((np.geomspace(0.1, HORIZON_DAYS, 41) * SECONDS_PER_DAY)[:, None], n, axis=1)
        rough[0] = 0.0
        self._set_drivers(rough)
        cross = crossing(rough, self.run(self.mean).loss, self.target)
        elapsed = np.maximum(self.now_s - self.hung, 0.0)
        self.reference = _within_reason(cross)
        fine = np.minimum(np.maximum(1.35 * self.reference, 1.1 * elapsed), 0.9 * horizon)
        near = (np.linspace(0, 1, FINE_STEPS + 1) ** 1.35)[:, None] * fine
        far = fine * (np.maximum(horizon, elapsed * 1.5) / fine) ** (np.arange(1, FAR_STEPS + 1)[:, None] / FAR_STEPS)
        time_s = np.concatenate([near, far])
        # One point lies at now: what was lost so far must not be told from a step that the air to come has a part in
        nearest, column = np.abs(time_s - elapsed).argmin(axis=0), np.arange(n)
        time_s[nearest, column] = np.where(nearest > 0, elapsed, 0.0)
        self._set_drivers(time_s)
        self._weighings_on_grid()

    def _weighings_on_grid(self) -> None:
        """The step of the grid in which each weighing lies, and how far into it, each (w, n)."""
        self.w_step = np.zeros(self.w_at.shape, dtype=np.int64)
        last = len(self.time_s) - 2
        for i, time_s in enumerate(self.time_s.T):
            self.w_step[:, i] = np.clip(np.searchsorted(time_s, self.w_at[:, i]) - 1, 0, last)
        begins = np.take_along_axis(self.time_s, self.w_step, axis=0)
        self.w_share = (self.w_at - begins) / (np.take_along_axis(self.time_s, self.w_step + 1, axis=0) - begins)

    def reachable(self, theta: Array) -> Array:
        """How believable draws (s, n, 5) are, given that makers set targets which a piece of its kind can reach.

        Judged by the plateau in the usual air of the kind, not in this place's air: the target tells of the piece,
        and drier air must never make slow pieces more believable. A target that nobody set tells nothing.
        """
        rh = np.array([GENTLE_AIR.get(p.kind, GENTLE_AIR_USUAL)[1] for p in self.pieces]) / 100
        bound_x = self.sorption * (rh / (1 - rh)) ** (1 / SORPTION_EXPONENT)
        spare = theta[..., 2] - bound_x * self.dry_matter - self.target
        told = np.array([p.target_loss_percent is not None for p in self.pieces])
        share = UNREACHABLE_SHARE + (1 - UNREACHABLE_SHARE) / (1 + np.exp(-(spare - SPARE) / SPARE_WIDTH))
        return np.asarray(np.where(told, share, 1.0))

    @cached_property
    def gentle(self) -> Array:
        """Loss (m+1, n) of each piece by its prior in the gentle air that its kind is known to take well."""
        still = np.array([GENTLE_AIR.get(p.kind, GENTLE_AIR_USUAL) for p in self.pieces], dtype=np.float64).T
        one = np.ones((len(self.middle), 1))
        saturation, vapour, arrhenius, _ = (one * rate for rate in rates(still[0], still[1]))
        bodies = self.bodies(self.mean)
        return dry(bodies, Drivers(self.time_s, saturation, vapour, arrhenius, one + 0 * saturation)).loss

    def _set_drivers(self, time_s: Array) -> None:
        self.time_s = time_s
        self.saturation, self.vapour, self.arrhenius = self.air.means(time_s + self.hung)
        middle = (time_s[1:] + time_s[:-1]) / 2
        for i, piece in enumerate(self.pieces):
            if any(stay.place for stay in piece.stays):
                self._hung_elsewhere(i, piece, time_s, middle)
        self.ahead = np.clip((time_s[1:] + self.hung - self.now_s) / np.diff(time_s, axis=0), 0.0, 1.0)
        self.middle: Array = middle
        self.ln_hook = np.zeros_like(middle)
        for i, piece in enumerate(self.pieces):
            if any(stay.paused or stay.hook in self.hook_air for stay in piece.stays):
                begins = np.array([stay.from_s - piece.hung_at_s for stay in piece.stays])
                air_of = np.array(
                    [LN_NO_AIR if stay.paused else self.hook_air.get(stay.hook, 0.0) for stay in piece.stays]
                )
                self.ln_hook[:, i] = air_of[np.maximum(np.searchsorted(begins, middle[:, i], side="right") - 1, 0)]

    def _hung_elsewhere(self, i: int, piece: Piece, time_s: Array, middle: Array) -> None:
        """Give a piece that was moved here the air of where it hung while it hung there."""
        begins = np.array([stay.from_s - piece.hung_at_s for stay in piece.stays])
        at = np.maximum(np.searchsorted(begins, middle[:, i], side="right") - 1, 0)
        places = np.array([stay.place for stay in piece.stays])[at]
        for name in dict.fromkeys(stay.place for stay in piece.stays):
            if name in self.air.elsewhere:
                there = self.air.elsewhere[name].means(time_s[:, i : i + 1] + piece.hung_at_s)
                was = places == name
                for here, part in zip((self.saturation, self.vapour, self.arrhenius), there, strict=True):
                    here[was, i] = part[was, 0]

    def run(
        self, theta: Array, future: Future | None = None, keep: bool = False, steps: int | None = None
    ) -> DryingRun:
        """Simulate with parameters theta (…, n, 5), draws side by side. Loss comes back as (m+1, draws·n).

        steps: how many of the grid's steps to go, all unless given.
        """
        flat = theta.reshape(-1, theta.shape[-1])
        copies = len(flat) // len(self.pieces)
        m = len(self.middle) if steps is None else steps

        def wide(a: Array) -> Array:
            return np.tile(a[:m], (1, copies))

        if not len(self.span_s):
            pace = np.ones((m, len(flat)))
        else:
            pace = np.exp(flat[:, 4] * trend_profile(wide(self.middle / self.span_s)))
        saturation, vapour = wide(self.saturation), wide(self.vapour)
        draught = np.exp(wide(self.ln_hook))
        if future is not None:
            ahead = wide(self.ahead)
            pace = pace * np.exp(ahead * future.drift)
            draught = draught * np.exp(ahead * future.ln_draught)
            p0, v0 = self.air.ahead[0], self.air.ahead[1]
            p1 = p0 * np.exp(0.066 * future.offset_c)  # p_sat grows 6.6 % per °C near 12 °C
            v1 = p1 * np.clip(self.air.ahead_rh_percent + future.offset_rh, 1.0, 99.0) / 100
            saturation = saturation + ahead * (p1 - p0)
            vapour = vapour + ahead * (v1 - v0)
        time_s = np.tile(self.time_s[: m + 1], (1, copies))
        drivers = Drivers(time_s, saturation, vapour, wide(self.arrhenius), pace, draught)
        return dry(self.bodies(flat), drivers, keep=keep, cores=2)

    def bodies(self, flat: Array) -> Bodies:
        """The bodies that parameters flat (copies·n, 5) describe."""
        copies = len(flat) // len(self.pieces)
        return Bodies(
            np.tile(self.half_thickness, copies),
            np.tile(self.curvature, copies),
            np.clip(flat[:, 2], 0.12, 0.85),
            np.tile(self.dry_matter, copies),
            np.full(len(flat), MEAT_DENSITY_KG_M3),
            np.exp(flat[:, 1]),
            np.exp(flat[:, 0]),
            np.tile(self.sorption, copies),
            np.exp(flat[:, 3]),
        )

    def losses_at_weighings(self, theta: Array) -> Array:
        """Loss at each weighing by parameters theta (copies, n, 5), shape (w, copies, n), linear in each step."""
        n = len(self.pieces)
        loss = self.run(theta, steps=int(self.w_step.max()) + 1).loss
        of_piece = loss.reshape(len(loss), -1, n)
        before, after = (of_piece[step, :, np.arange(n)] for step in (self.w_step, self.w_step + 1))  # (w, n, copies)
        share = self.w_share[..., None]
        return (before * (1 - share) + after * share).transpose(0, 2, 1)


def _within_reason(cross_s: Array) -> Array:
    """Crossings as spans to plan by: two days at least, and no longer than 0.4 of the horizon."""
    most = 0.4 * HORIZON_DAYS * SECONDS_PER_DAY
    return np.asarray(np.clip(np.where(np.isfinite(cross_s), cross_s, most), 2 * SECONDS_PER_DAY, most))


def trend_profile(way: Array) -> Array:
    """How much of the trend a piece has at a share of its usual way: −1 at hanging, settling towards 1; shape as way.

    Parameters: way [-], 0 at hanging, 1 where such a piece is usually done. A pace that settles, rather than one that
    goes on changing, lets early weighings say little and late ones much about what is left.

    >>> float(trend_profile(np.array(0.0)))
    -1.0
    """
    return np.asarray(1.0 - 2.0 * np.exp(-TREND_SETTLES * way))


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
