"""The planner through its API, from wish to hung batch and past a slip, on real SQLite."""

import copy
import csv
import io
import itertools
from datetime import datetime

import pytest
from fastapi.testclient import TestClient

from making import pour_all
from support import NOW, Clock, iso, piece_body, sheet_body, words

BY = {"by": "Ida"}
DAY = 86_400


def neck_sheet() -> dict:
    """A whole muscle in a measured cure."""
    sheet = copy.deepcopy(sheet_body())
    plan = {
        "family": "neck", "goods": "intact", "kind": "whole_muscle", "shape": "irregular", "salting": "measured",
        "warm": "none", "across_mm": 80, "piece_g": 1800,
    }  # fmt: skip
    return {**sheet, "lines": [], "parts": [{"name": "Neck", "weight_g": 1800, "fat_percent": 12}],
            "plan": {**sheet["plan"], **plan}}  # fmt: skip


def wish(**changes: object) -> dict:
    """Twelve salami of 350 g in a hundred days."""
    return {
        "product": "Juniper salame", "sheet": sheet_body(), "pieces": 12, "table_g": 350, "order_days": 4,
        "wanted": iso(NOW + 100 * DAY), "rest_days": 7, **changes,
    }  # fmt: skip


def look(client: TestClient, **changes: object) -> dict:
    answer = client.post("/api/plans/look", json=wish(**changes))
    assert answer.status_code == 200, answer.text
    return answer.json()


def keep(client: TestClient, **changes: object) -> dict:
    answer = client.post("/api/plans", json=wish(**changes, **BY))
    assert answer.status_code == 201, answer.text
    return answer.json()["plan"]


def days(plan: dict) -> dict[str, float]:
    return {step["kind"]: (_s(step["when"]["p50"]) - NOW) / DAY for step in plan["steps"]}


def _s(at: str) -> float:
    return datetime.fromisoformat(at).timestamp()


def test_a_wish_goes_back_to_the_day_it_must_be_begun(client: TestClient, chamber: dict) -> None:
    found = look(client)
    plan, by_day = found["plan"], [one["chance"] for one in found["days"]]
    assert plan["place"] == "Cellar"
    assert plan["start"] == found["latest_start"]
    assert plan["chance"] >= 0.8 > by_day[[d["start"] for d in found["days"]].index(found["latest_start"]) + 1]
    assert all(a >= b for a, b in itertools.pairwise(by_day))
    order = days(plan)
    assert list(order) == ["order", "start", "hang", "done", "table"]
    assert sorted(order.values()) == list(order.values())
    assert order["start"] - order["order"] == pytest.approx(4)
    assert order["table"] - order["done"] == pytest.approx(7)
    for step in plan["steps"]:  # each is a window
        assert step["when"]["p10"] <= step["when"]["p50"] <= step["when"]["p90"]
        assert step["when"]["p10"] < step["when"]["p90"]
    assert 0.5 <= order["hang"] - order["start"] <= 3  # a night and a day or two in the warm
    assert plan["piece_g"] == plan["hung_g"] == pytest.approx(350 / 0.65, abs=0.1)
    assert plan["meat_g"] == pytest.approx(12 * plan["piece_g"] / 1.05, rel=0.02)
    assert {"elastic", "firm", "weight_led"} == {step["elasticity"] for step in plan["steps"]}
    assert any("sours" in words(one) for one in plan["assumed"])
    assert any("warm place at 24 °C" in words(one) for one in plan["assumed"])
    assert client.get("/api/ahead").json()["plans"] == []  # nothing was kept


def test_what_has_no_sugar_is_planned_for_and_told(client: TestClient, chamber: dict) -> None:
    dry = {**sheet_body(), "lines": []}
    plan = look(client, sheet=dry)["plan"]
    assert days(plan)["hang"] - days(plan)["start"] == pytest.approx(3)
    assert any("hardly gets to pH 5.1" in words(one) for one in plan["assumed"])


def test_what_the_dates_were_not_tried_on_is_said(client: TestClient, chamber: dict) -> None:
    leg = neck_sheet()
    leg["plan"] |= {"family": "leg", "kind": "ham", "casing": "coating", "salting": "buried", "across_mm": 160}
    leg["parts"] = [{"name": "Leg", "weight_g": 9500, "fat_percent": 18}]
    heavy = {"sheet": leg, "pieces": 1, "table_g": 6300, "wanted": iso(NOW + 400 * DAY)}
    assert any("take them as a guess" in words(one) for one in look(client, **heavy)["plan"]["assumed"])
    light = {**heavy, "table_g": 2000}
    assert not any("guess" in words(one) for one in look(client, **light)["plan"]["assumed"])


