"""Everything out and everything in: table by table the same, all or nothing, and no secret among it."""

import io
import json
import shutil
import zipfile
from pathlib import Path

import pytest
from benchmarks.maker import Maker
from fastapi.testclient import TestClient
from PIL import Image

from shared_demo import copy_of_the_demo, forget_old_air
from support import Clock
from zymon.app import make_app
from zymon.core.errors import ZymonError
from zymon.formats.batch_file import BatchFile
from zymon.formats.dictionary import dictionary_markdown
from zymon.formats.hang_file import HangFile
from zymon.settings import Settings
from zymon.store.archive import Manifest, file_of
from zymon.store.database import Database
from zymon.store.dictionary import meant
from zymon.store.models import Base
from zymon.words import told
from zymon.words.columns import COLUMNS
from zymon.work.house.archive import read_archive, write_archive
from zymon.work.house.people import make_owner
from zymon.work.premises import Premises

NOW = 1_800_000_000
NOT_TAKEN = {"sign_in", "tablet", "brought_in"}


@pytest.fixture(scope="module")
def demo(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The made-up workshop with an owner and a photo, so that every kind of thing is in it."""
    file = copy_of_the_demo(tmp_path_factory)
    shop = Premises(db=Database(file), clock=lambda: float(NOW))
    make_owner(shop, "Ida", "hay and juniper smoke")
    shop.db.close()
    forget_old_air(file)
    app = make_app(Settings(db=file), lambda: float(NOW))
    with Maker(app) as client:
        client.post("/api/sign-in", json={"name": "Ida", "passphrase": "hay and juniper smoke"}).raise_for_status()
        client.post("/api/devices", json={"name": "Logger", "kind": "scale", "by": "x"}).raise_for_status()
        picture = io.BytesIO()
        Image.new("RGB", (64, 48), (120, 40, 50)).save(picture, "JPEG")
        client.post(
            "/api/pieces/1/photos", files={"file": picture.getvalue()}, data={"uid": "photo-1", "by": "x"}
        ).raise_for_status()
    app.state.context.close()
    return file


@pytest.fixture(scope="module")
def archive(demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    target = tmp_path_factory.mktemp("archive") / "all.zip"
    write_archive(demo, target, NOW)
    return target


def manifest(file: Path) -> Manifest:
    with zipfile.ZipFile(file) as opened:
        return Manifest.model_validate_json(opened.read("manifest.json"))


def test_every_table_comes_back_as_it_went(archive: Path, demo: Path, tmp_path: Path) -> None:
    read_archive(archive, tmp_path / "again.db", "all.zip", NOW)
    write_archive(tmp_path / "again.db", tmp_path / "again.zip", NOW)
    went, came = manifest(archive), manifest(tmp_path / "again.zip")
    assert set(went.tables) == set(Base.metadata.tables) - NOT_TAKEN
    for name, table in went.tables.items():
        assert came.tables[name] == table, name
    for needed in ("reading", "weighing", "journal_line", "forecast_record", "photo", "person", "making", "cut_face"):
        assert went.tables[needed].rows > 0, needed
    with zipfile.ZipFile(archive) as first, zipfile.ZipFile(tmp_path / "again.zip") as second:
        names = [n for n in first.namelist() if not n.endswith((".xlsx", "manifest.json"))]
        assert names == [n for n in second.namelist() if not n.endswith((".xlsx", "manifest.json"))]
        for name in names:  # tables, photos, batches, places, recipes
            assert first.read(name) == second.read(name), name
    database = Database(tmp_path / "again.db")
    with database.engine.connect() as connection:
        assert connection.exec_driver_sql("SELECT file_name, made_s FROM brought_in").all() == [("all.zip", NOW)]
        assert connection.exec_driver_sql("SELECT count(*) FROM word_index").scalar()  # what is found is found again
    database.close()


def test_the_forecasts_are_the_same(archive: Path, demo: Path, tmp_path: Path, clock: Clock) -> None:
    read_archive(archive, tmp_path / "again.db", "all.zip", NOW)
    shutil.copy(demo, tmp_path / "first.db")
    clock.now = Path(demo).stat().st_mtime
    dates = []
    for name in ("first.db", "again.db"):
        shop = Premises(db=Database(tmp_path / name), clock=clock)
        make_owner(shop, "Ida", "hay and juniper smoke")  # passphrases are in no archive
        shop.db.close()
        app = make_app(Settings(db=tmp_path / name), clock)
        with Maker(app) as client:
            body = {"name": "Ida", "passphrase": "hay and juniper smoke"}
            client.post("/api/sign-in", json=body).raise_for_status()
            place = next(p for p in client.get("/api/line").json()["places"] if p["pieces"])
            room = client.get(f"/api/places/{place['id']}/room").json()
            dates.append([(p["tag"], p["ready"], p.get("status")) for p in room["pieces"]])
        app.state.context.close()
    assert dates[0] == dates[1]
    assert len(dates[0]) > 5


def test_each_file_can_be_used_alone(archive: Path) -> None:
    with zipfile.ZipFile(archive) as opened:
        files = [n for n in opened.namelist() if n.startswith("files/")]
        batches = [n for n in files if n.startswith("files/batch-")]
        hangs = [n for n in files if n.startswith("files/hang-")]
        assert len(batches) > 15
        for name in batches:
            assert BatchFile.model_validate_json(opened.read(name)).format == "zymon-batch/2"
        for name in hangs:
            assert HangFile.model_validate_json(opened.read(name)).format == "zymon-hang/1"
        assert any(n.startswith("files/recipe-") for n in files)
        assert any(n.startswith("files/warm-") for n in files)
        assert opened.read("spreadsheet.xlsx")[:2] == b"PK"
        with Image.open(opened.open("photos/1.jpg")) as photo:
            assert photo.format == "JPEG"
        assert json.loads(opened.read("tables/photo.jsonl").splitlines()[0])["jpeg"] == "photos/1.jpg"
        weighing = json.loads(opened.read("tables/weighing.jsonl").splitlines()[0])
        assert weighing["at_s"].endswith("Z")
        assert opened.read("tables/reading.csv").startswith(b"place_id,at_s,")


def test_no_secret_leaves(archive: Path, demo: Path) -> None:
    database = Database(demo)
    with database.engine.connect() as connection:
        secrets = [row[0] for row in connection.exec_driver_sql("SELECT token_sha256 FROM device")]
        secrets += [row[0] for row in connection.exec_driver_sql("SELECT passphrase_hash FROM person")]
    database.close()
    assert len(secrets) >= 2
    with zipfile.ZipFile(archive) as opened:
        everything = b"".join(opened.read(name) for name in opened.namelist() if name.startswith("tables/"))
    assert b"argon2" not in everything
    for secret in secrets:
        assert secret.encode() not in everything


def altered(archive: Path, target: Path, name: str, change) -> Path:
    with zipfile.ZipFile(archive) as opened, zipfile.ZipFile(target, "w") as out:
        for one in opened.namelist():
            data = opened.read(one)
            if one == name:
                data = change(data)
            if data is not None:
                out.writestr(one, data)
    return target


def changed_manifest(**values: object):
    return lambda data: json.dumps(json.loads(data) | values).encode()


@pytest.mark.parametrize(
    ("name", "change", "words"),
    [
        ("manifest.json", changed_manifest(format="zymon-archive/2"), "newer Zymon"),
        ("manifest.json", changed_manifest(edition="9999"), "newer Zymon"),
        ("manifest.json", lambda _data: b"{}", "no archive"),
        ("manifest.json", lambda _data: None, "no archive"),
        ("manifest.json", changed_manifest(photos=7), "photos was altered"),
        ("tables/weighing.jsonl", lambda data: data.replace(b'"gross_g":', b'"gross_g": ', 1), "altered"),
        ("tables/weighing.jsonl", lambda data: data[:-40], "altered"),
        ("tables/reading.csv", lambda _data: None, "damaged"),
        ("photos/1.jpg", lambda _data: None, "photos was altered"),
    ],
    ids=["newer", "newer tables", "empty", "no manifest", "photo", "changed", "cut", "a table gone", "photo gone"],
)
def test_what_is_not_as_it_was_written_is_refused_whole(
    archive: Path, tmp_path: Path, name: str, change, words: str
) -> None:
    bad = altered(archive, tmp_path / "bad.zip", name, change)
    with pytest.raises(ZymonError) as refused:
        read_archive(bad, tmp_path / "new.db", "bad.zip", NOW)
    assert words in told(refused.value)
    assert [p.name for p in tmp_path.iterdir()] == ["bad.zip"]


def told_otherwise(change):
    def changed(data: bytes) -> bytes:
        told_by = json.loads(data)
        change(told_by["tables"])
        return json.dumps(told_by).encode()

    return changed


@pytest.mark.parametrize(
    "change",
    [
        lambda tables: tables.pop("lot"),
        lambda tables: tables.update({"sign_in": tables["lot"]}),
        lambda tables: tables.update({'lot" --': tables["lot"]}),
        lambda tables: tables["person"]["columns"].update(passphrase_hash="text"),
        lambda tables: tables["lot"]["columns"].update(code="who knows"),
    ],
    ids=["a table fewer", "a table that lets in", "a name that ends a name", "a passphrase", "a kind of no kind"],
)
def test_an_archive_of_other_tables_lets_nobody_in(archive: Path, tmp_path: Path, change) -> None:
    bad = altered(archive, tmp_path / "bad.zip", "manifest.json", told_otherwise(change))
    with pytest.raises(ZymonError) as refused:
        read_archive(bad, tmp_path / "new.db", "bad.zip", NOW)
    assert "altered" in told(refused.value) or "damaged" in told(refused.value)
    assert [p.name for p in tmp_path.iterdir()] == ["bad.zip"]


def test_rubbish_and_bombs_are_refused(tmp_path: Path) -> None:
    (tmp_path / "text.zip").write_text("coppa")
    with zipfile.ZipFile(tmp_path / "bomb.zip", "w", zipfile.ZIP_DEFLATED) as bomb:
        told_by = {"format": "zymon-archive/1", "made": "2026-01-01T00:00:00Z", "zymon": "1", "edition": "0021"}
        bomb.writestr("manifest.json", json.dumps(told_by | {"tables": {}, "photos": 0}))
        bomb.writestr("tables/lot.jsonl", b"\n" * 30_000_000)
    for name in ("text.zip", "bomb.zip"):
        with pytest.raises(ZymonError):
            read_archive(tmp_path / name, tmp_path / "new.db", name, NOW)
    (tmp_path / "there.db").write_text("")
    with pytest.raises(ZymonError) as there:
        read_archive(tmp_path / "text.zip", tmp_path / "there.db", "x", NOW)
    assert "is there already" in told(there.value)


def test_an_archive_is_brought_into_an_empty_workshop_on_screen_and_into_no_other(
    archive: Path, client: TestClient
) -> None:
    sent = {"file": ("all.zip", archive.read_bytes(), "application/zip")}
    rubbish = client.post("/api/archive", files={"file": ("x.zip", b"no zip", "application/zip")})
    assert (rubbish.status_code, rubbish.json()["code"]) == (422, "file_unusable")
    assert client.get("/api/line").json()["workshop"] is None
    brought = client.post("/api/archive", files=sent)
    assert brought.status_code == 201, brought.text
    assert brought.json()["people"] == 1
    assert client.get("/api/line").status_code == 401  # people came back, and sign in
    client.app.state.context.door.forget()
    make_owner(client.app.state.context, "Ida", "another passphrase")
    client.post("/api/sign-in", json={"name": "Ida", "passphrase": "another passphrase"}).raise_for_status()
    assert client.get("/api/line").json()["workshop"]["name"] == "The Wheelhouse"
    assert client.get("/api/find", params={"words": "juniper"}).json()["found"]
    again = client.post("/api/archive", files=sent)
    assert (again.status_code, again.json()["code"]) == (409, "clash")
    taken = client.get("/api/archive.zip")
    assert taken.headers["content-type"] == "application/zip"
    with zipfile.ZipFile(io.BytesIO(taken.content)) as opened:
        told_again = Manifest.model_validate_json(opened.read("manifest.json"))
    assert told_again.tables["weighing"] == manifest(archive).tables["weighing"]


def test_the_dictionary_explains_every_column_and_nothing_else() -> None:
    page = dictionary_markdown(meant())  # a column without a meaning fails here
    names = {c.name for _, _, columns in meant() for c in columns}
    full = {f"{c.table}.{c.name}" for _, _, columns in meant() for c in columns}
    assert set(COLUMNS) <= names | full
    assert "| `gross_g` | decimal | g |" in page
    assert "| `ph` | decimal | pH |" in page
    assert file_of("reading") in page


def test_an_empty_workshop_has_an_archive_too(tmp_path: Path, empty_workshop: Path) -> None:
    write_archive(empty_workshop, tmp_path / "none.zip", NOW)
    read_archive(tmp_path / "none.zip", tmp_path / "none.db", "none.zip", NOW)
    write_archive(tmp_path / "none.db", tmp_path / "again.zip", NOW)
    assert manifest(tmp_path / "none.zip").tables == manifest(tmp_path / "again.zip").tables
