"""Climate readings: set-wise inserts, hourly roll-ups, and series with as many points as a chart has pixels."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from sqlalchemy import CursorResult, TextClause, select, text
from sqlalchemy import Row as RowOfQuery
from sqlalchemy.orm import Session

from zymon.core.drying.climate import Log
from zymon.core.errors import OutOfRangeError
from zymon.core.house.thinning import SPAN_S
from zymon.core.place_fit import SHIFT_LOOK_S, Shift, shift

from .journal import AIR_CHANGED
from .models import ReadingHour, ReadingStrike
from .places import place, there, touch
from .struck import strike

Array = npt.NDArray[np.float64]
HOUR_S = 3600
ROWS_PER_INSERT = 400
Row = tuple[int, float, float | None]  # at [s], temperature [°C], humidity [%] where it was measured
Span = RowOfQuery[tuple[int, float, float, float, float | None, float | None, float | None]]

# Readings with what each stands for where it is the mean of several, and their means and extremes over a group of them
READINGS = "reading r LEFT JOIN thinned_reading t ON t.place_id = r.place_id AND t.at_s = r.at_s AND t.strike_id = 0"
MEANS = """
    sum(coalesce(t.readings, 1)) AS readings,
    sum(r.temperature_c * coalesce(t.readings, 1)) / sum(coalesce(t.readings, 1)) AS temperature_c,
    min(coalesce(t.temperature_min_c, r.temperature_c)) AS temperature_min_c,
    max(coalesce(t.temperature_max_c, r.temperature_c)) AS temperature_max_c,
    sum(r.rh_percent * coalesce(t.readings, 1))
      / sum(CASE WHEN r.rh_percent IS NOT NULL THEN coalesce(t.readings, 1) END) AS rh_percent,
    min(coalesce(t.rh_min_percent, r.rh_percent)) AS rh_min_percent,
    max(coalesce(t.rh_max_percent, r.rh_percent)) AS rh_max_percent
