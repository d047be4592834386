"""Water through meat, casing and air under a moving climate, for many bodies at once.

A body is a slab, a cylinder, a sphere or anything between (curvature 0, 1, 2), cut into shells that keep
their dry matter. Water moves between shells by diffusion that slows as the meat dries, and leaves the
rim through casing and air film, driven by the vapour pressure over the rim less that of the air.
Mass balance is exact by construction: what leaves a shell enters its neighbour or the air.
"""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, fields, replace
from typing import Any, TypeVar

import numpy as np
import numpy.typing as npt
from scipy.linalg.lapack import dgtsv

from ..water import SORPTION_EXPONENT

Array = npt.NDArray[np.float64]

SHELLS = 9
REFERENCE_TEMPERATURE_C = 12.0  # at which diffusivities are told [°C]
DIFFUSION_ACTIVATION_J_MOL = 28_000.0  # moisture in lean meat, 25–35 kJ/mol in the literature
STEEPNESS = 2.0  # how steeply diffusivity falls below `half_diffusion_x`; estimate


@dataclass(frozen=True)
class Bodies:
    """Parameters of n drying bodies, each an array of shape (n,)."""

    half_thickness_m: Array
    curvature: Array
    water_fraction: Array  # kg water per kg of piece at hanging
    dry_matter_fraction: Array  # kg fat-free dry matter per kg of piece at hanging
    density_kg_m3: Array
    diffusivity_m2_s: Array  # at 12 °C, fresh
    permeance_kg_m2_s_pa: Array  # casing and air film together
    sorption_x: Array  # Oswin: water per dry matter at aw 0.5
    half_diffusion_x: Array  # water per dry matter at which diffusivity has halved

    def __len__(self) -> int:
        return len(self.half_thickness_m)

    def one(self, index: int) -> "Bodies":
        """One of them, as arrays of shape (1,)."""
        return _part(self, slice(index, index + 1))

    @property
    def fresh_x(self) -> Array:
        """Water per fat-free dry matter at hanging [kg/kg]."""
        return self.water_fraction / self.dry_matter_fraction


@dataclass(frozen=True)
class Drivers:
    """What the air does to each body over each time step; times (m+1, n), the rest (m, n)."""

    time_s: Array
    saturation_pa: Array
    vapour_pa: Array
    diffusion_factor: Array  # Arrhenius factor of diffusivity, 1 at 12 °C
    pace: Array  # multiplies outflow and diffusivity alike; 1 unless a drift is modelled
    draught: Array | None = None  # multiplies the outflow alone: more or less air at the piece


def shell_fractions(shells: int = SHELLS) -> Array:
    """Volume share of each shell from centre to rim, fine at the rim, shape (shells,); sums to 1.

    Parameters: shells [-], 2 or more.

    >>> bool(abs(shell_fractions().sum() - 1) < 1e-12)
    True
    """
    edge = 1.0 - (1.0 - np.linspace(0.0, 1.0, shells + 1)) ** 1.8
    return np.asarray(np.diff(edge))


Columns = TypeVar("Columns", Bodies, Drivers)
WORTH_TWO_CORES = 3000  # bodies from which two threads beat one
FEW = 64  # bodies that are quicker solved as one system than side by side


@dataclass(frozen=True)
class DryingRun:
    """Loss [share of start weight] at each time, shape (m+1, n); water by depth where it was kept."""

    loss: Array
    x: Array  # (shells, n) at the end
    profiles: Array | None  # (m+1, shells, n), only when asked for


def _part(columns: Columns, part: slice) -> Columns:
    """The columns of a slice."""
    cut: dict[str, Any] = {}
    for field in fields(columns):
        array = getattr(columns, field.name)
        cut[field.name] = None if array is None else np.ascontiguousarray(array[..., part])
    return replace(columns, **cut)


def _solve(lower: Array, diag: Array, upper: Array, right: Array) -> Array:
    """Solve n tridiagonal systems of k rows side by side; lower and upper (k-1, n) are taken off, diag and right go.

    Of few bodies most of the time would go to calling: they are one system, one after the other, none coupled to the
    next. Of many, the Thomas algorithm goes from the centre outwards and back for all at once.
    """
    k, n = right.shape
    if n <= FEW:
        below, above = np.zeros((2, n, k))
        np.negative(lower.T, out=below[:, :-1])
        np.negative(upper.T, out=above[:, :-1])
        solved = dgtsv(below.ravel()[:-1], diag.T.ravel(), above.ravel()[:-1], right.T.ravel())[3]
        return np.asarray(solved.reshape(n, k).T)
    w = np.empty(n)
    for i in range(1, k):
        np.divide(lower[i - 1], diag[i - 1], out=w)
        diag[i] -= w * upper[i - 1]
        w *= right[i - 1]
        right[i] += w
    right[-1] /= diag[-1]
    for i in range(k - 2, -1, -1):
        np.multiply(upper[i], right[i + 1], out=w)
        right[i] += w
        right[i] /= diag[i]
    return right


