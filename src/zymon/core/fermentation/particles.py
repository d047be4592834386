"""Many likely falls, weighed by the readings: importance sampling in two rounds, robust to slips of the hand."""

from dataclasses import dataclass
from functools import cache, cached_property

import numpy as np
import numpy.typing as npt
from scipy.special import ndtri

from .curve import (
    CULTURES,
    USUAL_FALL,
    BoxFault,
    Clock,
    Culture,
    Fermentation,
    box_fault,
    culture_clock,
    goods_temperature,
)

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

DRAWS = 4096
WIDE_SHARE = 0.3  # of the second round, drawn as if nothing had been found
GOLDEN = 0.6180339887498949  # steps of it visit a line evenly
READING_SD = 0.032  # the meter and what the curve cannot follow
# share of readings that are slips, and how many times as wide they spread; estimates
SLIP_SHARE, SLIP_WIDTH = 0.03, 8.0
OFFSET_SD = 0.03  # of the meter, the same for all its readings
BUFFER, BUFFER_SD = 56.0, 6.5  # mmol/kg per pH
ACID_PER_PERCENT = 111.0  # mmol lactic acid per kg from one percent of dextrose
LONGEST_SHARE = 1.9  # of the half-way time that a fall may take: it does not begin before stuffing
# lowest pH that acid stops at, its spread and softness; estimates
FLOOR_PH, FLOOR_SD, FLOOR_SOFT = 4.52, 0.12, 0.12
# pH of the mince at the start and its spread, unknown or measured; estimates
USUAL_START, USUAL_START_SD, DECLARED_START_SD = 5.79, 0.12, 0.05
USUAL_DEXTROSE, USUAL_DEXTROSE_SD = 0.4, 0.22  # percent of the meat and its spread where nobody said; usual practice
# Before anything is measured: how often the culture is dead, or the sugar that was meant is not there
DEAD_SHARE, NO_SUGAR_SHARE = 0.10, 0.10
# Cultures differ by what is bought: some are a good deal quicker than most of their class
QUICK_SHARE, QUICK_BEGINS, QUICK_FALLS = 0.17, 0.52, 0.34  # half-way and fall, in shares of the usual times
QUICK: tuple[Culture, ...] = ("slow", "medium", "fast", "wild")
SURE_SLIP_SHARE = 1e-12  # of readings that the maker confirmed or repeated
LEAST_LOOKED_AT = 0.02  # share of the draws that even the rarest kind gets
BLURS_SURE = (8.0, 4.0, 2.0, 1.0)  # what the maker is sure of is neared step by step, however unlikely it was thought
LOOKS_WIDER = 1.5  # in the first round the times are looked for so much further out than they are believed
# A box that was at its set point and fell is found and mended within hours; one that never came up mostly stays so.
# Hours from now until it is back, and how often; estimates
BACK_AFTER_HOURS: dict[BoxFault, tuple[tuple[float, float], ...]] = {
    "": ((0.0, 1.0),),
    "fell": ((1.0, 0.3), (4.0, 0.35), (9.0, 0.25), (np.inf, 0.1)),
    "cold": ((1.0, 0.2), (np.inf, 0.8)),
}
CLASS_SHARES: dict[Culture, float] = {"slow": 0.35, "medium": 0.35, "fast": 0.2, "wild": 0.1}

# columns of a draw: ln half-way, ln fall time, start pH, buffer, floor, share of the fall, offset of the meter
WIDTH = 7


@dataclass(frozen=True)
class Kind:
    """One way the batch may be: its culture, and what may be wrong."""

    culture: Culture
    fault: str  # "", "quick", "dead", "no_sugar"; "quick" is none
    box_back_hours: float  # from now; inf if it stays off its set point
    clock: int  # which of the clocks it runs by
    share: float


