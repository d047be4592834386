"""Copies of the record: taken under load, looked through, put back; and what is said where none can be."""

import sqlite3
import threading
import time
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import event
from sqlalchemy.exc import OperationalError

from built import built_once
from support import Clock, piece_body
from zymon.core.errors import ZymonError
from zymon.store.copies import (
    CopyError,
    editions,
    look_through,
    nightly_copies,
    put_back,
    revision_of,
    serving,
    take_copy,
)
from zymon.store.database import Database, trouble_of
from zymon.words import told
from zymon.work.house.copies import Nightly


def said(error: pytest.ExceptionInfo[ZymonError]) -> str:
    return told(error.value)


def weights(file: Path) -> list[float]:
    with sqlite3.connect(file) as connection:
        return [row[0] for row in connection.execute("SELECT gross_g FROM weighing ORDER BY id")]


@built_once
def piece(client: TestClient, clock: Clock, chamber: dict) -> int:
    hung = client.post("/api/pieces", json=piece_body(chamber))
    hung.raise_for_status()
    return hung.json()["card"]["id"]


def weigh(client: TestClient, piece: int, gross_g: float) -> None:
    client.post(
        f"/api/pieces/{piece}/weighings", json={"gross_g": gross_g, "by": "Ida", "sure": True}
    ).raise_for_status()


def test_a_copy_holds_what_was_entered_a_moment_ago(client: TestClient, piece: int, tmp_path: Path) -> None:
    for i in range(18):
        weigh(client, piece, 840.0 - i)
    counts = take_copy(tmp_path / "workshop.db", tmp_path / "copies" / "one.db")
    assert counts["weighing"] == 18
    assert weights(tmp_path / "copies" / "one.db") == [840.0 - i for i in range(18)]
    assert sorted(p.name for p in (tmp_path / "copies").iterdir()) == ["one.db"]  # one file, complete in itself


def test_a_copy_taken_while_others_enter_is_of_one_moment(client: TestClient, piece: int, tmp_path: Path) -> None:
    stop = threading.Event()
    entered = []

    def enter() -> None:
        while not stop.is_set():
            weigh(client, piece, 840.0 - len(entered) / 10)
            entered.append(len(entered))

    writer = threading.Thread(target=enter)
    writer.start()
    try:
        for n in range(5):
            before = len(entered)
            counts = take_copy(tmp_path / "workshop.db", tmp_path / f"copy-{n}.db")
            assert before <= counts["weighing"] <= len(entered) + 1
            kept = weights(tmp_path / f"copy-{n}.db")
            assert kept == [840.0 - i / 10 for i in range(counts["weighing"])]  # none is missing in between
            time.sleep(0.05)
    finally:
        stop.set()
        writer.join(30)
    assert entered


