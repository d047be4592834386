"""A batch from its start to the table: its steps, its amounts, the room it finds, and what happens when it slips."""

from dataclasses import astuple, replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from strategies import DAY, as_foretold, history, neck, salame, weighed
from support import refused
from zymon.core.bench.consequences import Plan
from zymon.core.bench.sheet import CuringChoice, Line, MeatPart, Sheet
from zymon.core.drying.climate import Log
from zymon.core.drying.forecast import Fitted, fitted
from zymon.core.fermentation.curve import Fermentation
from zymon.core.planning import ahead, amounts, shopping, slip
from zymon.core.planning.before import (
    Part,
    hook_after,
    in_salt,
    in_the_warm,
    resting_cold,
    stretches,
    thaw_days,
)
from zymon.core.planning.drying import still_to_hang
from zymon.core.planning.way import Stay, Way, find_way, in_time
from zymon.core.salting.bag import Bag, Cold, Step
from zymon.core.salting.clock import salt_clocks

NOW = 30 * DAY
HOUR = 3600.0


def bag(way: str = "measured", across_mm: float = 70.0, percent: float = 2.8) -> Bag:
    nothing = np.zeros(0)
    cold = Cold(Log(nothing, nothing, nothing), 3.0)
    return Bag("cylinder", across_mm, 1500.0, 10.0, (Step(NOW, "lay", way, percent),), cold)  # type: ignore[arg-type]


def stuffed(culture: str = "medium", target_ph: float = 5.0, setpoint_c: float = 24.0) -> Fermentation:
    return Fermentation(culture, 0.4, 2.7, None, target_ph, setpoint_c, (), (), 0.0)  # type: ignore[arg-type]


# -- before the hook


def test_a_dose_waits_for_its_core_and_free_salt_for_nobody() -> None:
    dosed, buried = in_salt(bag()), in_salt(bag("buried", percent=3.0))
    assert (dosed.elasticity, buried.elasticity) == ("elastic", "firm")
    assert len(np.unique(buried.takes_s)) == 1
    low, high = np.quantile(dosed.takes_s, [0.1, 0.9]) / DAY
    assert 10 <= low < high <= 25  # 7 cm: 10.5 days by thickness, in slow meat longer until the core is there
    assert (dosed.takes_s % DAY == 0).all()


def test_nine_in_ten_have_their_core_by_when_the_clock_says() -> None:
    thick = bag(across_mm=110.0)
    _, usual, slow = (
        None if at is None else (at - thick.in_s) / DAY for at in salt_clocks([thick], thick.in_s)[0].core_reached_s
    )
    assert usual is not None
    assert slow is not None
    middle, late = np.quantile(in_salt(thick).takes_s / DAY, [0.5, 0.9])
    assert usual - 1 <= middle <= usual + 1.5  # it is looked at day by day
    assert slow - 0.5 <= late <= slow + 1.5


@pytest.mark.parametrize("way", ["measured", "buried"])
def test_a_thicker_piece_is_longer_in_salt(way: str) -> None:
    assert in_salt(bag(way, 100.0)).usual_s > 1.2 * in_salt(bag(way, 70.0)).usual_s


def test_the_warm_takes_what_the_culture_takes() -> None:
    batches = (stuffed(), stuffed("fast", setpoint_c=34), stuffed(target_ph=4.8))
    (usual, sours), (quick, _), (lower, _) = (in_the_warm(batch) for batch in batches)
    assert sours
    assert usual.elasticity == "firm"
    assert np.isfinite(usual.takes_s).all()  # among the futures in which it sours
    assert 15 <= usual.usual_s / HOUR <= 40
    assert quick.usual_s < usual.usual_s < lower.usual_s
    assert quick.takes_s.min() == 12 * HOUR  # nobody takes goods out of the warm sooner
    cold, sours = in_the_warm(stuffed(setpoint_c=2.0))  # too cold for it to work at all
    assert (sours, set(cold.takes_s)) == (False, {3 * DAY})


@pytest.mark.parametrize(("way", "percent"), [("rub_and_drain", 3.2), ("pressed", 2.7), ("by_thickness", 2.0)])
def test_every_way_of_salting_has_its_time(way: str, percent: float) -> None:
    part = in_salt(bag(way, 60.0, percent))
    assert part.kind == "salt"
    assert 2 <= part.usual_s / DAY <= 30
    assert (part.takes_s >= DAY).all()


