"""The round at the Salt: turning, pouring off, taking out, what waits to be cased."""

from collections import defaultdict
from collections.abc import Iterable

from zymon.core.say import said
from zymon.core.schedule import Chore
from zymon.store import salt
from zymon.store.database import Session

from ..salt.schemas import CareOut, SaltCard
from ..salt.views import cards
from .line import DAY_S, LineOfRound, tags_of
from .schemas import ActionOut


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
                said("today.case", tag=card.tag),
                said("today.product", product=card.product),
                card.place,
                said("cost.wet_surface"),
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
            said(f"today.salt_{kind}", **tags_of([card.tag for card, _ in found])),
            said("today.product", product=", ".join([found[0][0].product, *containers])),
            place,
            said(first.cost.code, **first.cost.values),
            max(care.missed for _, care in found),
            min((care.last for _, care in found if care.last), default=None),
            ActionOut(station="salt", kinds=[kind], pieces=[card.id for card, _ in found], takes_grams=kind == "drain"),
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
        said("today.out_of_salt", tag=card.tag),
        said("today.product", product=card.product),
        card.place,
        said("cost.salts_more" if firm else "cost.nothing_salt" if latest is None else "cost.little_saltier"),
        link=f"/salt/{card.id}",
    )
