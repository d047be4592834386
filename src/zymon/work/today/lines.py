"""The lines of the round, station by station; those of the Bench and of what came off its hook."""

from collections.abc import Callable, Iterable
from itertools import chain

from zymon.core.say import said
from zymon.core.schedule import Chore
from zymon.store import bench, warm
from zymon.store.database import Session
from zymon.store.places import place, places
from zymon.store.states import pieces_that_are

from ..bench.views import things_of
from ..premises import Premises
from ..salt.views import waiting as waiting_for_salt
from .hang_lines import hang_lines
from .line import DAY_S, LineOfRound, tags_of
from .plan_lines import plan_lines
from .rest_lines import rest_lines
from .salt_lines import salt_lines
from .stock_lines import stock_lines
from .warm_lines import warm_lines


def round_lines(shop: Premises, session: Session) -> list[LineOfRound]:
    """Everything that wants doing now or in the next days."""
    walk = places(session)
    order = {p.name: i for i, p in enumerate(walk)}
    return [
        *_shared(shop, "bench", lambda own: bench_lines(own, shop.now_s)),
        *_shared(shop, "plans", lambda own: plan_lines(shop, own)),
        *_shared(shop, "salt", lambda own: salt_lines(own, order, shop.now_s)),
        *_shared(shop, "warm", lambda own: warm_lines(own, order, shop.now_s)),
        *chain.from_iterable(_at_place(shop, place.id, place.revision, i) for i, place in enumerate(walk)),
        *_shared(shop, "down", down_lines),
        *_shared(shop, "rest", lambda _own: rest_lines(shop, order)),
        *_shared(shop, "stock", lambda _own: stock_lines(shop)),
        *house_lines(shop),
    ]


# what hangs is weighed all day, which changes nothing of the other stations; what is weighed at rest is told apart
NOT_WEIGHED = frozenset({"weighing"})


def _shared(shop: Premises, station: str, make: Callable[[Session], Iterable[LineOfRound]]) -> list[LineOfRound]:
    """The lines of a station, as they were made last while nothing changed, by a session of their own."""

    def lines() -> list[LineOfRound]:
        with shop.db.reading() as own:
            return list(make(own))

    return shop.shared.get(("round", station), lambda: shop.db.version(NOT_WEIGHED), lines)


def _at_place(shop: Premises, place_id: int, revision: int, place_order: int) -> list[LineOfRound]:
    """The lines of a place; a weighing at another changes none of them."""

    def lines() -> list[LineOfRound]:
        with shop.db.reading() as own:
            return list(hang_lines(shop, own, place(own, place_id), place_order))

    def version() -> tuple[object, ...]:
        return shop.db.version(NOT_WEIGHED), revision, place_order, shop.dates.version(place_id)

    return shop.shared.get(("round", place_id), version, lines)


def house_lines(shop: Premises) -> Iterable[LineOfRound]:
    """That the last good copy of the record is old."""
    if shop.copies is None or not shop.copies.is_old():
        return
    last_s = max(shop.copies.taken(), default=None)
    chore = Chore("copies", "book", 0, "elastic", shop.now_s, shop.now_s, shop.now_s + DAY_S)
    yield LineOfRound(
        chore,
        said("today.no_copy") if last_s is None else said("today.copy_old", last_s=last_s),
        said("today.copy_failed", why=shop.copies.failed) if shop.copies.failed else None,
        cost=said("cost.one_disk"),
        link="/house/copies",
    )


def bench_lines(session: Session, now_s: int) -> Iterable[LineOfRound]:
    """Weigh-outs left midway, and batches whose next station is the salt or the hook."""
    for open_one in bench.open_weigh_outs(session):
        left = sum(thing.state != "right" for thing in things_of(open_one))
        chore = Chore(f"weigh-out-{open_one.id}", "bench", 0, "firm", open_one.started_s, now_s, now_s + 3600)
        yield LineOfRound(
            chore,
            said("today.weigh_out", product=open_one.product),
            said("today.things_left", left=left),
            cost=said("cost.meat_warms"),
            link=f"/bench/weigh/{open_one.id}",
        )
    not_yet = {stage.batch_id for stage in warm.in_the_warm(session, now_s)} | warm.discarded_batches(session)
    for making in bench.makings(session):
        waiting = [p.tag for p in making.pieces if p.piece_id is None]
        if waiting and making.batch_id not in not_yet:
            made_s = max(p.made_s for p in making.pieces if p.piece_id is None)
            chore = Chore(f"hook-{making.batch_id}", "bench", 1, "elastic", made_s, made_s, made_s + 3 * DAY_S)
            yield LineOfRound(
                chore,
                said("today.hang", batch=making.batch.code, **tags_of(waiting)),
                said("today.product", product=making.batch.product),
                cost=said("cost.not_known_until_hung"),
                link=f"/bench/batch/{making.batch_id}",
            )
    for unsalted in waiting_for_salt(session):
        at = unsalted.made_at.timestamp()
        chore = Chore(f"salt-{unsalted.id}", "bench", 2, "firm", at, at, at + DAY_S)
        yield LineOfRound(
            chore,
            said("today.into_salt", batch=unsalted.code),
            said("today.product", product=unsalted.product),
            cost=said("cost.raw_meat"),
            link="/salt",
        )


def down_lines(session: Session) -> Iterable[LineOfRound]:
    """Pieces that were taken down and of which nobody said what becomes of them."""
    for piece, state in pieces_that_are(session, "down"):
        chore = Chore(
            f"down-{piece.id}", "rest", 0, "elastic", state.from_s, state.from_s + DAY_S, state.from_s + 3 * DAY_S
        )
        place_id = piece.hangings[-1].place_id
        yield LineOfRound(
            chore,
            said("today.decide", tag=piece.tag),
            said("today.product", product=piece.batch.product),
            None if state.place is None else state.place.name,
            said("cost.dries_on"),
            link=f"/hang/{place_id}?piece={piece.id}",
        )
