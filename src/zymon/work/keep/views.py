"""From packs as stored to what the stock shows: what is left, until when, what is known of its keeping."""

from collections.abc import Sequence
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from zymon.core.errors import OutOfRangeError
from zymon.core.keeping import keeping_at
from zymon.core.pieces import net_weight
from zymon.core.say import Said, said
from zymon.core.stock.packs import OPENED_DAYS, Pack, Some, too_warm, use_first
from zymon.core.water import KeepClass
from zymon.store import bench, hang
from zymon.store import keep as store
from zymon.store.database import Session
from zymon.store.keep_models import Packed, PackEvent
from zymon.store.models import Piece
from zymon.store.struck import counted
from zymon.store.weighings import standing

from ..as_forecast import cuts_that_count, lost_at
from ..ledger.assemble import Judged, judged_now
from ..ledger.views import acid_and_activity
from ..life import state_of
from ..premises import Premises, moment
from ..schemas import all_said, said_out
from . import schemas as s

DAY_S = 86_400


class Keeps:
    """How the pieces of each batch keep, worked out once for each batch however many packs there are."""

    def __init__(self, shop: Premises, session: Session) -> None:
        self.shop, self.session = shop, session
        self._judged: dict[int, Judged] = {}

    def judged(self, batch_id: int) -> Judged:
        """The batch as the ledger sees it."""
        if batch_id not in self._judged:
            self._judged[batch_id] = judged_now(self.session, self.shop.dates, batch_id, self.shop.now_s)
        return self._judged[batch_id]

    def of(self, piece: Piece) -> KeepClass | None:
        """The keep class of a piece at its last weight, by estimate or laboratory; None where it cannot be told."""
        fat, salt = piece.batch.fat_percent, piece.batch.salt_percent
        weighed = standing(piece)
        lost = lost_at(piece, weighed[-1]) if weighed else None
        if fat is None or salt is None or lost is None:
            return None
        ph, lab = acid_and_activity(self.session, piece.batch_id, self.shop.now_s)
        try:
            return keeping_at(min(fat, 70.0), salt, min(max(lost, 0.0), 65.0), ph, lab).keeps
        except OutOfRangeError:
            return None

    def why_no_label(self, packed: Packed) -> Said | None:
        """Why packs get no label: a hurdle failed, as a label says that it may be eaten; nobody knows what is in it."""
        for hurdle in self.judged(packed.piece.batch_id).ledger.hurdles:
            if hurdle.state == "fail" and hurdle.blocks and (not hurdle.pieces or packed.piece.tag in hurdle.pieces):
                return said("refused.label_failed", tag=packed.piece.tag, hurdle=hurdle.name)
        if not packed.ingredients and not bench.has_making(self.session, packed.piece.batch_id):
            return said("refused.no_ingredients", tag=packed.piece.tag)
        return None


def core_pack(packed: Packed) -> Pack:
    """Packs as the rules see them."""
    happened = counted(packed.events)
    return Pack(
        number=packed.number,
        net_g=packed.net_g,
        packed_s=float(packed.at_s),
        keep_at=packed.keep_at,
        period_days=packed.period_days,
        went=tuple(Some(float(e.at_s), e.number) for e in happened if e.kind == "out"),
        opened=tuple(Some(float(e.at_s), e.number) for e in happened if e.kind == "opened"),
    )


def pack_out(packed: Packed, known: Keeps, zone: ZoneInfo) -> s.PackOut:
    """Packs as the stock shows them. Their days end at midnight in the workshop's zone."""
    pack, keeps = core_pack(packed), known.of(packed.piece)
    return s.PackOut(
        id=packed.id,
        piece_id=packed.piece_id,
        tag=packed.piece.tag,
        batch_id=packed.piece.batch_id,
        batch=packed.piece.batch.code,
        product=packed.piece.batch.product,
        form=packed.form,
        wrap=packed.wrap,
        keep_at=pack.keep_at,
        place=None if packed.place is None else packed.place.name,
        packed_at=moment(packed.at_s),
        number=packed.number,
        left=pack.left,
        net_g=packed.net_g,
        opened=[
            s.OpenedOut(number=o.number, at=moment(o.at_s), use_by=_day_of(o.at_s + OPENED_DAYS * DAY_S, zone))
            for o in pack.open_now
        ],
        best_before=None if pack.best_before_s is None else _day_of(pack.best_before_s, zone),
        use_by=None if pack.use_by_s is None else _day_of(pack.use_by_s, zone),
        period_days=packed.period_days,
        keeps=keeps,
        cautions=all_said(_cautions(packed, pack, keeps, known.shop.now_s, zone)),
        note=packed.note,
        by=packed.by,
        events=[_event(e) for e in packed.events],
    )


def _day_of(at_s: float, zone: ZoneInfo) -> datetime:
    """The last second of a day: what is best before a day is past when the day is."""
    day = datetime.fromtimestamp(at_s, zone)
    return day.replace(hour=23, minute=59, second=59, microsecond=0).astimezone(UTC)


