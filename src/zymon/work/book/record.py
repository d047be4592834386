"""A batch's story as a printed record: every part as a table, estimates marked, the time line drawn."""

from collections.abc import Iterable
from datetime import datetime, tzinfo

from zymon.core.say import Said
from zymon.formats.record.contents import Record, Table
from zymon.formats.record.drawing import Air, Strip, TimeLine, Window, thin
from zymon.words import name_of, on_paper, sentence, showing
from zymon.words.written import day, length, moment, number, price, temperature, weight

from ..ledger.schemas import HurdleOut
from ..premises import Premises
from ..premises import moment as moment_of
from ..schemas import SaidOut
from . import story_schemas as s
from .story import story
from .tables import table

MOST_POINTS = 240


def record(shop: Premises, batch_id: int) -> tuple[bytes, str]:
    """The record of a batch as PDF, and its name. Raises NotFoundError."""
    from zymon.formats.record.sheet import record_pdf  # not at the start of Zymon: it takes half a second to read

    told = story(shop, batch_id)
    return record_pdf(record_of(told, shop.zone)), f"record-{told.code}.pdf"


def record_of(story: s.StoryOut, zone: tzinfo) -> Record:
    """What is printed of a story."""
    words, limits = _Words(zone), story.ledger.profile
    return Record(
        workshop=story.workshop,
        title=on_paper("record", batch=story.code),
        lines=(
            on_paper(
                "made_by" if story.people else "made",
                product=story.product,
                goods=story.kind,
                pieces=len(story.pieces),
                made=words.day(story.made_at),
                people=", ".join(story.people),
            ),
            on_paper("verdict_check", verdict=story.ledger.verdict, check=words.said(story.ledger.check).rstrip(". ")),
            on_paper("limits", name=name_of("text", limits.name), source=limits.source, as_of=limits.as_of),
        ),
        printed=story.told_at.astimezone(zone),
        time_line=_time_line(story, zone),
        tables=tuple(table for table in _tables(story, words) if table.rows),
        caution=on_paper("caution"),
    )


class _Words:
    """Moments and sentences as they are printed."""

    def __init__(self, zone: tzinfo) -> None:
        self.zone = zone

    def day(self, at: datetime | None) -> str:
        return "" if at is None else day(at.astimezone(self.zone), showing())

    def moment(self, at: datetime | None) -> str:
        return "" if at is None else moment(at.astimezone(self.zone), showing())

    def said(self, said_out: SaidOut) -> str:
        return sentence(Said(said_out.code, said_out.values), self.zone)


def _percent(value: float | None, digits: int = 1) -> str:
    return "" if value is None else f"{number(value, showing(), digits)} %"


def _grams(value: float | None) -> str:
    return on_paper("not_weighed") if value is None else weight(round(value), showing())


