"""From cut faces to what the Cut shows: the causes by this batch's records, what to do now, and next time."""

from dataclasses import dataclass
from datetime import datetime

import orjson
from pydantic import TypeAdapter

from zymon.core.causes.face import CutFace, signs
from zymon.core.causes.next_time import Known, NextTime, next_time
from zymon.core.causes.ranking import Likely, rank
from zymon.core.causes.records import Measured, Records
from zymon.core.causes.table import CAUSES
from zymon.core.causes.with_it_now import Standing, with_it_now
from zymon.core.course import Course
from zymon.core.drying.dried_by import mean_rh
from zymon.core.drying.inside import profile_at, ring_depth_share
from zymon.core.drying.rest import EVEN_AT_RING_INDEX, REST_TEMPERATURE_C
from zymon.store import cuts as store
from zymon.store import hang
from zymon.store.cut_models import NextTimeNote, SeenFace
from zymon.store.database import Session
from zymon.store.models import Piece
from zymon.store.weighings import standing

from ..as_forecast import lost_at
from ..hang import views as hang_views
from ..hang.schemas import InsideOut
from ..ledger.assemble import Judged, judged_now
from ..life import state_of
from ..premises import Premises, moment
from ..records import of_the_batch, of_the_drying
from ..rest.views import inside_at_rest
from ..schemas import all_said, read_said, said_out
from . import schemas as s

FACE = TypeAdapter(CutFace)
DAY_S = 86_400
LATELY = 12


@dataclass(frozen=True)
class Within:
    """A piece from inside as predicted: its profile told, the ring in mm, weeks until it is even."""

    inside: InsideOut
    across_mm: float
    ring_mm: float
    rest_weeks: float | None


def within(shop: Premises, piece_id: int) -> Within:
    """The inside of a piece now: as it evens out at rest, else as it came off its hook. Raises NotFoundError."""
    card = inside_at_rest(shop, piece_id)
    if card is not None:
        weeks = None if card.best is None else max((card.best.timestamp() - shop.now_s) / DAY_S / 7, 0.0)
        even = card.inside.ring_index <= EVEN_AT_RING_INDEX
        ring_mm = 0.0 if even else card.across_mm / 2 * _half_way(card.inside)
        return Within(card.inside, card.across_mm, round(ring_mm, 1), weeks)
    with shop.db.reading() as session:
        of = hang.piece(session, piece_id)
        fit, index = shop.dates.fitted_piece(session, of, shop.now_s)
        at_s = min(hang.taken_down_at(of) or shop.now_s, shop.now_s)
        told = hang_views.inside_at_out(fit, index, at_s, REST_TEMPERATURE_C)
        bodies, x = profile_at(fit, index, at_s)
        half_mm = 1000 * float(bodies.half_thickness_m[0])
        ring_mm = half_mm * ring_depth_share(x, float(bodies.curvature[0]))
        return Within(told.inside, round(2 * half_mm, 1), round(ring_mm, 1), told.rest.weeks)


def _half_way(inside_out: InsideOut) -> float:
    """How deep the water has come half way from the rim to the core [share of the half thickness]."""
    rim, core = inside_out.water_percent[0], inside_out.core_water_percent
    deep = next(
        (d for d, w in zip(inside_out.depth_share, inside_out.water_percent, strict=True) if w >= (rim + core) / 2), 0.0
    )
    return float(deep)


def records_of(shop: Premises, session: Session, piece: Piece, course: Course, ring: float, at_s: int) -> Records:
    """Every measure that was recorded of a piece and its batch up to a time; the ring is that which was predicted."""
    fit, index = shop.dates.fitted_piece(session, piece, shop.now_s)
    left = ring / EVEN_AT_RING_INDEX
    found = of_the_drying(session, fit, index, piece.batch_id) | of_the_batch(session, course, piece, at_s)
    rest = [st for st in piece.states if st.kind == "resting" and st.struck_s is None and st.from_s <= at_s]
    days = sum(((at_s if st.to_s is None else min(st.to_s, at_s)) - st.from_s) / DAY_S for st in rest)
    return found | {"ring_left": Measured(left, {"days": round(days)})}


