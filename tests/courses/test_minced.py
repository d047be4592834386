"""Minced goods from the bowl to stock: a cultured salame, one hung cold, a thin sausage of three meats."""

import copy
from datetime import datetime

import pytest

from courses.kitchen import DAY, HOUR, Kitchen, weeks
from making import begin, pour_all
from support import iso, sheet_body, words


def test_hunter_style_salame(kitchen: Kitchen) -> None:
    """5,400 g at 70/30, a culture woken in water, a night's rest, the warm box, the chamber, tasted from 30 % on."""
    fridge = kitchen.place("Fridge", kind="salt", temperature_c=3)
    sheet = sheet_body()
    sheet["parts"] = [
        {"name": "Shoulder", "weight_g": 3780, "fat_percent": 5},
        {"name": "Back fat", "weight_g": 1620, "fat_percent": 85},
    ]
    batch = kitchen.mince(sheet, "HS-1")
    kitchen.post(f"/batches/{batch['id']}/meat", kind="mix", temperature_c=3.5)
    kitchen.wait(hours=14)  # the salted mince rests overnight
    kitchen.post(f"/batches/{batch['id']}/meat", kind="cold", place_id=fridge.id, at=iso(kitchen.clock.now - 14 * HOUR),
                 to_at=iso(kitchen.clock.now))  # fmt: skip

    # packed tight and pricked, tagged: start 1,012 g, to 40 %; a pinch is put by for the pH
    pieces = [{"gross_g": 1012, "casing_g": 4, "string_g": 2, "diameter_mm": 60, "target_loss_percent": 40}] * 5
    tagged = kitchen.stuff(batch, *pieces)
    assert tagged[0]["tag_g"] == round((1012 - 6) * 0.6 + 6)

    # the warm box is set to 24 °C; the grams of the weigh-out say how much sugar is in it
    box = kitchen.place("Box", kind="warm", temperature_c=24, rh_percent=90)
    (waits,) = kitchen.get("/warm")["waiting"]
    assert waits["dextrose_percent"] == pytest.approx(0.3)
    stuffed_s = kitchen.clock.now
    warm = kitchen.post(
        f"/warm/{batch['id']}/stage", "PUT", place_id=box.id, stuffed_at=iso(stuffed_s), culture="medium",
        dextrose_percent=waits["dextrose_percent"], salt_percent=2.7, target_ph=5.1,
    )  # fmt: skip

    # when to get up and measure: by the twelfth hour, and never after it has likely crossed
    def hours(moment: str) -> float:
        return (datetime.fromisoformat(moment).timestamp() - stuffed_s) / HOUR

    card = warm["card"]
    assert hours(card["measure_next"]) <= min(12, hours(card["crosses"]["p10"]))
    kitchen.wait(hours=19)
    kitchen.log(box, 19 / 24, 22, 90, 0.25)
    # is 5.03 believable so early? It is asked about at most once; with the second pinch it is taken
    early = kitchen.client.post(f"/api/warm/{batch['id']}/readings", json={"ph": 5.03, "by": "Ida"})
    if early.status_code == 409:
        kitchen.post(f"/warm/{batch['id']}/readings", ph=5.03, sure=True)
    kitchen.wait(hours=0.5)
    kitchen.post(f"/warm/{batch['id']}/readings", ph=5.06, sure=True)
    card = kitchen.get(f"/warm/{batch['id']}")["card"]
    assert card["state"] == "reached"
    assert card["ph_now"] == pytest.approx(5.05, abs=0.05)
    assert kitchen.hurdles(batch["id"])["acid"]["state"] == "pass"  # two readings half an hour apart agree

    # to the hook: ready in eight to ten weeks, within a window of use
    chamber = kitchen.place("Chamber", "drying_chamber", temperature_c=13, rh_percent=80)
    hung_s = kitchen.clock.now
    kitchen.post(f"/warm/{batch['id']}/events", kind="hang")
    hung = [
        kitchen.hang(
            chamber, p["tag"], "salame", "cylinder", 1012, batch="HS-1", tare_g=6, casing="natural", diameter_mm=60,
            fat_percent=28, salt_percent=2.7, target_loss_percent=40, sure=True,
        )
        for p in tagged
    ]  # fmt: skip
    low, mid, high = weeks(hung[0]["card"], hung_s)
    assert 55 / 7 <= mid <= 80 / 7
    assert high / low < 3

    # weighed on the way; the date gets better with each weighing
    for days, gross_g in ((14, 851), (28, 755), (42, 688)):
        kitchen.clock.now = hung_s + days * DAY
        kitchen.log(chamber, 14, 13, 79)
        kitchen.weigh(hung[0], gross_g, sure=True)
    nearer = weeks(kitchen.look(hung[0])["card"], hung_s)
    assert nearer[2] - nearer[0] < 0.6 * (high - low)

    # a slice to taste at 30 %; the count stays true, and its tag is written anew
    before = kitchen.look(hung[0])["card"]
    cut = kitchen.post(f"/pieces/{hung[0]['card']['id']}/slice", before_g=688, after_g=640)
    assert cut["card"]["loss_percent"] == pytest.approx(before["loss_percent"], abs=0.1)
    assert cut["card"]["tag_g"] < before["tag_g"]

    # is rim and middle alike? told from the inside; then the scale says ready, fingers confirm, it is cut and eaten
    assert kitchen.look(hung[0])["inside"]["ring"] in ("even", "some")
    kitchen.clock.now = hung_s + 63 * DAY
    kitchen.log(chamber, 21, 13, 79)
    there = kitchen.weigh(hung[0], cut["card"]["tag_g"], sure=True)
    assert there["at_target"]
    assert kitchen.look(hung[0])["card"]["state"] == "ready"
    kitchen.feel(hung[0], "firm", "firm")
    kitchen.down(hung[0], cut["card"]["tag_g"])
    assert kitchen.become(hung[0], "cut")["card"]["life"]["kind"] == "cut"
    assert kitchen.become(hung[0], "gone", "eaten")["card"]["life"]["how"] == "eaten"