def _tables(story: s.StoryOut, w: _Words) -> Iterable[Table]:
    yield table(
        "hurdles", {"hurdle": 34, "state": 20, "value": 24, "limit": 30, "known": 26, "source": 44},
        tuple(_hurdle(h, w) for h in story.ledger.hurdles),
    )  # fmt: skip
    yield table(
        "went_in", {"what": 80, "weight": 30, "lot": 68},
        tuple(
            (name_of("text", one.name), weight(one.grams, showing()), one.lot or on_paper("no_lot"))
            for one in story.went_in
        ),
    )  # fmt: skip
    yield table(
        "stages", {"stage": 18, "from": 30, "to": 30, "place": 28, "air": 36, "pieces": 22, "by": 14},
        tuple(_stage(one, w) for one in story.stages),
    )  # fmt: skip
    yield table(
        "ph", {"when": 50, "ph": 30, "by": 98},
        tuple((w.moment(r.at), f"{number(r.ph, showing(), 2)}{_struck(r.struck)}", r.by) for r in story.ph),
    )  # fmt: skip
    yield table(
        "pieces", {"tag": 26, "hung": 30, "start": 20, "target": 18, "lost": 18, "reached": 32, "is_now": 34},
        tuple(_piece(one, w) for one in story.pieces),
    )  # fmt: skip
    yield table(
        "weights", {"piece": 26, "when": 36, "gross": 22, "lost": 20, "by": 24, "": 50}, tuple(_weights(story, w))
    )
    yield table("told", {"piece": 26, "told_on": 36, "about": 44, "window": 72}, tuple(_told(story, w)))
    yield table(
        "done",
        {"when": 34, "what": 44, "pieces": 40, "by": 18, "note": 42},
        tuple(
            (w.moment(d.at), w.said(d.says) + _struck(d.struck), ", ".join(d.pieces), d.by, d.note)
            for d in story.doings
        ),
    )
    yield table(
        "mended", {"when": 34, "hurdle": 40, "step": 24, "note": 60, "by": 20},
        tuple(
            (w.moment(d.at), name_of("hurdle", d.hurdle), name_of("ledger_step", d.step), d.note, d.by)
            for d in story.ledger.steps
        ),
    )  # fmt: skip
    yield table(
        "laboratory", {"when": 34, "what": 50, "value": 34, "taken_of": 40, "by": 20},
        tuple(
            (w.moment(r.at), name_of("laboratory", r.what), f"{number(r.value, showing())} {r.unit}".strip(),
             " ".join(x for x in (name_of("taken_of", r.taken_of), r.tag or "") if x), r.by)
            for r in story.ledger.laboratory
        ),
    )  # fmt: skip
    yield table(
        "cut", {"piece": 24, "when": 30, "seen": 34, "ring_seen": 20, "ring_predicted": 28, "by": 16, "note": 26},
        tuple(_cut(one, w) for one in story.cuts),
    )  # fmt: skip
    yield table(
        "packs", {"piece": 26, "packed": 30, "packs": 36, "left": 14, "kept": 30, "best_before": 42},
        tuple(
            (p.tag, w.day(p.packed_at), f"{p.number} × {_grams(p.net_g)} {name_of('form', p.form)}", str(p.left),
             p.place or name_of("keep_at", p.keep_at), w.day(p.best_before) or on_paper("none_given"))
            for p in story.packs
        ),
    )  # fmt: skip
    yield table("came", {"step": 60, "weight": 40, "share": 78}, tuple(_came(story)))
    yield table("changed", {"when": 32, "by": 18, "what": 34, "from_to": 54, "why": 40}, tuple(_changes(story, w)))


def _struck(struck: bool) -> str:
    return f" ({on_paper('struck')})" if struck else ""


def _hurdle(of: HurdleOut, w: _Words) -> tuple[str, ...]:
    limit = (
        w.said(of.limit) if isinstance(of.limit, SaidOut) else "" if of.limit is None else _figure(of.limit, of.unit)
    )
    figure = name_of("figure", of.value) if isinstance(of.value, str) else _figure(of.value, of.unit)
    known = name_of("known", of.known)
    source = name_of("text", of.source)
    signed = "" if of.signed is None else on_paper("signed", by=of.signed.by, reason=of.signed.reason)
    return (
        name_of("hurdle", of.name), name_of("state", of.state), figure, limit,
        on_paper("estimated", known=known) if of.known == "estimated" else known, f"{source}{signed}",
    )  # fmt: skip


def _figure(value: float | None, unit: str) -> str:
    if value is None:
        return ""
    if unit == "°C":
        return temperature(value, showing())
    return f"{number(float(f'{value:.4g}'), showing())} {unit}".strip()


def _stage(of: s.StoryStage, w: _Words) -> tuple[str, ...]:
    air = ""
    if of.mean_c is not None and of.low_c is not None and of.high_c is not None:
        mean, low, high = (temperature(c, showing()) for c in (of.mean_c, of.low_c, of.high_c))
        air = on_paper("air", mean=mean, low=low, high=high)
        air += "" if of.mean_rh_percent is None else f", {of.mean_rh_percent:.0f} %"
    pieces = ", ".join(of.pieces) if len(of.pieces) < 3 else on_paper("pieces", pieces=len(of.pieces))
    return (
        name_of("stage", of.kind), w.moment(of.from_at), w.moment(of.to_at) or on_paper("goes_on"),
        of.place or on_paper("not_said"), air or on_paper("nobody_read"), pieces, of.by,
    )  # fmt: skip


def _piece(piece: s.StoryPiece, w: _Words) -> tuple[str, ...]:
    life = piece.life
    state = "" if life is None else name_of("became", life.kind)
    how = "" if life is None or life.kind != "gone" else f", {name_of('how', life.how)}"
    return (
        piece.tag,
        w.day(piece.hung_at),
        _grams(piece.start_g),
        _percent(piece.target_loss_percent, 0),
        _percent(piece.loss_percent),
        w.day(piece.reached_at),
        f"{state}{how} {w.day(life.since) if life else ''}".strip(),
    )


def _weights(story: s.StoryOut, w: _Words) -> Iterable[tuple[str, ...]]:
    for piece in story.pieces:
        for one in piece.weights:
            struck = "" if one.struck_reason is None else on_paper("struck_why", reason=one.struck_reason)
            yield (
                piece.tag,
                w.moment(one.at),
                weight(one.gross_g, showing()),
                _percent(one.loss_percent),
                one.by,
                struck,
            )


