"""What Zymon told when the pieces that hang were hung and lately weighed: forecast anew from what was known then."""

from collections import defaultdict
from dataclasses import replace

from zymon.core.drying.forecast import forecast
from zymon.store.database import Session
from zymon.store.hang import pieces_hanging
from zymon.store.models import Piece
from zymon.store.told import record
from zymon.work.dates import history_of

DAY_S = 86_400
LATELY_S = 10 * DAY_S  # what was told between hanging and this is left out, so that the demo is made quickly


def tell(session: Session, place_id: int, now_s: int) -> None:
    """Keep a forecast for the hanging and each late weighing of a place's pieces, made in the evening of its day."""
    days: dict[int, list[tuple[Piece, int | None, int]]] = defaultdict(list)
    for piece in pieces_hanging(session, place_id):
        days[piece.hung_s // DAY_S].append((piece, None, piece.hung_s))
        for weighing in piece.weighings:
            if weighing.at_s > now_s - LATELY_S:
                days[weighing.at_s // DAY_S].append((piece, weighing.id, weighing.at_s))
    for events in days.values():
        evening_s = max(at_s for _, _, at_s in events)
        known = history_of(session, place_id, evening_s)
        hung = tuple(piece for piece in known.pieces if piece.hung_at_s <= evening_s)
        made = {answer.tag: answer for answer in forecast(replace(known, pieces=hung))}
        for piece, weighing_id, at_s in events:
            record(session, piece.id, made[piece.tag], weighing_id, at_s)
