"""Sound batches of the second edition for the tests: a salame that was soured, a coppa, a salame hung cold."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from zymon.core.ledger.batch import (
    Batch,
    CuringSalt,
    Formulation,
    Inspection,
    LabValue,
    ParasiteStep,
    Part,
    Ph,
    Piece,
    Signature,
    Stage,
)
from zymon.core.ledger.hurdle import Hurdle
from zymon.core.ledger.judge import judge
from zymon.limits import shipped

HOUR, DAY = 3600.0, 86_400.0
START = 1_788_447_600.0  # 3 September 2026, 15:00 UTC


def at(day: float = 0.0, hour: float = 0.0) -> float:
    """A moment on the batch's line [s]."""
    return START + day * DAY + hour * HOUR


def steady(from_s: float, to_s: float, c: float, every_h: float = 2.0) -> tuple[tuple[float, float], ...]:
    """Readings of a steady place, both ends included."""
    count = max(int((to_s - from_s) / (every_h * HOUR)), 1)
    return tuple((from_s + (to_s - from_s) * i / count, c) for i in range(count + 1))


def stage(kind: str, from_s: float, to_s: float | None, c: float, until_s: float = 0.0, **more: Any) -> Stage:
    """A stage at a steady temperature, read up to its end or `until_s`."""
    return Stage(kind, from_s, to_s, steady(from_s, until_s if to_s is None else to_s, c), **more)  # type: ignore[arg-type]


def salame(**changes: Any) -> Batch:
    """Minced, soured at 24 °C, dried to its target: ready."""
    now = at(50)
    good = Batch(
        id="J-16", goods="minced", use="raw", profile=shipped()["us"], now_s=now, family="salame_cultured",
        parts=(Part("shoulder", "pork", 3744, 8), Part("back fat", "pork", 1456, 90)),
        formulations=(Formulation(129.2, (CuringSalt(12.48, 0.0625, 0.04),)),),
        mix_temperature_c=2.0,
        parasite=(ParasiteStep("pork", "certified"),),
        stages=(
            stage("cold", at(0), at(1), 2.0),
            stage("warm", at(1), at(3), 24.0),
            stage("hang", at(3), None, 13.0, now),
        ),
        ph=(Ph(at(1, 22), 5.18, "checked"), Ph(at(2, 4), 5.05, "checked")),
        pieces=(
            Piece("a", 905, 10, 36, weights=((at(20), 700.0), (at(49), 565.0))),
            Piece("b", 942, 10, 36, weights=((at(20), 730.0), (at(49), 584.0))),
        ),
    )  # fmt: skip
    return replace(good, **changes)


def coppa(**changes: Any) -> Batch:
    """Whole muscle, three weeks in measured salt in the cold, dried: ready."""
    now = at(75)
    good = Batch(
        id="C-3", goods="intact", use="raw", profile=shipped()["us"], now_s=now, family="coppa",
        parts=(Part("neck", "pork", 2100, 12),),
        formulations=(Formulation(52.2, (CuringSalt(5.04, 0.0625, 0.04),)),),
        parasite=(ParasiteStep("pork", "certified"),),
        stages=(
            stage("cure", at(0), at(21), 3.0, way="measured"),
            stage("hang", at(21), None, 12.5, now),
        ),
        pieces=(Piece("a", 2037, 12, 35, core_salt_share=0.93, weights=((at(40), 1700.0), (at(74), 1290.0))),),
        laboratory=(LabValue(at(73), "water_activity", 0.905),),
    )  # fmt: skip
    return replace(good, **changes)


def cold_hung(**changes: Any) -> Batch:
    """Minced without a warm stage or culture: ready once somebody has signed for its acid."""
    now = at(50)
    good = salame(
        family="salame_cold_hung",
        stages=(stage("cold", at(0), at(2), 2.0), stage("hang", at(2), None, 13.0, now)),
        ph=(),
        signatures=(Signature("degree_hours", "B. Second", now, "looked at it"),),
    )
    return replace(good, **changes)


def with_stages(batch: Batch, *stages: Stage) -> Batch:
    """A batch with other stages."""
    return replace(batch, stages=stages)


def with_piece(batch: Batch, **changes: Any) -> Batch:
    """A batch whose first piece is otherwise."""
    return replace(batch, pieces=(replace(batch.pieces[0], **changes), *batch.pieces[1:]))


def with_mix(batch: Batch, **changes: Any) -> Batch:
    """A batch whose mix is otherwise."""
    return replace(batch, formulations=(replace(batch.formulations[0], **changes),))


def signed(batch: Batch, *hurdles: str, by: str = "B. Second") -> Batch:
    """A batch that somebody has signed for, now."""
    made = tuple(Signature(name, by, batch.now_s, "looked at it") for name in hurdles)
    return replace(batch, signatures=(*batch.signatures, *made))


def hurdle(batch: Batch, name: str) -> Hurdle:
    """One hurdle of a batch's ledger."""
    return next(h for h in judge(batch).hurdles if h.name == name)


def state(batch: Batch, name: str) -> str:
    """The state of one hurdle."""
    return hurdle(batch, name).state


def codes(said: Sequence[Any]) -> set[str]:
    """The codes of some sentences."""
    return {one.code for one in said}


def felt(day: float, rim: str, core: str, smell: str = "clean") -> Inspection:
    """An inspection."""
    return Inspection(at(day), rim, core, smell)  # type: ignore[arg-type]
