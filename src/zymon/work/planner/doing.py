"""What is done at the planner: a plan is set, set anew, given up, begun, linked to its batch; each recorded once."""

from contextlib import suppress
from dataclasses import replace

from zymon.core.errors import OutOfRangeError, ZymonError
from zymon.formats.recipe_file import SheetModel
from zymon.store import bench
from zymon.store import plans as store
from zymon.store.database import Session
from zymon.store.places import ChangedMeanwhileError, ClashError, place
from zymon.store.plan_models import Plan, PlanSetting
from zymon.store.struck import strike

from ..bench.making import begin_in
from ..bench.making_schemas import WeighOutIn
from ..premises import Premises, Recording
from ..schemas import MadeOut
from . import looking
from . import schemas as s
from .looking import days_of, planned
from .survey import Setting, Survey, setting_of
from .views import moments_of, plan_out


def plan(shop: Premises, plan_id: int, made: list[MadeOut] | None = None) -> s.PlanKept:
    """A plan as it stands."""
    with shop.db.reading() as session:
        of = store.plan(session, plan_id)
        stored = store.set_now(of)
        survey = Survey(shop, session, shop.ways)
        number = survey.number_in(stored.occasion, plan_id)
        found = survey.look(setting_of(stored), of, stored, number)
        sheet = SheetModel.model_validate_json(stored.sheet)
        recipe = stored.recipe_version
        return s.PlanKept(
            plan=plan_out(survey, found), sheet=sheet, days=days_of(found), made=made or [],
            recipe_id=None if recipe is None else recipe.recipe_id, version=None if recipe is None else recipe.number,
        )  # fmt: skip


def keep(shop: Premises, body: s.PlanIn) -> s.PlanKept:
    """Keep a wish as a plan. Raises OutOfRangeError, NotFoundError."""
    _have_its_way(shop, body, None)
    with shop.recording(body, "plan") as entry:
        if entry.new:
            now_s = entry.now_s
            of = Plan(weigh_out_id=None, batch_id=None, by=body.by, entered_s=now_s)
            kept = _set(shop, entry, of, body, "")
            entry.came("plan", of.id)
            entry.came("plan_setting", kept.id)
    return plan(shop, entry.made[0].id, entry.named)


def change(shop: Premises, plan_id: int, body: s.PlanChangeIn) -> s.PlanKept:
    """Set a plan anew. Raises ChangedMeanwhileError where it was set since it was looked at, ClashError once begun."""
    _have_its_way(shop, body, plan_id)
    with shop.recording(body, f"plan {plan_id}", body.reason) as entry:
        if entry.new:
            of = store.plan(entry.session, plan_id)
            if store.set_now(of).id != body.seen:
                raise ChangedMeanwhileError("refused.plan_set_meanwhile")
            entry.came("plan", of.id)
            entry.came("plan_setting", _set(shop, entry, of, body, body.reason).id)
    return plan(shop, plan_id, entry.named)


def _have_its_way(shop: Premises, wish: s.Wish, plan_id: int | None) -> None:
    """Work a wish out before the record is open for writing, so that nobody who writes waits for the drying model."""
    with suppress(ZymonError):  # what cannot be is refused where it would be recorded
        looking.look(shop, wish) if plan_id is None else looking.look_again(shop, plan_id, wish)


def _set(shop: Premises, entry: Recording, plan: Plan, wish: s.PlanIn, reason: str) -> PlanSetting:
    session = entry.session
    survey = Survey(shop, session, shop.ways)
    found = planned(survey, wish, plan if plan.id is not None else None)
    moments, setting = moments_of(found), found.set
    if found.standing is not None:
        setting = _as_begun(setting, plan)
    new = PlanSetting(
        at_s=entry.at(wish.at), reason=reason, occasion=setting.occasion, product=setting.product,
        sheet=found.goods.sheet.model_dump_json(), recipe_version_id=_version(session, wish), pieces=setting.pieces,
        table_g=setting.table_g, place_id=setting.place_id, wanted_s=setting.wanted_s, start_s=setting.start_s,
        wait_s=setting.wait_s, rest_s=setting.rest_s, frozen=setting.frozen, order_days=setting.order_days,
        asked_chance=setting.asked,
        told_chance=round(found.chance, 3),
        told_hung_s=_whole(moments.hung.p50), told_done_p10_s=_whole(moments.done.p10),
        told_done_p50_s=_whole(moments.done.p50), told_done_p90_s=_whole(moments.done.p90),
        by=entry.by, entered_s=entry.now_s,
    )  # fmt: skip
    return store.add_setting(session, plan, new)


