"""The round at the hooks: the air of each place, turning, what is ready or goes wrong."""

import math
from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import replace

from sqlalchemy.orm import Session

from zymon.core.drying.forecast import PieceForecast
from zymon.core.drying.judge import Judgement, judge
from zymon.core.drying.mend import passes_over_s
from zymon.core.faults import COAT_DAYS
from zymon.core.place import place_facts
from zymon.core.rotation import ROTATE_AFTER_DAYS, Hanging, blind_exchanges, exchanges
from zymon.core.schedule import Chore
from zymon.store.board import core_piece
from zymon.store.climate import air_shift, hourly_log
from zymon.store.hang import last_hanging, pieces_hanging
from zymon.store.hang_events import last_turned
from zymon.store.models import Piece, Place
from zymon.store.places import air_now, setpoint_at

from ..context import Context
from ..views import STALE_S
from .line import DAY_S, LineOfRound, tags_in_words
from .schemas import ActionOut

FIRST_WEEK_DAYS = 7
MOST_EXCHANGES = 3  # a day: a room is turned over bit by bit
MOST_BLIND = 1  # a day while nothing is known of the hooks


def hang_lines(ctx: Context, session: Session, walk: Sequence[Place]) -> Iterable[LineOfRound]:
    """Place by place: its air, then the pieces that hang there."""
    for place_order, place in enumerate(walk):
        yield from _air_lines(session, place, place_order, ctx.now_s)
        pieces = pieces_hanging(session, place.id)
        if pieces:
            yield from _piece_lines(ctx, session, place, place_order, pieces)


def _air_lines(session: Session, place: Place, place_order: int, now_s: int) -> Iterable[LineOfRound]:
    air = air_now(session, place.id, now_s)
    setpoint = setpoint_at(place, now_s)
    if setpoint is not None and air is not None:
        recent = hourly_log(session, place.id, now_s - 2 * DAY_S, now_s)
        for span in place_facts(recent, setpoint.temperature_c, setpoint.rh_percent).outages[-1:]:
            hours = (span.to_s - span.from_s) / 3600 + 1
            chore = Chore(
                f"outage-{place.id}-{span.from_s:.0f}", "hang", place_order, "firm", span.from_s, now_s, now_s + DAY_S
            )
            yield LineOfRound(
                chore,
                f"{place.name} was too {span.what} for {hours:.0f} h: look at what was in it",
                f"up to {span.worst:.1f} {'°C' if span.what in ('warm', 'cold') else 'points'} off its set point",
                place.name,
                "warm meat in salt or a wet chamber does not wait",
                link=f"/hang/{place.id}/climate",
            )
    if air is not None and now_s - air.at_s > STALE_S + 3600:
        hours = (now_s - air.at_s) / 3600
        chore = Chore(f"sensor-{place.id}", "hang", place_order, "firm", air.at_s, now_s, now_s + DAY_S)
        yield LineOfRound(
            chore,
            f"Look at the sensor of {place.name}",
            f"silent for {hours:.0f} h" if hours < 48 else f"silent for {hours / 24:.0f} days",
            place.name,
            "a fault of the place would go unseen, and cold while curing cannot be shown",
            link=f"/hang/{place.id}/climate",
        )


def _turning(
    session: Session, place: Place, place_order: int, pieces: Sequence[Piece], now_s: int
) -> Iterable[LineOfRound]:
    """Turned end for end every day of the first week, so that they dry straight; coats looked at for cracks."""
    turned = last_turned(session, [p.id for p in pieces])
    by_batch: dict[str, list[Piece]] = defaultdict(list)
    for piece in pieces:
        if (now_s - piece.hung_s) / DAY_S < FIRST_WEEK_DAYS:
            by_batch[piece.batch.code].append(piece)
    for code, found in by_batch.items():
        last = min(turned.get(p.id, p.hung_s) for p in found)
        day = int((now_s - min(p.hung_s for p in found)) / DAY_S) + 1
        best = last + DAY_S
        coated = found[0].batch.kind == "coated" and day <= COAT_DAYS
        said = "Turn and look for cracks in the coat of" if coated else "Turn end for end"
        chore = Chore(
            f"turn-{place.id}-{code}-{day}", "hang", place_order, "elastic", last + 0.75 * DAY_S, best, best + DAY_S
        )
        yield LineOfRound(
            chore,
            f"{said} {tags_in_words([p.tag for p in found])}",
            f"{found[0].batch.product}, day {day} of {FIRST_WEEK_DAYS}",
            place.name,
            "they dry crooked, and heavier at the lower end",
            action=ActionOut(station="hang", kinds=["turn"], pieces=[p.id for p in found]),
            link=f"/hang/{place.id}?piece={found[0].id}",
        )