def test_salame_without_a_warm_stage(kitchen: Kitchen) -> None:
    """Shoulder with belly, a seasoned blend that holds salt, two casings, a cellar; somebody has to sign."""
    sheet = copy.deepcopy(sheet_body())
    # belly was wished at 30 % of the shoulder's 3,600 g; a piece of 1,120 g was got
    sheet["parts"] = [
        {"name": "Shoulder", "weight_g": 3600, "fat_percent": 10},
        {"name": "Belly", "weight_g": 1120, "fat_percent": 45},
    ]
    sheet["salt_percent"] = 3.0
    sheet["lines"] = [
        {"name": "Seasoned blend", "role": "salted", "amount": 2.5, "salt_percent": 20},
        {"name": "Wine", "role": "wine", "amount": 3},
    ]
    sheet["plan"] = {**sheet["plan"], "family": "salame_cold", "warm": "none", "surface": "vinegar"}
    worked = kitchen.post("/bench/work", sheet=sheet)
    # a fifth of the blend is salt, and it is counted
    assert worked["consequences"]["salt"]["figure"]["value"] == pytest.approx(3.0 + 0.5, abs=0.02)
    # how many casings to soak the day before
    assert worked["consequences"]["pieces"] >= 5
    assert worked["consequences"]["casing_mm"] > 1000
    # is salt and nitrite alone enough? said before anything is weighed
    batch = kitchen.mince(sheet, "SC-1")
    fridge = kitchen.place("Fridge", kind="salt", temperature_c=2)
    kitchen.wait(days=2)  # salted cubes rest 48 h in the cold, then they are ground
    kitchen.log(fridge, 2, 2, 60)
    kitchen.post(f"/batches/{batch['id']}/meat", kind="cold", place_id=fridge.id, at=iso(kitchen.clock.now - 2 * DAY),
                 to_at=iso(kitchen.clock.now))  # fmt: skip
    kitchen.post(f"/batches/{batch['id']}/meat", kind="mix", temperature_c=4)
    # two kinds of casing in one batch
    kitchen.stuff(
        batch, {"gross_g": 905, "target_loss_percent": 33, "casing": "natural", "diameter_mm": 55},
        {"gross_g": 1240, "target_loss_percent": 33, "casing": "collagen", "diameter_mm": 70},
    )  # fmt: skip
    cellar = kitchen.place("Cellar", "cellar")
    kitchen.reading(cellar, 11, 77)
    assert "taken as usual" not in kitchen.today()
    hung = [
        kitchen.hang(cellar, tag, "salame", "cylinder", grams, batch="SC-1", casing=casing_, diameter_mm=mm,
                     target_loss_percent=33, sure=True)
        for tag, grams, casing_, mm in (("SC-1-01", 905, "natural", 55), ("SC-1-02", 1240, "collagen", 70))
    ]  # fmt: skip
    slim, thick = (weeks(h["card"], kitchen.clock.now)[1] for h in hung)
    assert slim < thick

    # turned end for end every day of the first week: a chore with its end
    kitchen.wait(days=1)
    assert any("Turn" in line for line in kitchen.today())
    kitchen.wait(days=8)
    assert not any("Turn" in line for line in kitchen.today())

    # why the ledger wants somebody to sign: nothing soured it, so degree-hours and acid are not answered by anything
    found = kitchen.hurdles(batch["id"])
    cold = found["cold_mix"] if "cold_mix" in found else found["degree_hours"]
    assert cold["state"] in ("unknown", "pass", "pending")
    assert any(h["state"] in ("unknown", "pending") for h in found.values())