def _whole(seconds: float) -> int | None:
    return int(seconds) if seconds < 2**40 else None


def _as_begun(setting: Setting, plan: Plan) -> Setting:
    """What was begun is what it is: only when and how many of it are wanted, and its rest, can change."""
    before = store.set_now(plan)
    if (setting.product, setting.place_id) != (before.product, before.place_id):
        raise ClashError("refused.plan_begun")
    return replace(setting, start_s=before.start_s, wait_s=before.wait_s)


def _version(session: Session, wish: s.Wish) -> int | None:
    if wish.recipe_id is None:
        return None
    versions = bench.recipe(session, wish.recipe_id).versions
    return next((v.id for v in versions if v.number == wish.version), None)


def give_up(shop: Premises, plan_id: int, body: s.GiveUpIn) -> list[MadeOut]:
    """Give a plan up; it stays on record."""
    with shop.recording(body, f"plan given up {plan_id}", body.reason) as entry:
        if entry.new:
            strike(store.plan(entry.session, plan_id), body.reason, body.by, entry.now_s)
            entry.came("plan", plan_id)
    return entry.named


def begin(shop: Premises, plan_id: int, body: s.BeginIn) -> s.BegunOut:
    """Begin a plan: its sheet is weighed out, and the batch that comes of it is the plan's."""
    with shop.recording(body, f"begin plan {plan_id}") as entry:
        if entry.new:
            of = store.plan(entry.session, plan_id)
            if of.batch_id is not None or (of.weigh_out is not None and of.weigh_out.ended_s is None):
                raise ClashError("refused.plan_begun")
            stored = store.set_now(of)
            version = stored.recipe_version
            weighing = WeighOutIn(
                uid=body.uid, by=body.by, at=body.at, sure=body.sure, product=stored.product, profile=body.profile,
                sheet=SheetModel.model_validate_json(stored.sheet),
                recipe_id=None if version is None else version.recipe_id,
                version=None if version is None else version.number,
            )  # fmt: skip
            of.weigh_out_id = begin_in(entry, weighing)
            entry.came("weigh_out", of.weigh_out_id)
    return s.BegunOut(weigh_out_id=entry.made[0].id, made=entry.named)


def became(shop: Premises, plan_id: int, body: s.BecameIn) -> s.PlanKept:
    """Say which batch came of a plan. Raises ClashError where it came of another."""
    with shop.recording(body, f"plan {plan_id} became {body.batch_id}") as entry:
        if entry.new:
            session = entry.session
            of, batch = store.plan(session, plan_id), bench.batch(session, body.batch_id)
            if batch.id in store.batches_of_plans(session) and of.batch_id != batch.id:
                raise ClashError("refused.batch_of_other_plan", batch=batch.code)
            of.batch_id = batch.id
            entry.came("plan", of.id)
    return plan(shop, plan_id, entry.named)


def room(shop: Premises, place_id: int, body: s.RoomIn) -> list[MadeOut]:
    """Say how many pieces go into a place without hooks. Raises OutOfRangeError for one that has them."""
    with shop.recording(body, f"room of {place_id}") as entry:
        if entry.new:
            of = place(entry.session, place_id)
            if of.rods:
                raise OutOfRangeError("refused.room_of_hooks")
            of.room = body.room
            entry.came("place", place_id)
    return entry.named
