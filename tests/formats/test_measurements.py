"""Measurement files as loggers and spreadsheets write them."""

from datetime import UTC, datetime
from itertools import pairwise
from zoneinfo import ZoneInfo

import pytest

from zymon.formats.cells import MeasurementFileError
from zymon.formats.measurements import climate_csv, read_measurements, weights_csv

ROME = ZoneInfo("Europe/Rome")
NOW = datetime(2026, 10, 3, tzinfo=UTC).timestamp()


def read(text: str | bytes, **more):
    data = text if isinstance(text, bytes) else text.encode()
    return read_measurements(data, ROME, int(NOW), **more)


def utc(*parts: int) -> int:
    return int(datetime(*parts, tzinfo=UTC).timestamp())


@pytest.mark.parametrize(
    "text",
    [
        "at,temperature_c,rh_percent\n2026-09-01T10:00:00Z,13.2,78.5\n",
        "\ufeffTime;Temperature (°C);Humidity (%)\r\n01.09.2026 12:00;13,2;78,5\r\n",
        "Data ora\tTemperatura [°C]\tUmidità\n1/9/2026 12:00\t13,2\t78,5\n",
        "Datum;Uhrzeit;Temperatur °C;Rel. Feuchte %\n01.09.2026;12:00;13,2;78,5\n",
        "horodatage;Température (°C);Humidité relative (%)\n2026-09-01T12:00:00+02:00;13,2;78,5\n",
        'fecha;temperatura (C);humedad\n"01-09-2026 12:00:00";"13,2";"78,5 %"\n',
        "time,temperature (°F),RH\n2026-09-01 12:00,55.76,78.5\n",
    ],
)
def test_the_same_reading_in_many_dresses(text: str) -> None:
    found = read(text)
    assert found.kind == "climate"
    assert not found.error_count
    ((at, c, rh),) = found.climate
    assert (at, round(c, 2), rh) == (utc(2026, 9, 1, 10), 13.2, 78.5)


def test_latin_1_and_an_untold_unit_are_said() -> None:
    found = read("Zeit;Temperatur;Feuchte\n01.09.2026 12:00;55,8;78\n".encode("latin-1") + "# é".encode("latin-1"))
    assert found.asks == ["temperature_unit"]
    assert found.understood["encoding"] == "Latin-1"
    assert read("Zeit;Temperatur;Feuchte\n01.09.2026 12:00;55,4;78\n", temperature_unit="F").climate[0][
        1
    ] == pytest.approx(13)


def test_the_hour_that_comes_twice_in_autumn() -> None:
    found = read(
        "time,temperature_c,rh\n" + "".join(f"2025-10-26 {t},13,78\n" for t in ("01:30", "02:30", "02:30", "03:30"))
    )
    times = [r[0] for r in found.climate]
    assert [b - a for a, b in pairwise(times)] == [3600, 3600, 3600]


def test_faults_are_named_by_line() -> None:
    found = read(
        "time,temperature (C),humidity\n"
        "2026-09-01T10:00Z,13,78\n2026-09-01T11:00Z,--,78\n2027-09-01T10:00Z,13,78\n"
        "2026-09-01T12:00Z,130,78\n2026-09-01T13:00Z,13,178\nyesterday,13,78\n2026-09-01T14:00Z,13\n"
    )
    assert [(e.line, e.text) for e in found.errors] == [
        (3, "not a number: 2026-09-01T11:00Z / -- / 78"),
        (4, "time 2027-09-01T10:00Z lies in the future"),
        (5, "temperature 130.0 °C lies outside −40 to 60 °C: wrong unit or a broken sensor?"),
        (6, "humidity 178 lies outside 0 to 100 %"),
        (7, "time 'yesterday' is neither ISO 8601 nor day-first"),
        (8, "2 columns where 3 are needed"),
    ]
    assert len(found.climate) == 1


def test_two_readings_at_one_time() -> None:
    head = "time,temperature_c,rh\n"
    assert read(head + "2026-09-01T10:00Z,13,78\n" * 2).repeated == 1
    assert "two different readings" in read(head + "2026-09-01T10:00Z,13,78\n2026-09-01T10:00Z,14,78\n").errors[0].text


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "the file is empty"),
        (b"\x89PNG\x00\x00", "not a text file"),
        (b"name;colour\nred;blue\n", "line 1: a climate file has columns for time"),
        (b"time,temperature_c,rh\n" + b"x,y,z\n" * 5000, "more than half of the first"),
    ],
)
def test_what_cannot_be_read_at_all(data: bytes, words: str) -> None:
    with pytest.raises(MeasurementFileError, match=words):
        read(data)


def test_weights_in_kilograms_and_back_again() -> None:
    found = read(
        "Cartellino;Data;Peso (kg)\nJ-14-03;06/09/2026 10:10;0,795\n;06/09/2026 10:10;1\nJ-14-04;06/09/2026;0\n"
    )
    assert found.weights == [(2, "J-14-03", utc(2026, 9, 6, 8, 10), 795.0)]
    assert [e.text for e in found.errors] == ["no tag", "weight must be above 0 g and below 200 kg, got 0 g"]
    again = read(weights_csv([(tag, at, g) for _, tag, at, g in found.weights]))
    assert [w[1:] for w in again.weights] == [w[1:] for w in found.weights]
    rows = [(utc(2026, 9, 1, h), 13.25, 78.5) for h in range(5)]
    assert read("".join(climate_csv(rows))).climate == rows