"""
_ROLL_UP = text(
    f"""
    INSERT OR REPLACE INTO reading_hour
      (place_id, hour_s, readings, temperature_c, temperature_min_c, temperature_max_c,
       rh_percent, rh_min_percent, rh_max_percent)
    SELECT r.place_id, r.at_s / 3600 * 3600, {MEANS}
    FROM {READINGS} WHERE r.place_id = :place AND r.at_s >= :low AND r.at_s < :high
    GROUP BY 2
    """
)


@dataclass(frozen=True)
class Source:
    """Where readings came from: a file or a device; neither where somebody typed them."""

    import_id: int | None = None
    device_id: int | None = None


def add_readings(session: Session, place_id: int, rows: Sequence[Row], source: Source) -> None:
    """Store readings that are new at this place, and roll their hours up again.

    Parameters: rows of (at [s], temperature [°C], humidity [%] or None), no time of which is stored yet; source.
    """
    if not rows:
        return
    raw = session.connection().connection.cursor()
    # many rows a statement: three times as fast as one row each, and a million of them is usual
    for start in range(0, len(rows), ROWS_PER_INSERT):
        part = rows[start : start + ROWS_PER_INSERT]
        values = ", ".join(["(?, ?, ?, ?, ?, ?)"] * len(part))
        raw.execute(
            f"INSERT INTO reading (place_id, at_s, temperature_c, rh_percent, import_id, device_id) VALUES {values}",
            [v for at, c, rh in part for v in (place_id, at, c, rh, source.import_id, source.device_id)],
        )
    _roll_up(session, place_id, min(r[0] for r in rows), max(r[0] for r in rows))


def _roll_up(session: Session, place_id: int, from_s: int, to_s: int) -> None:
    """Work the hours between two times out anew; an hour without a reading is none."""
    span = {"place": place_id, "low": from_s // HOUR_S * HOUR_S, "high": to_s // HOUR_S * HOUR_S + HOUR_S}
    session.execute(
        text("DELETE FROM reading_hour WHERE place_id = :place AND hour_s >= :low AND hour_s < :high"), span
    )
    session.execute(_ROLL_UP, span)
    touch(place(session, place_id))
    session.info.setdefault(AIR_CHANGED, []).append((place_id, from_s, to_s))


_MOVE = "strike_id, at_s, temperature_c, rh_percent, import_id, device_id"


def strike_readings(session: Session, new: ReadingStrike) -> ReadingStrike:
    """Take a stretch of a log, or what one file brought, out of the count. Raises OutOfRangeError where nothing is.

    The readings are kept beside the log with the strike's id, so that others may take their place in it.
    """
    place(session, new.place_id)
    session.add(new)
    session.flush()
    span: dict[str, int | None] = {
        "strike": new.id,
        "place": new.place_id,
        "low": new.from_s,
        "high": new.to_s,
        "file": new.import_id,
    }
    where = "place_id = :place AND at_s BETWEEN :low AND :high AND (:file IS NULL OR import_id = :file)"
    moved = _changed(
        session,
        text(
            f"INSERT INTO struck_reading ({_MOVE}) SELECT :strike, at_s, temperature_c, rh_percent, import_id,"
            f" device_id FROM reading WHERE {where}"
        ),
        span,
    )
    new.readings = moved
    if not new.readings:
        raise OutOfRangeError("refused.no_reading_in_stretch")
    session.execute(text(f"DELETE FROM reading WHERE {where}"), span)
    session.execute(
        text(
            "UPDATE thinned_reading SET strike_id = :strike WHERE place_id = :place AND strike_id = 0 AND at_s IN"
            " (SELECT at_s FROM struck_reading WHERE strike_id = :strike)"
        ),
        span,
    )
    _roll_up(session, new.place_id, new.from_s, new.to_s)
    session.flush()
    return new


def _changed(session: Session, statement: TextClause, values: dict[str, int | None]) -> int:
    """Run a statement over many rows; how many there were."""
    found = session.execute(statement, values)
    assert isinstance(found, CursorResult)
    return found.rowcount


def restore_readings(session: Session, reading_strike: ReadingStrike, reason: str, by: str, now_s: int) -> int:
    """Bring a struck stretch back; how many readings came. Where another took its place since, that one stays.

    Raises ClashError when it is brought back already.
    """
    strike(reading_strike, reason, by, now_s)
    span: dict[str, int | None] = {"strike": reading_strike.id, "place": reading_strike.place_id}
    session.execute(
        text(
            "UPDATE thinned_reading SET strike_id = 0 WHERE place_id = :place AND strike_id = :strike AND at_s NOT IN"
            " (SELECT at_s FROM reading WHERE place_id = :place AND at_s BETWEEN :low AND :high)"
        ),
        {**span, "low": reading_strike.from_s, "high": reading_strike.to_s},
    )
    came = _changed(
        session,
        text(
            "INSERT OR IGNORE INTO reading (place_id, at_s, temperature_c, rh_percent, import_id, device_id)"
            " SELECT :place, at_s, temperature_c, rh_percent, import_id, device_id FROM struck_reading"
            " WHERE strike_id = :strike"
        ),
        span,
    )
    _roll_up(session, reading_strike.place_id, reading_strike.from_s, reading_strike.to_s)
    session.flush()
    return came


def reading_strikes(session: Session, place_id: int) -> list[ReadingStrike]:
    """The strikes of a place's log, the latest first, those brought back too."""
    query = select(ReadingStrike).where(ReadingStrike.place_id == place_id).order_by(ReadingStrike.id.desc())
    return list(session.scalars(query))


def reading_strike(session: Session, strike_id: int) -> ReadingStrike:
    """One strike. Raises NotFoundError."""
    return there(session, ReadingStrike, strike_id, "refused.stretch_not_struck")


@dataclass(frozen=True)
class Provenance:
    """Readings of a place that came by one way: how many, from when to when [s]."""

    source: Source
    readings: int
    from_s: int
    to_s: int


