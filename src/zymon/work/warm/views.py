"""From batches in the warm stage and their forecasts to what the Warm shows."""

from collections.abc import Sequence
from datetime import datetime

import numpy as np

from zymon.core.bench.sheet import work
from zymon.core.bench.sugars import dextrose_percent
from zymon.core.fermentation.forecast import (
    FermentationForecast,
    Window,
    first_measured,
    forecast_fermentation,
    standing,
    still_possible,
)
from zymon.core.fermentation.meter import ask_about_ph, meter_warnings, meters_disagree
from zymon.core.limits import LimitProfile
from zymon.core.say import Said
from zymon.formats.recipe_file import SheetModel
from zymon.store import warm as store
from zymon.store.bench_models import Making
from zymon.store.database import Session
from zymon.store.evidence import profile
from zymon.store.places import NotFoundError, place
from zymon.store.struck import counted
from zymon.store.warm_models import BatchEvent, PhMeter, PhReading, WarmStage

from ..premises import Premises, moment
from ..schemas import MadeOut, all_said
from . import schemas as s

GAP_HOURS = 1.0  # a silence of the box's log that is longer is counted at its warmer end


def _at(batch: store.WarmBatch, hour: float | None) -> datetime | None:
    return None if hour is None else moment(batch.stage.stuffed_s + hour * 3600)


def when(batch: store.WarmBatch, window: Window) -> s.WhenOut:
    """A window as moments."""
    return s.WhenOut(p10=_at(batch, window.p10), p50=_at(batch, window.p50), p90=_at(batch, window.p90))


def _allowance(batch: store.WarmBatch, made: FermentationForecast, limits: LimitProfile) -> s.AllowanceOut:
    table = limits.degree_hours
    box = batch.fermentation.box
    measured = first_measured(batch.fermentation)
    end = batch.fermentation.now_hour if measured is None else measured
    used = made.used
    silences = np.diff(np.append(box[box[:, 0] < end, 0], end))
    limit = table.limit(table.from_celsius(batch.fermentation.setpoint_c or 20.0)) if used is None else used.limit
    return s.AllowanceOut(
        profile=limits.name,
        used=None if used is None else round(used.used, 1),
        limit=limit,
        unit=f"°{table.unit} h",
        share=None if used is None else round(used.used / limit, 4),
        runs_out=_at(batch, made.runs_out_hour),
        gaps=int((silences > GAP_HOURS).sum()),
        at_c=round(float(box[-1, 1]), 1) if len(box) else None,
    )


def card(session: Session, batch: store.WarmBatch, made: FermentationForecast) -> s.WarmCard:
    """One batch."""
    stage, making = batch.stage, batch.stage.making
    stand = counted(batch.readings)
    limits = profile(session, making.batch.profile)
    allowance = _allowance(batch, made, limits)
    pinch = None if making.pinch_place_id is None else place(session, making.pinch_place_id).name
    last = stand[-1] if stand else None
    measured = first_measured(batch.fermentation)
    return s.WarmCard(
        batch_id=stage.batch_id,
        batch=making.batch.code,
        product=making.batch.product,
        place_id=stage.place_id,
        place=stage.place.name,
        pinch_place=pinch,
        culture=batch.fermentation.culture,
        dextrose_percent=stage.dextrose_percent,
        salt_percent=stage.salt_percent,
        start_ph=stage.start_ph,
        target_ph=stage.target_ph,
        setpoint_c=batch.fermentation.setpoint_c,
        stuffed_at=moment(stage.stuffed_s),
        ended_at=None if batch.ended_s is None else moment(batch.ended_s),
        state=standing(made.state, measured, batch.ended_s is not None),
        ph_now=round(made.ph_now, 3),
        crosses=when(batch, made.crosses),
        reaches_target=when(batch, made.reaches_target),
        measured_at=_at(batch, measured),
        allowance=allowance,
        causes=all_said(made.causes),
        possible=all_said(still_possible(batch.fermentation, made)),
        measure_next=None if batch.ended_s is not None else _at(batch, made.measure_next_hour),
        last_ph=None if last is None else last.ph,
        last_at=None if last is None else moment(last.at_s),
        meters_differ=meters_disagree(store.measured(batch.readings, stage.stuffed_s)),
    )


def card_of(session: Session, batch: store.WarmBatch) -> s.WarmCard:
    """One batch with its forecast made."""
    return card(session, batch, forecast_of(session, batch))


def forecast_of(session: Session, batch: store.WarmBatch) -> FermentationForecast:
    """The forecast of a batch under the limits it is judged by."""
    limits = profile(session, batch.stage.making.batch.profile)
    return forecast_fermentation(batch.fermentation, limits.degree_hours, GAP_HOURS)


def asked_of_ph(session: Session, batch: store.WarmBatch, ph: float, at_s: int) -> Said | None:
    """What is asked of a pH before it counts; None where it may well be. Parameters: batch; ph; at_s [s]."""
    made = forecast_of(session, batch)
    hour = (at_s - batch.stage.stuffed_s) / 3600
    low, high = (float(np.interp(hour, made.curve_hours, c)) for c in (made.curve_p10, made.curve_p90))
    return ask_about_ph(ph, low, high)


