"""From pieces at rest to what the Rest shows."""

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import datetime

import numpy as np
import orjson

from zymon.core.drying.climate import Air, Log, expected_air
from zymon.core.drying.evening import Bag, Evening, Resting, Sealed, even_out, seal
from zymon.core.drying.feel import ring_seen
from zymon.core.drying.inside import depth_shares, ring_index, water_percent
from zymon.core.drying.surroundings import Surroundings, UsualAir
from zymon.core.say import Said, said
from zymon.store import hang
from zymon.store import rest as store
from zymon.store.climate import hourly_log
from zymon.store.database import Session
from zymon.store.models import Piece, PieceState
from zymon.store.places import NotFoundError, setpoint_at
from zymon.store.weighings import standing

from ..as_forecast import feels_of, lost_at
from ..hang.schemas import InsideOut
from ..places import surroundings_of
from ..premises import Premises, moment
from ..schemas import all_said
from . import schemas as s

USUAL_COLD = UsualAir(4.0, 1.5, 80.0, 8.0, 1.0)  # where nobody said where it lies
DAY_S = 86_400
WEEK_S = 7 * DAY_S
HOUR_S = 3600


def at_rest(shop: Premises) -> s.RestOut:
    """Everything that rests, by place and date."""
    with shop.db.reading() as session:
        pieces = store.pieces_at_rest(session)
        sealed = _profiles(shop, session, pieces)
        shelf = _resting(session, pieces, sealed.all, shop.now_s)
        found = even_out(shelf, shop.now_s, curves=False)
        cards = [_card(p, r, e) for p, r, e in zip(pieces, shelf, found, strict=True)]
    _keep(shop, sealed)
    return s.RestOut(pieces=sorted(cards, key=lambda c: (c.place or "", c.best is None, c.best or c.since, c.tag)))


def detail(shop: Premises, piece_id: int) -> s.RestDetail:
    """One piece at rest. Raises NotFoundError."""
    with shop.db.reading() as session:
        of = hang.piece(session, piece_id)
        if not store.rests_of(of):
            raise NotFoundError("refused.not_at_rest", tag=of.tag)
        sealed = _profiles(shop, session, [of])
        (resting,) = _resting(session, [of], sealed.all, shop.now_s)
        (found,) = even_out([resting], shop.now_s)
        answer = s.RestDetail(card=_card(of, resting, found), curve=_curve(found, shop.now_s))
    _keep(shop, sealed)
    return answer


def inside_at_rest(shop: Premises, piece_id: int) -> s.RestCard | None:
    """How a piece is inside now, if it rests."""
    with shop.db.reading() as session:
        if not store.rests_of(hang.piece(session, piece_id)):
            return None
    return detail(shop, piece_id).card


@dataclass(frozen=True)
class _Profiles:
    """What pieces were when they were sealed, by the state their rest began with; and those not kept before."""

    all: dict[int, Sealed]
    new: dict[int, Sealed]


def _profiles(shop: Premises, session: Session, pieces: Sequence[Piece]) -> _Profiles:
    """What every piece was when it was sealed, worked out where that is not kept yet."""
    firsts = [(of, store.rests_of(of)[0]) for of in pieces]
    kept = store.profiles(session, [first.id for _, first in firsts])
    new = {first.id: _seal(shop, session, of, first) for of, first in firsts if first.id not in kept}
    return _Profiles({state_id: Sealed(**orjson.loads(one)) for state_id, one in kept.items()} | new, new)


def _keep(shop: Premises, profiles: _Profiles) -> None:
    """Keep what was worked out: from then on it does not move."""
    if not profiles.new:
        return
    with shop.db.writing("Zymon", shop.now_s) as session:
        for state_id, sealed in profiles.new.items():
            store.keep_profile(session, state_id, orjson.dumps(asdict(sealed)).decode(), shop.now_s)


def _seal(shop: Premises, session: Session, piece: Piece, first: PieceState) -> Sealed:
    fit, index = shop.dates.fitted_piece(session, piece, first.from_s)
    weighed = [w for w in standing(piece) if w.at_s <= first.from_s]
    return seal(fit, index, float(first.from_s), None if not weighed else lost_at(piece, weighed[-1]))


def _resting(session: Session, pieces: Sequence[Piece], sealed: dict[int, Sealed], now_s: int) -> list[Resting]:
    """Pieces at rest as the model sees them. The log of each place is read once for all of them."""
    rests = [store.rests_of(of) for of in pieces]
    places = {one.place_id for own in rests for one in own if one.place_id is not None}
    begins_s = min((one.from_s for own in rests for one in own), default=now_s)
    logs = {place_id: hourly_log(session, place_id, begins_s, now_s) for place_id in places}
    return [_one(of, own, sealed[own[0].id], logs, now_s) for of, own in zip(pieces, rests, strict=True)]


def _one(piece: Piece, rests: list[PieceState], sealed: Sealed, logs: dict[int, Log], now_s: int) -> Resting:
    bagged_s = rests[-1].from_s  # a new bag begins a new count
    stand = standing(piece)
    before = [w for w in stand if w.at_s <= bagged_s]
    bag: Bag = rests[-1].how or "unknown"  # type: ignore[assignment] # one of the bags, checked on entry
    return Resting(
        sealed=sealed,
        from_s=float(rests[0].from_s),
        bag=bag,
        air=_air(rests, logs, now_s),
        feels=feels_of(piece),
        sealed_g=before[-1].gross_g if before else None,
        weighed=tuple((float(w.at_s), w.gross_g) for w in stand if w.at_s > bagged_s),
    )


