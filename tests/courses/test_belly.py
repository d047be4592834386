"""Bellies: flat in two ways, rolled, and strips for the pan; done by days and feel, or cooked."""

import pytest

from courses.kitchen import DAY, Kitchen, weeks
from support import iso, words

FLAT = {"kind": "belly", "shape": "slab", "thickness_mm": 40, "fat_percent": 43, "salt_percent": 3}
SHORT = {"name": "Short type", "percent": 0.25, "nitrite_fraction": 0.0625, "nitrate_fraction": 0}


def test_flat_belly_two_ways(kitchen: Kitchen) -> None:
    """4 % salt on a net, poured off daily, two days in the warm, a household fridge; half in a bag, a cellar."""
    salting = kitchen.place("Salting fridge", kind="salt", temperature_c=3)
    fridge, cellar = kitchen.place("Household fridge", "household_fridge"), kitchen.place("Cellar", "cellar")
    net = kitchen.salt(salting, "flat_belly", "rub_and_drain", 4.0, (800, 40), geometry="slab", species="pork",
                       curing="none", code="FN-1", dose_known=False)  # fmt: skip
    bag = kitchen.salt(salting, "flat_belly", "measured", 3.0, (800, 40), geometry="slab", species="pork",
                       curing="weighed", curing_salt=SHORT, code="FB-1")  # fmt: skip
    for _ in range(5):  # about 70 ml a day; a millilitre is a gram
        kitchen.wait(days=1)
        kitchen.note(net, "drain", value=14)
    card = kitchen.salted(net[0])
    assert card["shed_g"] == 70
    # what sticks was never weighed: told with its range, and so said; the bag's dose was
    assert not card["dose_known"]
    assert card["mean_low_percent"] < card["mean_percent"] < card["mean_high_percent"]
    weighed = kitchen.salted(bag[0])
    assert weighed["mean_low_percent"] == weighed["mean_percent"] == weighed["mean_high_percent"]
    kitchen.wait(days=2)
    kitchen.log(salting, 7, 3, 60)
    for one in (net, bag):
        kitchen.note(one, "out", value=742, sure=True)
        kitchen.note(one, "blot")

    # is the two days at room temperature harmless? The line shows them, and the ledger does not pass them over
    table = kitchen.place("Kitchen table", "room")
    kitchen.wait(hours=40)
    kitchen.log(table, 40 / 24, 19, 50)
    kitchen.post(f"/batches/{net[0]['batch_id']}/meat", kind="room", at=iso(kitchen.clock.now - 40 * 3600),
                 to_at=iso(kitchen.clock.now), place_id=table.id)  # fmt: skip
    warmth = kitchen.hurdles(net[0]["batch_id"])
    assert warmth["warmth"]["state"] in ("fail", "unknown")

    # done when nobody set a weight: three weeks at least, told by days; the air is said as usual, never 78 %
    by_days = kitchen.hang(fridge, net[0]["tag"], start_g=None, done_by="days", done_days=21, batch="FN-1",
                           sure=True, **FLAT)  # fmt: skip
    assumed = " ".join(words(one) for one in by_days["assumed"])
    assert "humidity 48 % ± 9: usual in a household fridge" in assumed
    assert by_days["card"]["days_left"]["value"] == 21
    in_cellar = kitchen.hang(cellar, bag[0]["tag"], start_g=742, done_by="feel", batch="FB-1", sure=True, **FLAT)
    assert in_cellar["card"]["feel_from"] < in_cellar["card"]["feel_to"]

    kitchen.wait(days=21)
    assert kitchen.look(by_days)["card"]["state"] == "feel"
    # a flat slab of 4 cm lost 12–18 % in three to four weeks, not the 27 % of the family
    assert 8 <= kitchen.look(by_days)["card"]["model_loss_percent"] <= 18
    assert kitchen.hurdles(net[0]["batch_id"])["target_loss"]["state"] != "pass"
    # for the pan or eaten raw? Cooked drops what only raw goods need
    kitchen.post(f"/batches/{net[0]['batch_id']}/choices", "PUT", use="cooked", done_by="days")
    cooked = kitchen.get(f"/batches/{net[0]['batch_id']}/hurdles")
    assert cooked["use"] == "cooked"
    assert not {"target_loss", "dry_enough", "evenness"} & {h["name"] for h in cooked["hurdles"]}
    kitchen.feel(by_days, "firm", "yielding")
    kitchen.down(by_days)
    assert kitchen.become(by_days, "kept")["card"]["life"]["kind"] == "kept"


