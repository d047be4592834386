"""A cut is entered whole: the face, what becomes of the piece, its weights, a hold; and its lines for next time."""

import orjson

from zymon.core.causes.face import CutFace, signs
from zymon.core.causes.next_time import NextTime, next_time
from zymon.core.causes.ranking import rank
from zymon.core.errors import OutOfRangeError
from zymon.core.faults import Found
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench, hang, hang_events, weighings
from zymon.store import cuts as store
from zymon.store.cut_models import NextTimeNote, SeenFace
from zymon.store.hang_models import HangEvent
from zymon.store.models import Piece
from zymon.store.places import ClashError, NotFoundError

from ..hang.weighing import weigh_at
from ..ledger.assemble import judged_now
from ..premises import Premises, Recording
from ..schemas import StrikeIn, kept_said
from . import schemas as s
from . import views


def cut(shop: Premises, piece_id: int, body: s.CutIn) -> s.UnderTheKnife:
    """Enter a cut face, and what becomes of the piece with it. Raises ClashError, OutOfRangeError, DoubtfulError."""
    if body.verdict != "good" and not body.note:
        raise OutOfRangeError("refused.why_held" if body.verdict == "held" else "refused.why_thrown_away")
    within = views.within(shop, piece_id)
    with shop.recording(body, f"cut {piece_id}", body.note) as entry:
        if entry.new:
            of = hang.piece(entry.session, piece_id)
            at_s = entry.at(body.at)
            if at_s < of.hung_s:
                raise OutOfRangeError("refused.cut_before_hung", tag=of.tag)
            hang.refuse_gone(of)
            _weights_and_state(shop, entry, of, body, at_s)
            face = _face(shop, entry, of, body, within, at_s)
            entry.came("cut_face", face.id)
            _felt(entry, of, body, at_s)
            if body.verdict == "discarded":
                hang.become(
                    entry.session, of, hang.NewState("gone", "discarded", note=body.note), at_s, body.by, entry.now_s
                )
                entry.came("state", of.states[-1].id)
    return views.cut_out(shop, piece_id).model_copy(update={"made": entry.named})


def _weights_and_state(shop: Premises, entry: Recording, piece: Piece, body: s.CutIn, at_s: int) -> None:
    """What the scale said around the cut, and what the piece becomes with it."""
    hanging = hang.hanging_now(piece) is not None
    if body.ends == "goes_on" or (body.ends is None and body.before_g is not None):
        _slice(entry, piece, body, at_s, hanging)
        return
    if hanging and body.ends is None:
        raise ClashError("refused.cut_up_or_goes_on", tag=piece.tag)
    if body.gross_g is not None:
        weigh_at(shop, entry, piece, body.gross_g, None, at_s)
    elif hanging and not body.not_weighed:
        raise OutOfRangeError("refused.weigh_or_say")
    if body.ends != "cut":
        return
    new = hang.NewState("cut")
    if hanging:
        hang.take_down(entry.session, piece, new, at_s, body.by, entry.now_s)
    elif hang.state_now(piece) is not None and hang.state_now(piece).kind in ("down", "resting"):  # type: ignore[union-attr]
        hang.become(entry.session, piece, new, at_s, body.by, entry.now_s)
    else:
        return
    entry.came("state", piece.states[-1].id)


def _slice(entry: Recording, piece: Piece, body: s.CutIn, at_s: int, hanging: bool) -> None:
    """A slice off a piece that goes on: weighed around it, so that its loss stays true."""
    if body.before_g is None or body.after_g is None:
        if hanging and piece.start_weight_g is not None:
            raise OutOfRangeError("refused.slice_unweighed", tag=piece.tag)
        return
    made = weighings.slice_off(entry.session, piece, body.before_g, body.after_g, at_s, body.note, body.by, entry.now_s)
    entry.came("cut", made.id)
    weighing = weighings.NewWeighing(body.after_g, at_s)
    entry.came("weighing", weighings.add_weighing(entry.session, piece, weighing, body.by, entry.now_s).id)


def _face(shop: Premises, entry: Recording, piece: Piece, body: s.CutIn, within: views.Within, at_s: int) -> SeenFace:
    predicted = s.RingPredicted(
        ring=within.inside.ring,
        ring_mm=within.ring_mm,
        ring_index=within.inside.ring_index,
        rim_feels=within.inside.rim_feels,
        core_feels=within.inside.core_feels,
        inside=within.inside,
    )
    course = judged_now(entry.session, shop.dates, piece.batch_id, entry.now_s).course
    records = views.records_of(shop, entry.session, piece, course, within.inside.ring_index, at_s)
    told = [{"name": c.name, "score": round(c.score, 2)} for c in rank(signs(body.face), records, course.minced)]
    made = SeenFace(
        uid=body.uid,
        piece_id=piece.id,
        at_s=at_s,
        seen=orjson.dumps(views.FACE.dump_python(body.face, mode="json")).decode(),
        predicted=predicted.model_dump_json(),
        told=orjson.dumps(told).decode(),
        verdict=body.verdict,
        note=body.note,
        by=body.by,
        entered_s=entry.now_s,
    )
    entry.session.add(made)
    entry.session.flush()
    return made


