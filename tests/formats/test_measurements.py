"""Measurement files as loggers, phones and spreadsheets write them: what is plain is read, what is not is asked."""

import io
from datetime import UTC, datetime, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

import pytest
import xlsxwriter
from hypothesis import given
from hypothesis import strategies as st

from zymon.core.say import Said
from zymon.formats.measured.faults import CellError, MeasurementFileError
from zymon.formats.measured.heads import column_of
from zymon.formats.measured.numbers import number
from zymon.formats.measured.reading import HOPELESS_AFTER, Measurements, first_rows, read_measurements
from zymon.formats.measured.times import clock, orders
from zymon.formats.measured.understanding import Known
from zymon.formats.measured.writing import climate_csv, weights_csv
from zymon.words import sentence

ROME = ZoneInfo("Europe/Rome")
NOW = datetime(2026, 10, 3, tzinfo=UTC).timestamp()
KNOWN = Known(ROME, int(NOW), ("J-14-03", "J-14-04"))


def read(text: str | bytes, **answers: str) -> Measurements:
    data = text if isinstance(text, bytes) else text.encode()
    return read_measurements(data, KNOWN, answers)


def utc(*parts: int) -> int:
    return int(datetime(*parts, tzinfo=UTC).timestamp())


def asked(of: Measurements) -> list[str]:
    return [question.asked for question in of.understood.open]


def faults(of: Measurements) -> list[tuple[int, str]]:
    return [(e.line, sentence(e.text)) for e in of.errors]


def workbook(rows: list[list[object]], more: tuple[str, ...] = (), name: str = "Log") -> bytes:
    to = io.BytesIO()
    book = xlsxwriter.Workbook(to, {"in_memory": True})
    when = book.add_format({"num_format": "dd/mm/yyyy hh:mm"})
    for extra in more:
        book.add_worksheet(extra)
    sheet = book.add_worksheet(name)
    for r, row in enumerate(rows):
        for c, cell in enumerate(row):
            if isinstance(cell, datetime):
                sheet.write_datetime(r, c, cell, when)
            else:
                sheet.write(r, c, cell)
    book.close()
    return to.getvalue()


# -- one reading in many dresses: 10:00 UTC on 13 September 2026, 13.2 °C, 78.5 %

HERE = {"zone": "Europe/Rome"}


@pytest.mark.parametrize(
    ("text", "answers"),
    [
        ("at,temperature_c,rh_percent\n2026-09-13T10:00:00Z,13.2,78.5\n", {}),
        ("\ufeffTime;Temperature (°C);Humidity (%)\r\n13.09.2026 12:00;13,2;78,5\r\n", HERE),
        ("Data e ora\tTemperatura [°C]\tUmidità relativa\n13/9/2026 12:00\t13,2\t78,5\n", HERE),
        ("Datum;Uhrzeit;Temperatur °C;Rel. Feuchte %\n13.09.2026;12:00;13,2;78,5\n", HERE),
        ("horodatage;Température (°C);Humidité relative (%)\n2026-09-13T12:00:00+02:00;13,2;78,5\n", {}),
        ('fecha y hora;temperatura (C);humedad\n"13-09-2026 12:00:00";"13,2";"78,5 %"\n', HERE),
        ("time,temperature (°F),RH\n2026-09-13 12:00,55.76,78.5\n", HERE),
        ("Serial 4711\nInterval;10 min\n\nTime;Temp (°C);RH (%)\n13.09.2026 12:00;13,2;78,5\n", HERE),
        ("sep=;\nTime;Temp (°C);RH (%)\n13.09.2026 12:00;13,2;78,5\n", HERE),
        ("time|temp (K)|rh\n2026-09-13 12:00|286.35|78.5\n", HERE),
        ("timestamp,temp,rh\n1789293600,13.2 °C,78.5 %\n", {}),
        ("timestamp,temp,rh\n1789293600000,55.76 °F,78.5\n", {}),
        ("Date,Time,Temp (°C),RH\n9/13/26,12:00 PM,13.2,78.5\n", HERE),
        ("Date Time,Temp (°C),RH\n13-Sep-2026 12:00,13.2,78.5\n", HERE),
        ("Data;Temp (°C);UR\n13 settembre 2026 12:00;13,2;78,5\n", HERE),
        ("Time (UTC),Temp (°C),RH\n2026-09-13 10:00,13.2,78.5\n", {}),
        ("Time GMT+2,Temp (°C),RH\n2026-09-13 12:00,13.2,78.5\n", {}),
        ("Time,Temp (°C),Hum (%),Dew point (°C)\n2026-09-13 10:00 UTC,13.2,78.5,9.5\n", {}),
        ("Time,Temp (°C),RH\n2026-09-13 12:00,13.2,0.785\n", {**HERE, "unit_humidity": "share"}),
    ],
)
def test_the_same_reading_in_many_dresses(text: str, answers: dict) -> None:
    found = read(text, **answers)
    assert (found.kind, asked(found), faults(found)) == ("climate", [], [])
    ((at, c, rh),) = found.climate
    assert (at, round(c, 2), rh) == (utc(2026, 9, 13, 10), 13.2, 78.5)