def cut_out(shop: Premises, piece_id: int) -> s.UnderTheKnife:
    """A piece to be cut or that was cut, with what its latest face says. Raises NotFoundError."""
    seen_inside = within(shop, piece_id)
    with shop.db.reading() as session:
        of = hang.piece(session, piece_id)
        faces = store.faces_of(session, piece_id)
        stand = [f for f in faces if f.struck_s is None]
        judged = judged_now(session, shop.dates, of.batch_id, shop.now_s)
        weighed = standing(of)
        recipe = store.recipe_of(session, of.batch_id)
        causes: list[s.CauseOut] = []
        now: list[s.NowOut] = []
        if stand:
            causes, now = _told(shop, session, of, stand[0], judged, seen_inside)
        off_s = hang.taken_down_at(of) or shop.now_s
        state = state_of(of)
        predicted = s.RingPredicted.model_validate_json(stand[0].predicted) if stand else None
        return s.UnderTheKnife(
            piece_id=of.id,
            tag=of.tag,
            batch_id=of.batch_id,
            batch=of.batch.code,
            product=of.batch.product,
            shape=of.shape,
            state=state.kind,
            at_rest=state.kind == "resting",
            across_mm=seen_inside.across_mm,
            days=round((off_s - of.hung_s) / DAY_S, 1),
            loss_percent=lost_at(of, weighed[-1]) if weighed else None,
            weight_g=weighed[-1].gross_g if weighed else None,
            tare_g=of.tare_g,
            weighed_when_hung=of.start_weight_g is not None,
            inside=predicted.inside if predicted and predicted.inside else seen_inside.inside,
            ring_mm=predicted.ring_mm if predicted else seen_inside.ring_mm,
            recipe_id=None if recipe is None else recipe.id,
            recipe=None if recipe is None else recipe.name,
            faces=[face_out(f) for f in faces],
            causes=causes,
            now=now,
        )


def face_of(kept: SeenFace) -> CutFace:
    """A face as it was tapped."""
    return FACE.validate_python(orjson.loads(kept.seen))


def face_out(seen_face: SeenFace) -> s.FaceOut:
    """A cut face as it was seen."""
    face = face_of(seen_face)
    return s.FaceOut(
        id=seen_face.id,
        at=moment(seen_face.at_s),
        by=seen_face.by,
        face=face,
        signs=list(signs(face)),
        predicted=s.RingPredicted.model_validate(orjson.loads(seen_face.predicted)),
        verdict=seen_face.verdict,
        note=seen_face.note,
        struck_reason=seen_face.struck_reason,
    )


def _told(
    shop: Premises, session: Session, piece: Piece, face: SeenFace, judged: Judged, seen_inside: Within
) -> tuple[list[s.CauseOut], list[s.NowOut]]:
    shown = signs(face_of(face))
    records, known = causes_known(shop, session, piece, judged.course, face, seen_inside)
    notes = store.notes_of_faces(session, [face.id])
    causes = [_cause(one, records, known, notes) for one in rank(shown, records, judged.course.minced)]
    weighed = standing(piece)
    hurdles = [h for h in judged.ledger.hurdles if h.blocks and (not h.pieces or piece.tag in h.pieces)]
    standing_now = Standing(
        loss_percent=lost_at(piece, weighed[-1]) if weighed else None,
        minced=judged.course.minced,
        rest_weeks=seen_inside.rest_weeks,
        fails=tuple(h.name for h in hurdles if h.state == "fail"),
        open=tuple(h.name for h in hurdles if h.state != "fail"),
    )
    return causes, [s.NowOut(act=a.act, says=said_out(a.says)) for a in with_it_now(shown, standing_now)]