def _felt(entry: Recording, piece: Piece, body: s.CutIn, at_s: int) -> None:
    """What was felt and smelled at the knife counts as any inspection does; a hold is a hold."""
    found = _inspected(body.face)
    notes: list[tuple[str, str | None, str]] = [] if found is None else [("inspect", orjson.dumps(found).decode(), "")]
    notes += [("hold", None, body.note)] if body.verdict == "held" else []
    for kind, taps, note in notes:
        event = HangEvent(
            uid=f"{body.uid}-{kind}", piece_id=piece.id, kind=kind, at_s=at_s, found=taps, note=note, by=body.by,
            entered_s=entry.now_s,
        )  # fmt: skip
        hang_events.note(entry.session, event)
        entry.came("hang_event", event.id)


def _inspected(face: CutFace) -> Found | None:
    smell = None if face.smell == "rancid" else face.smell
    if face.firm_rim is None and face.firm_core is None and smell is None:
        return None
    return Found(firm_rim=face.firm_rim, firm_core=face.firm_core, smell=smell)


def strike(shop: Premises, face_id: int, body: StrikeIn) -> s.UnderTheKnife:
    """Strike a cut face through; it stays on record."""
    with shop.changing(body.by, body.reason) as session:
        piece_id = store.strike_face(session, face_id, body.reason, body.by, shop.now_s)
    return views.cut_out(shop, piece_id)


def take(shop: Premises, face_id: int, body: s.TakeIn) -> s.UnderTheKnife:
    """Take a line for next time over: a note on the recipe, or a new version. Raises NotFoundError, ClashError."""
    with shop.db.reading() as session:
        piece_id = store.face(session, face_id).piece_id
    within = views.within(shop, piece_id)
    with shop.recording(body, f"next time {face_id}") as entry:
        if entry.new:
            face = store.face(entry.session, face_id)
            of = face.piece
            course = judged_now(entry.session, shop.dates, of.batch_id, entry.now_s).course
            records, known = views.causes_known(shop, entry.session, of, course, face, within)
            likely = next(
                (c for c in rank(signs(views.face_of(face)), records, course.minced) if c.name == body.cause), None
            )
            line = None
            if likely is not None:
                line = next((n for n in next_time(likely, records, known) if n.says.code == body.says), None)
            if line is None:
                raise NotFoundError("refused.no_such_line")
            if any(n.says == kept_said([line.says]) for n in store.notes_of_faces(entry.session, [face.id])):
                raise ClashError("refused.line_taken")
            entry.came("next_time", _keep(entry, face, line, body).id)
    return views.cut_out(shop, piece_id).model_copy(update={"made": entry.named})


def _keep(entry: Recording, face: SeenFace, line: NextTime, body: s.TakeIn) -> NextTimeNote:
    recipe = store.recipe_of(entry.session, face.piece.batch_id)
    version_id = None
    if body.as_version:
        if recipe is None:
            raise ClashError("refused.no_recipe_of_batch", batch=face.piece.batch.code)
        last = recipe.versions[-1]
        sheet = changed(SheetModel.model_validate_json(last.sheet), line)
        reason = f"{face.piece.tag}: {body.says.removeprefix('next.').replace('_', ' ')}"
        made = bench.add_version(
            entry.session, recipe.id, last.number, sheet.model_dump_json(), reason, body.by, entry.now_s
        )
        entry.came("recipe_version", made.id)
        version_id = made.id
    note = NextTimeNote(
        uid=body.uid,
        face_id=face.id,
        batch_id=face.piece.batch_id,
        recipe_id=None if recipe is None else recipe.id,
        product=face.piece.batch.product,
        says=kept_said([line.says]),
        at_s=entry.at(body.at),
        version_id=version_id,
        by=body.by,
        entered_s=entry.now_s,
    )
    entry.session.add(note)
    entry.session.flush()
    return note


def changed(sheet: SheetModel, line: NextTime) -> SheetModel:
    """The sheet with what a line for next time changes of it. Raises ClashError for a line that changes nothing."""
    if line.field == "salt_percent" and line.change is not None:
        return sheet.model_copy(update={"salt_percent": round(sheet.salt_percent + line.change, 2)})
    if line.field == "sugar_share" and line.change is not None:
        lines = [
            one.model_copy(update={"amount": round(one.amount * line.change, 4)}) if one.role == "sugar" else one
            for one in sheet.lines
        ]
        return sheet.model_copy(update={"lines": lines})
    raise ClashError("refused.changes_no_sheet")


def recipe_notes(shop: Premises, recipe_id: int) -> list[s.NextTimeOut]:
    """What is to be done otherwise when a recipe is made next."""
    with shop.db.reading() as session:
        recipe = bench.recipe(session, recipe_id)
        numbers = {v.id: v.number for v in recipe.versions}
        return [views.note_out(n, numbers) for n in store.notes_of_recipe(session, recipe)]


def strike_note(shop: Premises, note_id: int, body: StrikeIn) -> None:
    """A line for next time was dealt with, or is wrong: struck with the reason."""
    with shop.changing(body.by, body.reason) as session:
        store.strike_note(session, note_id, body.reason, body.by, shop.now_s)