@dataclass(frozen=True)
class Falls:
    """Weighed draws of the fall; `kind` says which of `kinds` each is."""

    kinds: tuple[Kind, ...]
    clocks: tuple[Clock, ...]
    kind: Ints
    start: Array
    fall: Array
    centre: Array
    scale: Array
    weight: Array

    @cached_property
    def clock_of(self) -> Ints:
        """Which of `clocks` each draw runs by; one for all where there is but one."""
        if len(self.clocks) == 1:
            return np.zeros(1, dtype=np.int64)
        return np.array([k.clock for k in self.kinds])[self.kind]

    def ph_at(self, hour: float) -> Array:
        """True pH of every draw at an hour. Parameters: hour [h]."""
        return self._ph(np.array([c.at(hour) for c in self.clocks])[self.clock_of])

    def ph_at_hours(self, hours: Array) -> Array:
        """True pH of every draw at many hours, shape (hours, draws). Parameters: hours [h]."""
        return self._ph(np.array([np.interp(hours, c.hours, c.clock) for c in self.clocks])[self.clock_of].T)

    def _ph(self, clock: Array) -> Array:
        steps = np.clip((clock - self.centre) / self.scale, -40, 40)
        return np.asarray(self.start - self.fall / (1 + np.exp(-steps)))

    def thinned(self, draws: int) -> "Falls":
        """So many draws of equal weight, picked by their weight at even steps. Parameters: draws [-]."""
        picked = np.searchsorted(np.cumsum(self.weight), (np.arange(draws) + 0.5) / draws * self.weight.sum())
        pick = np.minimum(picked, len(self.weight) - 1)
        parts = (a[pick] for a in (self.kind, self.start, self.fall, self.centre, self.scale))
        kind, start, fall, centre, scale = parts
        return Falls(self.kinds, self.clocks, kind, start, fall, centre, scale, np.full(draws, 1 / draws))

    def hour_of(self, ph: float) -> Array:
        """The hour at which every draw passes a pH; inf where it never does. Parameters: ph [-]."""
        share = (self.start - ph) / np.maximum(self.fall, 1e-6)
        reachable = share < 0.985
        clean = np.clip(share, 1e-4, 0.985)
        clock = self.centre + self.scale * np.log(clean / (1 - clean))
        clock_of = np.broadcast_to(self.clock_of, clock.shape)
        out = np.full(len(clock), np.inf)
        for i, table in enumerate(self.clocks):
            mine = reachable & (clock_of == i)
            out[mine] = table.hour_of(np.maximum(clock[mine], 0.0))
        return out


def kinds_of(batch: Fermentation) -> tuple[list[Kind], list[Clock]]:
    """The ways a batch may be, and the clocks they run by. Parameters: batch."""
    classes = CLASS_SHARES if batch.culture is None else {batch.culture: 1.0}
    boxes = [
        (back, share, goods_temperature(batch.box, batch.setpoint_c, batch.now_hour, back))
        for back, share in BACK_AFTER_HOURS[box_fault(batch.box, batch.setpoint_c, batch.now_hour)]
    ]
    kinds: list[Kind] = []
    clocks: list[Clock] = []
    for culture, share in classes.items():
        dead = 0.0 if culture == "none" else DEAD_SHARE
        good = 1 - dead - NO_SUGAR_SHARE
        quick = QUICK_SHARE * good if culture in QUICK else 0.0
        faults = {"": good - quick, "quick": quick, "dead": dead, "no_sugar": NO_SUGAR_SHARE}
        for back, box_share, goods_c in boxes:
            clocks.append(culture_clock(culture, goods_c))
            for fault, fault_share in faults.items():
                if fault_share > 0:
                    kinds.append(Kind(culture, fault, back, len(clocks) - 1, share * box_share * fault_share))
    return kinds, clocks