def causes_known(
    shop: Premises, session: Session, of: Piece, course: Course, face: SeenFace, seen_inside: Within
) -> tuple[Records, Known]:
    """The measures a face's causes are weighed by, and what its lines for next time are worked out from."""
    ring = float(orjson.loads(face.predicted)["ring_index"])
    records = records_of(shop, session, of, course, ring, face.at_s)
    fit, index = shop.dates.fitted_piece(session, of, shop.now_s)
    piece = fit.arrays.pieces[index]
    salt = records.get("salt_finished")
    weighed = standing(of)
    where = hang.last_hanging(of) if len(of.hangings) == 1 else of.hangings[0]
    known = Known(
        salt_percent=None if salt is None else float(salt.says["percent"]),
        rh_percent=mean_rh(fit.history.log, piece.hung_at_s, piece.hung_at_s + 14 * DAY_S),
        rest_weeks=seen_inside.rest_weeks,
        loss_percent=lost_at(of, weighed[-1]) if weighed else None,
        target_loss_percent=of.target_loss_percent,
        hook=f"{where.rod.number}/{where.hook}",
    )
    return records, known


def _cause(likely: Likely, records: Records, known: Known, notes: list[NextTimeNote]) -> s.CauseOut:
    return s.CauseOut(
        name=likely.name,
        stage=likely.stage,
        signs=list(likely.signs),
        speaks=round(likely.speaks, 2),
        evidence=[
            s.TellsOut(measure=t.measure, strength=round(t.strength, 2), says=said_out(t.says)) for t in likely.evidence
        ],
        unrecorded=list(likely.unrecorded),
        recorded=likely.recorded,
        source=CAUSES[likely.name].source,
        next_time=[next_line(one, notes) for one in next_time(likely, records, known)],
    )


def next_line(next_time: NextTime, notes: list[NextTimeNote]) -> s.NextLine:
    """A line for next time, and the note that it became, if it was taken over."""
    taken = next((n.id for n in notes if read_said(n.says)[0].code == next_time.says.code), None)
    return s.NextLine(says=said_out(next_time.says), where=next_time.where, changes=next_time.field, taken=taken)


def cut_list(shop: Premises) -> s.CutList:
    """What waits for the knife, and what was looked into last."""
    with shop.db.reading() as session:
        waiting = [
            s.ToCut(piece_id=p.id, tag=p.tag, product=p.batch.product, state=st.kind, since=_moment(st.from_s))
            for p in store.pieces_to_cut(session)
            for st in [state_of(p)]
        ]
        seen = [_looked(f) for f in store.faces_lately(session, LATELY)]
    return s.CutList(waiting=waiting, seen=seen)


def _moment(at_s: float) -> datetime:
    return moment(int(at_s))


def _looked(seen_face: SeenFace) -> s.LookedInto:
    face, told = face_of(seen_face), orjson.loads(seen_face.told)
    return s.LookedInto(
        piece_id=seen_face.piece_id,
        tag=seen_face.piece.tag,
        product=seen_face.piece.batch.product,
        at=moment(seen_face.at_s),
        by=seen_face.by,
        verdict=seen_face.verdict,
        signs=list(signs(face)),
        ring=face.ring,
        cause=told[0]["name"] if told else None,
    )


def note_out(next_time_note: NextTimeNote, numbers: dict[int, int]) -> s.NextTimeOut:
    """A line for next time as the recipe shows it. Parameters: next_time_note; numbers, of versions by id."""
    return s.NextTimeOut(
        id=next_time_note.id,
        says=all_said(read_said(next_time_note.says))[0],
        product=next_time_note.product,
        batch=next_time_note.batch.code,
        piece_id=next_time_note.face.piece_id,
        tag=next_time_note.face.piece.tag,
        at=moment(next_time_note.at_s),
        by=next_time_note.by,
        version=None if next_time_note.version_id is None else numbers.get(next_time_note.version_id),
    )
