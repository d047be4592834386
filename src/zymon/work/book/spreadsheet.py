"""Everything as a spreadsheet, written a row at a time; and single tables of a batch as CSV."""

import tempfile
from collections.abc import Iterator
from pathlib import Path

from sqlalchemy import select
from sqlalchemy.orm import joinedload, selectinload

from zymon.formats import spreadsheet as sheets
from zymon.formats.spreadsheet import Cell, Sheet, write_spreadsheet
from zymon.formats.tables import csv_table
from zymon.store import bench, keep, warm
from zymon.store.database import Session
from zymon.store.models import Batch, Piece, Place, ReadingHour
from zymon.store.warm_models import PhReading
from zymon.store.weighings import standing

from ..as_forecast import lost_at
from ..keep.views import core_pack
from ..life import state_of
from ..premises import Premises, moment

A_PART = 500  # pieces that are read together


def workshop_sheet(shop: Premises) -> Path:
    """The whole workshop in a file of its own, which whoever sends it takes away afterwards."""
    file = Path(tempfile.mkstemp(suffix=".xlsx")[1])
    with shop.db.reading() as session:
        write_spreadsheet(
            file,
            [
                Sheet("pieces", sheets.PIECES, _pieces(session)),
                Sheet("weights", sheets.WEIGHTS, _weights(session)),
                Sheet("ph", sheets.PH, _ph(session)),
                Sheet("climate", sheets.CLIMATE, _climate(session)),
                Sheet("stock", sheets.STOCK, _stock(session)),
            ],
            shop.zone,
        )
    return file


def _every_piece(session: Session) -> Iterator[Piece]:
    ids = list(session.scalars(select(Piece.id).order_by(Piece.hung_s, Piece.tag)))
    for i in range(0, len(ids), A_PART):
        query = select(Piece).where(Piece.id.in_(ids[i : i + A_PART])).options(
            joinedload(Piece.batch), selectinload(Piece.weighings), selectinload(Piece.cuts),
            selectinload(Piece.states), selectinload(Piece.hangings),
        )  # fmt: skip
        yield from session.scalars(query.order_by(Piece.hung_s, Piece.tag)).unique()
        session.expunge_all()  # ten years of pieces are not held in memory


def _pieces(session: Session) -> Iterator[tuple[Cell, ...]]:
    for of in _every_piece(session):
        weighed = standing(of)
        off = next((h.to_s for h in reversed(of.hangings)), None)
        yield (
            of.batch.code, of.batch.product, of.tag, of.batch.kind, state_of(of).kind, moment(of.hung_s),
            None if off is None else moment(off), of.start_weight_g, of.tare_g, of.target_loss_percent,
            weighed[-1].gross_g if weighed else None, lost_at(of, weighed[-1]) if weighed else None,
        )  # fmt: skip


def _weights(session: Session) -> Iterator[tuple[Cell, ...]]:
    for of in _every_piece(session):
        for w in of.weighings:
            yield of.tag, moment(w.at_s), w.gross_g, lost_at(of, w), w.by, w.struck_reason or ""


def _ph(session: Session) -> Iterator[tuple[Cell, ...]]:
    codes = {row.id: row.code for row in session.execute(select(Batch.id, Batch.code))}
    for r in session.scalars(select(PhReading).order_by(PhReading.at_s)):
        yield codes[r.batch_id], moment(r.at_s), r.ph, r.by, r.struck_reason or ""


def _climate(session: Session) -> Iterator[tuple[Cell, ...]]:
    query = (
        select(Place.name, ReadingHour.hour_s, ReadingHour.temperature_c, ReadingHour.rh_percent)
        .join(Place, Place.id == ReadingHour.place_id)
        .order_by(Place.position, ReadingHour.hour_s)
        .execution_options(yield_per=5000)
    )
    for name, hour_s, c, rh in session.execute(query):
        yield name, moment(hour_s), round(c, 2), None if rh is None else round(rh, 1)


def _stock(session: Session) -> Iterator[tuple[Cell, ...]]:
    for of in keep.packs(session):
        pack = core_pack(of)
        best = pack.best_before_s
        yield (
            of.piece.tag, moment(of.at_s), of.number, of.net_g, of.form, of.wrap, of.keep_at, pack.left,
            None if best is None else moment(best),
        )  # fmt: skip


def batch_weights(shop: Premises, batch_id: int) -> tuple[str, str]:
    """The code of a batch, and its weighings as CSV, struck ones with their reason. Raises NotFoundError."""
    with shop.db.reading() as session:
        of = bench.batch(session, batch_id)
        rows = [
            (p.tag, moment(w.at_s).isoformat(), w.gross_g, lost_at(p, w), w.by, w.struck_reason or "")
            for p in of.pieces
            for w in p.weighings
        ]
    return of.code, csv_table([c.name for c in sheets.WEIGHTS], rows)


def batch_ph(shop: Premises, batch_id: int) -> tuple[str, str]:
    """The code of a batch, and its pH as CSV, struck readings with their reason. Raises NotFoundError."""
    with shop.db.reading() as session:
        of = bench.batch(session, batch_id)
        rows = [
            (of.code, moment(r.at_s).isoformat(), r.ph, r.by, r.struck_reason or "")
            for r in warm.readings(session, batch_id)
        ]
    return of.code, csv_table([c.name for c in sheets.PH], rows)
