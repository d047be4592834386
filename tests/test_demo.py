"""The made-up workshop holds every awkward case it is meant to show, and is the same each time."""

import time
from datetime import datetime
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from shared_demo import begun_at, copy_of_the_demo
from support import words
from zymon.app import make_app
from zymon.demo.build import build, ensure_demo
from zymon.settings import Settings


@pytest.fixture(scope="module")
def wheelhouse(tmp_path_factory: pytest.TempPathFactory):
    app = make_app(Settings(db=copy_of_the_demo(tmp_path_factory)), lambda: float(begun_at(tmp_path_factory)))
    with TestClient(app, base_url="http://localhost") as client:
        yield client
    app.state.context.close()


def test_every_awkward_case_hangs_there(wheelhouse: TestClient) -> None:
    line = wheelhouse.get("/api/line").json()
    assert [p["name"] for p in line["places"]] == [
        "Salt Fridge",
        "Warm Cupboard",
        "Wheel Pit",
        "Mill Loft",
        "Stone Store",
    ]
    assert sum(p["pieces"] for p in line["places"]) == 40
    assert all(p["air"] and not p["air"]["stale"] for p in line["places"])
    rooms = [wheelhouse.get(f"/api/places/{i}/room").json() for i in (3, 4)]
    cards = {c["tag"]: c for room in rooms for c in room["pieces"]}
    states = [c["state"] for c in cards.values()]
    assert states.count("over") == 1
    assert 1 <= states.count("ready") + states.count("likely") <= 4  # which of them, the season says
    assert states.count("soon") >= 3
    assert cards["B-10-03"]["wants"] == ["too_fast"]
    assert [t for t, c in cards.items() if "doubtful" in c["wants"]] == ["N-07-02"]
    weighed = [c["last_weighed_at"] is not None for t, c in cards.items() if t.startswith("J-22")]
    assert sorted(weighed) == [False, False, False, True, True, True]
    assert cards["G-05-01"]["loss_percent"] < 1


def test_the_list_of_all_batches_tells_of_each_what_its_own_page_does(wheelhouse: TestClient) -> None:
    """In salt, waiting, warm, hanging, at rest, gone: asked for all at once or one by one."""
    listed = wheelhouse.get("/api/book").json()["batches"]
    kinds = set()
    for batch in listed:
        assert batch["pieces"] == wheelhouse.get(f"/api/batches/{batch['id']}").json()["pieces"], batch["code"]
        kinds |= {piece["life"]["kind"] for piece in batch["pieces"]}
    assert len(listed) > 8
    assert {"in_salt", "warm", "hanging", "resting", "kept", "gone"} <= kinds


def test_what_the_wheelhouse_promised(wheelhouse: TestClient) -> None:
    """Three plans: two for one market, less likely both in time than either; the last to hang finds no hook."""
    ahead = wheelhouse.get("/api/ahead").json()
    plans = {plan["product"]: plan for plan in ahead["plans"]}
    assert set(plans) == {"Juniper salame", "Neck of the hill pigs", "Venison haunch"}
    (market,) = ahead["occasions"]
    both = [plan["chance"] for plan in plans.values() if plan["id"] in market["plans"]]
    assert len(both) == 2
    assert market["chance"] <= min(both)
    assert {name for name, plan in plans.items() if plan["clash"]} == {"Neck of the hill pigs"}
    strips = {strip["name"]: strip for strip in ahead["strips"]}
    assert set(strips) == {"Salt Fridge", "Warm Cupboard", "Wheel Pit", "Mill Loft"}
    pit = wheelhouse.get("/api/places/3/room").json()
    assert sum(goods["pieces"] for goods in strips["Wheel Pit"]["goods"]) == len(pit["pieces"])
    assert strips["Wheel Pit"]["managed_g"] > strips["Wheel Pit"]["weeks"][0]["water_g"] > 0
    for goods in strips["Salt Fridge"]["goods"]:
        assert goods["state"] == "in_salt"
        assert goods["span"]["start"] <= ahead["now"] <= goods["span"]["until"] <= goods["span"]["latest"]
    (warm,) = strips["Warm Cupboard"]["goods"]
    assert (warm["state"], warm["code"], warm["pieces"]) == ("warm", "J-23", 6)


def test_dates_came_nearer_as_pieces_were_weighed(wheelhouse: TestClient) -> None:
    cards = wheelhouse.get("/api/places/3/room").json()["pieces"]
    neck = next(card["id"] for card in cards if card["tag"] == "N-07-04")
    told = wheelhouse.get(f"/api/pieces/{neck}").json()["told"]
    width = [(datetime.fromisoformat(t["ready"]["p90"]) - datetime.fromisoformat(t["ready"]["p10"])).days for t in told]
    assert len(told) >= 2
    assert width[-1] < 0.5 * width[0]


