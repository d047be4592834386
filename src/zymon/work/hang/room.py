"""A room as the Hang station shows it: rods, hooks, and the cards of what hangs there."""

import math

from zymon.core.drying.forecast import PieceForecast
from zymon.core.drying.history import Piece as CorePiece
from zymon.core.drying.judge import SOON_DAYS
from zymon.core.rod_room import rod_room
from zymon.store import models
from zymon.store.climate import air_shift
from zymon.store.database import Session
from zymon.store.hang import how_many_hung, pieces_hanging
from zymon.store.places import place

from ..places import place_out
from ..premises import Premises
from . import schemas as s
from .views import card


def room(shop: Premises, place_id: int) -> s.Room:
    """A place as it is now. Raises NotFoundError."""
    with shop.db.reading() as session:
        return _room(shop, session, place_id)


def room_json(shop: Premises, place_id: int) -> bytes:
    """The same as it is sent; asked for by several at once it is worked out once. Raises NotFoundError."""
    with shop.db.reading() as session:
        revision = place(session, place_id).revision

    def version() -> tuple[object, ...]:
        return shop.db.version(frozenset({"weighing"})), revision, shop.dates.version(place_id)

    def make() -> bytes:
        return room(shop, place_id).model_dump_json().encode()

    return shop.shared.get(("room", place_id), version, make)


def _room(shop: Premises, session: Session, place_id: int) -> s.Room:
    now_s = shop.now_s
    of = place(session, place_id)
    dates = shop.dates.of_place(session, place_id, now_s)
    made = dates.by_tag()
    hanging = pieces_hanging(session, place_id)
    cards = [card(p, dates.core(p, of.revision), made[p.tag], now_s) for p in hanging]
    week = now_s + SOON_DAYS * 86_400
    moved = air_shift(session, place_id, now_s) if cards else None
    rods = {r.id for r in of.rods}
    return s.Room(
        hooks=[
            s.HookOut(
                rod_id=rod,
                hook=hook,
                air=round(math.exp(air.ln_air), 2),
                low=round(math.exp(air.ln_air - 1.28 * air.sd), 2),
                high=round(math.exp(air.ln_air + 1.28 * air.sd), 2),
                pieces=air.pieces,
            )
            for (rod, hook), air in sorted(dates.hooks().items())
            if rod in rods
        ],
        place=place_out(session, of, len(cards), now_s),
        rods=[_rod_out(r, [c for c in cards if c.rod == r.number]) for r in of.rods],
        pieces=cards,
        ready_this_week=sum(
            1
            for c in cards
            if c.state in ("ready", "over", "likely")
            or (c.state != "hold" and c.ready.p50 is not None and c.ready.p50.timestamp() <= week)
        ),
        water_g_per_day=round(sum(_water_g_per_day(dates.core(p, of.revision), made[p.tag]) for p in hanging), 0),
        shift=None if moved is None else s.ShiftOut.model_validate(moved, from_attributes=True),
        dates_being_made=dates.revision != of.revision,
        hung_here=how_many_hung(session, place_id),
    )


def _water_g_per_day(core: CorePiece, made: PieceForecast) -> float:
    return made.rate_percent_per_day / 100 * core.net_start_g


def _rod_out(rod: models.Rod, hanging: list[s.PieceCard]) -> s.RodOut:
    """A rod, and whether air gets between what hangs there; nothing is said where its hooks were not measured."""
    tags = {c.hook: c.tag for c in hanging}
    found = None
    if rod.hook_spacing_mm is not None:
        found = rod_room({c.hook: c.width_mm * c.girth_now for c in hanging}, rod.hooks, rod.hook_spacing_mm)
    return s.RodOut(
        id=rod.id,
        number=rod.number,
        hooks=rod.hooks,
        hook_spacing_mm=rod.hook_spacing_mm,
        close=[s.TooClose(one=tags[a], other=tags[b]) for a, b in found.close] if found else [],
        short_mm=round(found.short_mm) if found else 0,
    )
