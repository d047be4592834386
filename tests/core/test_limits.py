"""The shipped limits at their boundaries, in both profiles: a figure of the data that changed would show here."""

from dataclasses import replace

import pytest

from ready import at, coppa, hurdle, salame, stage, state, with_mix
from zymon.core.ledger.batch import Batch, CuringSalt, LabValue, Ph
from zymon.core.limits import NITRATE_ION_SHARE, NITRITE_ION_SHARE
from zymon.limits import shipped


def of(profile: str, goods: str) -> Batch:
    """A batch of goods under a profile."""
    if goods == "minced":
        return salame(profile=shipped()[profile])
    return with_mix(coppa(profile=shipped()[profile]), belly=goods == "belly")


# profile, goods, most nitrite and nitrate going in as the profile counts them
INGOING = [
    ("us", "minced", 156, 1718), ("us", "intact", 625, 2187), ("us", "belly", 200, 0),
    ("eu", "minced", 80, 90), ("eu", "intact", 80, 90), ("eu", "belly", 80, 90),
]  # fmt: skip


@pytest.mark.parametrize(("profile", "goods", "nitrite", "nitrate"), INGOING)
def test_what_may_go_in(profile: str, goods: str, nitrite: float, nitrate: float) -> None:
    batch = of(profile, goods)
    meat = sum(p.mass_g or 0 for p in batch.parts)
    shares = (NITRITE_ION_SHARE, NITRATE_ION_SHARE) if profile == "eu" else (1.0, 1.0)

    def with_salts(nitrite_mg: float, nitrate_mg: float) -> Batch:
        salts = (
            CuringSalt(nitrite_mg / shares[0] * meat / 1e6 / 0.5, 0.5, 0.0),
            CuringSalt(nitrate_mg / shares[1] * meat / 1e6 / 0.5, 0.0, 0.5),
        )
        return with_mix(batch, curing_salts=salts)

    most = min(nitrate + 0.49, nitrate) if nitrate == 0 else nitrate + 0.49
    within, past = with_salts(nitrite + 0.49, most), with_salts(nitrite + 0.51, nitrate + 0.51)
    assert (state(within, "nitrite_in"), state(within, "nitrate_in")) == ("pass", "pass")
    assert (state(past, "nitrite_in"), state(past, "nitrate_in")) == ("fail", "fail")
    assert (hurdle(within, "nitrite_in").limit, hurdle(within, "nitrate_in").limit) == (nitrite, nitrate)


# profile, steady °C of the warm stage, degree-hours allowed there and the threshold, in the profile's own unit
ALLOWANCE = [
    ("us", 89.9, 1200, 60), ("us", 90.0, 1000, 60), ("us", 100.0, 1000, 60), ("us", 100.1, 900, 60),
    ("eu", 32.9, 665, 15.6), ("eu", 33.0, 555, 15.6), ("eu", 37.0, 555, 15.6), ("eu", 37.1, 500, 15.6),
]  # fmt: skip


@pytest.mark.parametrize(("profile", "degrees", "allowed", "threshold"), ALLOWANCE)
def test_how_long_the_warm_may_last(profile: str, degrees: float, allowed: float, threshold: float) -> None:
    c = (degrees - 32) / 1.8 if profile == "us" else degrees
    hours = allowed / (degrees - threshold)

    def soured(after: float) -> Batch:
        stages = (
            stage("cold", at(0), at(1), 2.0),
            stage("warm", at(1), at(4), c),
            stage("hang", at(4), None, 13.0, at(50)),
        )
        return salame(profile=shipped()[profile], stages=stages, ph=(Ph(at(1, after), 5.2, "checked"),))

    assert state(soured(hours * 0.999), "degree_hours") == "pass"
    assert state(soured(hours * 1.001), "degree_hours") == "fail"
    assert hurdle(soured(hours * 0.999), "degree_hours").limit == allowed


@pytest.mark.parametrize(("profile", "most"), [("us", 200.0), ("eu", 45 / NITRITE_ION_SHARE)])
def test_what_may_be_left(profile: str, most: float) -> None:
    def left(mg: float) -> str:
        return state(of(profile, "minced") if mg < 0 else replace(
            of(profile, "minced"), laboratory=(LabValue(at(40), "nitrite", mg, "mg/kg"),)), "nitrite_left")  # fmt: skip

    assert (left(most - 0.01), left(most + 0.1)) == ("pass", "fail")


def test_listeria_by_profile() -> None:
    for profile, states in (("us", ("fail", "fail", "fail")), ("eu", ("pass", "pass", "fail"))):
        values = [(1.0, "in 25 g"), (100.0, "cfu/g"), (101.0, "cfu/g")]
        found = tuple(
            state(replace(of(profile, "minced"), laboratory=(LabValue(at(40), "listeria", v, u),)), "pathogens")
            for v, u in values
        )
        assert found == states


def test_a_profile_says_where_its_figures_stand_and_what_it_does_not_know() -> None:
    for profile in shipped().values():
        assert {"ingoing", "degree_hours", "residual", "listeria"} <= set(profile.sources)
        assert profile.as_of
        assert profile.does_not_know
        assert "authority" in profile.check
        assert profile.unchilled
