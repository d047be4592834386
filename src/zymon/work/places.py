"""Places as every station shows them: their air now, a date with its window, a climate series."""

from datetime import datetime

from zymon.core.drying.forecast import PieceForecast
from zymon.core.drying.surroundings import Surroundings
from zymon.store import models
from zymon.store.climate import Series
from zymon.store.database import Session
from zymon.store.places import air_now, setpoint_at

from . import schemas as s
from .moments import moment

STALE_S = 3 * 3600  # a place whose last reading is older has a stalled sensor or logger


def place_out(session: Session, place: models.Place, pieces: int, now_s: int) -> s.PlaceOut:
    """A place with its air now."""
    air = air_now(session, place.id, now_s)
    setpoint = setpoint_at(place, now_s)
    return s.PlaceOut(
        id=place.id,
        name=place.name,
        kind=place.kind,
        sort=place.sort,
        stirring=place.stirring,
        setpoint=None if setpoint is None else s.Setpoint.model_validate(setpoint, from_attributes=True),
        air=None
        if air is None
        else s.AirNow(
            at=moment(air.at_s + 3600 if air.at_s + 3600 <= now_s else now_s),
            temperature_c=round(air.temperature_c, 2),
            rh_percent=None if air.rh_percent is None else round(air.rh_percent, 2),
            trend_c=round(air.trend_c, 2),
            trend_rh=None if air.trend_rh is None else round(air.trend_rh, 2),
            stale=now_s - air.at_s > STALE_S + 3600,
        ),
        pieces=pieces,
        hooks=sum(r.hooks for r in place.rods),
    )


def surroundings_of(place: models.Place) -> Surroundings:
    """What was said of a place, for the forecast."""
    return Surroundings(place.sort, place.stirring)


def ready_out(made: PieceForecast) -> s.Ready:
    """The date and its window."""
    return ready_of(made.ready_p10_s, made.ready_p50_s, made.ready_p90_s)


def ready_of(p10_s: float | None, p50_s: float | None, p90_s: float | None) -> s.Ready:
    """A date and its window from seconds; None where the target is out of reach."""

    def day(seconds: float | None) -> datetime | None:
        return None if seconds is None else moment(seconds)

    return s.Ready(p10=day(p10_s), p50=day(p50_s), p90=day(p90_s))


def climate_out(series: Series) -> s.ClimateOut:
    """A climate series as it is sent."""
    return s.ClimateOut.model_validate(series, from_attributes=True)
