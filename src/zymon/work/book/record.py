"""A batch's story as a printed record: every part as a table, estimates marked, the time line drawn."""

from collections.abc import Iterable
from datetime import datetime, tzinfo

from zymon.core.say import Said
from zymon.formats.record.drawing import Air, Strip, TimeLine, Window, thin
from zymon.formats.record.sheet import Record, Table, record_pdf
from zymon.words import NAMES, sentence

from ..ledger.schemas import HurdleOut
from ..premises import Premises
from ..schemas import SaidOut
from . import story_schemas as s
from .story import story

EST = "est."  # beside everything that is worked out and not read off an instrument
CAUTION = "Local food law and a licensed process come before this record. est.: estimate, not a test."
MOST_POINTS = 240


def record(shop: Premises, batch_id: int) -> tuple[bytes, str]:
    """The record of a batch as PDF, and its name. Raises NotFoundError."""
    told = story(shop, batch_id)
    return record_pdf(record_of(told, shop.zone)), f"record-{told.code}.pdf"


def record_of(of: s.StoryOut, zone: tzinfo) -> Record:
    """What is printed of a story."""
    words = _Words(zone)
    return Record(
        workshop=of.workshop,
        title=f"Record of batch {of.code}",
        lines=(
            f"{of.product}, {NAMES['goods'][of.kind]}, {len(of.pieces)} pieces; made {words.day(of.made_at)}"
            f"{' by ' + ', '.join(of.people) if of.people else ''}.",
            f"As of this print: {VERDICTS[of.ledger.verdict]}; {words.said(of.ledger.check)}".rstrip(". ") + ".",
            f"Limits: {of.ledger.profile.name} ({of.ledger.profile.source}, {of.ledger.profile.as_of}).",
        ),
        printed=of.told_at.astimezone(zone),
        time_line=_time_line(of, zone),
        tables=tuple(table for table in _tables(of, words) if table.rows),
        caution=CAUTION,
    )


VERDICTS = {
    "held": "held", "under_way": "under way", "cautions": "ready, with cautions", "ready": "ready",
}  # fmt: skip


class _Words:
    """Moments and sentences as they are printed."""

    def __init__(self, zone: tzinfo) -> None:
        self.zone = zone

    def day(self, at: datetime | None) -> str:
        return "" if at is None else f"{at.astimezone(self.zone):%-d %b %Y}"

    def moment(self, at: datetime | None) -> str:
        return "" if at is None else f"{at.astimezone(self.zone):%-d %b %Y %H:%M}"

    def said(self, of: SaidOut) -> str:
        return sentence(Said(of.code, of.values), self.zone)


def _number(value: float | None, unit: str = "", digits: int = 1) -> str:
    return "" if value is None else f"{value:.{digits}f}{unit}"