def _prior(batch: Fermentation, kind: Kind) -> tuple[Array, Array]:
    """Mean and sd of a draw's columns."""
    prior = CULTURES[kind.culture]
    salty = 0.0 if batch.salt_percent is None else 0.12 * (batch.salt_percent - 2.8)
    later = {"dead": np.log(4.0), "quick": np.log(QUICK_BEGINS)}.get(kind.fault, 0.0)
    longer = {"dead": np.log(4.0), "quick": np.log(QUICK_FALLS)}.get(kind.fault, 0.0)
    sd_more = 0.5 if kind.fault == "dead" else 0.0
    known = batch.start_ph is not None
    return (
        np.array(
            [
                np.log(prior.half_hours) + salty + later,
                np.log(prior.fall_hours) + salty + longer,
                batch.start_ph if batch.start_ph is not None else USUAL_START,
                BUFFER,
                FLOOR_PH,
                {"dead": 0.28, "no_sugar": 0.14}.get(kind.fault, 1.0),
                0.0,
            ]
        ),
        np.array(
            [
                prior.half_sd + sd_more,
                prior.fall_sd + sd_more,
                DECLARED_START_SD if known else USUAL_START_SD,
                BUFFER_SD,
                FLOOR_SD,
                {"dead": 0.18, "no_sugar": 0.07}.get(kind.fault, 0.06),
                OFFSET_SD,
            ]
        ),
    )


def _falls(kinds: list[Kind], clocks: list[Clock], kind: Ints, x: Array, sugar: Array) -> Falls:
    start = x[:, 2]
    by_sugar = ACID_PER_PERCENT * np.maximum(sugar, 0.0) / np.maximum(x[:, 3], 20.0) + 0.06
    # the fall ends where the sugar is used up or where the acid stops the culture, whichever is less
    to_floor = start - x[:, 4]
    fall = -FLOOR_SOFT * np.logaddexp(-by_sugar / FLOOR_SOFT, -to_floor / FLOOR_SOFT)
    share = np.clip(x[:, 5], 0.0, 1.3)
    no_sugar = np.array([k.fault == "no_sugar" for k in kinds])[kind]
    fall = np.where(no_sugar, share, fall * share)
    fall = np.maximum(fall, 0.01)
    usual = np.minimum(np.exp(x[:, 1]), LONGEST_SHARE * np.exp(x[:, 0]))
    width = usual * np.sqrt(np.maximum(fall, 0.1) / USUAL_FALL)  # a deeper fall begins as early and takes longer
    weight = np.full(len(x), 1.0 / len(x))
    return Falls(
        tuple(kinds), tuple(clocks), kind, start, fall, np.exp(x[:, 0]) + (width - usual) / 2, width / 4.394, weight
    )


def _log_likelihood(batch: Fermentation, falls: Falls, offset: Array, blur: float = 1.0) -> Array:
    """ln of how likely the readings are by each draw; blur: so many times less exact they are taken."""
    total = np.zeros(len(offset))
    for reading, sure in zip(batch.readings, batch.sure, strict=True):
        z = (reading.ph - falls.ph_at(reading.hour) - offset) / (READING_SD * blur)
        slip = SURE_SLIP_SHARE if sure else SLIP_SHARE
        ln_good = np.log(1 - slip) - 0.5 * z**2 - np.log(READING_SD * np.sqrt(2 * np.pi))
        total += np.logaddexp(ln_good, np.log(slip / SLIP_WIDTH))
    return total


@cache
def even_normals(draws: int) -> Array:
    """Standard normals spread evenly over their space, always the same, shape (draws, WIDTH + 2). Parameters: draws."""
    from scipy.stats import qmc  # takes a second to read: only where a pH is forecast

    points = qmc.Sobol(WIDTH + 2, seed=20_24).random(draws)
    return np.asarray(ndtri(np.clip(points, 1e-6, 1 - 1e-6)))


def shared_out(share: Array, draws: int) -> Ints:
    """Which kind each draw is of, in turn so that neighbours differ. Parameters: share of the kinds; draws [-]."""
    turn = (np.arange(draws) * GOLDEN) % 1.0
    return np.asarray(np.searchsorted(np.cumsum(share / share.sum())[:-1], turn), dtype=np.int64)


