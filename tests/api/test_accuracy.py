"""How good the dates were, through the API: told live, or worked out afterwards with nothing that came later."""

import pytest
from fastapi.testclient import TestClient

from courses.kitchen import DAY, Kitchen
from support import Clock, iso, sheet_body

WEIGHTS = (760, 690, 635, 595, 565, 540)


@pytest.fixture
def kitchen(client: TestClient, clock: Clock) -> Kitchen:
    return Kitchen(client, clock)


def hung(kitchen: Kitchen, cellar, tag: str) -> int:
    return kitchen.hang(
        cellar, tag, "salame", "cylinder", 842, batch=tag[:4], tare_g=11, diameter_mm=58, fat_percent=26,
        salt_percent=2.7, target_loss_percent=36, casing="natural", sure=True,
    )["card"]["id"]  # fmt: skip


def test_dates_that_were_told_are_owned_up_to_with_the_pieces_they_rest_on(kitchen: Kitchen) -> None:
    cellar = kitchen.place("Cellar", "drying_chamber", temperature_c=13, rh_percent=78)
    pieces = [hung(kitchen, cellar, f"J-20-0{i}") for i in (1, 2)]
    nothing = kitchen.get("/book/accuracy")
    assert (nothing["pieces"], nothing["live"], nothing["waiting"]) == (0, None, 0)
    for gross_g in WEIGHTS:
        kitchen.wait(days=7)
        kitchen.post(f"/pieces/{pieces[0]}/weighings", gross_g=gross_g, first_g=gross_g, sure=True)
    assert kitchen.get("/book/accuracy")["pieces"] == 0  # it hangs still: nothing is finished
    for piece in pieces:
        kitchen.post(f"/pieces/{piece}/take-down", kind="kept", not_weighed=True, sure=True)
    seen = kitchen.get("/book/accuracy")
    assert (seen["pieces"], seen["left_out"], seen["waiting"]) == (1, 1, 0)  # one was never weighed: it is not counted
    assert seen["afterwards"] is None
    live = seen["live"]
    assert (live["overall"]["pieces"], live["overall"]["few"], live["lesson"]) == (1, True, "too_few")
    assert live["overall"]["told"] == 6  # at hanging, and after each weighing before it was there
    assert live["along"][0]["stage"] == "hanging"
    assert {name: [g["name"] for g in some] for name, some in live["groups"].items()} == {
        "family": ["salame"], "place": ["Cellar"], "year": [seen["each"][0]["reached_at"][:4]],
    }  # fmt: skip
    (one,) = seen["each"]
    assert (one["tag"], one["live"], one["told"]) == ("J-20-01", True, 6)


def from_a_file(kitchen: Kitchen) -> None:
    """A batch whose weights came by file when all was over: nothing of it was ever told."""
    cellar = kitchen.place("Cellar", "drying_chamber", temperature_c=13, rh_percent=78)
    piece = hung(kitchen, cellar, "J-20-01")
    kitchen.wait(days=42)
    rows = [f"J-20-01,{iso(kitchen.clock.now + (7 * i - 35) * DAY)},{g}" for i, g in enumerate(WEIGHTS)]
    file = {"file": ("weights.csv", "\n".join(["tag,at,gross_g", *rows]).encode(), "text/csv")}
    seen = kitchen.client.post("/api/imports/preview", files=file, data={"place_id": str(cellar.id)})
    assert seen.status_code == 200, seen.text
    kitchen.post(f"/imports/{seen.json()['token']}")
    kitchen.post(f"/pieces/{piece}/take-down", kind="kept", not_weighed=True, sure=True)


def test_what_was_never_told_is_worked_out_afterwards_and_counted_apart(kitchen: Kitchen) -> None:
    from_a_file(kitchen)
    first = kitchen.get("/book/accuracy")
    told_live = kitchen.get(f"/pieces/{first['each'][0]['piece_id']}")["told"]
    # when it was hung a date was told; after the weights of the file none was
    assert (first["live"]["overall"]["told"], first["afterwards"], first["waiting"]) == (1, None, 5)
    while kitchen.get("/book/accuracy")["waiting"]:
        kitchen.post("/book/accuracy/afterwards")
    again = kitchen.get("/book/accuracy")
    assert again["waiting"] == 0
    assert again["live"] == first["live"]
    apart = again["afterwards"]["overall"]
    assert (apart["pieces"], apart["told"]) == (1, 5)
    assert apart["error_days"] < 5
    (piece,) = again["each"]
    assert (piece["live"], piece["told"]) == (False, 6)
    assert kitchen.get(f"/pieces/{piece['piece_id']}")["told"] == told_live  # what was told then is not added to


def test_the_fall_of_ph_is_checked_with_what_was_known_after_each_reading(kitchen: Kitchen) -> None:
    box = kitchen.place("Box", kind="warm", temperature_c=24)
    batch = kitchen.mince(sheet_body(), "J-30")
    kitchen.post(
        f"/warm/{batch['id']}/stage", "PUT", place_id=box.id, stuffed_at=iso(kitchen.clock.now), culture="medium",
        dextrose_percent=0.3, salt_percent=2.7,
        target_ph=5.1,
    )  # fmt: skip
    for hours, ph in ((14, 5.62), (4, 5.41), (4, 5.22), (4, 5.12)):
        kitchen.wait(hours=hours)
        kitchen.post(f"/warm/{batch['id']}/readings", ph=ph, sample_c=22, sure=True)
    checked = kitchen.get("/book/accuracy")["ph"]
    assert [(one["hour"], one["crossed_hour"]) for one in checked] == [(14, 20.3), (18, 20.3)]
    assert all(one["error_hours"] == pytest.approx(20.3 - one["told_hour"], abs=0.11) for one in checked)