def test_a_surer_wish_begins_earlier_and_more_or_thicker_pieces_too(client: TestClient, chamber: dict) -> None:
    usual = look(client)["latest_start"]
    thick = copy.deepcopy(sheet_body())
    thick["plan"]["across_mm"] = 75
    for harder in ({"chance": 0.95}, {"pieces": 40}, {"sheet": thick}, {"rest_days": 21}):
        assert look(client, **harder)["latest_start"] < usual, harder
    assert look(client, chance=0.5)["latest_start"] > usual
    frozen = look(client, frozen=True)["plan"]
    assert days(frozen)["start"] - days(frozen)["thaw"] == 2  # 5 kg of shoulder thaw for two days
    assert days(frozen)["thaw"] - days(frozen)["order"] == pytest.approx(4)


def test_too_late_is_told_with_the_day_it_could_be(client: TestClient, chamber: dict) -> None:
    late = look(client, wanted=iso(NOW + 25 * DAY))
    assert late["latest_start"] is None
    assert late["plan"]["start"] == iso(NOW)
    assert late["plan"]["chance"] < 0.8
    again = look(client, wanted=late["in_time_by"].replace("Z", "+00:00"))
    assert again["plan"]["chance"] >= 0.8


def test_whole_muscle_waits_for_its_core_and_may_be_stretched(client: TestClient, chamber: dict) -> None:
    client.post("/api/places", json={"name": "Salt fridge", "kind": "salt", "setpoint": {"temperature_c": 2}, **BY})
    found = look(client, sheet=neck_sheet(), pieces=3, table_g=1000, wanted=iso(NOW + 150 * DAY))["plan"]
    assert found["steps"][1]["elasticity"] == "elastic"
    assert 12 <= days(found)["hang"] - days(found)["start"] <= 30
    assert [span["place_id"] for span in found["before"]] != []
    assert found["stretches"] is True
    waits = look(client, sheet=neck_sheet(), pieces=3, table_g=1000, wanted=iso(NOW + 150 * DAY), wait_days=45)["plan"]
    assert days(waits)["hang"] - days(waits)["start"] == pytest.approx(45)
    assert look(client, wait_days=45)["plan"]["stretches"] is False  # soured goods do not wait
    assert days(look(client, wait_days=45)["plan"])["hang"] - days(look(client, wait_days=45)["plan"])["start"] < 3
    assert not any("salt fridge at" in words(one) for one in found["assumed"])  # its set point is known


@pytest.mark.parametrize(
    ("changes", "status", "says"),
    [
        ({"pieces": 0}, 422, "pieces"),
        ({"pieces": 201}, 422, "pieces"),
        ({"table_g": 0}, 422, "weight at the table must be above 0"),
        ({"table_g": 60_000}, 422, "weight at the table"),
        ({"wanted": iso(NOW - DAY)}, 422, "the day it is wanted has gone by"),
        ({"wanted": iso(NOW + 1200 * DAY)}, 422, "three years ahead"),
        ({"start": iso(NOW - 2 * DAY)}, 422, "the day to begin has gone by"),
        ({"start": iso(NOW + 101 * DAY)}, 422, "after the day it is wanted"),
        ({"chance": 0.99}, 422, "chance"),
        ({"place_id": 77}, 404, "place"),
    ],
)
def test_wishes_that_cannot_be_are_refused_and_nothing_is_kept(
    client: TestClient, chamber: dict, changes: dict, status: int, says: str
) -> None:
    for path, body in (("/api/plans/look", wish(**changes)), ("/api/plans", wish(**changes, **BY))):
        answer = client.post(path, json=body)
        assert answer.status_code == status, answer.text
        assert says in answer.text
    assert client.get("/api/ahead").json()["plans"] == []


def test_without_a_place_to_hang_there_is_no_plan(client: TestClient) -> None:
    answer = client.post("/api/plans/look", json=wish())
    assert (answer.status_code, "no place in which it could hang" in answer.text) == (404, True)
    assert client.get("/api/ahead").json()["strips"] == []


