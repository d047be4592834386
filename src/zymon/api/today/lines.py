"""The lines of the round, station by station; those of the Bench."""

from collections.abc import Iterable

from sqlalchemy.orm import Session

from zymon.core.schedule import Chore
from zymon.store import bench, warm
from zymon.store.places import places

from ..bench.views import things_of
from ..context import Context
from ..salt.views import waiting as waiting_for_salt
from .hang_lines import hang_lines
from .line import DAY_S, LineOfRound, tags_in_words
from .salt_lines import salt_lines
from .warm_lines import warm_lines


def round_lines(ctx: Context, session: Session) -> list[LineOfRound]:
    """Everything that wants doing now or in the next days."""
    walk = places(session)
    order = {p.name: i for i, p in enumerate(walk)}
    return [
        *bench_lines(session, ctx.now_s),
        *salt_lines(session, order, ctx.now_s),
        *warm_lines(session, order, ctx.now_s),
        *hang_lines(ctx, session, walk),
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
