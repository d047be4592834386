"""The made-up workshop, built once for the whole run by whichever worker comes first, and copied to the others."""

import shutil
import sqlite3
import time
from contextlib import closing
from pathlib import Path

import pytest

from zymon.demo.build import build

LONG_ENOUGH_S = 300
WEEKS_LEFT_S = 5 * 7 * 86_400


def _shared(tmp_path_factory: pytest.TempPathFactory) -> Path:
    root = tmp_path_factory.getbasetemp()
    return (root.parent if root.name.startswith("popen-") else root) / "demo-of-the-run"


def begun_at(tmp_path_factory: pytest.TempPathFactory) -> int:
    """The moment the demo was made for [s]; it has to be there."""
    return int((_shared(tmp_path_factory) / "now").read_text())


def copy_of_the_demo(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A file of one's own with the demo as of the run's beginning: made by whichever worker comes first."""
    shared = _shared(tmp_path_factory)
    made, begun = shared / "demo.db", shared / "begun"
    shared.mkdir(exist_ok=True)
    try:
        begun.touch(exist_ok=False)
    except FileExistsError:
        until = time.monotonic() + LONG_ENOUGH_S
        while not made.exists() and time.monotonic() < until:
            time.sleep(0.2)
    else:
        file = shared / "in-the-making.db"
        now = int(time.time())
        build(file, now)
        (shared / "now").write_text(str(now))
        with closing(sqlite3.connect(file)) as whole:
            whole.execute("PRAGMA wal_checkpoint(TRUNCATE)")  # the file alone holds everything
        file.rename(made)
    own = tmp_path_factory.mktemp("demo") / "demo.db"
    shutil.copy(made, own)
    return own


def forget_old_air(file: Path) -> None:
    """Leave the last weeks of readings, one an hour: enough for whatever counts on neither the year nor the minute."""
    with closing(sqlite3.connect(file)) as open_file, open_file:
        (last_s,) = open_file.execute("SELECT max(at_s) FROM reading").fetchone()
        open_file.execute("DELETE FROM reading WHERE at_s % 3600 >= 60 OR at_s < ?", (last_s - WEEKS_LEFT_S,))
        open_file.execute("DELETE FROM reading_hour WHERE hour_s < ?", (last_s - WEEKS_LEFT_S,))
