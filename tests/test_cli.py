"""The command line: what cannot be is said in a line, in the words of the settings."""

from pathlib import Path

import pytest
from typer.testing import CliRunner

from zymon.cli import app


@pytest.mark.parametrize(
    ("name", "value", "said"),
    [
        ("ZYMON_PORT", "99999", "ZYMON_PORT: Input should be less than or equal to 65535"),
        ("ZYMON_CERTIFICATE", "cellar.pem", "given together"),
        ("ZYMON_MAX_UPLOAD_MB", "much", "ZYMON_MAX_UPLOAD_MB: Input should be a valid integer"),
    ],
)
def test_a_setting_that_cannot_be_stops_the_server_before_it_starts(
    tmp_path: Path, name: str, value: str, said: str
) -> None:
    answer = CliRunner().invoke(app, ["serve", "--db", str(tmp_path / "w.db")], env={name: value})
    assert answer.exit_code == 1
    assert said in answer.stderr
    assert not (tmp_path / "w.db").exists()