@pytest.mark.parametrize("encoding", ["utf-8", "utf-16", "cp1252"])
def test_encodings_are_read_and_said(encoding: str) -> None:
    found = read("Zeit;Temperatur (°C);Feuchte\n13.09.2026 12:00;13,2;78\n".encode(encoding), **HERE)
    assert found.climate == [(utc(2026, 9, 13, 10), 13.2, 78.0)]
    assert found.understood.said[0].values["encoding"] == encoding.upper()


def test_a_workbook_is_read_its_first_sheet_or_the_one_chosen() -> None:
    rows = [["Data e ora", "Temperatura °C", "Umidità"], [datetime(2026, 9, 13, 12), 13.2, 78.5]]
    data = workbook(rows)
    assert asked(read(data)) == ["zone"]
    assert read(data, **HERE).climate == [(utc(2026, 9, 13, 10), 13.2, 78.5)]
    two = workbook(rows, more=("Notes",))
    with pytest.raises(MeasurementFileError, match="empty_sheet"):
        read(two)
    chosen = read(two, sheet="Log", **HERE)
    assert chosen.climate == [(utc(2026, 9, 13, 10), 13.2, 78.5)]
    with pytest.raises(MeasurementFileError, match="no_sheet"):
        read(two, sheet="Elsewhere")
    with pytest.raises(MeasurementFileError, match="no_workbook"):
        read(data[:300])


# -- what is not plain is asked, and read as it was answered


def test_no_day_above_twelve_and_the_order_is_asked() -> None:
    text = "Time,Temp (°C),RH\n03/09/2026 12:00,13.2,78\n04/09/2026 12:00,13.2,78\n"
    found = read(text, **HERE)
    assert asked(found) == ["order"]
    (question,) = found.understood.open
    assert question.choices == (("day", "2026-09-03"), ("month", "2026-03-09"))
    assert read(text, **HERE, order="day").climate[0][0] == utc(2026, 9, 3, 10)
    assert read(text, **HERE, order="month").climate[0][0] == utc(2026, 3, 9, 11)
    assert asked(read(text, **HERE, order="backwards")) == ["order"]  # no such answer: it stays open


def test_of_two_orders_the_one_without_a_day_to_come_is_offered_not_taken() -> None:
    found = read("Time,Temp (°C),RH\n11/09/2026 12:00,13.2,78\n", **HERE)
    assert [(q.asked, q.offered) for q in found.understood.open] == [("order", "day")]


def test_a_day_above_twelve_settles_the_order_whatever_was_answered_before() -> None:
    found = read("Time,Temp (°C),RH\n03/09/2026 12:00,13.2,78\n09/13/2026 12:00,13.2,78\n", **HERE, order="day")
    assert [at for at, _, _ in found.climate] == [utc(2026, 3, 9, 11), utc(2026, 9, 13, 10)]


