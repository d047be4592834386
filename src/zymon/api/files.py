"""Files out: the hang file, climate and weights as CSV."""

from fastapi import APIRouter, Response

from zymon.formats.hang_file import HangBatch, HangChamber, HangFile, HangPiece, Setpoint
from zymon.formats.measurements import climate_csv, weights_csv
from zymon.store.climate import all_readings
from zymon.store.hang import pieces_hanging
from zymon.store.models import Piece
from zymon.store.places import place, setpoint_at

from .context import Ctx, Id, moment
from .imports import file_stem

router = APIRouter(prefix="/api/places", tags=["files"])


def _attached(body: str, name: str, media: str) -> Response:
    return Response(body, media_type=media, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@router.get("/{place_id}/hang-file")
def hang_file(ctx: Ctx, place_id: Id) -> Response:
    """The place, its climate and what hangs there as a `zymon-hang/1` file."""
    with ctx.db.reading() as session:
        of = place(session, place_id)
        pieces = pieces_hanging(session, place_id)
        setpoint = setpoint_at(of, ctx.now_s)
        batches: dict[str, HangBatch] = {}
        for piece in pieces:
            batch = piece.batch
            batches.setdefault(
                batch.code,
                HangBatch.model_validate(
                    {
                        "id": batch.code,
                        "product": batch.product,
                        "kind": batch.kind,
                        "shape": batch.shape,
                        "casing": batch.casing,
                        "fat_percent": batch.fat_percent,
                        "salt_percent": batch.salt_percent,
                        "pieces": [],
                    }
                ),
            ).pieces.append(_piece(piece))
        first = min((p.hung_s for p in pieces), default=ctx.now_s)
        file = HangFile(
            format="zymon-hang/1",
            chamber=HangChamber(
                name=of.name,
                setpoint=None
                if setpoint is None
                else Setpoint(temperature_c=setpoint.temperature_c, rh_percent=setpoint.rh_percent),
            ),
            climate=[(moment(at), c, rh) for at, c, rh in all_readings(session, place_id) if at >= first - 86_400],
            batches=list(batches.values()),
            now=moment(ctx.now_s),
        )
    return _attached(file.model_dump_json(), f"{file_stem(of.name, file.now)}.json", "application/json")


def _piece(piece: Piece) -> HangPiece:
    return HangPiece(
        tag=piece.tag,
        diameter_mm=piece.diameter_mm,
        thickness_mm=piece.thickness_mm,
        length_mm=piece.length_mm,
        start_weight_g=piece.start_weight_g,
        tare_g=piece.tare_g,
        hung_at=moment(piece.hung_s),
        target_loss_percent=piece.target_loss_percent,
        weights=[(moment(w.at_s), w.gross_g) for w in piece.weighings if w.struck_s is None],
    )


@router.get("/{place_id}/climate.csv")
def climate_file(ctx: Ctx, place_id: Id) -> Response:
    """Every reading of a place as CSV."""
    with ctx.db.reading() as session:
        name = place(session, place_id).name
        body = climate_csv(all_readings(session, place_id))
    return _attached(body, f"{file_stem(name, moment(ctx.now_s))}-climate.csv", "text/csv; charset=utf-8")


@router.get("/{place_id}/weights.csv")
def weights_file(ctx: Ctx, place_id: Id) -> Response:
    """The weighings of what hangs in a place as CSV, struck ones left out."""
    with ctx.db.reading() as session:
        name = place(session, place_id).name
        pieces = pieces_hanging(session, place_id)
        rows = [(p.tag, w.at_s, w.gross_g) for p in pieces for w in p.weighings if w.struck_s is None]
    return _attached(weights_csv(rows), f"{file_stem(name, moment(ctx.now_s))}-weights.csv", "text/csv; charset=utf-8")
