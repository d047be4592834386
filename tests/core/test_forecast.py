"""What every forecast must obey, whatever its engine."""

import json
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, as_foretold, history, neck, salame, steady_log, weighed
from support import DATA, refused
from zymon.core.drying.climate import Log
from zymon.core.drying.doubt import likely_slip
from zymon.core.drying.forecast import Change, fitted, forecast, weighted_quantiles
from zymon.core.drying.history import History, Weighing
from zymon.core.drying.inside import inside
from zymon.core.drying.judge import ask_about, judge
from zymon.core.drying.learn import Tree
from zymon.formats.hang_file import history_of, read_hang_file
from zymon.words import sentence


def days(found, which: str = "ready_p50_s") -> float:
    value = getattr(found, which)
    return float("inf") if value is None else value / DAY


def one(h: History):
    return forecast(h)[0]


def test_a_salame_takes_as_long_as_makers_say() -> None:
    usual = {40.0: (18, 35), 60.0: (38, 84), 90.0: (65, 120)}
    for diameter, (low, high) in usual.items():
        loss = 33.0 if diameter == 40 else 36.0
        made = one(history(salame(diameter_mm=diameter, target_loss_percent=loss)))
        assert low < days(made) < high


@settings(max_examples=25)
# warmer and damper than this is a setting for the first days, which is stepped down: there the rule ends
@given(st.floats(8, 17), st.floats(60, 82.9), st.floats(1.0, 8.0))
def test_drier_or_warmer_air_is_never_later(temperature_c: float, rh: float, step: float) -> None:
    base = days(one(history(salame(), temperature_c=temperature_c, rh_percent=rh)))
    assert days(one(history(salame(), temperature_c=temperature_c, rh_percent=rh - step))) <= base
    assert days(one(history(salame(), temperature_c=temperature_c + step / 4, rh_percent=rh))) <= base


@settings(max_examples=25)
@given(st.floats(36, 110), st.floats(1, 25), st.floats(20, 36), st.floats(0.5, 4))
def test_thicker_or_further_is_never_sooner(diameter: float, more: float, target: float, further: float) -> None:
    base = days(one(history(salame(diameter_mm=diameter, target_loss_percent=target))))
    assert days(one(history(salame(diameter_mm=diameter + more, target_loss_percent=target)))) >= base
    assert days(one(history(salame(diameter_mm=diameter, target_loss_percent=target + further)))) >= base


@settings(max_examples=15)
@given(st.floats(4, 25), st.floats(45, 92), st.booleans())
def test_what_was_lost_does_not_hang_on_what_is_set_next(temperature_c: float, rh: float, weigh: bool) -> None:
    piece = weighed(salame(), *READINGS[:2]) if weigh else salame()
    as_it_was = history(piece, now_days=14.3)
    told = [
        one(replace(as_it_was, setpoint_c=c, setpoint_rh_percent=h)) for c, h in ((13.0, 78.0), (temperature_c, rh))
    ]
    assert told[0].loss_percent == pytest.approx(told[1].loss_percent, abs=0.1)


READINGS = ((6.0, 771.0), (13.0, 711.0), (20.0, 665.0), (27.0, 629.0))


@pytest.mark.parametrize("wrong", [717, 177, 7110, 71, 1711, 869])
def test_one_mistyped_weight_hardly_moves_the_date(wrong: float) -> None:
    right = one(history(weighed(salame(), *READINGS), now_days=28))
    slipped = one(history(weighed(salame(), *sorted([*READINGS, (16.5, wrong)])), now_days=28))
    window = days(right, "ready_p90_s") - days(right, "ready_p10_s")
    assert abs(days(slipped) - days(right)) < 0.1 * window
    assert [d.gross_g for d in slipped.doubts] == [wrong]
    assert not right.doubts


def test_nothing_after_now_is_used() -> None:
    known = history(weighed(salame(), *READINGS[:2]), now_days=14)
    later = steady_log(40, 18.0, 60.0)
    told = History(
        (weighed(salame(), *READINGS),),
        Log(
            *(
                np.concatenate([getattr(known.log, f), getattr(later, f)[later.time_s > known.now_s]])
                for f in ("time_s", "temperature_c", "rh_percent")
            )
        ),
        13.0,
        78.0,
        known.now_s,
    )
    assert one(told).ready_p50_s == one(known).ready_p50_s
    assert one(told).ready_p90_s == one(known).ready_p90_s


