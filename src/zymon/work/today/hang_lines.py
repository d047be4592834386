"""The round at the hooks: the air of each place, turning, what is ready or goes wrong."""

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import replace

from zymon.core.drying.forecast import PieceForecast
from zymon.core.drying.judge import Judgement, judge
from zymon.core.drying.mend import passes_over_s
from zymon.core.faults import COAT_DAYS
from zymon.core.place import HEAT_ABOVE_C, extremes, place_facts
from zymon.core.rotation import (
    ROTATE_AFTER_DAYS,
    TURNED_DAYS,
    Hanging,
    blind_exchanges,
    exchanges,
    wants_turning,
)
from zymon.core.say import Said, said
from zymon.core.schedule import Chore
from zymon.store.climate import air_shift, hourly_log
from zymon.store.database import Session
from zymon.store.hang import last_hanging, pieces_hanging
from zymon.store.hang_events import last_turned
from zymon.store.models import Piece, Place
from zymon.store.places import air_now, setpoint_at

from ..places import STALE_S
from ..premises import Premises
from .line import DAY_S, LineOfRound, tags_of
from .schemas import ActionOut

MOST_EXCHANGES = 3  # a day: a room is turned over bit by bit
MOST_BLIND = 1  # a day while nothing is known of the hooks


def hang_lines(shop: Premises, session: Session, place: Place, place_order: int) -> Iterable[LineOfRound]:
    """Of a place: its air, then the pieces that hang there."""
    yield from _air_lines(session, place, place_order, shop.now_s)
    pieces = pieces_hanging(session, place.id)
    if pieces:
        yield from _piece_lines(shop, session, place, place_order, pieces)


def _air_lines(session: Session, place: Place, place_order: int, now_s: int) -> Iterable[LineOfRound]:
    air = air_now(session, place.id, now_s)
    setpoint = setpoint_at(place, now_s)
    if setpoint is not None and air is not None:
        recent = hourly_log(session, place.id, now_s - 2 * DAY_S, now_s, whole_hours=True)
        for span in place_facts(recent, setpoint.temperature_c, setpoint.rh_percent).outages[-1:]:
            hours = (span.to_s - span.from_s) / 3600 + 1
            chore = Chore(
                f"outage-{place.id}-{span.from_s:.0f}", "hang", place_order, "firm", span.from_s, now_s, now_s + DAY_S
            )
            yield LineOfRound(
                chore,
                said(f"today.outage_{span.what}", place=place.name, hours=round(hours)),
                said("today.off_c" if span.what in ("warm", "cold") else "today.off_rh", worst=round(span.worst, 1)),
                place.name,
                said("cost.outage"),
                link=f"/hang/{place.id}/climate",
            )
    if air is not None:
        yield from _extreme_lines(session, place, place_order, now_s)
    if air is not None and now_s - air.at_s > STALE_S + 3600:
        hours = (now_s - air.at_s) / 3600
        chore = Chore(f"sensor-{place.id}", "hang", place_order, "firm", air.at_s, now_s, now_s + DAY_S)
        yield LineOfRound(
            chore,
            said("today.sensor", place=place.name),
            said("today.silent_h", hours=round(hours))
            if hours < 48
            else said("today.silent_d", days=round(hours / 24)),
            place.name,
            said("cost.unseen"),
            link=f"/hang/{place.id}/climate",
        )


def _extreme_lines(session: Session, place: Place, place_order: int, now_s: int) -> Iterable[LineOfRound]:
    """Frost, and heat where none is meant, whatever the place is set to."""
    if place.sort == "dehydrator" or place.kind != "chamber":
        return
    for one in extremes(hourly_log(session, place.id, now_s - 2 * DAY_S, now_s)):
        chore = Chore(
            f"{one.what}-{place.id}-{one.from_s // DAY_S:.0f}", "hang", place_order, "firm", one.from_s, now_s,
            now_s + DAY_S,
        )  # fmt: skip
        yield LineOfRound(
            chore,
            said(
                f"today.{one.what}",
                place=place.name,
                c=round(one.worst_c, 1),
                hours=round(one.hours),
                over_c=HEAT_ABOVE_C,
            ),
            None,
            place.name,
            said(f"cost.{one.what}"),
            link=f"/hang/{place.id}/climate",
        )