def test_a_rule_of_thumb_alone_is_no_window() -> None:
    by_rule = in_salt(replace(bag(), rules=("linear",)))
    assert set(by_rule.takes_s / DAY) == {11.0}  # 1.5 days a centimetre of seven, looked at day by day
    with_core = in_salt(bag())
    assert (with_core.takes_s >= by_rule.takes_s).all()


@pytest.mark.parametrize(("grams", "thaws"), [(1, 1), (2500, 1), (2501, 2), (10_000, 4), (12_501, 5), (90_000, 5)])
def test_a_day_in_the_fridge_thaws_two_and_a_half_kilograms(grams: float, thaws: int) -> None:
    assert thaw_days(grams) == thaws


def test_steps_follow_each_other_and_only_elastic_ones_are_stretched() -> None:
    cold, warm = resting_cold(48.0), Part("warm", "firm", np.full(64, 2 * DAY))
    assert hook_after([cold, warm]).tolist() == [4 * DAY] * 64
    assert hook_after([cold, warm], 6 * DAY).tolist() == [6 * DAY] * 64
    assert hook_after([cold, warm], 3 * DAY).tolist() == [4 * DAY] * 64
    assert hook_after([warm], 6 * DAY).tolist() == [2 * DAY] * 64  # soured goods do not wait
    assert hook_after([]).tolist() == [0.0] * 64
    assert [stretches(parts) for parts in ([cold, warm], [warm], [])] == [True, False, False]


# -- the whole way


@pytest.fixture(scope="module")
def place() -> Fitted:
    return fitted(history(salame(tag="here", batch="H"), now_days=30.0))


def way(place: Fitted, pieces: int = 3, rest_days: float = 14, wait_days: float = 0.0, batch: int = 0) -> Way:
    wanted = [salame(tag=f"W-{i}") for i in range(pieces)]
    parts = [resting_cold(48.0)]
    return find_way(place, wanted, parts, rest_days * DAY, NOW, NOW + 200 * DAY, wait_days * DAY, batch)


def test_moments_lie_in_the_order_of_the_work(place: Fitted) -> None:
    found = way(place)
    told = found.moments(NOW + 10 * DAY)
    assert told.hung.p50 == NOW + 12 * DAY
    for window in (told.hung, told.done, told.table):
        assert window.p10 <= window.p50 <= window.p90
    assert told.hung.p90 < told.done.p10
    assert told.table.p50 - told.done.p50 == pytest.approx(14 * DAY)
    assert found.starts.chance(NOW + 10 * DAY, told.table.p90) == pytest.approx(0.9, abs=0.03)
    assert found.starts.done_by(NOW + 10 * DAY, 0.8) <= told.table.p90
    with refused("start"):
        found.moments(NOW - DAY)


def test_more_pieces_and_a_longer_wait_never_help(place: Fitted) -> None:
    by = NOW + 100 * DAY
    few, many, waited = way(place, 2), way(place, 9), way(place, 2, wait_days=9)
    for day in (0, 20, 35, 50):
        chance = few.starts.chance(NOW + day * DAY, by)
        assert many.starts.chance(NOW + day * DAY, by) <= chance
        assert waited.starts.chance(NOW + day * DAY, by) <= chance
    assert few.starts.latest(by) > many.starts.latest(by)


def test_the_days_to_choose_from_rise_and_end_with_no_chance(place: Fitted) -> None:
    by = NOW + 90.25 * DAY
    days = way(place).starts.days(by)
    starts, chances = zip(*days, strict=True)
    assert starts[0] == NOW
    assert starts[-1] == by
    assert np.all(np.diff(starts) > 0)
    assert np.diff(starts)[1:] == pytest.approx(DAY)
    assert np.all(np.diff(chances) <= 1e-9)
    assert chances[-1] == 0.0


def test_two_batches_share_the_workshop_but_not_the_making(place: Fitted) -> None:
    one, again, other = (way(place, 4, batch=b).tables(NOW).max(axis=1) for b in (0, 0, 1))
    np.testing.assert_array_equal(one, again)
    assert 0.1 < np.corrcoef(one, other)[0, 1] < 0.95
    by = float(np.quantile(one, 0.8))
    both = in_time([one, other], [by, by])
    assert both < min(in_time([one], [by]), in_time([other], [by]))
    assert both > in_time([one], [by]) * in_time([other], [by]) - 0.02