def test_what_is_no_copy_is_told_and_nothing_is_left_of_it(tmp_path: Path, empty_workshop: Path) -> None:
    with pytest.raises(CopyError) as missing:
        look_through(tmp_path / "nothing.db")
    assert "there is no file" in said(missing)
    (tmp_path / "text.db").write_text("coppa\n" * 200)
    with pytest.raises(CopyError) as text:
        look_through(tmp_path / "text.db")
    assert "no workshop" in said(text)
    sqlite3.connect(tmp_path / "other.db").execute("CREATE TABLE sausages (id)").connection.close()
    with pytest.raises(CopyError) as other:
        look_through(tmp_path / "other.db")
    assert "no workshop" in said(other)
    whole = empty_workshop.read_bytes()
    (tmp_path / "cut.db").write_bytes(whole[: len(whole) // 2])
    with pytest.raises(CopyError):
        look_through(tmp_path / "cut.db")
    with pytest.raises(CopyError):
        take_copy(tmp_path / "cut.db", tmp_path / "copy.db")
    assert not list(tmp_path.glob("copy.db*"))


def test_a_full_disk_takes_no_copy_and_says_so(tmp_path: Path, empty_workshop: Path) -> None:
    with pytest.raises(CopyError) as full:
        take_copy(empty_workshop, Path("/dev/full/copy.db"))
    assert "/dev/full" in said(full)
    assert empty_workshop.exists()


def test_a_copy_is_put_back_and_what_was_there_is_kept(client: TestClient, piece: int, tmp_path: Path) -> None:
    db, copy = tmp_path / "workshop.db", tmp_path / "good.db"
    weigh(client, piece, 800)
    take_copy(db, copy)
    weigh(client, piece, 790)
    client.app.state.context.db.close()
    counts, aside = put_back(copy, db, 1_800_000_000)
    assert counts["weighing"] == 1
    assert weights(db) == [800]
    assert aside is not None
    assert weights(aside) == [800, 790]
    with pytest.raises(CopyError) as itself:
        put_back(db, db, 1_800_000_000)
    assert "itself" in said(itself)


def test_a_damaged_file_is_replaced_and_kept_as_it_is(tmp_path: Path, empty_workshop: Path) -> None:
    db = tmp_path / "w.db"
    db.write_bytes(b"SQLite format 3\0 and then nothing good" * 50)
    _, aside = put_back(empty_workshop, db, 1_800_000_000)
    assert aside is not None
    assert b"nothing good" in aside.read_bytes()
    assert look_through(db)


def test_nothing_is_put_back_over_a_running_server(tmp_path: Path, empty_workshop: Path) -> None:
    db = tmp_path / "w.db"
    take_copy(empty_workshop, db)
    with serving(db), pytest.raises(CopyError) as served:
        put_back(empty_workshop, db, 1_800_000_000)
    assert "being served" in said(served)
    with serving(db), pytest.raises(CopyError), serving(db):
        pass
    put_back(empty_workshop, db, 1_800_000_000)  # once the server stopped


def test_a_file_of_a_newer_program_is_neither_opened_nor_put_back(tmp_path: Path, empty_workshop: Path) -> None:
    newer = tmp_path / "newer.db"
    take_copy(empty_workshop, newer)
    with sqlite3.connect(newer) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
    connection.close()
    for use in (lambda: Database(newer), lambda: put_back(newer, tmp_path / "w.db", 1_800_000_000)):
        with pytest.raises(CopyError) as refused:
            use()
        assert "newer Zymon" in said(refused)
    assert not (tmp_path / "w.db").exists()


def test_before_the_tables_change_a_copy_is_taken(tmp_path: Path) -> None:
    old = tmp_path / "w.db"
    Database(old, edition="0020").close()
    assert revision_of(old) == "0020"
    Database(old).close()
    kept = tmp_path / "w-backups" / "w-tables-0020.db"
    assert revision_of(kept) == "0020"
    assert revision_of(old) == editions()[0]
    taken = kept.stat().st_mtime_ns
    Database(old).close()  # once is enough
    assert kept.stat().st_mtime_ns == taken


def test_the_nightly_copies_come_by_themselves_and_today_says_when_they_do_not(
    client: TestClient, piece: int, clock: Clock, tmp_path: Path
) -> None:
    ctx = client.app.state.context
    ctx.copies = nightly = Nightly(ctx, tmp_path / "copies")
    clock.now -= clock.now % 86_400  # midnight in Greenwich, two in the morning in Rome
    begun = clock.now
    for _ in range(24 * 3 + 1):
        nightly.look()
        clock.now += 3600
    days = [(at_s - begun) / 3600 for at_s in nightly_copies(tmp_path / "copies", ctx.db.file)]
    assert days == [1, 25, 49]  # at three each night; the one taken at once gave way to the next of its day
    assert client.get("/api/copies").json()["old"] is False
    assert "copies" not in [line["id"] for line in client.get("/api/today").json()["due"]]
    nightly.folder = tmp_path / "workshop.db" / "no-folder"  # the disk for them is gone
    assert nightly.take() is False
    assert client.post("/api/copies").status_code == 503
    clock.now += 3 * 86_400
    line = next(line for line in client.get("/api/today").json()["due"] if line["id"] == "copies")
    assert line["title"]["code"] == "today.no_copy"
    assert line["link"] == "/house/copies"
    assert client.get("/api/copies").json()["failed"]
    nightly.folder = tmp_path / "copies"
    assert client.post("/api/copies").status_code == 201
    assert client.get("/api/copies").json()["old"] is False


def test_a_full_disk_keeps_nothing_by_half_and_says_so_until_it_is_mended(client: TestClient, piece: int) -> None:
    weigh(client, piece, 800)
    ctx = client.app.state.context

    def full(_connection: object, _cursor: object, statement: str, *_rest: object) -> None:
        if statement.startswith("INSERT INTO weighing"):
            raise OperationalError(statement, {}, sqlite3.OperationalError("database or disk is full"))

    event.listen(ctx.db.engine, "before_cursor_execute", full)
    refused = client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 790, "by": "Ida", "sure": True})
    event.remove(ctx.db.engine, "before_cursor_execute", full)
    assert (refused.status_code, refused.json()["code"]) == (507, "disk_full")
    assert "what was entered before is safe" in refused.json()["detail"]
    assert client.get("/api/line").json()["trouble"] == "disk_full"
    assert len(client.get(f"/api/pieces/{piece}").json()["weighings"]) == 1
    weigh(client, piece, 780)
    assert client.get("/api/line").json()["trouble"] is None


@pytest.mark.parametrize(
    ("text", "trouble"),
    [
        ("database or disk is full", "disk_full"),
        ("attempt to write a readonly database", "read_only"),
        ("database is locked", "busy"),
        ("no such column: ham", None),
    ],
)
def test_what_the_disk_refuses_is_told_apart_from_our_own_faults(text: str, trouble: str | None) -> None:
    assert trouble_of(OperationalError("", {}, sqlite3.OperationalError(text))) == trouble


def test_a_file_that_cannot_be_written_says_so(client: TestClient, piece: int) -> None:
    engine = client.app.state.context.db.engine
    with engine.connect() as connection:
        connection.exec_driver_sql("PRAGMA query_only = ON")  # as a file without rights does
    refused = client.post(f"/api/pieces/{piece}/weighings", json={"gross_g": 790, "by": "Ida", "sure": True})
    engine.dispose()
    assert (refused.status_code, refused.json()["code"]) == (503, "read_only")
