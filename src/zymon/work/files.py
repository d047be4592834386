"""What goes out as files: the hang file, climate and weights as CSV; of what hangs, or of all that ever hung there."""

from collections.abc import Iterator

from zymon.formats.bulk import in_parts
from zymon.formats.hang_file import HangBatch, HangChamber, HangFile, HangPiece, Setpoint
from zymon.formats.measured.writing import climate_csv, weights_csv
from zymon.store.climate import all_readings
from zymon.store.database import Session
from zymon.store.hang import first_hung, pieces_hanging, pieces_that_hung
from zymon.store.models import Batch, Piece
from zymon.store.places import place, setpoint_at
from zymon.store.weighings import standing

from .as_forecast import core_piece
from .premises import Premises, moment

DAY_S = 86_400


def hang_file(shop: Premises, place_id: int, finished: bool) -> tuple[str, Iterator[str]]:
    """The name of a place, and it with its climate and its pieces as a `zymon-hang/1` file, sent as it is read.

    Parameters: finished, those that came down too. Raises NotFoundError, before anything is sent.
    """
    with shop.db.reading() as session:
        of = place(session, place_id)
        setpoint = setpoint_at(of, shop.now_s)
        first = first_hung(session, place_id, finished) or shop.now_s
        head = HangFile(
            format="zymon-hang/1",
            chamber=HangChamber(
                name=of.name,
                kind=of.sort,
                air=of.stirring,
                setpoint=None
                if setpoint is None
                else Setpoint(temperature_c=setpoint.temperature_c, rh_percent=setpoint.rh_percent),
            ),
            climate=[],
            batches=[],
            now=moment(shop.now_s),
        )
    return of.name, _filled(shop, head, place_id, first - DAY_S, finished)


def _filled(shop: Premises, head: HangFile, place_id: int, from_s: int, finished: bool) -> Iterator[str]:
    """A hang file whose readings are written as they come off the disk: ten years of minutes fit no memory."""
    before, between_and_after = head.model_dump_json().split('"climate":[]')
    between, after = between_and_after.split('"batches":[]')
    yield f'{before}"climate":['
    with shop.db.reading() as session:
        begun = False
        for part in in_parts(all_readings(session, place_id, from_s)):
            # the format knows readings of both alone
            rows = ",".join(f'["{moment(at):%Y-%m-%dT%H:%M:%SZ}",{c},{rh}]' for at, c, rh in part if rh is not None)
            if not rows:
                continue
            yield f"{',' if begun else ''}{rows}"
            begun = True
        yield f']{between}"batches":['
        yield ",".join(batch.model_dump_json() for batch in _batches(session, place_id, finished))
    yield f"]{after}"


def _batches(session: Session, place_id: int, finished: bool) -> list[HangBatch]:
    """The pieces by batch; a batch of the file has one shape and one casing, so unlike pieces stand side by side."""
    found: dict[tuple[str, str, str], HangBatch] = {}
    for piece in _pieces(session, place_id, finished):
        key = (piece.batch.code, piece.shape, piece.casing)
        found.setdefault(key, _batch(piece.batch, piece)).pieces.append(_piece(piece))
    return list(found.values())


def _pieces(session: Session, place_id: int, finished: bool) -> list[Piece]:
    return pieces_that_hung(session, place_id) if finished else pieces_hanging(session, place_id)


def _batch(batch: Batch, piece: Piece) -> HangBatch:
    return HangBatch.model_validate(
        {
            "id": batch.code,
            "product": batch.product,
            "kind": batch.kind,
            "shape": piece.shape,
            "casing": piece.casing,
            "fat_percent": batch.fat_percent,
            "salt_percent": batch.salt_percent,
            "pieces": [],
        }
    )


def _piece(piece: Piece) -> HangPiece:
    as_dried = core_piece(piece)
    return HangPiece(
        tag=piece.tag,
        diameter_mm=piece.diameter_mm,
        thickness_mm=piece.thickness_mm,
        length_mm=piece.length_mm,
        start_weight_g=as_dried.start_weight_g,
        tare_g=piece.tare_g,
        hung_at=moment(piece.hung_s),
        target_loss_percent=piece.target_loss_percent,
        skin=piece.skin,
        bone=piece.bone,
        weights=[(moment(w.at_s), w.gross_g, "confirmed" if w.confirmed else "") for w in as_dried.weighings],
    )


def climate(shop: Premises, place_id: int, from_s: int, to_s: int) -> tuple[str, Iterator[str]]:
    """The name of a place, and its readings between two times [s] as CSV, sent as they are read. Raises NotFoundError.

    Those that count: what was struck is left out.
    """
    with shop.db.reading() as session:
        name = place(session, place_id).name

    def rows() -> Iterator[str]:
        with shop.db.reading() as session:
            yield from climate_csv(all_readings(session, place_id, from_s, to_s))

    return name, rows()


def weights(shop: Premises, place_id: int, finished: bool) -> tuple[str, str]:
    """The name of a place, and the weighings of its pieces as CSV, struck ones left out."""
    with shop.db.reading() as session:
        pieces = _pieces(session, place_id, finished)
        rows = [(p.tag, w.at_s, w.gross_g) for p in pieces for w in standing(p)]
        return place(session, place_id).name, weights_csv(rows)