def test_a_plan_is_kept_once_set_anew_taken_back_and_given_up(client: TestClient, chamber: dict) -> None:
    body = wish(uid="once-1", **BY)
    first, again = (client.post("/api/plans", json=body).json() for _ in range(2))
    assert first["plan"]["id"] == again["plan"]["id"]
    plan, setting = (one["id"] for one in first["made"])
    start = iso(NOW + 10 * DAY)
    moved = client.post(f"/api/plans/{plan}", json=wish(start=start, seen=setting, reason="less work then", **BY))
    assert moved.status_code == 201, moved.text
    assert moved.json()["plan"]["start"] == start
    # another screen that looked before
    stale = client.post(f"/api/plans/{plan}", json=wish(start=iso(NOW + 20 * DAY), seen=setting, **BY))
    assert (stale.status_code, "another screen" in stale.text) == (409, True)
    latest = next(one for one in moved.json()["made"] if one["what"] == "plan_setting")
    undo = {"made": [latest], "reason": "taken back", **BY}
    assert client.post("/api/undo", json=undo).status_code in (200, 201)
    assert client.get(f"/api/plans/{plan}").json()["plan"]["start"] == first["plan"]["start"]
    assert client.post(f"/api/plans/{plan}/give-up", json={"reason": "they ordered cheese", **BY}).is_success
    assert client.get("/api/ahead").json()["plans"] == []
    gone = client.get(f"/api/plans/{plan}")
    assert (gone.status_code, "given up" in gone.text) == (409, True)


def test_what_is_wanted_together_is_together_in_time(client: TestClient, chamber: dict) -> None:
    one, two = (keep(client, occasion="Christmas market", pieces=4, place_id=chamber["place"]["id"]) for _ in range(2))
    alone = keep(client, pieces=4)
    ahead = client.get("/api/ahead").json()
    (together,) = ahead["occasions"]
    assert sorted(together["plans"]) == [one["id"], two["id"]]
    assert alone["id"] not in together["plans"]
    chances = {p["id"]: p["chance"] for p in ahead["plans"]}
    assert together["chance"] < min(chances[i] for i in together["plans"])
    assert together["chance"] > chances[one["id"]] * chances[two["id"]] - 0.05


def test_hooks_water_and_clashes_of_the_weeks_ahead(client: TestClient, chamber: dict) -> None:
    """Eight hooks: two hang, five are planned, four more find no room; they are told of three ways out."""
    room = chamber
    for hook in (1, 2):
        client.post("/api/pieces", json=piece_body(room, tag=f"J-14-{hook:02d}", hook=hook)).raise_for_status()
    soon = {"wanted": iso(NOW + 70 * DAY), "start": iso(NOW + DAY), "place_id": room["place"]["id"]}
    first = keep(client, pieces=5, **soon)
    assert first["clash"] is None
    (strip,) = client.get("/api/ahead").json()["strips"]
    assert (strip["room"], strip["free"], [g["code"] for g in strip["goods"]]) == (8, 6, ["J-14"])
    assert [week["likely"] for week in strip["weeks"][:2]] == [7, 7]
    assert strip["weeks"][0]["water_g"] > strip["weeks"][3]["water_g"] > 0
    assert strip["weeks"][-1]["likely"] == 0
    client.post("/api/places", json={"name": "Loft", "hooks_per_rod": [6], **BY}).raise_for_status()
    second = look(client, pieces=4, **soon)["plan"]
    assert "11 pieces for 8 hooks in Cellar" in words(second["clash"]["says"])
    out = {way["kind"]: way for way in second["clash"]["ways"]}
    assert set(out) == {"later", "elsewhere", "smaller"}
    assert out["smaller"]["pieces"] == 1
    for way in ({"start": out["later"]["start"]}, {"place_id": out["elsewhere"]["place_id"]}, {"pieces": 1}):
        assert look(client, **{**soon, "pieces": 4, **way})["plan"]["clash"] is None, way
    assert words(out["later"]["says"]).startswith("begin ")
    kept = keep(client, pieces=4, **soon)
    plans = {p["id"]: p for p in client.get("/api/ahead").json()["plans"]}
    assert plans[kept["id"]]["clash"] is not None
    assert plans[first["id"]]["clash"] is None  # it was there first


def test_where_it_could_hang_is_told_place_by_place(client: TestClient, chamber: dict) -> None:
    loft = client.post(
        "/api/places",
        json={"name": "Loft", "hooks_per_rod": [6], "setpoint": {"temperature_c": 11, "rh_percent": 80}, **BY},
    ).json()
    offers = client.post("/api/plans/places", json=wish(pieces=7)).json()
    assert [o["name"] for o in offers] == ["Cellar", "Loft"]  # seven find hooks in the cellar alone
    assert [o["hooks_free"] for o in offers] == [8, 6]
    assert offers[0]["start"] > offers[1]["start"]  # colder and damper takes longer
    there = look(client, place_id=loft["id"])
    assert there["plan"]["start"] == offers[1]["start"] or there["plan"]["pieces"] != 7