def _turning(
    session: Session, place: Place, place_order: int, pieces: Sequence[Piece], now_s: int
) -> Iterable[LineOfRound]:
    """Turned end for end every day of the first week, so that they dry straight; a coat is looked at and left alone."""
    setpoint = setpoint_at(place, now_s)
    set_c = None if setpoint is None else setpoint.temperature_c
    turned = last_turned(session, [p.id for p in pieces])
    by_batch: dict[str, list[Piece]] = defaultdict(list)
    for piece in pieces:
        by_batch[piece.batch.code].append(piece)
    for code, found in by_batch.items():
        coated = found[0].batch.kind == "coated"
        young = [p for p in found if wants_turning(coated, (now_s - p.hung_s) / DAY_S, set_c)]
        if not young:
            continue
        last = min(turned.get(p.id, p.hung_s) for p in young)
        day = int((now_s - min(p.hung_s for p in young)) / DAY_S) + 1
        best = last + DAY_S
        chore = Chore(
            f"turn-{place.id}-{code}-{day}", "hang", place_order, "elastic", last + 0.75 * DAY_S, best, best + DAY_S
        )
        yield LineOfRound(
            chore,
            said("today.look_at_coat" if coated else "today.turn", **tags_of([p.tag for p in young])),
            said("today.day_of", product=young[0].batch.product, day=day, days=COAT_DAYS if coated else TURNED_DAYS),
            place.name,
            said("cost.coat_cracks" if coated else "cost.crooked"),
            action=None if coated else ActionOut(station="hang", kinds=["turn"], pieces=[p.id for p in young]),
            link=f"/hang/{place.id}?piece={young[0].id}",
        )


def _exchanging(
    shop: Premises,
    session: Session,
    place: Place,
    place_order: int,
    judged: Sequence[tuple[Piece, Judgement, PieceForecast]],
) -> Iterable[LineOfRound]:
    """After their first week pieces in strong and weak air change places; half a rod apart while no hook is known."""
    dates = shop.dates.of_place(session, place.id, shop.now_s)
    airs = {hook: math.exp(air.ln_air) for hook, air in dates.hooks().items()}
    by_tag = {p.tag: p for p, _, _ in judged}
    hangs = {p.tag: last_hanging(p) for p, _, _ in judged}
    hanging = [
        Hanging(
            tag=p.tag,
            air=airs.get((hangs[p.tag].rod_id, hangs[p.tag].hook), 1.0),
            days_there=(shop.now_s - max(hangs[p.tag].from_s, p.hung_s)) / DAY_S,
            done_share=f.loss_percent / dates.core(p, place.revision).aim_percent,
            too_fast="too_fast" in j.wants,
            rod=hangs[p.tag].rod.number,
            hook=hangs[p.tag].hook,
        )
        for p, j, f in judged
    ]
    pairs = exchanges(hanging)[:MOST_EXCHANGES] if airs else blind_exchanges(hanging)[:MOST_BLIND]
    for strong, weak in pairs:
        at, to = hangs[strong], hangs[weak]
        from_s = max(at.from_s, to.from_s) + ROTATE_AFTER_DAYS * DAY_S
        chore = Chore(
            f"swap-{at.id}-{to.id}",
            "hang",
            place_order,
            "elastic",
            from_s,
            max(from_s, shop.now_s),
            shop.now_s + 3 * DAY_S,
        )
        detail = said("today.swap_blind", rod=at.rod.number, hook=at.hook, other_rod=to.rod.number, other_hook=to.hook)
        if airs:
            detail = said(
                "today.swap_air",
                **detail.values,
                air=round(airs.get((at.rod_id, at.hook), 1.0), 1),
                other_air=round(airs.get((to.rod_id, to.hook), 1.0), 1),
            )
        yield LineOfRound(
            chore,
            said("today.swap", one=strong, other=weak),
            detail,
            place.name,
            said("cost.one_side_ahead"),
            action=ActionOut(station="hang", kinds=["swap"], pieces=[by_tag[strong].id, by_tag[weak].id]),
            link=f"/hang/{place.id}?piece={by_tag[strong].id}",
        )