@pytest.mark.parametrize("pace", [0.8, 1.0, 1.2])
def test_mates_tighten_the_date_of_a_piece_never_weighed(pace: float) -> None:
    alone = one(history(salame("A-09"), now_days=21))
    drying = [(day, salame().gross_at(alone.loss_at(day * pace * DAY)[1])) for day in (6.0, 13.0, 20.0)]
    mates = [weighed(salame(f"A-0{i}"), *drying) for i in range(3)]
    among = forecast(history(salame("A-09"), *mates, now_days=21))[0]
    spread = [np.log(days(f, "ready_p90_s") / days(f, "ready_p10_s")) for f in (alone, among)]
    assert spread[1] < 0.88 * spread[0]


@pytest.mark.parametrize(("pace", "least", "most"), [(1.3, 0.70, 0.86), (1 / 1.3, 1.12, 1.36)])
def test_what_a_workshop_finished_is_where_its_next_batch_begins(pace: float, least: float, most: float) -> None:
    """Five batches that all went faster, or slower, than the tables: the sixth is told so on the day it is hung."""
    usual = one(history(salame()))
    finished = []
    for batch in range(5):
        hung = batch * 20.0
        drying = [(hung + d, salame().gross_at(usual.loss_at(d * pace * DAY)[1])) for d in np.linspace(6, 30, 5)]
        finished += [
            weighed(salame(f"B{batch}-{i}", batch=f"B{batch}", hung_at_s=hung * DAY), *drying) for i in range(4)
        ]
    today = 130.0
    sixth = forecast(history(*finished, salame("N", batch="N", hung_at_s=today * DAY), now_days=today))[-1]
    assert least < (days(sixth) - today) / days(usual) < most
    width = [
        np.log(days(f, "ready_p90_s") - t) - np.log(days(f, "ready_p10_s") - t) for f, t in ((usual, 0), (sixth, today))
    ]
    assert width[1] < width[0]


def test_a_hair_more_weight_of_a_draw_moves_a_date_by_no_more() -> None:
    rng = np.random.default_rng(5)
    values, weight = rng.normal(size=(64, 3)), np.ones((64, 3))
    assert weighted_quantiles(values, weight) == pytest.approx(
        np.quantile(values, [0.1, 0.5, 0.9], axis=0, method="hazen")
    )
    moved = weight + rng.uniform(-1e-9, 1e-9, weight.shape)
    assert weighted_quantiles(values, moved) == pytest.approx(weighted_quantiles(values, weight), abs=1e-6)
    values[40:] = np.inf  # where a third of the draws never get there the late end of the window is open
    low, middle, high = weighted_quantiles(values, weight)
    assert np.isfinite(low).all()
    assert np.isfinite(middle).all()
    assert np.isinf(high).all()


def test_a_piece_that_its_own_weighings_call_unusual_is_believed() -> None:
    fast = weighed(salame(casing="none"), (2.0, 770.0), (4.0, 725.0), (6.0, 690.0), (8.0, 664.0))
    made = one(history(fast, now_days=8.1))
    assert not made.doubts
    assert made.loss_percent == pytest.approx(21.4, abs=1.5)
    assert "too_fast" in judge(fast, made, 8.1 * DAY).wants


def still_open(shape: str, way: float) -> float:
    """The window of a neck weighed just as foretold, as a share of what is left at a share of its way."""
    on_its_way, now = as_foretold(neck(shape), way)
    made = one(history(on_its_way, now_days=now))
    return (days(made, "ready_p90_s") - days(made, "ready_p10_s")) / (days(made) - now)


def test_the_last_weeks_of_an_irregular_muscle_are_told_less_surely_than_those_of_an_even_one() -> None:
    even, irregular = ([still_open(shape, way) for way in (0.0, 0.4, 0.8)] for shape in ("cylinder", "irregular"))
    assert even[1] < 0.6 * even[0]
    assert all(i > e for i, e in zip(irregular, even, strict=True))
    # as open as the simulated rooms of the benchmarks ask for; see `docs/forecast.md`
    assert irregular == [pytest.approx(0.72, abs=0.05), pytest.approx(0.62, abs=0.03), pytest.approx(1.04, abs=0.11)]


def test_out_of_reach_is_said() -> None:
    made = one(history(salame(target_loss_percent=45), rh_percent=93))
    assert (made.status, made.ready_p10_s, made.ready_p50_s, made.ready_p90_s) == ("stalled", None, None, None)