def test_a_place_without_hooks_says_how_many_go_in(client: TestClient, chamber: dict) -> None:
    fridge = client.post("/api/places", json={"name": "Salt fridge", "kind": "salt", **BY}).json()["id"]
    wanted = {"sheet": neck_sheet(), "pieces": 4, "table_g": 900, "wanted": iso(NOW + 200 * DAY)}
    assert look(client, **wanted)["plan"]["clash"] is None  # nobody said how many
    url = f"/api/places/{fridge}/room-for"
    assert client.post(url, json={"room": 0, **BY}).status_code == 422
    assert client.post(url, json={"room": 3, **BY}).status_code == 201
    clash = look(client, **wanted)["plan"]["clash"]
    assert "4 pieces in Salt fridge, where 3 have room" in words(clash["says"])
    assert client.post(f"/api/places/{chamber['place']['id']}/room-for", json={"room": 3, **BY}).status_code == 422


def test_a_plan_becomes_a_batch_that_hangs_slips_and_is_promised_anew(
    client: TestClient, chamber: dict, clock: Clock
) -> None:
    plan = keep(client, pieces=4, wanted=iso(NOW + 70 * DAY), place_id=chamber["place"]["id"])
    url = f"/api/plans/{plan['id']}"
    clock.now = _s(plan["start"])
    begun = client.post(f"{url}/begin", json={"uid": "begun-1", **BY})
    assert begun.status_code == 201, begun.text
    assert (
        client.post(f"{url}/begin", json={"uid": "begun-1", **BY}).json()["weigh_out_id"]
        == begun.json()["weigh_out_id"]
    )
    assert client.post(f"{url}/begin", json=BY).status_code == 409
    weigh_out = client.get(f"/api/weigh-outs/{begun.json()['weigh_out_id']}").json()
    assert sum(t["target_g"] for t in weigh_out["things"] if t["key"].startswith("meat")) == pytest.approx(
        plan["meat_g"], abs=0.2
    )
    assert client.get(url).json()["plan"]["state"] == "weighing"
    pour_all(client, weigh_out)
    batch = client.post(f"/api/weigh-outs/{weigh_out['id']}/batch", json={"code": "J-50", **BY}).json()
    made = client.get(url).json()["plan"]
    assert (made["state"], made["batch"], made["batch_id"]) == ("made", "J-50", batch["id"])
    assert made["chance"] == pytest.approx(plan["chance"], abs=0.1)
    assert made["slip"] is None
    clock.now += 2 * DAY
    for hook in (1, 2, 3, 4):
        body = piece_body(
            chamber, tag=f"J-50-{hook:02d}", batch_code="J-50", hook=hook, start_weight_g=538, tare_g=0, diameter_mm=60,
            target_loss_percent=35, casing="natural", length_mm=None, batch_id=batch["id"],
        )  # fmt: skip
        hung = client.post("/api/pieces", json=body)
        assert hung.status_code == 201, hung.text
    hanging = client.get(url).json()["plan"]
    assert hanging["state"] == "hanging"
    assert hanging["hung"]["p50"] == iso(clock.now)
    # it dries at half the pace: after three weeks the plan says so, and what to tell whoever waits
    for day, gross_g in ((7, 517), (14, 500), (21, 486)):
        clock.now = _s(hanging["hung"]["p50"]) + day * DAY
        for piece in client.get(f"/api/places/{chamber['place']['id']}/room").json()["pieces"]:
            answer = client.post(
                f"/api/pieces/{piece['id']}/weighings", json={"gross_g": gross_g, "sure": True, "kept": True, **BY}
            )
            assert answer.is_success, answer.text
    slow = client.get(url).json()["plan"]
    assert slow["chance"] < 0.3
    assert slow["slip"]["kind"] == "slow"
    later = next(way for way in slow["slip"]["ways"] if way["kind"] == "later")
    assert "all 4 by" in words(slow["slip"]["customer"]) or "all 4 will be there by" in words(slow["slip"]["customer"])
    due = client.get("/api/today").json()
    assert any(line["id"] == f"plan-slip-{plan['id']}" for line in [*due["due"], *due["later"]])
    anew = client.post(
        url, json=wish(pieces=4, wanted=later["wanted"], place_id=chamber["place"]["id"], seen=slow["setting_id"], **BY)
    )
    assert anew.status_code == 201, anew.text
    assert anew.json()["plan"]["slip"] is None
    assert anew.json()["plan"]["chance"] >= 0.7
    assert anew.json()["plan"]["start"] == slow["start"]
    other = wish(
        pieces=4, product="Something else", wanted=later["wanted"], seen=anew.json()["plan"]["setting_id"], **BY
    )
    assert client.post(url, json=other).status_code == 409