def provenance(session: Session, place_id: int, from_s: int, to_s: int) -> list[Provenance]:
    """Where the readings of a place between two times came from."""
    rows = session.execute(
        text(
            "SELECT import_id, device_id, count(*), min(at_s), max(at_s) FROM reading"
            " WHERE place_id = :p AND at_s BETWEEN :a AND :b GROUP BY 1, 2 ORDER BY 4"
        ),
        {"p": place_id, "a": from_s, "b": to_s},
    )
    return [Provenance(Source(file, device), many, low, high) for file, device, many, low, high in rows]


def stored_readings(session: Session, place_id: int, low_s: int, high_s: int) -> dict[int, tuple[float, float | None]]:
    """What is stored between two times, inclusive, by time."""
    found = session.execute(
        text("SELECT at_s, temperature_c, rh_percent FROM reading WHERE place_id = :p AND at_s BETWEEN :a AND :b"),
        {"p": place_id, "a": low_s, "b": high_s},
    )
    return {at: (c, rh) for at, c, rh in found}


def thinned_spans(session: Session, place_id: int, low_s: int, high_s: int) -> set[int]:
    """The spans between two times of which only a mean is left, each by its number since 1970: a reading of one of
    them that comes once more is in it already."""
    found = session.execute(
        text(
            "SELECT at_s / :span FROM thinned_reading"
            " WHERE place_id = :p AND at_s BETWEEN :a / :span * :span AND :b AND strike_id = 0"
        ),
        {"p": place_id, "a": low_s, "b": high_s, "span": SPAN_S},
    )
    return {span for (span,) in found}


_BINNED = text(
    """
    SELECT min(at_s) / 2.0 + max(at_s) / 2.0, avg(temperature_c) FROM reading
    WHERE place_id = :place AND at_s BETWEEN :low AND :high GROUP BY at_s / :bin ORDER BY 1
    """
)


def binned_temperature(session: Session, place_id: int, low_s: int, high_s: int, bin_s: int) -> tuple[Array, Array]:
    """Temperature of a place between two times in means of `bin_s`: moments [s] and values [°C]."""
    rows = session.execute(_BINNED, {"place": place_id, "low": low_s, "high": high_s, "bin": bin_s}).all()
    table = np.array([tuple(row) for row in rows], dtype=np.float64).reshape(-1, 2)
    return table[:, 0], table[:, 1]


def hourly_log(session: Session, place_id: int, low_s: int, high_s: int, whole_hours: bool = False) -> Log:
    """The hourly means of a place as the forecast's log, each at the middle of its hour but never after `high_s`.

    Of the last hour only the readings up to `high_s` count, so that looking back uses nothing that came later;
    `whole_hours` takes it as it was rolled up, which is the same while `high_s` is now, and reads no single reading.
    """
    last_hour_s = high_s // HOUR_S * HOUR_S + (HOUR_S if whole_hours else 0)
    rows = session.execute(
        select(ReadingHour.hour_s, ReadingHour.temperature_c, ReadingHour.rh_percent)
        .where(ReadingHour.place_id == place_id, ReadingHour.hour_s.between(low_s - HOUR_S, last_hour_s - 1))
        .order_by(ReadingHour.hour_s)
    ).all()
    begun = [] if whole_hours else list(stored_readings(session, place_id, last_hour_s, high_s).values())
    table = np.array([tuple(r) for r in rows], dtype=np.float64).reshape(-1, 3)
    if begun:
        c, rh = np.array(begun, dtype=np.float64).T
        table = np.vstack(
            [table, [last_hour_s, c.mean(), rh[np.isfinite(rh)].mean() if np.isfinite(rh).any() else np.nan]]
        )
    return Log(np.minimum(table[:, 0] + HOUR_S / 2, high_s), table[:, 1], table[:, 2])


def air_shift(session: Session, place_id: int, now_s: int) -> Shift | None:
    """Whether the air of a place changed for everything that hangs there."""
    return shift(hourly_log(session, place_id, now_s - int(SHIFT_LOOK_S), now_s, whole_hours=True), now_s)