def asked_of_batch(session: Session, batch_id: int, ph: float, at_s: int, now_s: int) -> Said | None:
    """The same of a batch by its number; None where it was never in the warm."""
    stage = store.stage(session, batch_id)
    return None if stage is None else asked_of_ph(session, store.warm_batch(session, stage, now_s), ph, at_s)


def reading_out(reading: PhReading, origin_s: int) -> s.ReadingOut:
    """A reading with what is to be said against its meter at the time."""
    hour = (reading.at_s - origin_s) / 3600
    warnings = () if reading.meter is None else meter_warnings(store.calibrations_of(reading.meter, origin_s), hour)
    return s.ReadingOut(
        id=reading.id,
        at=moment(reading.at_s),
        ph=reading.ph,
        sample_c=reading.sample_c,
        meter=None if reading.meter is None else reading.meter.name,
        warnings=all_said(warnings),
        by=reading.by,
        struck_reason=reading.struck_reason,
    )


def event_out(batch_event: BatchEvent) -> s.WarmEventOut:
    """Something done to the batch."""
    return s.WarmEventOut(
        id=batch_event.id,
        kind=batch_event.kind,
        at=moment(batch_event.at_s),
        note=batch_event.note,
        by=batch_event.by,
        struck_reason=batch_event.struck_reason,
    )


def detail(shop: Premises, batch_id: int, made: list[MadeOut] | None = None) -> s.WarmDetail:
    """One batch with everything."""
    with shop.db.reading() as session:
        return _detail(session, batch_id, shop.now_s, made or [])


def _detail(session: Session, batch_id: int, now_s: int, came: list[MadeOut]) -> s.WarmDetail:
    stage = store.stage(session, batch_id)
    if stage is None:
        raise NotFoundError("refused.not_in_the_warm")
    of = store.warm_batch(session, stage, now_s)
    made = forecast_of(session, of)
    origin = stage.stuffed_s

    def tidy(values: Sequence[float]) -> list[float]:
        return [round(float(v), 3) for v in values]

    every = max(1, len(of.fermentation.temperature) // 300)
    box = of.fermentation.temperature[::every]
    return s.WarmDetail(
        made=came,
        card=card(session, of, made),
        curve=s.WarmCurve(
            at=[moment(origin + h * 3600) for h in made.curve_hours.tolist()],
            low=tidy(made.curve_p10.tolist()),
            middle=tidy(made.curve_p50.tolist()),
            high=tidy(made.curve_p90.tolist()),
            box_at=[moment(origin + h * 3600) for h, _ in box],
            box_c=tidy([c for _, c in box]),
        ),
        readings=[reading_out(r, origin) for r in reversed(of.readings)],
        events=[event_out(e) for e in reversed(of.events)],
    )


def meter_out(ph_meter: PhMeter, now_s: int) -> s.MeterOut:
    """A meter as of now."""
    last = ph_meter.calibrations[-1] if ph_meter.calibrations else None
    return s.MeterOut(
        id=ph_meter.id,
        name=ph_meter.name,
        calibrated_at=None if last is None else moment(last.at_s),
        slope_percent=None if last is None else last.slope_percent,
        warnings=all_said(meter_warnings(store.calibrations_of(ph_meter, 0), now_s / 3600)),
    )


def waiting(session: Session) -> list[s.WaitingForWarmth]:
    """Minced batches whose warm stage nobody declared."""
    sheets = [(m, SheetModel.model_validate_json(m.sheet)) for m in store.waiting_for_warmth(session)]
    return [_waiting(of, sheet) for of, sheet in sheets if sheet.plan.goods == "minced"]


def _waiting(making: Making, sheet: SheetModel) -> s.WaitingForWarmth:
    core = sheet.to_core()
    worked = work(core)
    sugar = dextrose_percent(core.lines, worked.grams, worked.meat_g)
    salt = making.batch.salt_percent
    return s.WaitingForWarmth(
        batch_id=making.batch_id,
        batch=making.batch.code,
        product=making.batch.product,
        made_at=moment(making.made_s),
        warm=sheet.plan.warm,
        dextrose_percent=round(min(sugar, 5.0), 2) if sugar else None,
        salt_percent=None if salt is None else round(min(salt, 10.0), 2),
    )


def warm_out(shop: Premises, made: list[MadeOut] | None = None) -> s.WarmOut:
    """The whole station: what ferments, and the last that did."""
    with shop.db.reading() as session:
        return _warm_out(session, shop.now_s, made or [])


def _warm_out(session: Session, now_s: int, came: list[MadeOut]) -> s.WarmOut:
    running = store.in_the_warm(session, now_s)
    ids = {r.batch_id for r in running}
    ended = [of for of in store.stages(session) if of.batch_id not in ids][:6]

    def cards(stages: Sequence[WarmStage]) -> list[s.WarmCard]:
        batches = [store.warm_batch(session, of, now_s) for of in stages]
        return [card_of(session, b) for b in batches]

    return s.WarmOut(
        made=came,
        running=cards(running),
        ended=cards(ended),
        waiting=waiting(session),
        meters=[meter_out(m, now_s) for m in store.meters(session)],
    )