def test_planned_against_happened(client: TestClient, chamber: dict, clock: Clock) -> None:
    fair = {"occasion": "fair", "wanted": iso(NOW + 60 * DAY), "rest_days": 0}
    plan = keep(client, pieces=1, table_g=540, start=iso(NOW + DAY), **fair)
    piece = piece_body(chamber, target_loss_percent=35)
    clock.now = NOW + 2 * DAY
    client.post("/api/pieces", json=piece).raise_for_status()
    found = client.get("/api/tags/J-14-03").json()
    hung, batch = found["piece_id"], found["batch_id"]
    became = client.post(f"/api/plans/{plan['id']}/became", json={"batch_id": batch, **BY})
    assert became.status_code == 201, became.text
    other = keep(client, pieces=1, **fair)
    taken = client.post(f"/api/plans/{other['id']}/became", json={"batch_id": batch, **BY})
    assert (taken.status_code, "came of another plan" in taken.text) == (409, True)
    assert client.get("/api/plans/against").json()["counted"] == 0
    clock.now = NOW + 50 * DAY
    down = {"kind": "kept", "gross_g": 550, "sure": True, **BY}
    answer = client.post(f"/api/pieces/{hung}/take-down", json=down)
    assert answer.is_success, answer.text
    found = client.get("/api/plans/against").json()
    assert (found["counted"], found["in_time"]) == (1, 1)
    (one,) = found["plans"]
    assert one["told_chance"] == found["told_chance"] == plan["chance"]
    assert (one["start_planned"], one["started"]) == (iso(NOW + DAY), iso(NOW + 2 * DAY))
    assert one["done"] == iso(NOW + 50 * DAY)
    assert one["inside"] == (one["done_told"]["p10"] <= one["done"] <= one["done_told"]["p90"])
    assert plan["id"] not in [p["id"] for p in client.get("/api/ahead").json()["plans"]]  # it is done
    # of the same occasion, it is the same making in the list and on its own, though the first is done
    listed = next(p for p in client.get("/api/ahead").json()["plans"] if p["id"] == other["id"])
    alone = client.get(f"/api/plans/{other['id']}").json()["plan"]
    assert (listed["done"], listed["chance"]) == (alone["done"], alone["chance"])


def test_a_weigh_out_given_up_leaves_the_plan_to_be_begun_anew(client: TestClient, chamber: dict) -> None:
    plan = keep(client, pieces=2, start=iso(NOW + 3600))
    url = f"/api/plans/{plan['id']}"
    span = {"start": iso(NOW), "end": iso(NOW + DAY)}
    first = client.post(f"{url}/begin", json=BY).json()["weigh_out_id"]
    assert client.get("/api/plans/shopping", params=span).json()["plans"] == 0
    client.post(f"/api/weigh-outs/{first}/give-up", json={"reason": "no salt in the house", **BY}).raise_for_status()
    assert client.get(url).json()["plan"]["state"] == "planned"
    assert client.get("/api/plans/shopping", params=span).json()["plans"] == 1
    again = client.post(f"{url}/begin", json=BY)
    assert again.json()["weigh_out_id"] != first
    assert client.get(url).json()["plan"]["state"] == "weighing"