def test_water_and_hooks_follow_the_pieces(place: Fitted) -> None:
    found = way(place, 3)
    days = ahead.days_ahead(NOW, 26)
    water, stays = found.water_g(NOW, days), found.stays(NOW)
    assert water[0] == 0.0  # it rests cold
    assert water[2] == water.max()
    assert (water >= 0).all()
    assert water.sum() == pytest.approx(3 * 0.35 * 831, rel=0.03)  # 35 % of what hangs, without net and casing
    assert len(stays) == 3
    assert all(s.earliest_s <= s.from_s < s.until_s <= s.latest_s for s in stays)
    assert max(s.until_s for s in stays) <= found.moments(NOW).done.p90


def test_where_the_air_ahead_changes_several_starts_are_looked_at() -> None:
    """A cellar with a year of its own air: half a year on it is warmer and drier, and salame dries faster."""
    hours = np.arange(-400 * 24, 0) * HOUR + NOW
    year = 2 * np.pi * (hours - NOW) / (365.25 * DAY)
    log = Log(hours, 13 - 4 * np.cos(year), 78 + 6 * np.cos(year))
    here = history(salame(tag="here", batch="H"), now_days=30.0)
    cellar = fitted(replace(here, log=log, setpoint_c=None, setpoint_rh_percent=None))
    found = way(cellar)
    assert len(found.starts.begin_s) == 5
    takes = [np.median(found.starts.takes_at(NOW + d * DAY)) for d in (0, 60, 120)]
    assert takes[0] > 1.05 * takes[2]


# -- pieces that hang already


def test_what_hangs_is_drawn_with_what_its_weighings_told() -> None:
    pieces = [weighed(salame(tag=f"S-{i}", batch="S"), (5, 800), (12, 740), (20, 690)) for i in range(4)]
    of = fitted(history(*pieces, salame(tag="other", batch="O"), now_days=21.0))
    drawn = still_to_hang(of, [0, 1, 2, 3])
    assert drawn.shape == (64, 4)
    for i in range(4):
        told = of.forecasts[i]
        assert told.ready_p10_s is not None
        assert told.ready_p50_s is not None
        assert np.median(drawn[:, i]) == pytest.approx(told.ready_p50_s, abs=0.25 * (told.ready_p50_s - 21 * DAY))
    assert np.corrcoef(drawn.T)[np.triu_indices(4, 1)].mean() < 0.95  # each is of its own meat
    unweighed = still_to_hang(of, [4])[:, 0]
    spread = [np.subtract(*np.quantile(x, [0.9, 0.1])) for x in (drawn[:, 0], unweighed)]
    assert spread[0] < spread[1]


@pytest.mark.parametrize("way", [0.4, 0.7])
@pytest.mark.parametrize("shape", ["cylinder", "irregular"])
def test_a_plan_is_as_sure_of_what_hangs_as_its_own_date_is(shape: str, way: float) -> None:
    piece, now = as_foretold(neck(shape), way)
    there = fitted(history(piece, now_days=now))
    told, drawn = there.forecasts[0], still_to_hang(there, [0])[:, 0]
    assert told.ready_p10_s is not None
    assert told.ready_p90_s is not None
    low, high = np.quantile(drawn, [0.1, 0.9])
    assert high - low == pytest.approx(told.ready_p90_s - told.ready_p10_s, rel=0.35)


# -- amounts


def test_amounts_go_back_from_the_table_to_the_bench() -> None:
    salted = amounts.piece_of("measured", "hung", 35, 1000)
    assert salted.hung_g == pytest.approx(1538.5, abs=0.1)
    assert salted.raw_g == pytest.approx(1538.5 / 0.94, abs=0.2)  # 2 to 10 % of liquid: 6 in the middle
    assert salted.loss_percent == pytest.approx(35)
    raw = amounts.piece_of("measured", "raw", 35, 1000)
    assert raw.raw_g == pytest.approx(1538.5, abs=0.1)
    assert raw.loss_percent == pytest.approx(100 * (1 - 0.65 / 0.94))  # the liquid counts: it hangs shorter
    assert salted.table_g == salted.hung_g * (1 - salted.loss_percent / 100) == 1000


