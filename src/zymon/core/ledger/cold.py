"""Cold and warmth over the whole line: cold while curing, salt in the core, warmth after salting."""

from collections.abc import Sequence
from dataclasses import replace

from ..say import said
from .activity import activity_of
from .batch import Piece, Stage
from .dose import core_share_after, hours_until_core
from .hurdle import Evidence, Hurdle
from .line import Interval, Line, clipped, hours, longest, without
from .marks import (
    COLD_C,
    COLD_STRETCH_HOURS,
    COLD_SUM_HOURS,
    CORE_LEAST,
    CORE_NEVER,
    CURES_ON_C,
    DRY_ACTIVITY,
    HOT_C,
    HOT_FAIL_HOURS,
    HOT_STRETCH_HOURS,
    HOT_SUM_FAIL_HOURS,
    HOT_SUM_HOURS,
    HOUR_S,
    ROOM_C,
    ROOM_STRETCH_HOURS,
    SLACK,
    TORRID_C,
    TORRID_HOURS,
    WARM_C,
    WARM_STRETCH_HOURS,
    WARM_SUM_HOURS,
)  # fmt: skip
from .view import View

CORE_SOURCE = "diffusion of salt in muscle (Crank)"


def _shown(spans: Sequence[Interval], code: str, limit_c: float) -> tuple[Evidence, ...]:
    return tuple(Evidence(a, b, said(code, limit_c=limit_c, hours=round((b - a) / HOUR_S, 1))) for a, b in spans)


def _silent(spans: Sequence[Interval]) -> tuple[Evidence, ...]:
    return tuple(Evidence(a, b, said("evidence.unknown")) for a, b in spans)


def cold_cure(view: View) -> Hurdle:
    """Cold from the first stage to the end of the last time in salt. Parameters: view."""
    return cold_along(view.batch.stages, view.end_s)


def cold_along(stages: Sequence[Stage], end_s: float) -> Hurdle:
    """Cold along the stages of one piece, up to the end of the last time in salt. Parameters: stages; end_s [s]."""
    base = Hurdle("cold_cure", "unknown", None, COLD_STRETCH_HOURS, "h", source="practice")
    cures = [s for s in stages if s.kind == "cure" and s.from_s <= end_s]
    if not cures:
        return replace(base, why=said("hurdle.cold_cure.no_cure"), settles=said("settles.cure"))
    line = Line(stages, end_s)
    curing = any(s.to_s is None or s.to_s > end_s for s in cures)
    begin_s, out_s = line.start_s, max(end_s if s.to_s is None else min(s.to_s, end_s) for s in cures)
    over, room = line.over(COLD_C, begin_s, out_s), line.over(ROOM_C, begin_s, out_s)
    silent = line.unknown(begin_s, out_s)
    base = replace(
        base, value=round(longest(over), 2), known="measured",
        evidence=(*_shown(over, "evidence.over_c", COLD_C), *_silent(silent)),
    )  # fmt: skip
    read = any(r.at_s <= out_s for r in line.reads)
    fails = (
        (longest(over), COLD_STRETCH_HOURS, COLD_C, "hurdle.cold_cure.stretch"),
        (longest(room), ROOM_STRETCH_HOURS, ROOM_C, "hurdle.cold_cure.stretch"),
        (hours(over), COLD_SUM_HOURS, COLD_C, "hurdle.cold_cure.sum"),
    )
    for found, limit, limit_c, code in fails:
        if read and found > limit + SLACK:
            why = said(code, hours=round(found, 1), limit_c=limit_c)
            return replace(base, state="fail", value=round(found, 2), limit=limit, why=why)
    if silent or not read:
        since_s = silent[-1][1] if silent else out_s
        why = said("hurdle.cold_cure.gap") if read else said("hurdle.cold_cure.no_log")
        return replace(base, known="not known", why=why, settles=said("settles.log_or_sign"), since_s=since_s)
    if curing:
        return replace(base, state="pending", why=said("hurdle.cold_cure.in_salt"), settles=said("settles.wait_salt"))
    return replace(base, state="pass")


def core_salt(view: View) -> Hurdle:
    """Salt in the core before the cold is left, judged anew while it goes on curing in the cold. Parameters: view."""
    base = Hurdle("core_salt", "unknown", None, 100 * CORE_LEAST, "%", source=CORE_SOURCE)
    unknown = [p.tag for p in view.pieces if p.core_salt_share is None]
    if unknown:
        return replace(base, why=said("hurdle.core_salt.unknown"), settles=said("settles.core"), pieces=tuple(unknown))
    cures = view.stages("cure")
    out_s = max((view.span(s)[1] for s in cures), default=view.line.start_s)
    cold_hours, mean_c = _curing_on(view, out_s)
    shares = [_share_now(view, p, cold_hours, mean_c) for p in view.pieces]
    least = min(shares)
    base = replace(base, value=round(100 * least, 1), known="estimated", signable=least >= CORE_NEVER)
    behind = tuple(p.tag for p, share in zip(view.pieces, shares, strict=True) if share < CORE_LEAST - SLACK)
    if not behind:
        return replace(base, state="pass", cautions=(said("caution.by_estimate"),))
    if view.curing:
        return replace(base, state="pending", why=said("hurdle.core_salt.in_salt"), settles=said("settles.wait_salt"))
    if view.heaviest_g is None:
        return replace(base, why=said("hurdle.core_salt.early"), settles=said("settles.core"), pieces=behind)
    more = hours_until_core(least, CORE_LEAST, min(mean_c, CURES_ON_C), view.heaviest_g, view.fat_percent)
    settles = said("settles.core_by", at_s=view.batch.now_s + more * HOUR_S, limit_c=CURES_ON_C)
    return replace(base, why=said("hurdle.core_salt.early"), settles=settles, pieces=behind)


