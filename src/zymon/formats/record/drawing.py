"""The time line of a batch as vectors: stages, pieces that lose weight, what was told of one, the air of its places."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, tzinfo
from typing import TYPE_CHECKING

from babel.dates import format_date

from zymon.words import on_paper, showing
from zymon.words.written import celsius_or_fahrenheit

from ..labels import INK, QUIET

if TYPE_CHECKING:
    from fpdf import FPDF

STAGES = {
    "cold": (150, 176, 200), "cure": (150, 176, 200), "room": (190, 184, 172), "warm": (176, 112, 20),
    "hang": (122, 44, 54), "rest": (138, 120, 118),
}  # fmt: skip
MEAT, STEEL, BAND, DARK, GRID = (122, 44, 54), (70, 98, 120), (196, 210, 203), (31, 68, 63), (222, 217, 208)
LOSS_MM, AIR_MM = 46.0, 12.0


@dataclass(frozen=True)
class Strip:
    """A stage on the line. Times [s]."""

    kind: str
    name: str
    from_s: float
    to_s: float


@dataclass(frozen=True)
class Window:
    """A date as it was told: when, from, in the middle, to [s]."""

    told_s: float
    p10_s: float
    p50_s: float
    p90_s: float


@dataclass(frozen=True)
class Air:
    """The air of a place as (time [s], value): temperature [°C], humidity [%] where it was measured."""

    temperature_c: tuple[tuple[float, float], ...]
    rh_percent: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class TimeLine:
    """What is drawn: from when to when [s], stages, pieces as (time, loss %), their target, what was told of one."""

    from_s: float
    to_s: float
    zone: tzinfo
    stages: tuple[Strip, ...]
    pieces: tuple[tuple[tuple[float, float], ...], ...]
    target_percent: float | None
    told_of: str
    told: tuple[Window, ...]
    airs: tuple[Air, ...]


def draw(pdf: "FPDF", time_line: TimeLine, left: float, top: float, wide: float) -> float:
    """Draw the line; gives the height it ends at back. Parameters: pdf; of; left, top, wide [mm]."""
    span = max(time_line.to_s - time_line.from_s, 1.0)
    inner, width = left + 12, wide - 26

    def x(at_s: float) -> float:
        return inner + width * min(max((at_s - time_line.from_s) / span, 0.0), 1.0)

    _strips(pdf, time_line, x, top)
    y = top + 9
    _losses(pdf, time_line, x, inner, y, width)
    y += LOSS_MM + 3
    if time_line.told:
        y = _told(pdf, time_line, x, inner, y)
    if time_line.airs:
        y = _airs(pdf, time_line, x, y, inner + width)
    _days(pdf, time_line, x, top + 8, y)
    return y + 7


def _small(pdf: "FPDF", x: float, y: float, text: str, colour: tuple[int, int, int] = QUIET, align: str = "L") -> None:
    pdf.set_font("sans", "", 6.5)
    pdf.set_text_color(*colour)
    pdf.set_xy(x - (14 if align == "R" else 9 if align == "C" else 0), y)
    pdf.cell(14 if align == "R" else 18 if align == "C" else 60, 3, text, align=align)


def _strips(pdf: "FPDF", time_line: TimeLine, x: Callable[[float], float], top: float) -> None:
    named: set[str] = set()
    for stage in sorted(time_line.stages, key=lambda s: s.from_s - s.to_s):
        pdf.set_fill_color(*STAGES.get(stage.kind, QUIET))
        pdf.rect(x(stage.from_s), top, max(x(stage.to_s) - x(stage.from_s), 0.4), 5, style="F")
    for stage in time_line.stages:
        if stage.name not in named and x(stage.to_s) - x(stage.from_s) > 24:
            named.add(stage.name)
            _small(pdf, x(stage.from_s) + 0.5, top + 1, stage.name, (255, 252, 245))


def _losses(pdf: "FPDF", of: TimeLine, x: Callable[[float], float], left: float, top: float, wide: float) -> None:
    deepest = max([loss for piece in of.pieces for _, loss in piece] + [of.target_percent or 0.0, 10.0]) * 1.05

    def y(loss: float) -> float:
        return top + LOSS_MM * max(loss, 0.0) / deepest

    pdf.set_line_width(0.1)
    pdf.set_draw_color(*GRID)
    for tick in range(0, int(deepest) + 1, 10):
        pdf.line(left, y(tick), left + wide, y(tick))
        _small(pdf, left - 1, y(tick) - 1.5, f"{tick} %", QUIET, "R")
    if of.target_percent is not None:
        pdf.set_draw_color(*MEAT)
        pdf.set_line_width(0.35)
        pdf.line(left, y(of.target_percent), left + wide, y(of.target_percent))
        _small(pdf, left + wide + 1, y(of.target_percent) - 1.5, f"{of.target_percent:g} %", INK)
    pdf.set_draw_color(*DARK)
    pdf.set_line_width(0.3)
    for piece in of.pieces:
        if len(piece) > 1:
            pdf.polyline([(x(at_s), y(loss)) for at_s, loss in piece])
            for at_s, loss in piece[1:]:
                pdf.circle(x(at_s), y(loss), 0.35, style="D")


def _told(pdf: "FPDF", time_line: TimeLine, x: Callable[[float], float], left: float, top: float) -> float:
    _small(pdf, left, top, on_paper("told_of", tag=time_line.told_of))
    y = top + 4
    for one in time_line.told[-8:]:
        pdf.set_fill_color(*BAND)
        pdf.rect(x(one.p10_s), y, max(x(one.p90_s) - x(one.p10_s), 0.3), 1.3, style="F")
        pdf.set_fill_color(*DARK)
        pdf.circle(x(one.p50_s), y + 0.65, 0.5, style="F")
        y += 1.9
    return y + 2


def _airs(pdf: "FPDF", time_line: TimeLine, x: Callable[[float], float], top: float, right: float) -> float:
    for i, colour in enumerate((MEAT, STEEL)):
        series = [air.rh_percent if i else air.temperature_c for air in time_line.airs]
        values = [v for some in series for _, v in some]
        if not values:
            continue
        low, high = min(values) - 0.5, max(values) + 0.5
        base = top + i * (AIR_MM + 2)
        pdf.set_draw_color(*colour)
        pdf.set_line_width(0.25)
        for some in series:
            points = [(x(t), base + AIR_MM * (1 - (v - low) / (high - low))) for t, v in some]
            if len(points) > 1:
                pdf.polyline(points)
        ends = [end if i else celsius_or_fahrenheit(end, showing()) for end in (low + 0.5, high - 0.5)]
        unit = "%" if i else f"°{showing().temperature}"
        _small(pdf, right + 1, base + AIR_MM / 2 - 1, f"{ends[0]:.0f}–{ends[1]:.0f} {unit}", INK)
    return top + 2 * AIR_MM + 3


def _days(pdf: "FPDF", time_line: TimeLine, x: Callable[[float], float], top: float, bottom: float) -> None:
    """Up to seven days named under the line."""
    days = max(1, round((time_line.to_s - time_line.from_s) / 86_400))
    step = next((s for s in (1, 2, 7, 14, 28, 56, 112, 224) if days / s <= 7), 365)
    day = datetime.fromtimestamp(time_line.from_s, UTC).astimezone(time_line.zone).replace(hour=0, minute=0, second=0)
    pdf.set_draw_color(*GRID)
    pdf.set_line_width(0.1)
    while (at_s := day.timestamp()) <= time_line.to_s:
        if at_s >= time_line.from_s:
            pdf.line(x(at_s), top, x(at_s), bottom)
            _small(pdf, x(at_s), bottom + 0.5, format_date(day, "d MMM yy", locale=showing().language), QUIET, "C")
        day += timedelta(days=step)


def thin(points: Sequence[tuple[float, float]], most: int) -> tuple[tuple[float, float], ...]:
    """Every so many-th point, so that a long line stays small. Parameters: points; most, how many at the most."""
    step = max(1, -(-len(points) // most))
    return tuple(points[::step])
