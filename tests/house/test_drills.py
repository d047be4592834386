"""Drills: killed midway, copied under load, brought up from every edition. `make drills` does them at length."""

import os
import shutil
import sqlite3
from collections.abc import Callable
from pathlib import Path
from zipfile import ZipFile

import pytest

from courses import test_beef, test_belly, test_legs_and_breasts, test_minced
from courses.kitchen import Kitchen
from house.killable import Killed
from support import DATA, Clock, sheet_body
from zymon.store.archive import TableTold, write_tables
from zymon.store.copies import editions, look_through
from zymon.store.database import Database
from zymon.work.house.archive import read_archive, write_archive


def a_short_course(kitchen: Kitchen) -> None:
    """Something of each kind, in a few entries: set, typed, weighed out, tagged, struck, taken back, sent as a file."""
    cellar = kitchen.place("Cellar", "drying_chamber", temperature_c=13, rh_percent=78)
    kitchen.reading(cellar, 12.5, 77)
    kitchen.post("/recipes", name="Juniper salame", sheet=sheet_body(), reason="first")
    batch = kitchen.mince(sheet_body(), "J-20")
    kitchen.stuff(batch, {"gross_g": 842, "casing_g": 11, "diameter_mm": 58, "target_loss_percent": 36})
    note = kitchen.post(f"/batches/{batch['id']}/meat", kind="mix", temperature_c=3.5)["meat"][0]["id"]
    kitchen.post(f"/meat/{note}/strike", reason="another batch")
    kitchen.wait(days=1)
    kitchen.log(cellar, 1, 13, 78)
    kitchen.post(f"/places/{cellar.id}/setpoint", temperature_c=14, rh_percent=80)


AT_LENGTH = os.environ.get("DRILLS") == "1"
COURSES: list[Callable[[Kitchen], None]] = [a_short_course]
if AT_LENGTH:
    COURSES += [
        test_minced.test_thin_sausage_of_three_meats,
        test_beef.test_beef_round_by_the_centimetre,
        test_beef.test_pressed_and_coated_beef,
        test_belly.test_flat_belly_two_ways,
        test_belly.test_rolled_belly,
        test_minced.test_hunter_style_salame,
        test_legs_and_breasts.test_boned_leg_muscle,
        test_legs_and_breasts.test_duck_breasts,
        test_legs_and_breasts.test_winter_smokehouse,
    ]
KILLS = 40 if AT_LENGTH else 3


def tables(file: Path, folder: Path) -> dict[str, TableTold]:
    """What stands in each table, as its fingerprint."""
    database = Database(file)
    with database.plain() as connection, ZipFile(folder / "tables.zip", "w") as out:
        told = write_tables(connection, out)
    database.close()
    return told


def run(course: Callable[[Kitchen], None], folder: Path, empty: Path, kills: int) -> tuple[dict[str, TableTold], int]:
    folder.mkdir()
    shutil.copy(empty, folder / "w.db")
    clock = Clock()
    maker = Killed(folder / "w.db", clock, kills, seed=7)
    try:
        maker.put("/api/workshop", json={"name": "A kitchen", "time_zone": "Europe/Rome"}).raise_for_status()
        course(Kitchen(maker, clock))  # type: ignore[arg-type] # it asks and enters as a client does
    finally:
        maker.stop()
    look_through(folder / "w.db")
    return tables(folder / "w.db", folder), maker.kills


@pytest.mark.timeout(1800)
@pytest.mark.drill
@pytest.mark.parametrize("course", COURSES, ids=lambda course: course.__name__)
def test_killed_at_any_moment_every_entry_is_there_once_and_none_by_half(
    course: Callable[[Kitchen], None], tmp_path: Path, empty_workshop: Path
) -> None:
    undisturbed, none = run(course, tmp_path / "calm", empty_workshop, 0)
    killed, many = run(course, tmp_path / "killed", empty_workshop, KILLS)
    assert none == 0
    assert many >= min(KILLS, 3)
    assert {name for name in undisturbed if undisturbed[name] != killed[name]} == set()


@pytest.mark.parametrize("edition", editions()[1:] if AT_LENGTH else [editions()[1], editions()[-1]])
def test_a_workshop_of_each_edition_is_brought_up_and_its_rows_stay(edition: str, tmp_path: Path) -> None:
    file = tmp_path / "w.db"
    Database(file, edition=edition).close()
    with sqlite3.connect(file) as old:
        old.execute(
            "INSERT INTO workshop (name, time_zone, created_s) VALUES ('Old cellar', 'Europe/Rome', 1700000000)"
        )
        old.execute("INSERT INTO place (name, kind, position, revision) VALUES ('Cellar', 'chamber', 1, 0)")
        old.execute("INSERT INTO reading (place_id, at_s, temperature_c, rh_percent) VALUES (1, 1700000000, 12.5, 78)")
    old.close()
    Database(file).close()
    counts = look_through(file)
    assert (counts["workshop"], counts["place"], counts["reading"]) == (1, 1, 1)
    assert look_through(tmp_path / "w-backups" / f"w-tables-{edition}.db")["place"] == 1


@pytest.mark.parametrize("file", sorted((DATA / "workshops").glob("*.db")), ids=lambda file: file.stem)
def test_a_workshop_that_was_used_is_brought_up_archived_and_brought_in(file: Path, tmp_path: Path) -> None:
    shutil.copy(file, tmp_path / "w.db")
    Database(tmp_path / "w.db").close()
    write_archive(tmp_path / "w.db", tmp_path / "all.zip", 1_800_000_000)
    read_archive(tmp_path / "all.zip", tmp_path / "again.db", "all.zip", 1_800_000_000)
    assert tables(tmp_path / "w.db", tmp_path) == tables(tmp_path / "again.db", tmp_path)