def test_the_zone_is_asked_where_no_cell_tells_and_the_workshops_is_offered() -> None:
    text = "time,temperature_c,rh\n2026-09-13 12:00,13.2,78\n"
    found = read(text)
    assert [(q.asked, q.offered) for q in found.understood.open] == [("zone", "Europe/Rome")]
    assert read(text, zone="America/New_York").climate[0][0] == utc(2026, 9, 13, 16)
    with pytest.raises(MeasurementFileError, match="no_zone"):
        read(text, zone="Atlantis/North")


@pytest.mark.parametrize(
    ("text", "question"),
    [
        ("time,temp,rh\n2026-09-13T10:00Z,55.4,78\n", "unit_temperature"),
        ("time,Temp 1 (°C),Temp 2 (°C),rh\n2026-09-13T10:00Z,13,24,78\n", "temperature"),
        ("time,temp inside (°C),temp outside (°C),rh\n2026-09-13T10:00Z,13,24,78\n", "temperature"),
        ("time,temp (°C),RH 1,RH 2\n2026-09-13T10:00Z,13,78,60\n", "humidity"),
        ("time,recorded at,temp (°C),rh\n2026-09-13T10:00Z,2026-09-13T12:00Z,13,78\n", "at"),
        ("tag,time,weight\nJ-14-03,2026-09-13T10:00Z,795\n", "unit_weight"),
        ("tag,time,weight (g)\nJ-14-03,2026-09-13T10:00Z,1.750\n", "mark"),
        ("time,temp (°C),rh\n2026-09-13T10:00Z,13,0.78\n", "unit_humidity"),
    ],
)
def test_what_could_be_either_is_asked(text: str, question: str) -> None:
    found = read(text)
    assert asked(found) == [question]
    assert sentence(Said(f"asks.{question}", {"sample": "x"})).endswith(("?", ".")), "the question has words"


def test_an_answer_is_what_the_file_is_read_with() -> None:
    silent = "time,temp,rh\n2026-09-13T10:00Z,55.4,78\n"
    assert read(silent, unit_temperature="F").climate[0][1] == pytest.approx(13.0)
    two = "time,Temp 1 (°C),Temp 2 (°C),rh\n2026-09-13T10:00Z,13,24,78\n"
    assert [read(two, temperature=column).climate[0][1] for column in ("1", "2")] == [13.0, 24.0]
    grams = "tag,time,weight (g)\nJ-14-03,2026-09-13T10:00Z,1.750\n"
    assert [read(grams, mark=mark).weights[0].gross_g for mark in ("point", "comma")] == [1.75, 1750.0]
    bare = "tag,time,weight\nJ-14-03,2026-09-13T10:00Z,1.75\n"
    assert read(bare, unit_weight="kg").weights[0].gross_g == 1750.0
    assert read(bare, unit_weight="lb").weights[0].gross_g == pytest.approx(793.787)


def test_what_only_one_reading_allows_is_not_asked() -> None:
    hot = "time,temp,rh\n2026-09-13T10:00Z,61,78\n"  # 61 °C is no place for meat, 61 °F is
    assert (asked(read(hot)), round(read(hot).climate[0][1], 1)) == ([], 16.1)
    at_most = "time,temp,rh\n2026-09-13T10:00Z,60,78\n"
    assert asked(read(at_most)) == ["unit_temperature"]
    heavy = "tag,time,weight\nJ-14-03,2026-09-13T10:00Z,7100\n"  # in ounces over 200 kg
    assert (asked(read(heavy)), read(heavy).weights[0].gross_g) == ([], 7100.0)
    thousands = "time;temp (°C);rh\n2026-09-13T10:00Z;13,250;78,500\n"
    assert read(thousands).climate[0][1:] == (13.25, 78.5)
    plainly = "tag;time;weight (g)\nJ-14-03;2026-09-13T10:00Z;1.750\nJ-14-04;2026-09-13T10:00Z;795,5\n"
    assert [w.gross_g for w in read(plainly).weights] == [1750.0, 795.5]