@pytest.mark.parametrize(
    ("loss", "table", "basis", "said"),
    [
        (0, 500, "hung", "target loss"),
        (81, 500, "hung", "target loss"),
        (35, 0, "hung", "weight"),
        (5, 500, "raw", "hook"),
    ],
)
def test_amounts_that_cannot_be_are_refused(loss: float, table: float, basis: str, said: str) -> None:
    with refused(said):
        amounts.piece_of("measured", basis, loss, table)  # type: ignore[arg-type]


# -- hooks

days = ahead.days_ahead(0.0, 20)
spans = st.tuples(st.floats(0, 60), st.floats(1, 40), st.floats(0, 5), st.floats(0, 20)).map(
    lambda t: Stay(t[0] * DAY, (t[0] + t[1]) * DAY, max(t[0] - t[2], 0) * DAY, (t[0] + t[1] + t[3]) * DAY)
)


def stay(from_day: float, to_day: float, latest_day: float | None = None) -> Stay:
    return Stay(from_day * DAY, to_day * DAY, from_day * DAY, (latest_day or to_day) * DAY)


@settings(max_examples=60, deadline=None)
@given(st.lists(spans, max_size=12), spans)
def test_one_more_piece_never_needs_fewer_hooks(some: list[Stay], more: Stay) -> None:
    before, after = ahead.in_use(some, days), ahead.in_use([*some, more], days)
    assert (after.likely >= before.likely).all()
    assert (after.most >= before.most).all()
    assert (after.most >= after.likely).all()
    assert after.likely.max() <= len(some) + 1


@settings(max_examples=60, deadline=None)
@given(st.lists(spans, max_size=8), st.lists(spans, min_size=1, max_size=5), st.integers(1, 8))
def test_the_ways_out_lead_out(others: list[Stay], planned: list[Stay], hooks: int) -> None:
    used = ahead.in_use(others, days).likely
    fit = ahead.how_many_fit(used, planned, hooks, days)
    found = ahead.clash(used, planned, hooks, days)
    assert (found is None) == (fit == len(planned))
    if found is not None:
        assert found.pieces > found.hooks == hooks
        assert found.from_s < found.to_s
    wait = ahead.days_later(used, planned, hooks, days)
    if wait is not None:
        moved = [Stay(*(at + wait * DAY for at in astuple(s))) for s in planned]
        assert ahead.clash(used, moved, hooks, days) is None


def test_a_hook_left_in_the_morning_is_free_that_day() -> None:
    twelve = ahead.in_use([stay(0, 14.3)] * 12, days).likely
    assert ahead.clash(twelve, [stay(14, 40)], 12, days) is None
    found = ahead.clash(twelve, [stay(12, 40)], 12, days)
    assert (found.from_s, found.to_s, found.pieces) == (12 * DAY, 14 * DAY, 13)
    assert ahead.days_later(twelve, [stay(12, 40)], 12, days) == 2
    assert ahead.days_later(ahead.in_use([stay(0, 200)], days).likely, [stay(12, 40)], 1, days) is None
    assert ahead.in_use([stay(0, 5, 9)], days).likely[:10].tolist() == [1] * 5 + [0] * 5
    assert ahead.in_use([stay(0, 5, 9)], days).most[:10].tolist() == [1] * 9 + [0]


@pytest.mark.parametrize(("own_g", "said"), [(84, False), (86, True)])
def test_water_is_told_from_a_twentieth_over_what_was_managed(own_g: float, said: bool) -> None:
    own, others = np.zeros(140), np.full(140, 125.0)
    own[10:20], others[50] = own_g, 900.0  # what others give up where it does not hang is not its fault
    found = ahead.much_water(own, others, 200.0, days)
    assert found == ((10 * DAY, 125.0 + own_g) if said else None)
    assert ahead.much_water(0 * own, others, 200.0, days) is None


# -- shopping


def sheet(salt: float = 2.7) -> Sheet:
    parts = (MeatPart("Shoulder", 9200, 10), MeatPart("Back fat", 2000, 85, bought_g=2150))
    lines = (Line("Black pepper", "spice", "percent", 0.3), Line("Culture", "culture", "per_kg", 0.25))
    return Sheet(parts, salt, "exact", CuringChoice("Short", 0.25, 0.0625, 0.0), lines)


def batch(name: str = "J-30", **changes: object) -> shopping.Batch:
    plan = Plan("minced", "culture", 35, 60, 900, True)
    one = shopping.Batch(name, sheet(), plan, "natural", salted_in_bag=False, rests_in_bag=True)
    return replace(one, **changes)


