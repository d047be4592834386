"""A batch between its file and the core: what was read, as the ledger sees it, and back."""

from dataclasses import asdict
from datetime import UTC, datetime

from zymon.core.ledger import batch as judged
from zymon.limits import shipped

from .batch_file import (
    BatchFile,
    CorrectionRow,
    CuringSaltRow,
    FormulationRow,
    InspectionRow,
    LabRow,
    ParasiteRow,
    PartRow,
    PhRow,
    PieceRow,
    SignatureRow,
    StageRow,
)


def _tags(pieces: list[str] | None) -> tuple[str, ...]:
    return tuple(pieces or ())


def _points(rows: list[tuple[datetime, float]], now: datetime) -> judged.Points:
    return tuple(sorted((at.timestamp(), value) for at, value in rows if at <= now))


def _optional(at: datetime | None) -> float | None:
    return None if at is None else at.timestamp()


def batch_of(file: BatchFile) -> judged.Batch:
    """The core's batch of a checked file; nothing that lies after its now is kept."""
    now = file.now
    mixes = [*([file.formulation] if file.formulation is not None else []), *file.formulations]
    return judged.Batch(
        id=file.id,
        goods=file.goods,
        use=file.use,
        profile=file.profile(),
        now_s=now.timestamp(),
        family=file.family,
        cold_hung=file.cold_hung,
        moulded=file.moulded,
        parts=tuple(judged.Part(p.name, p.species, p.mass_g, p.fat_percent, _tags(p.pieces)) for p in file.parts),
        formulations=tuple(_formulation(f) for f in mixes),
        mix_temperature_c=file.mix_temperature_c,
        parasite=tuple(
            judged.ParasiteStep(p.species, p.way, p.temperature_c, p.days, p.thickness_cm) for p in file.parasite
        ),
        stages=tuple(
            judged.Stage(
                s.kind, s.from_.timestamp(), _optional(s.to), _points(s.temperature, now), s.way, s.place,
                _tags(s.pieces),
            )
            for s in file.stages if s.from_ <= now
        ),
        ph=tuple(judged.Ph(r.at.timestamp(), r.value, r.meter or "unknown") for r in file.ph if r.at <= now),
        pieces=tuple(_piece(p, now) for p in file.pieces),
        laboratory=tuple(
            judged.LabValue(v.at.timestamp(), v.what, v.value, v.unit, v.on, v.tag) for v in file.laboratory
        ),
        corrections=tuple(
            judged.Correction(c.hurdle, c.at.timestamp(), c.by, c.reason, c.was) for c in file.corrections
        ),
        signatures=tuple(judged.Signature(s.hurdle, s.by, s.at.timestamp(), s.reason) for s in file.signatures),
        people=file.workshop_people or judged.MORE_THAN_ONE,
        forecast_end_s=_optional(file.forecast_end),
    )  # fmt: skip


def _formulation(f: FormulationRow) -> judged.Formulation:
    salts = f.curing_salts
    return judged.Formulation(
        plain_salt_g=f.plain_salt_g,
        curing_salts=None
        if salts is None
        else tuple(judged.CuringSalt(c.grams, c.nitrite_fraction, c.nitrate_fraction) for c in salts),
        other_salt_g=f.other_salt_g if f.other_salt_g is not None or "other_salt_g" in f.model_fields_set else 0.0,
        dose_known=f.dose_known,
        belly=f.belly,
        tags=_tags(f.pieces),
    )


def _piece(p: PieceRow, now: datetime) -> judged.Piece:
    looks = tuple(
        judged.Inspection(i.at.timestamp(), i.rim, i.core, i.smell or "")
        for i in sorted(p.inspections, key=lambda i: i.at)
        if i.at <= now
    )
    return judged.Piece(
        tag=p.tag,
        start_weight_g=p.start_weight_g,
        tare_g=p.tare_g,
        target_loss_percent=p.target_loss_percent,
        done_by=p.done_by,
        core_salt_share=p.core_salt_share,
        weights=_points(p.weights, now),
        doubtful=tuple(at.timestamp() for at in p.doubtful),
        taken_down_s=_optional(p.taken_down) if p.taken_down is not None and p.taken_down <= now else None,
        inspections=looks,
        casing=p.casing,
        ring_past_bound=p.ring_past_bound,
    )