def test_files_of_the_same_head_are_known_again_whatever_their_rows() -> None:
    one, other = (f"Time;Temp (°C);RH\n{day}.09.2026 12:00;13,2;78\n" for day in ("13", "14"))
    assert read(one).understood.head_key == read(other).understood.head_key
    assert read(one).understood.head_key != read(one.replace("RH", "Hum")).understood.head_key


# -- a cell that says another thing than its column lies, and is named


def test_a_cells_unit_is_read_and_one_that_contradicts_is_a_fault_of_its_line() -> None:
    found = read("time,temp,rh\n2026-09-13T10:00Z,55.4 °F,78\n2026-09-13T11:00Z,13 °C,78\n")
    assert [round(c, 1) for _, c, _ in found.climate] == [13.0, 13.0]
    found = read("time,temp (°C),rh\n2026-09-13T10:00Z,55.4 °F,78\n2026-09-13T11:00Z,13 °C,78\n")
    assert faults(found) == [(2, "55.4 °F: the column is °C, this cell says another unit")]
    found = read(
        "tag,time,weight\nJ-14-03,2026-09-13T10:00Z,1.75 kg\nJ-14-03,2026-09-14T10:00Z,3.8 lb\n"
        "J-14-03,2026-09-15T10:00Z,3 stone\n"
    )
    assert [w.gross_g for w in found.weights] == [1750.0, 1723.651]
    assert faults(found) == [(4, "a unit that is not known: 3 stone")]


def test_faults_are_named_by_line() -> None:
    found = read(
        "time,temperature (C),humidity\n"
        "2026-09-01T10:00Z,13,78\n2026-09-01T11:00Z,--,78\n2027-09-01T10:00Z,13,78\n"
        "2026-09-01T12:00Z,130,78\n2026-09-01T13:00Z,13,178\nyesterday,13,78\n2026-09-01T14:00Z\n1999-09-01T14:00Z,13,78\n"
    )
    assert faults(found) == [
        (3, "not a number: --"),
        (4, "time 2027-09-01T10:00Z lies in the future"),
        (5, "temperature 130 °C lies outside -40 to 60 °C: wrong unit or a broken sensor?"),
        (6, "humidity 178 % lies outside 0 to 100 %"),
        (7, "time yesterday cannot be read"),
        (8, "1 columns where 2 are needed"),
        (9, "time 1999-09-01T14:00Z lies before the year 2000"),
    ]
    assert len(found.climate) == 1


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "the file is empty"),
        (b"\n \n", "the file is empty"),
        (b"\x89PNG\x00\x00", "not a text file"),
        (b"\xff\xfex", "not a text file"),
        (b"name;colour\nred;blue\n", "line 1: a climate file has columns for time"),
        (b"time,weight (g)\n2026-09-13T10:00Z,795\n", "line 1: a climate file has columns for time"),
        (b"time,temperature_c,rh\n" + b"x,y,z\n" * 5000, "more than half of the first"),
    ],
)
def test_what_cannot_be_read_at_all(data: bytes, words: str) -> None:
    with pytest.raises(MeasurementFileError) as refused:
        read(data)
    assert words in sentence(refused.value.said)


def test_reading_on_ends_only_where_most_lines_are_wrong() -> None:
    good = "".join(
        f"{datetime(2026, 9, 1, tzinfo=UTC) + timedelta(minutes=i):%Y-%m-%dT%H:%MZ},13,78\n" for i in range(3000)
    )
    found = read("time,temperature_c,rh\n" + good + "x,y,z\n" * (HOPELESS_AFTER - 10))
    assert (len(found.climate), found.error_count, len(found.errors)) == (3000, HOPELESS_AFTER - 10, 50)