def test_thin_sausage_of_three_meats(kitchen: Kitchen) -> None:
    """Beef, venison, pork with curing salt only in the pork; half under a fan, half in a dehydrator; two sentinels."""

    def sheet(species: str, fat: float, curing: bool) -> dict:
        one = copy.deepcopy(sheet_body())
        one["parts"] = [{"name": species, "weight_g": 1500, "fat_percent": fat, "species": species}]
        one["lines"] = [{"name": "Vinegar", "role": "other", "amount": 2}]
        one["plan"] = {**one["plan"], "family": "thin_sausage", "kind": "thin_sausage", "warm": "none",
                       "species": species, "target_loss_percent": 40, "across_mm": 22, "piece_g": 140}  # fmt: skip
        if not curing:
            one["curing"] = None
        return one

    batch = kitchen.mince(sheet("pork", 30, True), "TH-1")
    for name, species, fat in (("beef", "beef", 20), ("venison", "venison", 18)):
        bowl = begin(kitchen.client, sheet(species, fat, False))
        pour_all(kitchen.client, bowl)
        made = kitchen.post(f"/weigh-outs/{bowl['id']}/mix", batch_id=batch["id"], name=name)
    mixes = {m["name"]: m["id"] for m in made["mixes"]}
    kitchen.post(f"/batches/{batch['id']}/ph", ph=5.2)
    # the mince without nitrite is held, each mix for itself; pork and venison are asked about parasites, beef is not
    found = kitchen.hurdles(batch["id"])
    assert found["nitrite_in"]["state"] == "fail"
    assert "pork" in str(found["parasite"])
    pieces = [
        {"gross_g": 140, "target_loss_percent": 40, "diameter_mm": 22, "mix_id": m} for m in (None, *mixes.values())
    ]
    tags = [p["tag"] for p in kitchen.stuff(batch, *pieces)]

    room = kitchen.place("Room with fan", "fan_room", temperature_c=18, rh_percent=60)
    drier = kitchen.place("Dehydrator", "dehydrator", temperature_c=35, rh_percent=35)
    more = {
        "batch": "TH-1",
        "casing": "natural",
        "diameter_mm": 22,
        "target_loss_percent": 40,
        "fat_percent": 28,
        "sure": True,
    }
    slow = kitchen.hang(room, tags[0], "thin_sausage", "cylinder", 140, **more)
    quick = kitchen.hang(drier, tags[1], "thin_sausage", "cylinder", 140, **more)
    # which is done when: a week and a half under the fan, two days in the dehydrator
    assert 6 <= weeks(slow["card"], kitchen.clock.now)[1] * 7 <= 11
    assert 1 <= weeks(quick["card"], kitchen.clock.now)[1] * 7 <= 3
    # a dehydrator is no place to turn anything every day, nor is its heat an outage
    kitchen.wait(days=1)
    kitchen.reading(drier, 35, 33)
    kitchen.reading(room, 18, 60)
    due = kitchen.today()
    assert not any(tags[1] in line and "Turn" in line for line in due)
    # the sentinel is weighed; the mince in the warmth without a culture is not passed by its acid alone
    kitchen.wait(days=1)
    kitchen.weigh(quick, 84, sure=True)
    assert kitchen.look(quick)["card"]["state"] in ("ready", "over")
    assert words(kitchen.get(f"/pieces/{quick['card']['id']}/against")["against"][0])
    assert not kitchen.get(f"/batches/{batch['id']}/hurdles")["ready"]