def weigh_falls(batch: Fermentation, draws: int = DRAWS) -> Falls:
    """Draw likely falls and weigh them by the readings; the same ones for the same batch.

    Parameters: batch; draws [-] in each of two rounds.
    """
    first = draws // 4 if batch.readings else draws  # the first round only looks where to draw
    even = even_normals(first)
    kinds, clocks = kinds_of(batch)
    shares = np.array([k.share for k in kinds])
    shares /= shares.sum()
    priors = [_prior(batch, k) for k in kinds]
    mean, sd = (np.array([p[i] for p in priors]) for i in (0, 1))

    def sugar_of(n: int) -> Array:
        if batch.dextrose_percent is not None:
            return np.full(n, batch.dextrose_percent)
        return np.abs(USUAL_DEXTROSE + USUAL_DEXTROSE_SD * even_normals(n)[:, WIDTH])

    kind = shared_out(np.maximum(shares, LEAST_LOOKED_AT), first)
    looked_sd = sd * np.where(np.arange(WIDTH) < 2, LOOKS_WIDER if batch.readings else 1.0, 1.0)
    x = mean[kind] + looked_sd[kind] * even[:, :WIDTH]
    falls = _falls(kinds, clocks, kind, x, sugar_of(first))
    blurs = BLURS_SURE if any(batch.sure) else (1.0, 1.0)
    log_w = np.log(shares[kind] / np.maximum(shares[kind], LEAST_LOOKED_AT))
    log_w += _log_likelihood(batch, falls, x[:, -1], blurs[0])
    log_w += _log_normal(x, mean[kind], sd[kind]) - _log_normal(x, mean[kind], looked_sd[kind])
    weight = _normalised(log_w)
    # then around what was found before, kind by kind, with wide tails; step by step where a reading is sure
    for blur in blurs[1:] if batch.readings else ():
        kind, x, log_found = _look_again(shares, mean, sd, kind, x, weight, draws)
        falls = _falls(kinds, clocks, kind, x, sugar_of(draws))
        weight = _normalised(log_found + _log_likelihood(batch, falls, x[:, -1], blur))
    return _with(falls, weight)


def _look_again(
    shares: Array, mean: Array, sd: Array, kind: Ints, x: Array, weight: Array, draws: int
) -> tuple[Ints, Array, Array]:
    """Draws around those that were found likely, with ln of prior over proposal of each.

    Parameters: shares, mean, sd of the kinds; kind, x, weight of the draws before; draws [-] to make.
    """
    by_kind = np.zeros((len(shares), len(x)))
    by_kind[kind, np.arange(len(x))] = weight
    found = by_kind.sum(axis=1)
    pick = 0.8 * found + 0.2 * shares
    seen = np.maximum(found, 1e-12)[:, None]
    centre = by_kind @ x / seen
    spread = np.sqrt(np.maximum(by_kind @ x**2 / seen - centre**2, 0.0))
    known = found[:, None] > 1e-6
    centre, spread = np.where(known, centre, mean), np.where(known, np.clip(1.4 * spread, 0.08 * sd, 1.2 * sd), sd)
    even = even_normals(draws)
    kind2 = shared_out(pick, draws)
    mean2, sd2, centre2, spread2 = mean[kind2], sd[kind2], centre[kind2], spread[kind2]
    wide = (even[:, WIDTH + 1] < ndtri(WIDE_SHARE))[:, None]
    x2 = np.where(wide, mean2, centre2) + np.where(wide, sd2, spread2) * even[:, :WIDTH]
    log_wide, log_narrow = _log_normal(x2, mean2, sd2), _log_normal(x2, centre2, spread2)
    log_proposal = np.log((pick / pick.sum())[kind2]) + np.logaddexp(
        np.log(1 - WIDE_SHARE) + log_narrow, np.log(WIDE_SHARE) + log_wide
    )
    return kind2, x2, np.asarray(np.log(shares[kind2]) + log_wide - log_proposal)


def _log_normal(x: Array, mean: Array, sd: Array) -> Array:
    z = (x - mean) / sd
    return np.asarray(-0.5 * np.einsum("ij,ij->i", z, z) - np.log(sd).sum(axis=1))


def _normalised(log_w: Array) -> Array:
    w = np.exp(log_w - log_w.max())
    return np.asarray(w / w.sum())


def _with(falls: Falls, weight: Array) -> Falls:
    return Falls(falls.kinds, falls.clocks, falls.kind, falls.start, falls.fall, falls.centre, falls.scale, weight)