def _told(story: s.StoryOut, w: _Words) -> Iterable[tuple[str, ...]]:
    for piece in story.pieces:
        for one in piece.told:
            about = w.day(one.ready.p50) or on_paper("out_of_reach")
            low, high = w.day(one.ready.p10), w.day(one.ready.p90)
            yield piece.tag, w.moment(one.at), about, on_paper("from_to", low=low, high=high) if low else ""


def _cut(story_cut: s.StoryCut, w: _Words) -> tuple[str, ...]:
    face = story_cut.face
    seen = ", ".join(name_of("sign", sign) for sign in face.signs) or on_paper("nothing_wrong")
    ring = name_of("ring_seen", face.face.ring) if face.face.ring else on_paper("not_looked")
    struck = "" if face.struck_reason is None else f" ({on_paper('struck_why', reason=face.struck_reason)})"
    return (
        story_cut.tag, w.moment(face.at), f"{seen}; {name_of('cut_verdict', face.verdict)}{struck}",
        length(face.face.ring_mm, showing()) if face.face.ring_mm else ring,
        length(round(face.predicted.ring_mm), showing()), face.by, face.note,
    )  # fmt: skip


def _came(story: s.StoryOut) -> Iterable[tuple[str, ...]]:
    for step in story.came_of_it.steps:
        share = "" if step.share is None else _percent(100 * step.share, 0)
        yield name_of("yield_step", step.step), _grams(step.grams), share
    cost = story.came_of_it.cost_per_finished_kg
    if cost is not None:
        yield on_paper("cost"), price(cost, showing()), ""


def _changes(story: s.StoryOut, w: _Words) -> Iterable[tuple[str, ...]]:
    for line in story.changes:
        fields = "; ".join(
            f"{name_of('field', f.field)}: "
            + on_paper("from_to", low=_held(f.field, f.before, w), high=_held(f.field, f.after, w))
            for f in line.fields
        )
        what = " ".join(x for x in (name_of("record_of", line.what), line.tag or line.place or "") if x)
        yield w.moment(line.at), line.by, what, fields, line.reason


def _held(field: str, value: str | float | bool | None, w: _Words) -> str:
    """What a field held, in words and in the units of the reader."""
    if value is None or value == "":
        return on_paper("nothing")
    if isinstance(value, int | float) and field.endswith("_s"):
        return w.moment(moment_of(value))
    return weight(value, showing()) if isinstance(value, int | float) and field.endswith("_g") else str(value)


def _time_line(story: s.StoryOut, zone: tzinfo) -> TimeLine:
    told = max(story.pieces, key=lambda p: len(p.told), default=None)
    return TimeLine(
        from_s=story.begins.timestamp(),
        to_s=story.ends.timestamp(),
        zone=zone,
        stages=tuple(
            Strip(one.kind, f"{name_of('stage', one.kind)}, {one.place or ''}", one.from_at.timestamp(),
                  story.ends.timestamp() if one.to_at is None else one.to_at.timestamp())
            for one in story.stages
        ),
        pieces=tuple(_curve(piece) for piece in story.pieces),
        target_percent=next((p.target_loss_percent for p in story.pieces if p.target_loss_percent is not None), None),
        told_of="" if told is None else told.tag,
        told=() if told is None else tuple(
            Window(one.at.timestamp(), one.ready.p10.timestamp(), one.ready.p50.timestamp(), one.ready.p90.timestamp())
            for one in told.told
            if one.ready.p10 and one.ready.p50 and one.ready.p90
        ),
        airs=tuple(_air(one) for one in story.airs if len(one.at) > 1),
    )  # fmt: skip


def _curve(piece: s.StoryPiece) -> tuple[tuple[float, float], ...]:
    if piece.hung_at is None or piece.start_g is None:
        return ()
    weighed = [(w.at.timestamp(), w.loss_percent or 0.0) for w in piece.weights if w.struck_reason is None]
    return ((piece.hung_at.timestamp(), 0.0), *sorted(weighed))


def _air(story_air: s.StoryAir) -> Air:
    times = [at.timestamp() for at in story_air.at]
    warm = thin(list(zip(times, story_air.temperature_c, strict=True)), MOST_POINTS)
    told = [(at, rh) for at, rh in zip(times, story_air.rh_percent, strict=True) if rh is not None]
    damp = thin(told, MOST_POINTS) if told else []
    return Air(tuple(warm), tuple(damp))