def file_of(batch: judged.Batch) -> BatchFile:
    """The batch file of the core's batch; `batch_of` reads the same batch back."""
    return BatchFile(
        id=batch.id,
        goods=batch.goods,
        family=batch.family,
        use=batch.use,
        cold_hung=batch.cold_hung,
        moulded=batch.moulded,
        limit_profile=batch.profile.id,
        limits=None if batch.profile.id in shipped() else asdict(batch.profile),
        now=_at(batch.now_s),
        parts=[
            PartRow(name=p.name, species=p.species, mass_g=p.mass_g, fat_percent=p.fat_percent, pieces=_list(p.tags))
            for p in batch.parts
        ],
        formulation=_formulation_in(batch.formulations[0]) if len(batch.formulations) == 1 else None,
        formulations=[_formulation_in(f) for f in batch.formulations] if len(batch.formulations) != 1 else [],
        mix_temperature_c=batch.mix_temperature_c,
        parasite=[ParasiteRow(**vars(p)) for p in batch.parasite],
        stages=[
            StageRow(
                kind=s.kind, from_=_at(s.from_s), to=_maybe(s.to_s), way=s.way, place=s.place,
                temperature=_rows(s.temperature), pieces=_list(s.tags),
            )
            for s in batch.stages
        ],
        ph=[PhRow(at=_at(r.at_s), value=r.value, meter=r.meter) for r in batch.ph],
        pieces=[_piece_in(p) for p in batch.pieces],
        laboratory=[
            LabRow(at=_at(v.at_s), what=v.what, value=v.value, unit=v.unit, on=v.on, tag=v.tag)
            for v in batch.laboratory
        ],
        corrections=[
            CorrectionRow(hurdle=c.hurdle, at=_at(c.at_s), by=c.by, reason=c.reason, was=c.was)
            for c in batch.corrections
        ],
        signatures=[
            SignatureRow(hurdle=s.hurdle, by=s.by, at=_at(s.at_s), reason=s.reason) for s in batch.signatures
        ],
        workshop_people=batch.people,
        forecast_end=_maybe(batch.forecast_end_s),
    )  # fmt: skip


def _at(at_s: float) -> datetime:
    return datetime.fromtimestamp(at_s, UTC)


def _maybe(at_s: float | None) -> datetime | None:
    return None if at_s is None else _at(at_s)


def _list(tags: tuple[str, ...]) -> list[str] | None:
    return list(tags) or None


def _rows(points: judged.Points) -> list[tuple[datetime, float]]:
    return [(_at(t), value) for t, value in points]


def _formulation_in(f: judged.Formulation) -> FormulationRow:
    salts = f.curing_salts
    return FormulationRow(
        plain_salt_g=f.plain_salt_g,
        curing_salts=None if salts is None else [CuringSaltRow(**vars(c)) for c in salts],
        other_salt_g=f.other_salt_g,
        dose_known=f.dose_known,
        belly=f.belly,
        pieces=_list(f.tags),
    )


def _piece_in(p: judged.Piece) -> PieceRow:
    return PieceRow(
        tag=p.tag,
        start_weight_g=p.start_weight_g,
        tare_g=p.tare_g,
        target_loss_percent=p.target_loss_percent,
        done_by=p.done_by,
        core_salt_share=p.core_salt_share,
        weights=_rows(p.weights),
        doubtful=[_at(t) for t in p.doubtful],
        taken_down=_maybe(p.taken_down_s),
        inspections=[InspectionRow(at=_at(i.at_s), rim=i.rim, core=i.core, smell=i.smell) for i in p.inspections],
        casing=p.casing,
        ring_past_bound=p.ring_past_bound,
    )
