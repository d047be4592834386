"""Where the record lies unless somebody says: with the user's data, or where it has lain."""

from pathlib import Path

import pytest

from zymon.settings import Settings, usual_file


@pytest.fixture
def elsewhere(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.chdir(tmp_path)
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    monkeypatch.delenv("ZYMON_DB", raising=False)
    return tmp_path


def test_a_new_record_lies_with_the_users_data(elsewhere: Path) -> None:
    assert Settings().db == elsewhere / "data" / "zymon" / "zymon.db"
    assert usual_file("demo.db") == elsewhere / "data" / "zymon" / "demo.db"


def test_a_record_that_lies_in_var_already_stays_there_and_no_other_follows_it(elsewhere: Path) -> None:
    (elsewhere / "var").mkdir()
    (elsewhere / "var" / "zymon.db").touch()
    assert Settings().db == Path("var/zymon.db")
    assert usual_file("demo.db").is_absolute()


def test_what_is_said_goes_before_both(elsewhere: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("ZYMON_DB", str(elsewhere / "mine.db"))
    assert Settings().db == elsewhere / "mine.db"