def _event(pack_event: PackEvent) -> s.PackEventOut:
    return s.PackEventOut(
        id=pack_event.id,
        kind=pack_event.kind,
        how=pack_event.how,
        at=moment(pack_event.at_s),
        by=pack_event.by,
        number=pack_event.number,
        to_whom=pack_event.to_whom,
        note=pack_event.note,
        struck_reason=pack_event.struck_reason,
    )


def _cautions(packed: Packed, pack: Pack, keeps: KeepClass | None, now_s: int, zone: ZoneInfo) -> list[Said]:
    found = []
    if pack.left and too_warm(pack.keep_at, keeps):
        found.append(said(f"stock.too_warm_{keeps or 'unknown'}"))
        if packed.wrap == "vacuum":
            found.append(said("stock.botulism"))
    if pack.left and pack.use_by_s is not None and _day_of(pack.use_by_s, zone).timestamp() < now_s:
        found.append(said("stock.opened_long" if pack.open_now else "stock.past"))
    if pack.left and pack.period_days is None:
        found.append(said("stock.no_period"))
    return found


def stock(shop: Premises) -> s.StockOut:
    """Everything that is there, what to use first at the front; whole pieces that were kept are among it."""
    zone = shop.zone
    with shop.db.reading() as session:
        keeps = Keeps(shop, session)
        there = [p for p in store.packs(session) if core_pack(p).left > 0]
        order = use_first([core_pack(p) for p in there])
        found = [pack_out(there[i], keeps, zone) for i in order]
        found += [_whole(p, keeps.of(p)) for p in store.kept_whole(session)]
    return s.StockOut(
        packs=found,
        packs_left=sum(p.left for p in found),
        grams_left=round(sum(p.left * (p.net_g or 0.0) for p in found), 1),
    )


def _whole(piece: Piece, keeps: KeepClass | None) -> s.PackOut:
    state = hang.state_now(piece)
    assert state is not None  # it is kept
    weighed = standing(piece)
    return s.PackOut(
        id=None,
        piece_id=piece.id,
        tag=piece.tag,
        batch_id=piece.batch_id,
        batch=piece.batch.code,
        product=piece.batch.product,
        form="whole",
        wrap="none",
        keep_at="fridge",
        place=None if state.place is None else state.place.name,
        packed_at=moment(state.from_s),
        number=1,
        left=1,
        net_g=net_weight(weighed[-1].gross_g, piece.tare_g) if weighed else None,
        opened=[],
        best_before=None,
        use_by=None,
        period_days=None,
        keeps=keeps,
        cautions=all_said([said("stock.not_packed")]),
        note=state.note,
        by=state.by,
        events=[],
    )


def usable_g(piece: Piece) -> float | None:
    """What of a piece can be in packs [g]: its slices, and what it weighed last off its hook. None: unweighed."""
    slices_g = sum(c.before_g - c.after_g for c in cuts_that_count(piece))
    if state_of(piece).kind in ("hanging", "resting") and slices_g > 0:
        return slices_g
    weighed = standing(piece)
    return slices_g + weighed[-1].gross_g if weighed else None


def label_of(shop: Premises, pack_id: int) -> s.LabelOut:
    """Whether packs get a label. Raises NotFoundError."""
    with shop.db.reading() as session:
        against = Keeps(shop, session).why_no_label(store.pack(session, pack_id))
    return s.LabelOut(no_label=None if against is None else said_out(against))


def packing(shop: Premises, piece_id: int) -> s.PackingOut:
    """A piece that is packed. Raises NotFoundError."""
    zone = shop.zone
    with shop.db.reading() as session:
        of = hang.piece(session, piece_id)
        keeps = Keeps(shop, session)
        found = store.packs(session, [piece_id])
        ledger = keeps.judged(of.batch_id).ledger
        against = [
            said("against.hurdle", hurdle=h.name, state=h.state)
            for h in ledger.hurdles
            if h.blocks and (not h.pieces or of.tag in h.pieces)
        ]
        return s.PackingOut(
            piece_id=of.id,
            tag=of.tag,
            product=of.batch.product,
            batch=of.batch.code,
            state=state_of(of).kind,
            usable_g=usable_g(of),
            packed_g=packed_g(found),
            thrown_g=sum(e.number * p.net_g for p in found for e in counted(p.events) if e.how == "discarded"),
            keeps=keeps.of(of),
            has_ingredients=bench.has_making(session, of.batch_id),
            against=all_said(against),
            periods=_periods(session, of.batch.product),
            packs=[pack_out(p, keeps, zone) for p in found],
        )


def packed_g(of: Sequence[Packed]) -> float:
    """What is or was in packs [g]; what was moved counts once."""
    moved = sum(e.number * p.net_g for p in of for e in counted(p.events) if e.how == "moved")
    return sum(p.number * p.net_g for p in of) - moved


def _periods(session: Session, product: str) -> list[s.PeriodOut]:
    """The maker's own periods as they were given last for a product."""
    last: dict[tuple[str, str], int] = {}
    for one in store.packs(session):
        if one.piece.batch.product == product and one.period_days is not None:
            last[one.wrap, one.keep_at] = one.period_days
    return [
        s.PeriodOut(wrap=wrap, keep_at=keep_at, period_days=days)  # type: ignore[arg-type] # as they were checked
        for (wrap, keep_at), days in last.items()
    ]