AWKWARD = {
    "no log at all": lambda: replace(history(salame()), log=Log(np.zeros(0), np.zeros(0), np.zeros(0))),
    "neither log nor set point": lambda: History(
        (salame(),), Log(np.zeros(0), np.zeros(0), np.zeros(0)), None, None, 5 * DAY
    ),
    "a log of one row": lambda: replace(
        history(salame(), now_days=9), log=Log(np.array([DAY]), np.array([12.0]), np.array([80.0]))
    ),
    "humidity 0": lambda: history(salame(), now_days=20, rh_percent=0.0),
    "humidity 100": lambda: history(salame(), now_days=20, rh_percent=100.0),
    "all weights equal": lambda: history(weighed(salame(), (3, 842), (9, 842), (15, 842)), now_days=16),
    "growing weights": lambda: history(weighed(salame(), (3, 850), (9, 860), (15, 870)), now_days=16),
    "one absurd weight": lambda: history(weighed(salame(), (3, 84_200)), now_days=4),
    "weighed at the tare": lambda: history(weighed(salame(), (3, 11.5)), now_days=4),
    "target long passed": lambda: history(weighed(salame(target_loss_percent=10), (30, 600)), now_days=31),
    "target 80 %": lambda: history(salame(target_loss_percent=80), now_days=3),
    "half a metre thick": lambda: history(salame(diameter_mm=600, start_weight_g=90_000), now_days=3),
    "hung this second": lambda: history(salame(), now_days=0),
    "hung three years ago": lambda: history(salame(), now_days=1100),
}


@pytest.mark.parametrize("name", AWKWARD)
def test_awkward_input_gets_a_defined_answer(name: str) -> None:
    h = AWKWARD[name]()
    made = one(h)
    dates = [made.ready_p10_s, made.ready_p50_s, made.ready_p90_s]
    for number in (made.loss_percent, made.rate_percent_per_day, made.ring_risk, *made.curve_p50):
        assert np.isfinite(number)
    assert 0 <= made.ring_risk <= 1
    if made.status == "stalled":
        assert dates == [None, None, None]
    else:
        assert all(d is not None and np.isfinite(d) for d in dates)
        assert dates == sorted(dates)
    if made.status == "drying":
        assert dates[0] >= h.now_s


def test_a_thousand_pieces_are_answered() -> None:
    assert len(forecast(history(*(salame(f"A-{i}") for i in range(1000)), now_days=3), draws=8)) == 1000


def test_refusals_of_a_piece() -> None:
    with refused("diameter must be between 3 and 600 mm, got 3000"):
        salame(diameter_mm=3000)
    with refused("tare must be below"):
        salame(tare_g=900)
    with refused("weighed before it was hung"):
        replace(salame(), weighings=(Weighing(-1, 800),))


def test_it_beats_a_line_through_the_last_two_weights() -> None:
    """On a file of three batches, cut at two thirds of what was weighed: the last weighing tells who was nearer."""
    whole = history_of(read_hang_file((DATA / "hang_three_batches.json").read_bytes()))
    ours, line = [], []
    for i, piece in enumerate(whole.pieces):
        good = [w for w in piece.weighings if 0 < piece.loss_fraction(w.gross_g) < 0.6]
        if len(good) < 5:
            continue
        k = 2 * len(good) // 3
        last, now = good[-1], good[k - 1].at_s + 3600
        made = forecast(replace(whole, now_s=now, pieces=tuple(p for p in whole.pieces if p.hung_at_s <= now)))
        mine = next(f for f in made if f.tag == piece.tag).loss_at(last.at_s)[1]
        a, b = good[k - 2], good[k - 1]
        slope = (piece.loss_fraction(b.gross_g) - piece.loss_fraction(a.gross_g)) / (b.at_s - a.at_s)
        straight = piece.loss_fraction(b.gross_g) + slope * (last.at_s - b.at_s)
        truth = piece.loss_fraction(last.gross_g)
        ours.append(abs(mine - truth))
        line.append(abs(straight - truth))
        assert i >= 0
    assert len(ours) >= 5
    assert np.median(ours) < 0.6 * np.median(line)


def test_sharing_agrees_with_one_big_gaussian() -> None:
    rng = np.random.default_rng(3)
    n, p, batch_of = 5, 2, np.array([0, 0, 1, 1, 1])
    covs = [np.diag(rng.uniform(0.1, 1, p)) for _ in range(3)]
    tree = Tree(covs[0], np.array([covs[1]] * 2), np.array([covs[2]] * n), batch_of)
    roots = rng.normal(size=(n, p, p))
    information = np.einsum("nij,nkj->nik", roots, roots)
    vector = rng.normal(size=(n, p))
    same = (batch_of[:, None] == batch_of[None]).astype(float)
    prior = np.kron(np.ones((n, n)), covs[0]) + np.kron(same, covs[1]) + np.kron(np.eye(n), covs[2])
    big = np.zeros((n * p, n * p))
    for i in range(n):
        big[i * p : i * p + p, i * p : i * p + p] = information[i]
    want = np.linalg.solve(np.linalg.inv(prior) + big, vector.ravel()).reshape(n, p)
    assert tree.mean(information, vector) == pytest.approx(want, abs=1e-9)
    draws = tree.draw(information, vector, rng.standard_normal((20_000, 1 + 2 + n, p)))
    cov = np.linalg.inv(np.linalg.inv(prior) + big)
    assert np.cov(draws.reshape(20_000, -1).T) == pytest.approx(cov, abs=0.04)
    for i in range(n):
        block = cov[i * p : i * p + p, i * p : i * p + p]
        assert tree.covariance(information, vector, i) == pytest.approx(block, abs=1e-9)