def _exchanging(
    ctx: Context,
    session: Session,
    place: Place,
    place_order: int,
    judged: Sequence[tuple[Piece, Judgement, PieceForecast]],
) -> Iterable[LineOfRound]:
    """After their first week pieces in strong and weak air change places; half a rod apart while no hook is known."""
    airs = {hook: math.exp(air.ln_air) for hook, air in ctx.board.hooks_of(session, place.id, ctx.now_s).items()}
    by_tag = {p.tag: p for p, _, _ in judged}
    hangs = {p.tag: last_hanging(p) for p, _, _ in judged}
    hanging = [
        Hanging(
            tag=p.tag,
            air=airs.get((hangs[p.tag].rod_id, hangs[p.tag].hook), 1.0),
            days_there=(ctx.now_s - max(hangs[p.tag].from_s, p.hung_s)) / DAY_S,
            done_share=f.loss_percent / p.target_loss_percent,
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
            max(from_s, ctx.now_s),
            ctx.now_s + 3 * DAY_S,
        )
        where = [
            f"rod {h.rod.number} hook {h.hook}"
            + (f", {airs[h.rod_id, h.hook]:.1f} × the air" if (h.rod_id, h.hook) in airs else "")
            for h in (at, to)
        ]
        yield LineOfRound(
            chore,
            f"{strong} and {weak} change places",
            "; ".join(where) + ("" if airs else "; nobody knows yet which gets more air"),
            place.name,
            "one side of the room runs ahead of the other",
            action=ActionOut(station="hang", kinds=["swap"], pieces=[by_tag[strong].id, by_tag[weak].id]),
            link=f"/hang/{place.id}?piece={by_tag[strong].id}",
        )


def _piece_lines(
    ctx: Context, session: Session, place: Place, place_order: int, pieces: Sequence[Piece]
) -> Iterable[LineOfRound]:
    now_s = ctx.now_s
    made = ctx.board.of_place(session, place.id, now_s)
    judged = [(p, judge(core_piece(p), made[p.tag], now_s), made[p.tag]) for p in pieces]
    link = f"/hang/{place.id}"

    def line(name: str, found: Sequence[Piece], title: str, cost: str, elastic: bool = True) -> LineOfRound:
        chore = Chore(
            f"{name}-{place.id}", "hang", place_order, "weight_led" if elastic else "firm", 0, now_s, now_s + 2 * DAY_S
        )
        at = f"{link}?piece={found[0].id}"
        detail = ", ".join(dict.fromkeys(p.batch.product for p in found))
        return LineOfRound(
            chore, f"{title}: {tags_in_words([p.tag for p in found])}", detail, place.name, cost, link=at
        )

    yield from _turning(session, place, place_order, pieces, now_s)
    yield from _exchanging(ctx, session, place, place_order, judged)
    over = [p for p, j, _ in judged if j.state == "over"]
    ready = [p for p, j, _ in judged if j.state == "ready"]
    fast = [p for p, j, _ in judged if "too_fast" in j.wants]
    doubtful = [p for p, j, _ in judged if "doubtful" in j.wants]
    weigh = [p for p, j, _ in judged if "weigh" in j.wants and j.state != "over"]
    moved = air_shift(session, place.id, now_s)
    if moved is not None:
        rh, c = moved.by_rh_percent, moved.by_c
        words = [] if rh is None else [f"{abs(rh):.0f} points {'damper' if rh > 0 else 'drier'}"]
        words += [] if c is None else [f"{abs(c):.1f} °C {'warmer' if c > 0 else 'colder'}"]
        chore = Chore(f"shift-{place.id}-{now_s // DAY_S}", "hang", place_order, "firm", now_s, now_s, now_s + DAY_S)
        yield LineOfRound(
            chore,
            f"The air of {place.name} is {' and '.join(words)} than in the two weeks before",
            f"all {len(pieces)} pieces feel it, not one of them alone",
            place.name,
            "every date moves, and rings close or slime begins",
            link=f"/hang/{place.id}/climate",
        )
    if over:
        yield line("over", over, "Take down, past the target", "weight and texture go on leaving")
    if ready:
        ends = [at for p, j, f in judged if j.state == "ready" and (at := passes_over_s(core_piece(p), f)) is not None]
        found = line("ready", ready, "Ready by weight, feel and take down", "about a third of a percent a day")
        # said before it comes: from then on weight and texture are lost
        yield replace(found, chore=replace(found.chore, latest_s=min(ends))) if ends else found
    if fast:
        yield line("fast", fast, "Too fast, move or slow the air", "a dry ring closes while it waits", elastic=False)
    if doubtful:
        yield line("doubt", doubtful, "A weight in doubt, weigh again", "its date leans on its mates meanwhile")
    if weigh:
        yield replace(line("weigh", weigh, "Worth weighing", "the window stays wide"), link=f"{link}/round")
    for piece, j, forecast in judged:
        if j.state == "soon" and forecast.ready_p50_s is not None and forecast.ready_p10_s is not None:
            chore = Chore(
                f"soon-{piece.id}", "hang", place_order, "weight_led", now_s + DAY_S / 2,
                max(forecast.ready_p50_s, now_s + DAY_S / 2), None,
            )  # fmt: skip
            yield LineOfRound(
                chore,
                f"{piece.tag} ready by weight",
                piece.batch.product,
                place.name,
                "overshoot costs weight and texture",
                link=f"{link}?piece={piece.id}",
            )