# -- clocks


def test_the_hour_that_comes_twice_in_autumn_and_the_one_missing_in_spring() -> None:
    twice = "".join(f"2025-10-26 {t},13,78\n" for t in ("01:30", "02:30", "02:30", "03:30"))
    times = [r[0] for r in read("time,temperature_c,rh\n" + twice, **HERE).climate]
    assert [b - a for a, b in pairwise(times)] == [3600, 3600, 3600]
    never = read("time,temperature_c,rh\n2026-03-29 02:30,13,78\n", **HERE)
    assert faults(never) == [(2, "2026-03-29 02:30 was no time in Europe/Rome: the clocks went forward over it")]


@pytest.mark.parametrize(
    ("cell", "hour"),
    [("13/09/2026 12:00 AM", 0), ("13/09/2026 12:00 pm", 12), ("13/09/2026 1:00 p.m.", 13), ("13/09/26 23:59", 23)],
)
def test_twelve_hour_clocks(cell: str, hour: int) -> None:
    at = datetime.fromtimestamp(clock(UTC, "day")(cell), UTC)
    assert (at.year, at.month, at.day, at.hour) == (2026, 9, 13, hour)


@pytest.mark.parametrize(
    "cell", ["13:00", "32/09/2026", "13/09/2026 13:00 PM", "2026-09-13 24:30", "13/09/20266", "nan"]
)
def test_no_moment_is_made_up(cell: str) -> None:
    with pytest.raises(CellError):
        clock(UTC, "day")(cell)


def test_a_day_without_a_time_is_noon_and_said() -> None:
    found = read("Cartellino;Data;Peso (kg)\nJ-14-03;13/09/2026;0,795\n", **HERE)
    assert found.weights[0].at_s == utc(2026, 9, 13, 10)
    assert "understood.noon" in [one.code for one in found.understood.said]


@given(st.datetimes(datetime(2000, 1, 2), datetime(2026, 10, 2)), st.sampled_from(["/", ".", "-"]))
def test_a_day_is_never_read_as_another_month(at: datetime, sign: str) -> None:
    """Where one order alone is possible it is the right one, else the right one is among those asked."""
    for order, shape in (("day", f"%d{sign}%m{sign}%Y"), ("month", f"%m{sign}%d{sign}%Y")):
        cell = at.strftime(f"{shape} %H:%M")
        possible = orders([cell])
        assert order in possible
        assert (len(possible) == 1) == (at.day > 12)
        assert clock(UTC, order)(cell) == at.replace(second=0, microsecond=0, tzinfo=UTC).timestamp()


@given(st.floats(0.001, 99_999.999, allow_nan=False), st.sampled_from(["point", "comma"]), st.booleans())
def test_a_number_is_read_back_in_either_mark_with_its_thousands(value: float, mark: str, grouped: bool) -> None:
    text = f"{value:,.3f}" if grouped else f"{value:.3f}"
    if mark == "comma":
        text = text.translate(str.maketrans(",.", ".,"))
    assert number(f"{text} g", mark) == (round(value, 3), "g")


# -- kinds of files


def test_a_thermometer_alone_and_gaps_in_humidity() -> None:
    found = read("time,temp (°C)\n2026-09-13T10:00Z,13.2\n")
    assert found.climate == [(utc(2026, 9, 13, 10), 13.2, None)]
    assert "understood.no_humidity" in [one.code for one in found.understood.said]
    found = read("time,temp (°C),rh\n2026-09-13T10:00Z,13.2,\n2026-09-13T11:00Z,13.2,78\n2026-09-13T12:00Z,13\n")
    assert [rh for _, _, rh in found.climate] == [None, 78.0, None]


def test_two_readings_at_one_time() -> None:
    head = "time,temperature_c,rh\n"
    assert read(head + "2026-09-01T10:00Z,13,78\n" * 2).repeated == 1
    found = read(head + "2026-09-01T10:00Z,13,78\n2026-09-01T10:00Z,14,78\n")
    assert faults(found) == [(0, "two different readings on Tue 1 Sep 2026 10:00: 13 °C 78 % and 14 °C 78 %")]