def dry(
    bodies: Bodies, drivers: Drivers, x_start: Array | None = None, keep: bool = False, cores: int = 1
) -> DryingRun:
    """Dry n bodies through m steps.

    Parameters: bodies (n,); drivers (m steps, n); x_start [kg/kg] (shells, n), fresh when None;
    keep [-] the water by depth at every time; cores [-] 2 to run bodies by the thousand in two halves side by side.
    Each step is implicit in X, with the diffusivity and the slope of the isotherm of the step's start.
    Returns DryingRun. Method: finite volumes in dry-matter coordinates, tridiagonal over shells.
    """
    n = len(bodies)
    if cores == 2 and n >= WORTH_TWO_CORES and x_start is None and not keep:
        halves = (slice(0, n // 2), slice(n // 2, n))
        with ThreadPoolExecutor(2) as pool:
            left, right = pool.map(lambda half: dry(_part(bodies, half), _part(drivers, half)), halves)
        return DryingRun(np.hstack([left.loss, right.loss]), np.hstack([left.x, right.x]), None)
    v = shell_fractions()
    k = len(v)
    power = 1.0 / (bodies.curvature + 1.0)
    edge = np.concatenate([[0.0], np.cumsum(v)])[:, None] ** power  # r/a at shell faces
    middle = (np.concatenate([[0.0], np.cumsum(v)])[:-1] + v / 2)[:, None] ** power
    face = (bodies.curvature + 1.0) * edge[1:] ** bodies.curvature  # face area · a / volume
    conductance = face[:-1] / (middle[1:] - middle[:-1]) / bodies.half_thickness_m**2  # (k-1, n)
    # the rim's own half shell stands in series with casing and air
    rim_resistance_m = (1.0 - middle[-1]) * bodies.half_thickness_m
    rho_dry = bodies.density_kg_m3 * bodies.dry_matter_fraction
    outer = (bodies.curvature + 1.0) / bodies.half_thickness_m / rho_dry  # per unit flux, per v
    x = np.tile(bodies.fresh_x, (k, 1)) if x_start is None else x_start.copy()
    steps = drivers.saturation_pa.shape[0]
    loss = np.zeros((steps + 1, n))
    loss[0] = bodies.water_fraction - v @ x * bodies.dry_matter_fraction
    profiles = np.empty((steps + 1, k, n)) if keep else None
    if profiles is not None:
        profiles[0] = x
    dt_all = np.diff(drivers.time_s, axis=0)
    inverse_half_x = 1.0 / bodies.half_diffusion_x
    outer_share = outer / v[-1]
    share = v[:, None]
    # per unit of the shell's own volume, so that the diagonal starts at 1; buffers are used again each step
    inward, outward = conductance / share[1:], conductance / share[:-1]
    d, one_plus = np.empty((k, n)), np.empty((k, n))
    mean_d, lower, upper = np.empty((k - 1, n)), np.empty((k - 1, n)), np.empty((k - 1, n))
    diag = np.empty((k, n))
    for j in range(steps):
        dt = dt_all[j]
        np.multiply(x, inverse_half_x, out=d)
        np.multiply(d, d, out=d)
        np.add(d, 1.0, out=one_plus)
        np.divide(d, one_plus, out=d)
        d *= bodies.diffusivity_m2_s * drivers.diffusion_factor[j] * drivers.pace[j]
        np.add(d[1:], d[:-1], out=mean_d)
        np.divide(d[1:], mean_d, out=mean_d)
        mean_d *= d[:-1]
        mean_d *= 2.0 * dt
        np.multiply(mean_d, inward, out=lower)
        np.multiply(mean_d, outward, out=upper)
        rim = x[-1]
        aw = 1.0 / (1.0 + np.exp(SORPTION_EXPONENT * np.log(bodies.sorption_x / rim)))
        slope = SORPTION_EXPONENT * aw * (1.0 - aw) / rim
        permeance = bodies.permeance_kg_m2_s_pa * drivers.pace[j]
        if drivers.draught is not None:
            permeance *= drivers.draught[j]
        drive = permeance * drivers.saturation_pa[j]
        # resistance of the half shell linearised around the rim: J = (p_rim − p_air)·K/(1 + K·slope·p_sat·r/(ρ D))
        damp = 1.0 + drive * slope * rim_resistance_m / (rho_dry * d[-1])
        leaves = outer_share * dt / damp
        diag.fill(1.0)
        diag[:-1] += upper
        diag[1:] += lower
        diag[-1] += drive * slope * leaves
        x[-1] -= (drive * (aw - slope * rim) - permeance * drivers.vapour_pa[j]) * leaves
        x = _solve(lower, diag, upper, x)
        np.maximum(x, 1e-3, out=x)
        loss[j + 1] = bodies.water_fraction - v @ x * bodies.dry_matter_fraction
        if profiles is not None:
            profiles[j + 1] = x
    return DryingRun(loss, x, profiles)
