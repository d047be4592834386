"""The lines of the round, station by station."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from sqlalchemy.orm import Session

from zymon.core.drying.judge import judge
from zymon.core.faults import COAT_DAYS
from zymon.core.place import place_facts
from zymon.core.schedule import Chore
from zymon.store import bench, salt, warm
from zymon.store.board import core_piece
from zymon.store.climate import hourly_log
from zymon.store.hang import pieces_hanging
from zymon.store.hang_events import last_turned
from zymon.store.models import Piece, Place
from zymon.store.places import air_now, places, setpoint_at

from ..bench.views import things_of
from ..context import Context
from ..salt.schemas import CareOut, SaltCard
from ..salt.views import cards
from ..salt.views import waiting as waiting_for_salt
from ..views import STALE_S
from ..warm.schemas import WarmCard
from ..warm.views import card_of as warm_card
from ..warm.views import waiting as waiting_for_warmth
from .schemas import ActionOut

DAY_S = 86_400
FIRST_WEEK_DAYS = 7
CARE_WORDS = {
    "turn": "Turn and massage {}",
    "drain": "Pour off the brine of {}",
    "rub": "Rub {} again where it is wet",
    "check": "Look at {}",
}


@dataclass(frozen=True)
class LineOfRound:
    """A chore with what is said of it and how it is done."""

    chore: Chore
    title: str
    detail: str = ""
    place: str | None = None
    cost: str = ""
    missed: int = 0
    action: ActionOut | None = None
    link: str | None = None


def tags_in_words(tags: Sequence[str], most: int = 3) -> str:
    """A few tags, and how many more."""
    more = len(tags) - most
    return ", ".join(tags[:most]) + (f" and {more} more" if more > 0 else "")


def round_lines(ctx: Context, session: Session) -> list[LineOfRound]:
    """Everything that wants doing now or in the next days."""
    walk = places(session)
    order = {p.name: i for i, p in enumerate(walk)}
    return [
        *bench_lines(session, ctx.now_s),
        *salt_lines(session, order, ctx.now_s),
        *warm_lines(session, order, ctx.now_s),
        *_hang_lines(ctx, session, walk),
    ]


def bench_lines(session: Session, now_s: int) -> Iterable[LineOfRound]:
    """Weigh-outs left midway, and batches whose next station is the salt or the hook."""
    for open_one in bench.open_weigh_outs(session):
        left = sum(thing.state != "right" for thing in things_of(open_one))
        chore = Chore(f"weigh-out-{open_one.id}", "bench", 0, "firm", open_one.started_s, now_s, now_s + 3600)
        yield LineOfRound(
            chore,
            f"Go on weighing out {open_one.product}",
            f"{left} things left",
            cost="the meat warms while it waits",
            link=f"/bench/weigh/{open_one.id}",
        )
    not_yet = {stage.batch_id for stage in warm.in_the_warm(session, now_s)} | warm.discarded_batches(session)
    for making in bench.makings(session):
        waiting = [p.tag for p in making.pieces if p.piece_id is None]
        if waiting and making.batch_id not in not_yet:
            made_s = max(p.made_s for p in making.pieces)
            chore = Chore(f"hook-{making.batch_id}", "bench", 1, "elastic", made_s, made_s, made_s + 3 * DAY_S)
            yield LineOfRound(
                chore,
                f"Hang {making.batch.code}: {tags_in_words(waiting)}",
                making.batch.product,
                cost="nobody knows how they dry until they hang",
                link=f"/bench/batch/{making.batch_id}",
            )
    for unsalted in waiting_for_salt(session):
        at = unsalted.made_at.timestamp()
        chore = Chore(f"salt-{unsalted.id}", "bench", 2, "firm", at, at, at + DAY_S)
        yield LineOfRound(
            chore, f"Put {unsalted.code} in salt", unsalted.product, cost="raw meat without salt", link="/salt"
        )


def salt_lines(session: Session, order: dict[str, int], now_s: int) -> Iterable[LineOfRound]:
    """Turning, draining, rubbing by batch; taking out piece by piece; what waits to be cased."""
    shown = cards(session, salt.pieces_in_salt(session), now_s)
    by_care: dict[tuple[int, str, str], list[tuple[SaltCard, CareOut]]] = defaultdict(list)
    for card in shown:
        place_order = order.get(card.place or "", 0)
        if card.state == "out" and card.out_at is not None:
            at = card.out_at.timestamp()
            chore = Chore(f"salt-hook-{card.id}", "salt", place_order, "elastic", at, at + DAY_S, at + 3 * DAY_S)
            yield LineOfRound(
                chore,
                f"Dry, case and tag {card.tag}",
                card.product,
                card.place,
                "a wet surface grows slime",
                link=f"/salt/{card.id}",
            )
            continue
        for care in card.care:
            by_care[card.batch_id, care.kind, card.place or ""].append((card, care))
        if card.best is not None:
            yield _out_line(card, place_order)
    for (batch_id, kind, place), found in by_care.items():
        first = min(found, key=lambda f: f[1].due)[1]
        number = max(care.done for _, care in found) + 1
        chore = Chore(
            f"salt-{batch_id}-{kind}-{number}",
            "salt",
            order.get(place, 0),
            "elastic" if kind in ("turn", "rub") else "firm",
            first.due_from.timestamp(),
            first.due.timestamp(),
            first.latest.timestamp(),
        )
        containers = sorted({card.container for card, _ in found if card.container})
        yield LineOfRound(
            chore,
            CARE_WORDS[kind].format(tags_in_words([card.tag for card, _ in found])),
            ", ".join([found[0][0].product, *containers]),
            place,
            first.cost,
            max(care.missed for _, care in found),
            ActionOut(station="salt", kind=kind, pieces=[card.id for card, _ in found], takes_grams=kind == "drain"),
            f"/salt/{found[0][0].id}",
        )


def _out_line(card: SaltCard, place_order: int) -> LineOfRound:
    assert card.best is not None
    firm = card.waits == "firm"
    from_s = (card.earliest or card.best).timestamp() if firm else card.best.timestamp()
    latest = None if card.latest is None else card.latest.timestamp()
    chore = Chore(f"salt-out-{card.id}", "salt", place_order, card.waits, from_s, card.best.timestamp(), latest)
    return LineOfRound(
        chore,
        f"Take {card.tag} out of the salt",
        card.product,
        card.place,
        "every extra day salts more"
        if firm
        else "nothing: it cannot oversalt"
        if latest is None
        else "a little saltier",
        link=f"/salt/{card.id}",
    )


def warm_lines(session: Session, order: dict[str, int], now_s: int) -> Iterable[LineOfRound]:
    """When to measure, what is wrong, what may go on to the hook; batches whose warm stage nobody declared."""
    for unwarmed in waiting_for_warmth(session):
        at = unwarmed.made_at.timestamp()
        chore = Chore(f"warm-{unwarmed.batch_id}", "warm", 0, "firm", at, at, at + DAY_S)
        yield LineOfRound(
            chore,
            f"Say where {unwarmed.batch} is warm, or that it hangs cold",
            unwarmed.product,
            cost="its degree-hours are not counted",
            link="/warm",
        )
    for stage in warm.in_the_warm(session, now_s):
        card = warm_card(session, warm.warm_batch(session, stage, now_s))
        yield from _fermenting(card, order.get(card.place, 0), now_s)


def _fermenting(card: WarmCard, place_order: int, now_s: int) -> Iterable[LineOfRound]:
    link = f"/warm/{card.batch_id}"

    def line(name: str, title: str, detail: str, cost: str, at: float, latest: float) -> LineOfRound:
        chore = Chore(f"{name}-{card.batch_id}", "warm", place_order, "firm", at - 1800, at, latest)
        return LineOfRound(chore, title, detail, card.place, cost, link=link)

    if card.state == "over_allowance":
        said = "over the allowance, not soured: hold it or throw it away"
        yield line("over", f"{card.batch}: {said}", card.product, "nothing brings it back", now_s, now_s)
    elif card.measured_at is not None:
        at = card.measured_at.timestamp()
        said = "Cool it at once: sour enough" if card.state == "too_low" else "Sour enough: cool it, and to the hook"
        yield line("sour", f"{card.batch}: {said}", card.product, "it goes on souring", at, at + 12 * 3600)
    elif card.measure_next is not None:
        at = card.measure_next.timestamp()
        why = ", ".join([card.product, *card.causes])
        name = f"ph-{card.last_at.timestamp():.0f}" if card.last_at else "ph-first"
        cost = "the allowance runs on without anybody knowing"
        yield line(name, f"Measure the pH of {card.batch}", why, cost, at, at + 3 * 3600)


def _hang_lines(ctx: Context, session: Session, walk: Sequence[Place]) -> Iterable[LineOfRound]:
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
            action=ActionOut(station="hang", kind="turn", pieces=[p.id for p in found]),
            link=f"/hang/{place.id}?piece={found[0].id}",
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
    over = [p for p, j, _ in judged if j.state == "over"]
    ready = [p for p, j, _ in judged if j.state == "ready"]
    fast = [p for p, j, _ in judged if "too_fast" in j.wants]
    doubtful = [p for p, j, _ in judged if "doubtful" in j.wants]
    weigh = [p for p, j, _ in judged if "weigh" in j.wants and j.state != "over"]
    if over:
        yield line("over", over, "Take down, past the target", "weight and texture go on leaving")
    if ready:
        yield line("ready", ready, "Ready by weight, feel and take down", "about a third of a percent a day")
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