@pytest.mark.parametrize(
    ("gross_g", "words"),
    [
        (660.0, None),
        (566.0, "digits swapped? 656"),
        (65.0, "a digit missing?"),
        (6520.0, "a digit too many?"),
        (870.0, "28 g more than the 842 g when it was hung"),
        (705.0, "Another piece, or the scale?"),
    ],
)
def test_a_weight_that_cannot_be_right_is_asked_about(gross_g: float, words: str | None) -> None:
    piece = weighed(salame(), *READINGS[:3])
    made = one(history(piece, now_days=21))
    question = ask_about(piece, made, gross_g, 21 * DAY)
    said = None if question is None else sentence(question)
    assert (said is None) if words is None else (said is not None and words in said), said


def test_slips_are_named() -> None:
    assert "digits swapped? 741" in sentence(likely_slip(471, 740))


def test_a_hang_file_with_a_climate_gap_is_bridged() -> None:
    whole = json.loads((DATA / "hang_three_batches.json").read_text())
    whole["climate"] = [c for i, c in enumerate(whole["climate"]) if not 200 < i < 500]
    full = forecast(history_of(read_hang_file((DATA / "hang_three_batches.json").read_bytes())))
    holed = forecast(history_of(read_hang_file(json.dumps(whole).encode())))
    assert np.median([abs(a.loss_percent - b.loss_percent) for a, b in zip(full, holed, strict=True)]) < 1.0


def test_what_if_moves_the_date_the_right_way_and_leaves_the_past() -> None:
    place = fitted(history(weighed(salame(), *READINGS[:3]), now_days=21))
    base = place.forecasts[0]
    same = place.what_if(0, Change())
    assert same.ready_p50_s == pytest.approx(base.ready_p50_s)
    drier, warmer = place.what_if(0, Change(rh_percent=70)), place.what_if(0, Change(temperature_c=16))
    windy, softer = place.what_if(0, Change(air=2.0)), place.what_if(0, Change(target_loss_percent=30))
    for sooner in (drier, warmer, windy, softer):
        assert days(sooner) < days(base) - 0.5
        assert sooner.loss_percent == pytest.approx(base.loss_percent, abs=0.3)
    assert days(place.what_if(0, Change(rh_percent=84))) > days(base) + 2
    assert place.what_if(0, Change(rh_percent=97)).status == "stalled"


def test_inside_the_rim_is_drier_than_the_core_and_the_mean_is_the_loss() -> None:
    place = fitted(history(weighed(salame(diameter_mm=90, start_weight_g=2000), (10, 1860), (20, 1740)), now_days=21))
    fresh, now, later = (inside(place, 0, day * DAY) for day in (0, 21, 60))
    assert fresh.ring_index == pytest.approx(0, abs=1e-9)
    assert list(now.water_percent) == sorted(now.water_percent)
    assert now.rim_water_percent < now.core_water_percent <= fresh.core_water_percent + 1e-9
    assert later.core_water_percent < now.core_water_percent
    windy = fitted(history(weighed(salame(diameter_mm=90, start_weight_g=2000), (10, 1740), (20, 1600)), now_days=21))
    assert inside(windy, 0, 21 * DAY).ring_index > now.ring_index


def test_a_date_does_not_move_because_a_stranger_is_hung_beside_it() -> None:
    mine = weighed(salame(), *READINGS[:3])
    alone = one(history(mine, now_days=21))
    stranger = salame(
        "Z-1",
        batch="Z",
        kind="belly",
        shape="slab",
        diameter_mm=None,
        thickness_mm=38.0,
        target_loss_percent=24.0,
        hung_at_s=20 * DAY,
    )
    beside = forecast(history(stranger, mine, now_days=21))[1]
    assert days(beside) == pytest.approx(days(alone), abs=0.05)
    assert days(beside, "ready_p90_s") == pytest.approx(days(alone, "ready_p90_s"), abs=0.1)