def _share_now(view: View, piece: Piece, cold_hours: float, temperature_c: float) -> float:
    """The core's share of its level, with what it took since it left the cold."""
    share = piece.core_salt_share or 0.0
    if piece.start_weight_g is None or cold_hours <= 0:
        return share
    net_g = piece.start_weight_g - piece.tare_g
    return core_share_after(share, cold_hours, temperature_c, net_g, view.fat_percent)


def _curing_on(view: View, out_s: float) -> tuple[float, float]:
    """Hours at or under the mark since the salt was left, known ones, and how cold they were [°C]."""
    warm = clipped(
        [*view.line.over(CURES_ON_C, out_s, view.end_s), *view.line.unknown(out_s, view.end_s)], out_s, view.end_s
    )
    cold = [(out_s, view.end_s)] if view.end_s > out_s else []
    for a, b in warm:
        cold = without(cold, a, b)
    reads = [r.c for r in view.line.reads if any(a <= r.at_s <= b for a, b in cold)]
    return hours(cold), sum(reads) / len(reads) if reads else CURES_ON_C


def wet_until_s(view: View, piece: Piece) -> float:
    """Until when a piece counts as wet [s]: its upper water activity is over the mark up to the weighing, or the
    laboratory value, that says otherwise. Parameters: view; piece."""
    moments = sorted({t for t, _ in piece.weights} | {v.at_s for v in view.batch.lab("water_activity")})
    for at_s in moments:
        if at_s > view.end_s:
            break
        activity = activity_of(view, piece, at_s)
        if activity is not None and activity.upper <= DRY_ACTIVITY:
            return at_s
    return view.end_s


def warmth(view: View) -> Hurdle | None:
    """Warmth after salting, while wet; None for minced goods that sour. Parameters: view.

    A declared warm stage excuses minced goods only, and those that have one are judged by their degree-hours.
    """
    batch = view.batch
    if batch.goods == "minced" and not batch.hangs_cold:
        return None
    begin_s = view.line.start_s
    wet_s = max(wet_until_s(view, p) for p in view.pieces)
    warm, hot, torrid = (view.line.over(c, begin_s, wet_s) for c in (WARM_C, HOT_C, TORRID_C))
    silent = view.line.unknown(begin_s, wet_s)
    base = Hurdle("warmth", "unknown", round(longest(warm), 2), WARM_STRETCH_HOURS, "h", "measured")
    base = replace(base, evidence=(*_shown(warm, "evidence.over_c", WARM_C), *_silent(silent)))
    fails = (
        (longest(hot) > HOT_FAIL_HOURS + SLACK, longest(hot), HOT_C, HOT_FAIL_HOURS),
        (longest(torrid) > TORRID_HOURS + SLACK, longest(torrid), TORRID_C, TORRID_HOURS),
        (hours(hot) > HOT_SUM_FAIL_HOURS + SLACK, hours(hot), HOT_C, HOT_SUM_FAIL_HOURS),
    )
    for over, found, limit_c, limit in fails:
        if over:
            why = said("hurdle.warmth.over", hours=round(found, 1), limit_c=limit_c)
            return replace(base, state="fail", value=round(found, 2), limit=limit, why=why)
    doubts = (
        (longest(warm) > WARM_STRETCH_HOURS + SLACK, longest(warm), WARM_C, WARM_STRETCH_HOURS, warm),
        (longest(hot) > HOT_STRETCH_HOURS + SLACK, longest(hot), HOT_C, HOT_STRETCH_HOURS, hot),
        (hours(hot) > HOT_SUM_HOURS + SLACK, hours(hot), HOT_C, HOT_SUM_HOURS, hot),
        (hours(warm) > WARM_SUM_HOURS + SLACK, hours(warm), WARM_C, WARM_SUM_HOURS, warm),
    )
    for over, found, limit_c, limit, spans in doubts:
        if over:
            why = said("hurdle.warmth.over", hours=round(found, 1), limit_c=limit_c)
            base = replace(
                base, value=round(found, 2), limit=limit, since_s=max(spans[-1][1], *(s[1] for s in silent), 0.0)
            )
            return replace(base, why=why, settles=said("settles.sign"))
    if silent or not batch.stages:
        since_s = silent[-1][1] if silent else None
        why = said("hurdle.warmth.gap") if view.line.reads else said("hurdle.warmth.no_log")
        return replace(base, known="not known", why=why, settles=said("settles.log_or_sign"), since_s=since_s)
    return replace(base, state="pass")