def test_a_year_of_climate_with_its_outage(wheelhouse: TestClient, tmp_path_factory: pytest.TempPathFactory) -> None:
    now = begun_at(tmp_path_factory)
    query = {"from_s": now - 365 * 86_400, "to_s": now, "points": 1200}
    year = wheelhouse.get("/api/places/3/climate", params=query).json()
    assert len(year["at_s"]) > 1000
    assert max(year["rh_max_percent"]) > 88
    drifting = wheelhouse.get("/api/places/4/climate", params=query).json()["rh_percent"]
    half = len(drifting) // 2
    assert sum(drifting[half:]) / len(drifting[half:]) > sum(drifting[:half]) / half + 1


@pytest.mark.drill
def test_the_same_seed_makes_the_same_workshop(
    wheelhouse: TestClient, tmp_path: Path, tmp_path_factory: pytest.TempPathFactory
) -> None:
    file, now = tmp_path / "again.db", begun_at(tmp_path_factory)
    build(file, now)
    app = make_app(Settings(db=file), lambda: float(now))
    with TestClient(app, base_url="http://localhost") as client:
        assert client.get("/api/places/3/room").json() == wheelhouse.get("/api/places/3/room").json()
    app.state.context.close()


def test_a_demo_somebody_worked_in_is_kept(
    tmp_path_factory: pytest.TempPathFactory, capsys: pytest.CaptureFixture[str]
) -> None:
    file, now = copy_of_the_demo(tmp_path_factory), int(time.time())
    file.with_suffix(".made").write_text(str(now))
    ensure_demo(file, now_s=now + 60)  # a young one is not made anew
    app = make_app(Settings(db=file), lambda: now + 60)
    with TestClient(app, base_url="http://localhost") as client:
        piece = client.get("/api/places/3/room").json()["pieces"][0]
        body = {"gross_g": piece["weight_now_g"], "by": "Ida", "sure": True, "uid": "worked-in"}
        client.post(f"/api/pieces/{piece['id']}/weighings", json=body).raise_for_status()
    app.state.context.close()
    before = file.stat().st_mtime_ns
    ensure_demo(file, now_s=now + 30 * 86_400)
    assert "it is kept as it is" in capsys.readouterr().out
    ensure_demo(file, now_s=now + 60)
    assert file.stat().st_mtime_ns == before


def test_the_bench_is_laid(wheelhouse: TestClient) -> None:
    bench = wheelhouse.get("/api/bench").json()
    assert [(b["code"], b["waiting"], b["held"]) for b in bench["batches"]] == [("J-23", 6, False)]
    assert [w["left"] for w in bench["weigh_outs"]] == [7]
    recipes = {r["name"]: len(r["versions"]) for r in wheelhouse.get("/api/recipes").json()}
    assert recipes == {"Juniper salame": 2, "Neck with hay-smoked pepper": 1}
    lots = {lot["code"]: lot["id"] for lot in wheelhouse.get("/api/lots").json()}
    (batch,) = wheelhouse.get(f"/api/lots/{lots['CS-31']}").json()["batches"]
    assert len(batch["pieces"]) == 6


def test_the_round_asks_for_nothing_that_must_wait(wheelhouse: TestClient) -> None:
    today = wheelhouse.get("/api/today").json()
    titles = [words(c["title"]) for c in (*today["due"], *today["later"])]
    assert any("Measure the pH of J-23" in t for t in titles)
    assert not any(t.startswith("Hang J-23") for t in titles)  # it still ferments
    ended = {c["batch"]: c["state"] for c in wheelhouse.get("/api/warm").json()["ended"]}
    assert ended == {"J-19": "stalled", "J-20": "reached", "J-18": "reached", "J-17": "reached"}
    states = {c["tag"]: c["state"] for c in wheelhouse.get("/api/salt").json()["pieces"]}
    assert (states["V-05-01"], states["V-05-02"], states["N-09-01"]) == ("right", "out", "early")


def test_what_came_down_rests_was_cut_judged_and_packed(wheelhouse: TestClient) -> None:
    shelf = {c["tag"]: c["state"] for c in wheelhouse.get("/api/rest").json()["pieces"]}
    assert shelf == {"N-05-03": "even", "J-20-01": "even", "J-20-06": "leaks", "J-20-02": "evening"}
    seen = {one["tag"]: one["cause"] for one in wheelhouse.get("/api/cut").json()["seen"]}
    assert seen.keys() == {"J-17-03", "J-18-03", "J-20-03", "N-05-02", "V-01-03", "P-29-03"}
    assert seen["J-18-03"] == "cut_early"
    packs = wheelhouse.get("/api/stock").json()["packs"]
    assert len(packs) == 6
    assert [p["tag"] for p in packs if p["opened"]] == ["J-18-03"]
    recipe = next(r["id"] for r in wheelhouse.get("/api/recipes").json() if r["name"] == "Juniper salame")
    (line,) = wheelhouse.get(f"/api/recipes/{recipe}/next-time").json()
    assert line["tag"] == "J-18-03"
