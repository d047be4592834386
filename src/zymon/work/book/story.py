"""The story of a batch: its one course, told with everything that hangs on it."""

from collections.abc import Iterable

import numpy as np

from zymon.core.book.accuracy import reached
from zymon.core.course import Course, Doing, Individual, Stage
from zymon.core.drying.climate import Log, or_none
from zymon.core.say import said
from zymon.store import bench, cuts, hang, keep, photos, warm
from zymon.store.database import Session
from zymon.store.models import Batch, Piece
from zymon.store.places import workshop
from zymon.store.struck import counted
from zymon.store.told import told

from ..as_forecast import lost_at
from ..bench.views import things_of
from ..changes import changes
from ..course import climate_of, course_of
from ..cut.views import face_out
from ..hang.schemas import ToldOut
from ..hang.views import life_out
from ..keep import yields
from ..keep.views import Keeps, pack_out
from ..ledger.views import ledger_out
from ..places import ready_of
from ..premises import Premises, moment
from ..schemas import said_out
from . import story_schemas as s

DAY_S = 86_400
QUIET = ("weighed", "sliced")  # they are told with their piece
TIDE_S = 3 * 3600  # before its first stage, so that the line does not begin at its edge


def story(shop: Premises, batch_id: int) -> s.StoryOut:
    """The story of a batch. Raises NotFoundError."""
    changed = changes(shop, batch_id, None).lines
    came_of_it = yields.yield_of(shop, batch_id)
    zone = shop.zone
    with shop.db.reading() as session:
        of = bench.batch(session, batch_id)
        course = course_of(session, batch_id, shop.now_s)
        house = workshop(session)
        stage = warm.stage(session, batch_id)
        before, after = bench.neighbours(session, of)
        known = Keeps(shop, session)
        begins_s = min([course.made_s, *(x.from_s for x in course.stages)])
        return s.StoryOut(
            workshop="" if house is None else house.name,
            time_zone="UTC" if house is None else house.time_zone,
            told_at=moment(shop.now_s),
            batch_id=of.id,
            code=of.code,
            product=of.product,
            kind=of.kind,
            shape=of.shape,
            made_at=moment(course.made_s),
            begins=moment(begins_s - TIDE_S),
            ends=moment(_end(of, course, shop.now_s)),
            people=list(course.people),
            fat_percent=of.fat_percent,
            salt_percent=of.salt_percent,
            went_in=list(_went_in(session, batch_id)),
            stages=[_stage(session, x, shop.now_s) for x in course.stages],
            airs=list(_airs(session, course, shop.now_s)),
            ph=[s.StoryPh(at=moment(r.at_s), ph=r.ph, by=r.by, struck=r.struck_s is not None)
                for r in warm.readings(session, batch_id)],
            target_ph=None if stage is None else stage.target_ph,
            pieces=[_piece(session, of, p) for p in course.pieces],
            doings=[_doing(d) for d in course.doings if d.what not in QUIET],
            ledger=ledger_out(shop, session, of, []),
            cuts=[s.StoryCut(tag=p.tag, face=face_out(f)) for p in of.pieces for f in cuts.faces_of(session, p.id)],
            changes=changed,
            packs=[pack_out(p, known, zone) for p in keep.packs(session, [p.id for p in of.pieces])],
            came_of_it=came_of_it,
            before=before,
            after=after,
        )  # fmt: skip


def _end(batch: Batch, course: Course, now_s: int) -> float:
    """Where the line ends: with the last that became of a piece, and never after now."""
    known = [x.from_s for p in batch.pieces for x in counted(p.states)]
    return min(max([course.ends_s(now_s), *known]) + TIDE_S, now_s)


def _went_in(session: Session, batch_id: int) -> Iterable[s.StoryLine]:
    making = bench.making_of(session, batch_id)
    if making is None:
        return
    for bowl, _ in bench.bowls(making):
        names = {thing.key: thing.name for thing in things_of(bowl)}
        for entry in bench.counted(bowl):
            if entry.rescale is None:
                yield s.StoryLine(
                    name=names.get(entry.key, entry.key), grams=entry.grams,
                    lot_id=entry.lot_id, lot=None if entry.lot is None else entry.lot.code,
                )  # fmt: skip


def _stage(session: Session, stage: Stage, now_s: int) -> s.StoryStage:
    log = climate_of(session, stage, now_s)
    there = log is not None and len(log.time_s) > 0
    c = log.temperature_c if log is not None and there else np.zeros(0)
    rh = log.of_humidity.rh_percent if log is not None else np.zeros(0)
    return s.StoryStage(
        kind=stage.kind,
        from_at=moment(stage.from_s),
        to_at=None if stage.to_s is None else moment(stage.to_s),
        place=stage.place,
        way=stage.way,
        pieces=list(stage.tags),
        by=stage.by,
        mean_c=round(float(c.mean()), 1) if there else None,
        low_c=round(float(c.min()), 1) if there else None,
        high_c=round(float(c.max()), 1) if there else None,
        mean_rh_percent=round(float(rh.mean())) if len(rh) else None,
    )