def _tables(of: s.StoryOut, w: _Words) -> Iterable[Table]:
    yield Table(
        "Hurdles", ("hurdle", "state", "value", "limit", "how it is known", "source and signatures"),
        (34, 20, 24, 30, 26, 44), tuple(_hurdle(h, w) for h in of.ledger.hurdles),
    )  # fmt: skip
    yield Table(
        "What went in", ("what", "grams", "lot"), (80, 30, 68),
        tuple((one.name, f"{one.grams:.1f}", one.lot or "no lot noted") for one in of.went_in),
    )  # fmt: skip
    yield Table(
        "Stages", ("stage", "from", "to", "place", "air, mean (lowest to highest)", "pieces", "by"),
        (18, 30, 30, 28, 36, 22, 14), tuple(_stage(one, w) for one in of.stages),
    )  # fmt: skip
    yield Table(
        "pH", ("when", "pH", "by"), (50, 30, 98),
        tuple((w.moment(r.at), f"{r.ph:.2f}{' (struck)' if r.struck else ''}", r.by) for r in of.ph),
    )  # fmt: skip
    yield Table(
        "Pieces", ("tag", "hung", "start", "target", "lost", "target on the scale", "is now"),
        (26, 30, 20, 18, 18, 32, 34), tuple(_piece(one, w) for one in of.pieces),
    )  # fmt: skip
    yield Table(
        "Weights", ("piece", "when", "gross", "lost", "by", ""), (26, 36, 22, 20, 24, 50), tuple(_weights(of, w))
    )
    yield Table(
        "Dates as they were told", ("piece", "told on", "ready about, est.", "four in five between, est."),
        (26, 36, 44, 72), tuple(_told(of, w)),
    )  # fmt: skip
    yield Table(
        "What was done", ("when", "what", "pieces", "by", "note"), (34, 44, 40, 18, 42),
        tuple(
            (w.moment(d.at), w.said(d.says) + (" (struck)" if d.struck else ""), ", ".join(d.pieces), d.by, d.note)
            for d in of.doings
        ),
    )  # fmt: skip
    yield Table(
        "What was done about what went wrong", ("when", "hurdle", "step", "note", "by"), (34, 40, 24, 60, 20),
        tuple(
            (w.moment(d.at), NAMES["hurdle"].get(d.hurdle, d.hurdle), d.step, d.note, d.by) for d in of.ledger.steps
        ),
    )  # fmt: skip
    yield Table(
        "Laboratory", ("when", "what", "value", "taken of", "by"), (34, 50, 34, 40, 20),
        tuple(
            (w.moment(r.at), NAMES["laboratory"].get(r.what, r.what), f"{r.value:g} {r.unit}".strip(),
             " ".join(x for x in (r.taken_of, r.tag or "") if x), r.by)
            for r in of.ledger.laboratory
        ),
    )  # fmt: skip
    yield Table("Cut", ("piece", "when", "seen", "ring seen", "ring predicted, est.", "by", "note"),
                (24, 30, 34, 20, 28, 16, 26), tuple(_cut(one, w) for one in of.cuts))  # fmt: skip
    yield Table(
        "Packs", ("piece", "packed", "packs", "left", "kept", "best before (maker's own)"), (26, 30, 36, 14, 30, 42),
        tuple(
            (p.tag, w.day(p.packed_at), f"{p.number} × {p.net_g or 0:.0f} g {p.form}", str(p.left),
             p.place or p.keep_at, w.day(p.best_before) or "none given")
            for p in of.packs
        ),
    )  # fmt: skip
    yield Table("What came of it", ("step", "grams", "of what was bought"), (60, 40, 78), tuple(_came(of)))
    yield Table(
        "Changed afterwards", ("when", "by", "what", "from and to", "why"), (32, 18, 34, 54, 40), tuple(_changes(of, w))
    )


def _hurdle(of: HurdleOut, w: _Words) -> tuple[str, ...]:
    limit = w.said(of.limit) if isinstance(of.limit, SaidOut) else "" if of.limit is None else f"{of.limit:g}"
    figure = NAMES["keeps"].get(of.value, of.value) if isinstance(of.value, str) else _figure(of.value, of.unit)
    known = f"{of.known} ({EST})" if of.known == "estimated" else of.known
    signed = "" if of.signed is None else f"; signed by {of.signed.by}: {of.signed.reason}"
    state = NAMES["state"].get(of.state, of.state)
    return NAMES["hurdle"].get(of.name, of.name), state, figure, limit, known, f"{of.source}{signed}"


def _figure(value: float | None, unit: str) -> str:
    return "" if value is None else f"{value:.4g} {unit}".strip()


def _stage(of: s.StoryStage, w: _Words) -> tuple[str, ...]:
    air = ""
    if of.mean_c is not None:
        air = f"{of.mean_c:.1f} °C ({of.low_c:.1f} to {of.high_c:.1f})"
        air += "" if of.mean_rh_percent is None else f", {of.mean_rh_percent:.0f} %"
    pieces = ", ".join(of.pieces) if len(of.pieces) < 3 else f"{len(of.pieces)} pieces"
    return (
        NAMES["stage"].get(of.kind, of.kind), w.moment(of.from_at), w.moment(of.to_at) or "goes on",
        of.place or "not said", air or "nobody read it", pieces, of.by,
    )  # fmt: skip


def _piece(of: s.StoryPiece, w: _Words) -> tuple[str, ...]:
    life = of.life
    state = "" if life is None else NAMES["became"].get(life.kind, life.kind)
    how = "" if life is None or life.kind != "gone" else f", {NAMES['how'].get(life.how, life.how)}"
    return (
        of.tag, w.day(of.hung_at), _number(of.start_g, " g", 0) or "not weighed",
        _number(of.target_loss_percent, " %", 0), _number(of.loss_percent, " %"), w.day(of.reached_at),
        f"{state}{how} {w.day(life.since) if life else ''}".strip(),
    )  # fmt: skip