def _air(rests: Sequence[PieceState], logs: dict[int, Log], now_s: int) -> Air:
    """The air along a rest, through all of its places; as usual in a cold one where nobody said where it lies."""
    parts = [
        _between(logs[one.place_id], one.from_s, now_s if one.to_s is None else one.to_s)
        for one in rests
        if one.place_id is not None
    ]
    joined = Log(*(
        np.concatenate([getattr(log, name) for log in parts]) if parts else np.zeros(0)
        for name in ("time_s", "temperature_c", "rh_percent")
    ))  # fmt: skip
    place = rests[-1].place
    if place is None:
        return expected_air(joined, None, None, now_s, USUAL_COLD)
    setpoint = setpoint_at(place, now_s)
    known = surroundings_of(place)
    usual = USUAL_COLD if known == Surroundings() else known.usual
    return expected_air(
        joined, setpoint.temperature_c if setpoint else None, setpoint.rh_percent if setpoint else None, now_s, usual
    )


def _between(log: Log, from_s: int, to_s: int) -> Log:
    """The hours of a log that a stretch touches."""
    there = (log.time_s >= from_s - HOUR_S) & (log.time_s <= to_s)
    return Log(log.time_s[there], log.temperature_c[there], log.rh_percent[there])


def _assumed(piece: Piece, resting: Resting) -> list[Said]:
    place = store.rests_of(piece)[-1].place
    found = []
    if place is None:
        found.append(said("assumed.rest_place", c=USUAL_COLD.temperature_c, sd_c=USUAL_COLD.sd_c))
    elif not resting.air.logged:
        found.append(said("assumed.rest_cold", c=round(resting.air.ahead_temperature_c, 1)))
    if piece.hangings[0].rod.place.elsewhere:
        found.append(said("assumed.dried_elsewhere", weeks=round((resting.from_s - piece.hung_s) / WEEK_S)))
    if resting.sealed_g is None:
        found.append(said("assumed.rest_unweighed"))
    if resting.bag == "unknown":
        found.append(said("assumed.rest_bag"))
    return found


def _card(piece: Piece, resting: Resting, evening: Evening) -> s.RestCard:
    rests = store.rests_of(piece)
    seen = [e for e in piece.felt if e.at_s >= resting.from_s]
    last = None
    if seen:
        taps = orjson.loads(seen[-1].found or "{}")
        last = s.Squeeze(at=moment(seen[-1].at_s), rim=taps.get("firm_rim"), core=taps.get("firm_core"), by=seen[-1].by)
    x = np.array(evening.x)
    return s.RestCard(
        id=piece.id,
        tag=piece.tag,
        batch_id=piece.batch_id,
        batch=piece.batch.code,
        product=piece.batch.product,
        shape=piece.shape,
        across_mm=round(2000 * resting.sealed.half_thickness_m, 1),
        place_id=rests[-1].place_id,
        place=None if rests[-1].place is None else rests[-1].place.name,
        bag=resting.bag,
        since=moment(resting.from_s),
        state=evening.state,
        earliest=_day(evening.earliest_s),
        best=_day(evening.best_s),
        late=_day(evening.late_s),
        gone_share=round(evening.gone_share, 3),
        inside=InsideOut(
            depth_share=depth_shares(resting.sealed.curvature),
            water_percent=[water_percent(float(v)) for v in x[::-1]],
            rim_water_percent=water_percent(evening.rim_x),
            core_water_percent=water_percent(evening.core_x),
            rim_feels=evening.rim_feels,
            core_feels=evening.core_feels,
            ring=ring_seen(evening.rim_x, evening.core_x),
            ring_index=ring_index(x),
        ),
        sealed_g=resting.sealed_g,
        weight_g=resting.weighed[-1][1] if resting.weighed else None,
        lost_g=None if evening.lost_g is None else round(evening.lost_g, 1),
        squeezed=last,
        cautions=all_said(
            [said("caution.warm_bag", c=round(resting.air.ahead_temperature_c, 1))] if evening.warm else []
        ),
        assumed=all_said(_assumed(piece, resting)),
    )


def _day(at_s: float | None) -> datetime | None:
    return None if at_s is None else moment(at_s)


def _curve(evening: Evening, now_s: int) -> s.RestCurve:
    """Up to a little past the last likely day, and a month ahead at least."""
    end_s = max(evening.late_s or 0.0, evening.best_s or 0.0, now_s + 30 * DAY_S) + 7 * DAY_S
    shown = [i for i, t in enumerate(evening.curve_s) if t <= end_s]

    def percent(values: np.ndarray) -> list[float]:
        return [round(water_percent(float(values[i])), 2) for i in shown]

    return s.RestCurve(
        at=[moment(evening.curve_s[i]) for i in shown],
        rim=percent(evening.rim[1]), rim_low=percent(evening.rim[0]), rim_high=percent(evening.rim[2]),
        core=percent(evening.core[1]), core_low=percent(evening.core[0]), core_high=percent(evening.core[2]),
    )  # fmt: skip