def _piece_lines(
    shop: Premises, session: Session, place: Place, place_order: int, pieces: Sequence[Piece]
) -> Iterable[LineOfRound]:
    now_s = shop.now_s
    dates = shop.dates.of_place(session, place.id, now_s)
    made = dates.by_tag()
    judged = [(p, judge(dates.core(p, place.revision), made[p.tag], now_s), made[p.tag]) for p in pieces]
    link = f"/hang/{place.id}"

    def line(name: str, found: Sequence[Piece], elastic: bool = True) -> LineOfRound:
        chore = Chore(
            f"{name}-{place.id}", "hang", place_order, "weight_led" if elastic else "firm", 0, now_s, now_s + 2 * DAY_S
        )
        product = ", ".join(dict.fromkeys(p.batch.product for p in found))
        return LineOfRound(
            chore,
            said(f"today.{name}", **tags_of([p.tag for p in found])),
            said("today.product", product=product),
            place.name,
            said(f"cost.{name}"),
            link=f"{link}?piece={found[0].id}",
        )

    yield from _turning(session, place, place_order, pieces, now_s)
    yield from _exchanging(shop, session, place, place_order, judged)
    moved = air_shift(session, place.id, now_s)
    if moved is not None:
        chore = Chore(f"shift-{place.id}-{now_s // DAY_S}", "hang", place_order, "firm", now_s, now_s, now_s + DAY_S)
        yield LineOfRound(
            chore,
            _shifted(place.name, moved.by_rh_percent, moved.by_c),
            said("today.all_feel_it", pieces=len(pieces)),
            place.name,
            said("cost.air_shift"),
            link=f"/hang/{place.id}/climate",
        )
    over = [p for p, j, _ in judged if j.state == "over"]
    ready = [p for p, j, _ in judged if j.state == "ready"]
    likely = [p for p, j, _ in judged if j.state == "likely"]
    fast = [p for p, j, _ in judged if "too_fast" in j.wants]
    doubtful = [p for p, j, _ in judged if "doubtful" in j.wants]
    weigh = [p for p, j, _ in judged if "weigh" in j.wants and j.state != "likely"]
    if over:
        yield line("over", over)
    if ready:
        ends = [
            at
            for p, j, f in judged
            if j.state == "ready" and (at := passes_over_s(dates.core(p, place.revision), f)) is not None
        ]
        found = line("ready", ready)
        # said before it comes: from then on weight and texture are lost
        yield replace(found, chore=replace(found.chore, latest_s=min(ends))) if ends else found
    if likely:
        yield line("likely", likely)
    for state in ("hold", "feel", "felt"):
        found_so = [p for p, j, _ in judged if j.state == state]
        if found_so:
            yield line(state, found_so, elastic=state != "hold")
    if fast:
        yield line("fast", fast, elastic=False)
    if doubtful:
        yield line("doubt", doubtful)
    if weigh:
        yield replace(line("weigh", weigh), link=f"{link}/round")
    for piece, j, forecast in judged:
        if j.state == "soon" and forecast.ready_p50_s is not None and forecast.ready_p10_s is not None:
            best_s = max(forecast.ready_p50_s, now_s + DAY_S / 2)
            chore = Chore(f"soon-{piece.id}", "hang", place_order, "weight_led", now_s + DAY_S / 2, best_s, None)
            yield LineOfRound(
                chore,
                said("today.soon", tag=piece.tag),
                said("today.product", product=piece.batch.product),
                place.name,
                said("cost.overshoot"),
                link=f"{link}?piece={piece.id}",
            )


def _shifted(place: str, by_rh: float | None, by_c: float | None) -> Said:
    """That the air of a place changed: damper or drier, warmer or colder, or both."""
    values: dict[str, str | float] = {"place": place}
    code = "today.air"
    if by_rh is not None:
        code += "_damper" if by_rh > 0 else "_drier"
        values["points"] = round(abs(by_rh))
    if by_c is not None:
        code += "_warmer" if by_c > 0 else "_colder"
        values["by_c"] = round(abs(by_c), 1)
    return said(code, **values)