def _weights(of: s.StoryOut, w: _Words) -> Iterable[tuple[str, ...]]:
    for piece in of.pieces:
        for one in piece.weights:
            struck = "" if one.struck_reason is None else f"struck: {one.struck_reason}"
            yield piece.tag, w.moment(one.at), f"{one.gross_g:g} g", _number(one.loss_percent, " %"), one.by, struck


def _told(of: s.StoryOut, w: _Words) -> Iterable[tuple[str, ...]]:
    for piece in of.pieces:
        for one in piece.told:
            about = w.day(one.ready.p50) or "out of reach"
            window = "" if one.ready.p10 is None else f"{w.day(one.ready.p10)} to {w.day(one.ready.p90)}"
            yield piece.tag, w.moment(one.at), about, window


def _cut(of: s.StoryCut, w: _Words) -> tuple[str, ...]:
    face = of.face
    seen = ", ".join(sign.replace("_", " ") for sign in face.signs) or "nothing wrong"
    ring = f"{face.face.ring_mm:g} mm" if face.face.ring_mm else face.face.ring or "not looked"
    struck = "" if face.struck_reason is None else f" (struck: {face.struck_reason})"
    return (
        of.tag, w.moment(face.at), f"{seen}; {face.verdict}{struck}", ring, f"{face.predicted.ring_mm:.0f} mm", face.by,
        face.note,
    )  # fmt: skip


def _came(of: s.StoryOut) -> Iterable[tuple[str, ...]]:
    for step in of.came_of_it.steps:
        share = "" if step.share is None else f"{100 * step.share:.0f} %"
        yield step.step, _number(step.grams, " g", 0) or "not weighed", share
    cost = of.came_of_it.cost_per_finished_kg
    if cost is not None:
        yield "cost of a finished kg", f"{cost:.2f}", ""


def _changes(of: s.StoryOut, w: _Words) -> Iterable[tuple[str, ...]]:
    for line in of.changes:
        fields = "; ".join(f"{f.field}: {_plain(f.before)} to {_plain(f.after)}" for f in line.fields)
        what = " ".join(x for x in (line.what.replace("_", " "), line.tag or line.place or "") if x)
        yield w.moment(line.at), line.by, what, fields, line.reason


def _plain(value: str | float | bool | None) -> str:
    return "nothing" if value is None or value == "" else str(value)


def _time_line(of: s.StoryOut, zone: tzinfo) -> TimeLine:
    told = max(of.pieces, key=lambda p: len(p.told), default=None)
    return TimeLine(
        from_s=of.begins.timestamp(),
        to_s=of.ends.timestamp(),
        zone=zone,
        stages=tuple(
            Strip(one.kind, f"{NAMES['stage'].get(one.kind, one.kind)}, {one.place or ''}", one.from_at.timestamp(),
                  of.ends.timestamp() if one.to_at is None else one.to_at.timestamp())
            for one in of.stages
        ),
        pieces=tuple(_curve(piece) for piece in of.pieces),
        target_percent=next((p.target_loss_percent for p in of.pieces if p.target_loss_percent is not None), None),
        told_of="" if told is None else told.tag,
        told=() if told is None else tuple(
            Window(one.at.timestamp(), one.ready.p10.timestamp(), one.ready.p50.timestamp(), one.ready.p90.timestamp())
            for one in told.told
            if one.ready.p10 and one.ready.p50 and one.ready.p90
        ),
        airs=tuple(_air(one) for one in of.airs if len(one.at) > 1),
    )  # fmt: skip


def _curve(of: s.StoryPiece) -> tuple[tuple[float, float], ...]:
    if of.hung_at is None or of.start_g is None:
        return ()
    weighed = [(w.at.timestamp(), w.loss_percent or 0.0) for w in of.weights if w.struck_reason is None]
    return ((of.hung_at.timestamp(), 0.0), *sorted(weighed))


def _air(of: s.StoryAir) -> Air:
    times = [at.timestamp() for at in of.at]
    warm = thin(list(zip(times, of.temperature_c, strict=True)), MOST_POINTS)
    told = [(at, rh) for at, rh in zip(times, of.rh_percent, strict=True) if rh is not None]
    damp = thin(told, MOST_POINTS) if told else []
    return Air(tuple(warm), tuple(damp))