def test_weights_in_kilograms_and_back_again() -> None:
    found = read(
        "Cartellino;Data;Peso (kg)\nJ-14-03;16/09/2026 10:10;0,795\n;16/09/2026 10:10;1\nJ-14-04;16/09/2026;0\n"
        "J-14-04;16/09/2026;200,001\n",
        **HERE,
    )
    assert [(w.line, w.tag, w.at_s, w.gross_g) for w in found.weights] == [
        (2, "J-14-03", utc(2026, 9, 16, 8, 10), 795.0)
    ]
    assert faults(found) == [
        (3, "no tag"),
        (4, "a weight must be above 0 g and at most 200 kg, got 0 g"),
        (5, "a weight must be above 0 g and at most 200 kg, got 200001 g"),
    ]
    again = read(weights_csv([(w.tag, w.at_s, w.gross_g) for w in found.weights]))
    assert [(w.tag, w.at_s, w.gross_g) for w in again.weights] == [("J-14-03", utc(2026, 9, 16, 8, 10), 795.0)]


def test_a_table_with_a_column_for_each_tag() -> None:
    found = read("Date;J-14-03;j-14-04;note\n13/09/2026;795 g;0,81 kg;fine\n14/09/2026;790 g;;\n", **HERE)
    assert (found.kind, asked(found), faults(found)) == ("weights", [], [])
    assert [(w.line, w.tag, w.gross_g) for w in found.weights] == [
        (2, "J-14-03", 795.0),
        (2, "J-14-04", 810.0),
        (3, "J-14-03", 790.0),
    ]


def test_ph_with_meter_and_sample_temperature() -> None:
    found = read(
        "batch,at,ph,sample_temperature_c,meter\nJ-14,2026-09-13T10:00Z,5.12,21.5,Spear meter\n"
        "J-14,2026-09-13T14:00Z,15,,\n,2026-09-13T14:00Z,5.1,,\nJ-14,2026-09-13T15:00Z,5.05,,\n"
    )
    assert (found.kind, asked(found)) == ("ph", [])
    assert [(r.batch, r.ph, r.sample_temperature_c, r.meter) for r in found.ph] == [
        ("J-14", 5.12, 21.5, "Spear meter"),
        ("J-14", 5.05, None, ""),
    ]
    assert faults(found) == [(3, "pH 15 cannot be"), (4, "no batch")]


def test_the_first_rows_show_what_was_read_of_them() -> None:
    rows = first_rows(read("time,temp (°F),rh\n2026-09-13T10:00Z,55.4,78\nx,1,2\n"))
    assert [(line, values) for line, _, _, values in rows] == [(2, ("13.0 °C", "78 %")), (3, ())]
    weights = first_rows(read("Date;J-14-03\n13/09/2026;795 g\n", **HERE))
    assert weights[0][3] == ("J-14-03: 795 g",)


def test_climate_goes_out_as_it_comes_in() -> None:
    rows = [(utc(2026, 9, 1, h), 13.25, 78.5 if h else None) for h in range(5)]
    assert read("".join(climate_csv(rows))).climate == rows


@pytest.mark.parametrize(
    ("head", "holds"),
    [
        ("Umidità relativa (%)", ("humidity", "%")),
        ("Temp_1_°F", ("temperature", "F")),
        ("Temperatura interna [C]", ("temperature", "C")),
        ("gross_g", ("weight", "g")),
        ("pH-Wert", ("ph", "")),
        ("Taupunkt (°C)", None),
        ("Battery (%)", None),
        ("", None),
    ],
)
def test_what_a_head_says(head: str, holds: tuple[str, str] | None) -> None:
    found = column_of(head)
    assert (None if found is None else (found.holds, found.unit)) == holds