def test_a_piece_thrown_away_is_missed_until_fewer_are_promised(
    client: TestClient, chamber: dict, clock: Clock
) -> None:
    plan = keep(client, pieces=2, table_g=540, wanted=iso(NOW + 120 * DAY), rest_days=0, start=iso(NOW + DAY))
    clock.now = NOW + 2 * DAY
    for hook in (1, 2):
        client.post("/api/pieces", json=piece_body(chamber, tag=f"J-14-{hook:02d}", hook=hook)).raise_for_status()
    found = client.get("/api/tags/J-14-01").json()
    became = {"batch_id": found["batch_id"], **BY}
    both = client.post(f"/api/plans/{plan['id']}/became", json=became).json()["plan"]
    assert both["chance"] > 0.9
    gone = {"kind": "gone", "how": "discarded", "not_weighed": True, "note": "mould in the middle", **BY}
    client.post(f"/api/pieces/{found['piece_id']}/take-down", json=gone).raise_for_status()
    one = client.get(f"/api/plans/{plan['id']}").json()["plan"]
    assert (one["chance"], one["slip"]["kind"]) == (0.0, "lost")
    smaller = next(way for way in one["slip"]["ways"] if way["kind"] == "smaller")
    assert smaller["pieces"] == 1
    body = wish(pieces=1, table_g=540, wanted=one["wanted"], place_id=one["place_id"], rest_days=0)
    anew = client.post(f"/api/plans/{plan['id']}", json={**body, "seen": one["setting_id"], **BY}).json()["plan"]
    assert anew["chance"] > 0.9
    assert anew["slip"] is None


def test_a_day_that_went_by_is_told_with_the_day_it_could_be(client: TestClient, chamber: dict, clock: Clock) -> None:
    plan = keep(client, pieces=2, wanted=iso(NOW + 60 * DAY))
    clock.now = NOW + 70 * DAY
    late = client.get(f"/api/plans/{plan['id']}").json()
    assert late["plan"]["chance"] == 0.0
    assert late["days"] == []
    (way,) = late["plan"]["slip"]["ways"]
    assert way["kind"] == "later"
    assert _s(way["wanted"]) > clock.now
    assert client.get("/api/ahead").status_code == 200
    body = wish(pieces=2, wanted=way["wanted"], start=way["start"], seen=late["plan"]["setting_id"], **BY)
    anew = client.post(f"/api/plans/{plan['id']}", json=body)
    assert anew.status_code == 201, anew.text
    assert anew.json()["plan"]["chance"] >= 0.7


def test_the_list_for_the_shop(client: TestClient, chamber: dict) -> None:
    keep(client, start=iso(NOW + 3 * DAY))
    keep(client, start=iso(NOW + 30 * DAY))
    span = {"start": iso(NOW), "end": iso(NOW + 10 * DAY)}
    found = client.get("/api/plans/shopping", params=span).json()
    assert found["plans"] == 1
    lines = {line["what"]: line for line in found["lines"]}
    assert lines["Culture"]["unit"] == "packs"
    assert lines["Shoulder"]["usual_trim"] == 8.0
    assert lines["natural ø 60"]["unit"] == "mm"
    both = client.get("/api/plans/shopping", params={**span, "end": iso(NOW + 40 * DAY)}).json()
    assert {line["what"]: line["amount"] for line in both["lines"]}["Shoulder"] == pytest.approx(
        2 * lines["Shoulder"]["amount"], rel=1e-3
    )
    sheet = client.get("/api/plans/shopping.csv", params=span).text
    rows = list(csv.DictReader(io.StringIO(sheet)))
    assert {row["what"] for row in rows} == set(lines)
    back = client.get("/api/plans/shopping", params={"start": iso(NOW), "end": iso(NOW - DAY)})
    assert (back.status_code, "ends before it begins" in back.text) == (422, True)


def test_today_says_when_to_order_thaw_and_begin(client: TestClient, chamber: dict, clock: Clock) -> None:
    plan = keep(client, frozen=True, start=iso(NOW + 8 * DAY))

    def lines() -> dict[str, str]:
        today = client.get("/api/today").json()
        found = [*today["due"], *today["later"]]
        return {line["id"]: line["when"] for line in found if line["id"].startswith("plan-")}

    name = plan["id"]
    assert lines()[f"plan-order-{name}"] == "later"
    clock.now += 2.2 * DAY
    assert lines()[f"plan-order-{name}"] == "now"
    clock.now += 4 * DAY
    assert lines()[f"plan-thaw-{name}"] == "now"
    clock.now += 2 * DAY
    assert lines()[f"plan-start-{name}"] == "now"
    clock.now += 3 * DAY
    far = keep(client, start=iso(clock.now + 60 * DAY), wanted=iso(clock.now + 150 * DAY))
    assert f"plan-start-{far['id']}" not in lines()  # it is no matter of this week, but of the calendar
    assert f"plan-start-{far['id']}" in client.get("/api/today.ics").text
    late = client.get(f"/api/plans/{name}").json()["plan"]
    assert late["slip"]["kind"] == "not_begun"
    assert lines()[f"plan-start-{name}"] == "late"
    client.post(f"/api/plans/{name}/begin", json=BY).raise_for_status()
    assert f"plan-start-{name}" not in lines()