def test_what_is_bought_covers_the_sheets() -> None:
    items = {item.what: item for item in shopping.shopping([batch(), batch("J-31")])}
    assert items["Shoulder"].amount == pytest.approx(2 * 9200 / 0.92)  # eight in a hundred go in trimming, as is usual
    assert items["Shoulder"].trim == shopping.USUAL_TRIM == 0.08
    assert (items["Back fat"].amount, items["Back fat"].trim) == (4300, None)  # as was bought before
    assert items["Black pepper"].amount == pytest.approx(2 * 33.6)
    assert items["Short"].amount == pytest.approx(2 * 28.0)
    assert (items["Culture"].amount, items["Culture"].unit) == (1, "packs")  # 5.6 g of a pack of 25
    assert items["natural ø 60"].amount > 2 * (11_200 / 1.05 / (np.pi * 0.9))  # mm, knots and spare beside it
    assert items["vacuum bag"].amount == 2 * 15  # 13 pieces a batch, and a tenth to spare
    assert items["Shoulder"].batches == ("J-30", "J-31")
    assert [i.goods for i in shopping.shopping([batch()])][:3] == ["meat", "meat", "salt"]


def test_packs_are_whole_and_casings_of_two_sizes_are_two() -> None:
    two = [batch(), batch("K-1", plan=Plan("minced", "culture", 35, 45, 500, True))]
    items = shopping.shopping(two, culture_pack_g=5.0)
    assert next(i for i in items if i.goods == "culture").amount == 2
    assert [i.what for i in items if i.goods == "casing"] == ["natural ø 45", "natural ø 60"]
    bare = batch(plan=Plan("intact", "none", 35, 60, 900, False), rests_in_bag=False)
    assert not {"casing", "bag"} & {i.goods for i in shopping.shopping([bare])}
    assert shopping.shopping([]) == []


@pytest.mark.parametrize(("grams_per_kg", "packs"), [(2.5, 1), (2.501, 2), (7.5, 3)])
def test_a_usual_pack_of_culture_is_twenty_five_grams(grams_per_kg: float, packs: int) -> None:
    lines = (Line("Culture", "culture", "per_kg", grams_per_kg),)
    whole = replace(sheet(), parts=(MeatPart("Shoulder", 10_000, 10),), lines=lines)
    bought = shopping.shopping([batch(sheet=whole)])
    assert next(i.amount for i in bought if i.goods == "culture") == packs


@pytest.mark.parametrize(("pieces", "bags"), [(1, 2), (10, 11), (11, 13), (20, 22), (21, 24)])
def test_of_bags_one_in_ten_is_to_spare(pieces: int, bags: int) -> None:
    whole = replace(sheet(), parts=(MeatPart("Neck", 900.0 * pieces, 10),), lines=())
    bought = shopping.shopping([batch(sheet=whole, plan=Plan("intact", "none", 35, 60, 900, False))])
    assert next(i.amount for i in bought if i.goods == "bag") == bags


# -- slips


def test_what_is_in_time_and_by_when_all_is() -> None:
    table = np.array([[1.0, 2.0], [1.0, 3.0], [1.0, 4.0], [2.0, 9.0]]) * DAY
    seen = slip.outlook(table, 3 * DAY, 0.75)
    assert (seen.chance, seen.in_time, seen.all_by_s) == (0.5, 1, 4 * DAY)
    assert slip.outlook(table, 9 * DAY, 0.95).in_time == 2
    assert np.isinf(slip.outlook(np.full((4, 1), np.inf), 9 * DAY, 0.5).all_by_s)


@pytest.mark.parametrize(
    ("chance", "all_by", "begun", "now", "said"),
    [
        (0.80, 9.0, False, 0.49, None),
        (0.80, 9.0, False, 0.51, "not_begun"),
        (0.70, 9.0, True, 5.0, None),
        (0.69, 9.0, True, 5.0, "slow"),
        (0.021, np.inf, True, 5.0, "slow"),
        (0.02, np.inf, True, 5.0, "lost"),
        (0.02, 99.0, True, 5.0, "slow"),
    ],
)
def test_a_slip_is_told_from_its_mark_on(
    chance: float, all_by: float, begun: bool, now: float, said: str | None
) -> None:
    seen = slip.Outlook(chance, 0, all_by * DAY)
    assert slip.slip(seen, 0.8, 0.0, begun, now * DAY) == said
