"""The shell: owners, copies, archives, and a server that does not start where it should not."""

import os
import re
import signal
import socket
import subprocess
import sys
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from typer.testing import CliRunner

from zymon.app import CannotServeError, check_open, listen
from zymon.cli import app
from zymon.settings import Settings
from zymon.store.database import Database
from zymon.words import told

RUN = CliRunner()
ZYMON = Path(sys.executable).with_name("zymon")
PASSPHRASE = "hay and juniper smoke"


def run(*words: object) -> tuple[int, str]:
    answer = RUN.invoke(app, [str(word) for word in words])
    return answer.exit_code, answer.output


def a_free_port() -> int:
    with socket.create_server(("127.0.0.1", 0)) as free:
        return int(free.getsockname()[1])


@contextmanager
def served(db: Path, *more: str) -> Iterator[str]:
    """A server in a process of its own; gives its address."""
    port = a_free_port()
    process = subprocess.Popen(
        [ZYMON, "serve", "--db", db, "--port", str(port), *more],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        text=True,
        env={**os.environ, "ZYMON_LOG_LEVEL": "ERROR"},
    )
    assert process.stdout is not None
    try:
        found = re.search(r"http://\S+?(?=/)", process.stdout.readline())
        assert found
        yield found[0]
    finally:
        process.send_signal(signal.SIGINT)
        process.wait(20)
        process.stdout.close()


def test_an_owner_is_made_and_given_another_passphrase(tmp_path: Path) -> None:
    db = tmp_path / "w.db"
    assert run("owner", "Ida", "--db", db, "--passphrase", "short")[1].startswith("a passphrase has 10 to 200")
    assert run("owner", "I\nda", "--db", db, "--passphrase", PASSPHRASE)[0] == 1
    assert run("owner", "Ida", "--db", db, "--passphrase", PASSPHRASE) == (0, "Ida is an owner now; sign in with it.\n")
    again = run("owner", "ida", "--db", db, "--passphrase", "another passphrase")
    assert again == (0, "ida has a new passphrase; sign in with it.\n")


def test_beyond_this_machine_nothing_is_served_without_an_owner_and_an_address(tmp_path: Path) -> None:
    settings = Settings(db=tmp_path / "w.db", host="0.0.0.0")

    class Shop:
        db = Database(tmp_path / "w.db")
        said_address: str | None = None

    for words, mended in (
        ("zymon owner NAME --db", lambda: run("owner", "Ida", "--db", settings.db, "--passphrase", PASSPHRASE)),
        ("--address http://", lambda: setattr(Shop, "said_address", "http://cellar:8420")),
    ):
        with pytest.raises(CannotServeError) as refused:
            check_open(settings, Shop)  # type: ignore[arg-type] # all that is asked of it
        assert words in told(refused.value)
        mended()
    check_open(settings, Shop)  # type: ignore[arg-type]
    code, said = run("serve", "--db", tmp_path / "new.db", "--host", "0.0.0.0", "--port", a_free_port())
    assert code == 1
    assert "anybody on the network could come in" in said


def test_a_busy_port_is_said_and_not_exchanged_for_another(tmp_path: Path) -> None:
    with socket.create_server(("127.0.0.1", 0)) as busy:
        port = busy.getsockname()[1]
        code, said = run("serve", "--db", tmp_path / "w.db", "--port", port)
        assert code == 1
        assert f"port {port} on 127.0.0.1 is in use" in said
        assert "--port" in said
    with listen(Settings(db=tmp_path / "w.db", port=port)) as free:
        assert free.getsockname()[1] == port


def test_a_workshop_is_copied_and_archived_while_it_is_served_and_put_back_only_after(tmp_path: Path) -> None:
    db = tmp_path / "w.db"
    with served(db) as address:
        assert run("serve", "--db", db, "--port", a_free_port())[1].endswith("stop that server first\n")
        request = urllib.request.Request(
            f"{address}/api/workshop",
            b'{"name": "The Wheelhouse", "time_zone": "Europe/Rome", "by": "Ida"}',
            {"Content-Type": "application/json"},
            method="PUT",
        )
        urllib.request.urlopen(request, timeout=20).close()
        code, said = run("backup", tmp_path / "copy.db", "--db", db)
        assert code == 0, said
        assert "looked through and whole" in said
        assert run("backup", tmp_path / "copy.db", "--db", db)[1].endswith("is there already: give another name\n")
        code, said = run("restore", tmp_path / "copy.db", "--db", db)
        assert (code, "is being served" in said) == (1, True)
        assert run("archive", tmp_path / "all.zip", "--db", db)[0] == 0
    code, said = run("restore", tmp_path / "copy.db", "--db", db)
    assert code == 0
    kept = re.search(r"kept as (\S+\.db)", said)
    assert kept
    assert Path(kept[1]).is_file()
    code, said = run("unarchive", tmp_path / "all.zip", "--db", tmp_path / "new.db")
    assert code == 0, said
    for file in (db, tmp_path / "new.db"):
        database = Database(file)
        with database.engine.connect() as connection:
            assert connection.exec_driver_sql("SELECT name FROM workshop").scalar() == "The Wheelhouse"
        database.close()


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (("backup", "c.db", "--db", "none.db"), "there is no file none.db"),
        (("restore", "none.db", "--db", "w.db"), "there is no file none.db"),
        (("restore", "text.db", "--db", "w.db"), "text.db is no workshop of Zymon"),
        (("archive", "a.zip", "--db", "none.db"), "there is no file none.db"),
        (("archive", "text.db", "--db", "none.db"), "is there already"),
        (("unarchive", "text.db", "--db", "w.db"), "the archive is damaged"),
        (("unarchive", "none.zip", "--db", "w.db"), "No such file"),
        (("serve", "--db", "text.db"), "text.db is no workshop of Zymon"),
        (("serve", "--db", "/proc/none/w.db"), "/proc/none"),
        (("serve", "--db", "w.db", "--address", "cellar"), "http://name:port"),
    ],
)
def test_what_cannot_be_is_said_in_a_line(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, words: tuple[str, ...], said: str
) -> None:
    monkeypatch.chdir(tmp_path)
    Path("text.db").write_text("coppa\n" * 300)
    code, output = run(*words, *(("--port", a_free_port()) if words[0] == "serve" else ()))
    assert code == 1
    assert said in output
    assert "Traceback" not in output
    assert not Path("w.db").exists()