def test_rolled_belly(kitchen: Kitchen) -> None:
    """Beside the flat one, in membrane bags in the fridge; trimmed square after the cure; eaten cooked."""
    salting = kitchen.place("Salting fridge", kind="salt", temperature_c=3)
    fridge = kitchen.place("Household fridge", "household_fridge")
    (piece,) = kitchen.salt(salting, "rolled_belly", "measured", 3.0, (1700, 45), geometry="slab", species="pork",
                            curing="weighed", curing_salt=SHORT, code="RB-1")  # fmt: skip
    kitchen.wait(days=7)
    kitchen.log(salting, 7, 3, 60)
    kitchen.note([piece], "out", value=1650, sure=True)
    # trimmed square: 120 g off, an event of its own, and what the loss counts from shrinks with it
    kitchen.wait(hours=1)
    kitchen.note([piece], "trim", value=1530)
    bases = kitchen.get(f"/salt/{piece['id']}")["bases"]
    assert bases["cured_g"] == 1530
    assert bases["raw_g"] == pytest.approx(1700 * 1530 / 1650, abs=1)
    # how much longer the roll? Half as long again and more
    more = {"fat_percent": 43, "target_loss_percent": 15, "casing": "membrane"}
    rolled = kitchen.preview(fridge, "RB-1-01", "belly", "cylinder", 1530, diameter_mm=80, **more)
    bare = {**more, "casing": "none"}
    flat = kitchen.preview(fridge, "RB-1-02", "belly", "slab", 1530, thickness_mm=40, **bare)
    now = kitchen.clock.now
    assert weeks(rolled, now)[1] > 1.5 * weeks(flat, now)[1]
    skin = kitchen.preview(fridge, "RB-1-03", "belly", "slab", 1530, thickness_mm=40, skin=True, **bare)
    assert weeks(skin, now)[1] > 2 * weeks(flat, now)[1]
    hung = kitchen.hang(fridge, piece["tag"], "belly", "cylinder", 1530, batch="RB-1", diameter_mm=80,
                        casing="membrane", done_by="days", done_days=21, sure=True)  # fmt: skip
    kitchen.post(f"/batches/{piece['batch_id']}/choices", "PUT", use="cooked", done_by="days")
    kitchen.wait(days=21)
    assert any("Worth feeling" in line for line in kitchen.today())
    kitchen.feel(hung, "yielding", "yielding")
    down = kitchen.down(hung, 1440)
    assert down["card"]["scale"]["loss_percent"] == pytest.approx(5.9, abs=0.1)
    assert kitchen.become(hung, "gone", "eaten")["card"]["life"]["how"] == "eaten"


def test_slab_for_the_pan(kitchen: Kitchen) -> None:
    """Strips in what salt sticks, drained until nothing comes, ill for five days; hung cool, fried; one eaten raw."""
    cool = kitchen.place("Pantry", kind="salt", temperature_c=8)
    strips = kitchen.salt(cool, "belly_strips", "rub_and_drain", 3.5, (900, 30), (880, 30), geometry="slab",
                          species="pork", curing="none", dose_known=False, code="BS-1")  # fmt: skip
    for _ in range(5):
        kitchen.wait(days=1)
        kitchen.note(strips, "drain", value=22)
    # harmless to wait? It may wait a few days; then it is late, and that is said as well
    assert kitchen.salted(strips[0])["waits"] == "firm" or "may wait" in kitchen.salted(strips[0])["waits_says"]
    kitchen.wait(days=5)
    kitchen.note(strips, "drain", value=0)
    kitchen.note(strips, "out", not_weighed=True)  # no scale at hand
    kitchen.note(strips, "rinse")
    assert kitchen.salted(strips[0])["state"] == "out"
    # salt spots: slices are soaked for an hour, on record
    kitchen.note([strips[1]], "soak", value=1)

    # "keeps for ever without curing salt": the ledger says what stands against it, and never that it keeps
    hurdles = kitchen.hurdles(strips[0]["batch_id"])
    assert hurdles["salt"]["state"] != "pass"  # nobody weighed it
    place = kitchen.place("Cold room", "cellar", temperature_c=10, rh_percent=70)
    fried, raw = (
        kitchen.hang(place, strips[0]["tag"], "belly", "slab", None, batch="BS-1", thickness_mm=30, done_by="days",
                     done_days=8, sure=True),
        kitchen.hang(place, strips[1]["tag"], "belly", "slab", 850, batch="BS-1", thickness_mm=30,
                     target_loss_percent=30, sure=True),
    )  # fmt: skip
    kitchen.wait(days=8)
    assert kitchen.look(fried)["card"]["state"] == "feel"
    kitchen.down(fried)
    kitchen.become(fried, "gone", "eaten")
    # the other is weighed: 30 % off on the scale is its target, and still not ready to be eaten raw by the ledger
    kitchen.clock.now += 40 * DAY
    there = kitchen.weigh(raw, 594, sure=True)
    assert there["at_target"]
    assert not kitchen.get(f"/batches/{strips[0]['batch_id']}/hurdles")["ready"]