def _airs(session: Session, course: Course, now_s: int) -> Iterable[s.StoryAir]:
    """The air by place, from the first to the last hour that something of the batch was in it."""
    spans: dict[int, Stage] = {}
    for one in course.stages:
        if one.place_id is None:
            continue
        so_far = spans.get(one.place_id, one)
        ends = [x.to_s for x in (so_far, one)]
        to_s = None if None in ends else max(e for e in ends if e is not None)
        spans[one.place_id] = Stage(
            one.kind, min(so_far.from_s, one.from_s), to_s, one.place_id, one.place, by=one.by
        )  # fmt: skip
    for span in spans.values():
        log = climate_of(session, span, now_s)
        if log is not None and len(log.time_s):
            yield _air(span.place or "", log)


def _air(place: str, log: Log) -> s.StoryAir:
    """Means of a day each, or of an hour where it was no more than two days."""
    short = log.time_s[-1] - log.time_s[0] < 2 * DAY_S
    day = np.round(log.time_s / 3600) if short else np.floor(log.time_s / DAY_S)
    starts = np.flatnonzero(np.diff(day, prepend=-1.0))
    sizes = np.diff(np.append(starts, len(day)))
    return s.StoryAir(
        place=place,
        at=[moment(float(t)) for t in np.add.reduceat(log.time_s, starts) / sizes],
        temperature_c=np.round(np.add.reduceat(log.temperature_c, starts) / sizes, 1).tolist(),
        high_c=np.round(np.maximum.reduceat(log.temperature_c, starts), 1).tolist(),
        rh_percent=or_none(np.add.reduceat(log.rh_percent, starts) / sizes),
    )


def _piece(session: Session, batch: Batch, told_of: Individual) -> s.StoryPiece:
    row = next((p for p in batch.pieces if p.tag == told_of.tag), None)
    life = told_of.life.last
    empty = s.StoryPiece(
        piece_id=None, tag=told_of.tag, life=None if life is None else life_out(life), hung_at=None, off_at=None,
        start_g=told_of.start_weight_g, target_loss_percent=told_of.target_loss_percent, loss_percent=None,
        reached_at=None, weights=[], told=[], photos=[],
    )  # fmt: skip
    return empty if row is None else empty.model_copy(update=_hung(session, row))


def _hung(session: Session, row: Piece) -> dict[str, object]:
    """What is known of a piece since it hung."""
    stand = [w for w in row.weighings if w.struck_s is None]
    off_s = hang.taken_down_at(row)
    at_s = None
    if row.start_weight_g is not None and row.target_loss_percent is not None:
        lost = [(float(w.at_s), (lost_at(row, w) or 0.0) / 100) for w in sorted(stand, key=lambda w: w.at_s)]
        at_s = reached([(float(row.hung_s), 0.0), *lost], row.target_loss_percent / 100)
    return {
        "piece_id": row.id,
        "hung_at": moment(row.hung_s),
        "off_at": None if off_s is None else moment(off_s),
        "start_g": row.start_weight_g,
        "target_loss_percent": row.target_loss_percent,
        "loss_percent": lost_at(row, stand[-1]) if stand else None,
        "reached_at": None if at_s is None else moment(at_s),
        "weights": [
            s.StoryWeight(
                at=moment(w.at_s), gross_g=w.gross_g, by=w.by, struck_reason=w.struck_reason,
                loss_percent=lost_at(row, w),
            )
            for w in row.weighings
        ],
        "told": [
            ToldOut(at=moment(r.made_s), ready=ready_of(r.p10_s, r.p50_s, r.p90_s)) for r in told(session, row.id, True)
        ],
        "photos": [p.id for p in counted(photos.photos_of(session, row.id))],
    }  # fmt: skip


def _doing(doing: Doing) -> s.StoryDoing:
    values = {name: value for name, value in doing.values.items() if name not in ("note", "how") and value != ""}
    station, _, what = doing.what.partition(".")
    how = doing.values.get("how")
    did = f"{what}_{how}" if what == "gone" and how else what
    return s.StoryDoing(
        at=moment(doing.at_s),
        says=said_out(said(f"did.{station}.{did}", **values)),
        pieces=list(doing.tags),
        by=doing.by,
        note=str(doing.values.get("note", "")),
        struck=doing.struck,
    )