def readings_between(session: Session, place_id: int, low_s: int, high_s: int) -> Log:
    """Every reading of a place between two times as a log."""
    found = stored_readings(session, place_id, low_s, high_s)
    table = np.array([(at, c, rh) for at, (c, rh) in sorted(found.items())], dtype=np.float64).reshape(-1, 3)
    return Log(table[:, 0], table[:, 1], table[:, 2])


@dataclass(frozen=True)
class Series:
    """A climate series for a chart: one entry per point; lists of equal length."""

    at_s: list[int]
    temperature_c: list[float]
    temperature_min_c: list[float]
    temperature_max_c: list[float]
    rh_percent: list[float | None]
    rh_min_percent: list[float | None]
    rh_max_percent: list[float | None]
    bucket_s: int


_FROM_HOURS = text(
    """
    SELECT hour_s / :b * :b,
           sum(temperature_c * readings) / sum(readings), min(temperature_min_c), max(temperature_max_c),
           sum(rh_percent * readings) / sum(CASE WHEN rh_percent IS NOT NULL THEN readings END),
           min(rh_min_percent), max(rh_max_percent)
    FROM reading_hour WHERE place_id = :p AND hour_s >= :low AND hour_s <= :high GROUP BY 1 ORDER BY 1
    """
)
_FROM_READINGS = text(
    f"""
    SELECT at_s, temperature_c, temperature_min_c, temperature_max_c, rh_percent, rh_min_percent, rh_max_percent FROM
      (SELECT r.at_s / :b * :b AS at_s, {MEANS}
       FROM {READINGS} WHERE r.place_id = :p AND r.at_s >= :low AND r.at_s <= :high GROUP BY 1)
    ORDER BY 1
    """
)


def series(session: Session, place_id: int, low_s: int, high_s: int, points: int) -> Series:
    """Means and extremes of at most about `points` equal spans between two times.

    Parameters: low_s, high_s [s]; points [-]. Spans of more than half an hour come from the roll-ups, so
    that a year of one-minute readings is answered as fast as a week.
    """
    return series_along(session, [(place_id, low_s, high_s)], points)


def series_along(session: Session, stays: Sequence[tuple[int, int, int]], points: int) -> Series:
    """The same through several places one after the other, as a piece that was moved felt it.

    Parameters: stays, one at least, in time order: place, from and to [s]; points [-], of them all together.
    """
    bucket = max(60, -(-(stays[-1][2] - stays[0][1]) // max(points, 1)))
    whole_hours = bucket > HOUR_S / 2  # a chart of a few points less, and a tenth of the rows
    if whole_hours:
        bucket = -(-bucket // HOUR_S) * HOUR_S
    query = _FROM_HOURS if whole_hours else _FROM_READINGS
    spans: dict[int, Span] = {}  # the span in which a piece was moved is the later place's
    for place_id, low_s, high_s in stays:
        found = session.execute(query, {"b": bucket, "p": place_id, "low": low_s, "high": high_s})
        spans |= {row[0]: row for row in found}
    rows = [spans[at_s] for at_s in sorted(spans)]
    at, c, c_low, c_high, rh, rh_low, rh_high = zip(*rows, strict=True) if rows else ((),) * 7

    def tidy(values: Sequence[float]) -> list[float]:
        return [round(v, 3) for v in values]

    def where_told(values: Sequence[float | None]) -> list[float | None]:
        return [None if v is None else round(v, 3) for v in values]

    return Series(
        list(at), tidy(c), tidy(c_low), tidy(c_high), where_told(rh), where_told(rh_low), where_told(rh_high), bucket
    )


def all_readings(session: Session, place_id: int, from_s: int = 0, to_s: int = 2**40) -> Iterator[Row]:
    """Every reading of a place between two times [s], in time order, as they come off the disk: for export."""
    query = text(
        "SELECT at_s, temperature_c, rh_percent FROM reading WHERE place_id = :p AND at_s BETWEEN :low AND :high "
        "ORDER BY at_s"
    ).execution_options(yield_per=5000)
    for row in session.execute(query, {"p": place_id, "low": from_s, "high": to_s}):
        yield row.at_s, row.temperature_c, row.rh_percent
