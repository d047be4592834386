"""Places, their rods and set points."""

from dataclasses import dataclass
from typing import TypeVar

from sqlalchemy import func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session, selectinload

from zymon.core.errors import ZymonError
from zymon.core.say import Said

from .models import Base, Hanging, Place, ReadingHour, Rod, Setpoint, Workshop

Row = TypeVar("Row", bound=Base)


class NotFoundError(ZymonError, LookupError):
    """Something asked for by id or tag is not there."""


class ClashError(ZymonError, ValueError):
    """A name, tag or hook is taken already."""


class ChangedMeanwhileError(ClashError):
    """Somebody else changed the same thing since it was read: nothing is overwritten, both are to be looked at."""


def there(session: Session, table: type[Row], row_id: int, else_said: str) -> Row:
    """One row by its id. Raises NotFoundError with the code given.

    Parameters: table; row_id; else_said, the code of what is told where it is not there.
    """
    found = session.get(table, row_id)
    if found is None:
        raise NotFoundError(else_said)
    return found


def workshop(session: Session) -> Workshop | None:
    """The workshop, or None in a new database."""
    return session.scalar(select(Workshop))


def open_workshop(session: Session, name: str, time_zone: str, now_s: int) -> Workshop:
    """Name the workshop of a new database; a second time its name and time zone change."""
    shop = workshop(session) or Workshop(created_s=now_s)
    shop.name, shop.time_zone = name, time_zone
    session.add(shop)
    session.flush()
    return shop


def places(session: Session) -> list[Place]:
    """The workshop's places in walking order, with rods and set points; where other people's goods hung is none."""
    query = select(Place).options(selectinload(Place.rods), selectinload(Place.setpoints)).order_by(Place.position)
    return list(session.scalars(query.where(Place.elsewhere.is_(False))))


def elsewhere(session: Session, by: str, now_s: int) -> Place:
    """Where pieces hung that came from outside: one for all of them, without a log; made when it is new."""
    found = session.scalar(select(Place).where(Place.elsewhere.is_(True)))
    if found is None:
        taken = {name.casefold() for name in session.scalars(select(Place.name))}
        name = next(n for n in ("Elsewhere", "Elsewhere, not here") if n.casefold() not in taken)
        found = make_place(session, name, "chamber", [60], None, (None, None), by, now_s, "drying_chamber")
        found.elsewhere = True
        session.flush()
    return found


def place(session: Session, place_id: int) -> Place:
    """One place. Raises NotFoundError."""
    return there(session, Place, place_id, "refused.no_place")


def make_place(
    session: Session,
    name: str,
    kind: str,
    hooks_per_rod: list[int],
    hook_spacing_mm: float | None,
    setpoint: tuple[float | None, float | None],
    by: str,
    now_s: int,
    sort: str | None = None,
    stirring: str | None = None,
) -> Place:
    """Make a place with its rods. Raises ClashError when the name is taken."""
    # compared here, for the database knows upper and lower case of plain letters only
    if name.casefold() in (there.casefold() for there in session.scalars(select(Place.name))):
        raise ClashError("refused.place_name_taken", name=name)
    position = (session.scalar(select(func.max(Place.position))) or 0) + 1
    made = Place(name=name, kind=kind, sort=sort, stirring=stirring, position=position, revision=0)
    made.rods = [
        Rod(number=i + 1, hooks=hooks, hook_spacing_mm=hook_spacing_mm) for i, hooks in enumerate(hooks_per_rod)
    ]
    made.setpoints = [Setpoint(at_s=now_s, temperature_c=setpoint[0], rh_percent=setpoint[1], by=by, entered_s=now_s)]
    session.add(made)
    session.flush()
    return made


def change_setpoint(
    session: Session,
    place_id: int,
    temperature_c: float | None,
    rh_percent: float | None,
    at_s: int,
    by: str,
    now_s: int,
) -> Setpoint:
    """Note a set point from a time on; the earlier ones stay on record."""
    changed = place(session, place_id)
    made = Setpoint(at_s=at_s, temperature_c=temperature_c, rh_percent=rh_percent, by=by, entered_s=now_s)
    changed.setpoints.append(made)
    touch(changed)
    session.flush()
    return made


def setpoint(session: Session, setpoint_id: int) -> Setpoint:
    """One set point. Raises NotFoundError."""
    return there(session, Setpoint, setpoint_id, "refused.no_set_point")


def setpoint_at(place: Place, at_s: int) -> Setpoint | None:
    """The set point in force at a time [s]; the earliest one before any was noted."""
    stand = sorted((s for s in place.setpoints if s.struck_s is None), key=lambda s: (s.at_s, s.id or 2**62))
    past = [s for s in stand if s.at_s <= at_s]
    return past[-1] if past else (stand[0] if stand else None)


def revisions(session: Session) -> dict[int, int]:
    """The revision of every place in which something hangs."""
    hanging = select(Hanging.place_id).where(Hanging.to_s.is_(None))
    rows = session.execute(select(Place.id, Place.revision).where(Place.id.in_(hanging)))
    return {place_id: int(revision) for place_id, revision in rows}


def touch(changed: Place) -> None:
    """Say that something changed which can move a date."""
    changed.revision += 1


def free_hook(session: Session, rod_id: int, hook: int) -> Rod:
    """The rod, if its hook exists and is free. Raises NotFoundError or ClashError."""
    rod = there(session, Rod, rod_id, "refused.no_rod")
    if not 1 <= hook <= rod.hooks:
        raise NotFoundError("refused.no_such_hook", rod=rod.number, hooks=rod.hooks, hook=hook)
    taken = session.scalar(
        select(Hanging).where(Hanging.rod_id == rod_id, Hanging.hook == hook, Hanging.to_s.is_(None))
    )
    if taken is not None:
        raise ClashError("refused.hook_taken", rod=rod.number, hook=hook, holder=taken.piece.tag)
    return rod


def hooks_free(session: Session, place_id: int) -> int:
    """How many hooks of a place are free."""
    hooks = sum(rod.hooks for rod in place(session, place_id).rods)
    query = select(func.count()).select_from(Hanging).where(Hanging.place_id == place_id, Hanging.to_s.is_(None))
    return hooks - (session.scalar(query) or 0)


@dataclass(frozen=True)
class AirNow:
    """The last hour of a place's climate, and how it moved over the six hours before."""

    at_s: int
    temperature_c: float
    rh_percent: float | None
    trend_c: float
    trend_rh: float | None


def air_now(session: Session, place_id: int, now_s: int) -> AirNow | None:
    """The latest logged hour up to now, or None when nothing was logged."""
    hours = session.execute(
        select(ReadingHour.hour_s, ReadingHour.temperature_c, ReadingHour.rh_percent)
        .where(ReadingHour.place_id == place_id, ReadingHour.hour_s <= now_s)
        .order_by(ReadingHour.hour_s.desc())
        .limit(7)
    ).all()
    if not hours:
        return None
    last, first = hours[0], hours[-1]
    trend_rh = None if last[2] is None or first[2] is None else last[2] - first[2]
    return AirNow(last[0], last[1], last[2], last[1] - first[1], trend_rh)


def flush_or_clash(session: Session, else_said: Said) -> None:
    """Write what is pending; a broken uniqueness becomes a ClashError that says what is given."""
    try:
        session.flush()
    except IntegrityError as error:
        raise ClashError(else_said) from error
