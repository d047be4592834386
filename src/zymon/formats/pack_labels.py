"""Labels of packs as PDF: A4 sheets of eight, or one after another on a 62 mm roll."""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import TYPE_CHECKING

import segno

from zymon.words import on_paper, showing
from zymon.words.written import day, net_weight

from .labels import INK, LINE, QUIET, Paper, in_our_type, line_of_text

if TYPE_CHECKING:
    from fpdf import FPDF

LABEL_MM = (95.0, 66.0)
ROLL_MM = (62.0, 100.0)
A4_COLUMNS, A4_ROWS = 2, 4


@dataclass(frozen=True)
class PackLabel:
    """What stands on a label; ingredients in order of weight, each with whether it holds an allergen."""

    product: str
    ingredients: tuple[tuple[str, bool], ...]
    contains: tuple[str, ...]
    lot: str
    net_g: float
    packed: date
    keep: str
    best_before: date | None
    by_estimate: str
    url: str


def pack_labels_pdf(labels: Sequence[PackLabel], paper: Paper, workshop: str) -> bytes:
    """The labels as a PDF, the same bytes for the same labels. Parameters: labels; paper; workshop, its name."""
    from fpdf import FPDF  # not at the start of Zymon: it takes half a second to read

    on_roll = paper == "roll62"
    wide, high = ROLL_MM if on_roll else LABEL_MM
    pdf = FPDF(unit="mm", format=(wide, high) if on_roll else "A4")
    newest = max((one.packed for one in labels), default=date(2000, 1, 1))
    pdf.set_creation_date(datetime.combine(newest, datetime.min.time(), UTC))
    pdf.set_title(on_paper("labels", workshop=workshop))
    in_our_type(pdf)
    a_page = 1 if on_roll else A4_COLUMNS * A4_ROWS
    for i, label in enumerate(labels):
        if i % a_page == 0:
            pdf.add_page()
        column, row = (0, 0) if on_roll else (i % a_page % A4_COLUMNS, i % a_page // A4_COLUMNS)
        left = column * wide + (0 if on_roll else (210 - A4_COLUMNS * wide) / 2)
        top = row * high + (0 if on_roll else (297 - A4_ROWS * high) / 2)
        if not on_roll:
            pdf.set_draw_color(*LINE)
            pdf.set_line_width(0.15)
            pdf.rect(left + 1, top + 1, wide - 2, high - 2)
        _label(pdf, label, left + 4, top + 4, wide - 8, high - 8, workshop)
    return bytes(pdf.output())


def _label(pdf: "FPDF", label: PackLabel, x: float, y: float, wide: float, high: float, workshop: str) -> None:
    line_of_text(pdf, "slab", "B", 17, x, y, wide, label.product, "L")
    pdf.set_xy(x, y + 8.5)
    pdf.set_text_color(*INK)
    named = ", ".join(f"**{_bare(name)}**" if allergen else _bare(name) for name, allergen in label.ingredients)
    told = on_paper("ingredients", ingredients=named)
    if label.contains:
        told += on_paper("contains", allergens=_bare(", ".join(label.contains)))
    for size in (8.5, 7.5, 6.5, 5.5):
        pdf.set_font("sans", "", size)
        lines = pdf.multi_cell(wide, size * 0.45, told, markdown=True, align="L", dry_run=True, output="LINES")
        assert isinstance(lines, list)  # as asked for
        if len(lines) * size * 0.45 < high - 39:
            break
    pdf.multi_cell(wide, size * 0.45, told, markdown=True, align="L")
    bottom = y + high
    pdf.set_draw_color(*LINE)
    pdf.line(x, bottom - 29, x + wide, bottom - 29)
    line_of_text(pdf, "slab", "B", 18, x, bottom - 27, wide - 24, net_weight(label.net_g, showing()), "L")
    best = on_paper("no_best_before") if label.best_before is None else day(label.best_before, showing())
    rows = [
        (on_paper("best_before"), best),
        (on_paper("keep"), label.keep),
        (on_paper("packed"), day(label.packed, showing())),
        (on_paper("lot"), label.lot),
    ]
    for i, (name, value) in enumerate(rows):
        line_of_text(pdf, "sans", "", 7.5, x, bottom - 19 + 3.7 * i, 17, name, "L", QUIET)
        line_of_text(pdf, "sans", "B", 7.5, x + 16, bottom - 19 + 3.7 * i, wide - 38, value, "L")
    line_of_text(pdf, "sans", "", 6, x, bottom - 3.2, wide - 24, f"{workshop} · {label.by_estimate}", "L", QUIET)
    picture = io.BytesIO()
    segno.make(label.url, error="m", micro=False).save(picture, kind="png", scale=8, border=0)
    picture.seek(0)
    pdf.image(picture, x + wide - 20, bottom - 26, 20, 20)


def _bare(text: str) -> str:
    """A name without what would set it in other type."""
    return text.replace("*", "").replace("_", " ").replace("--", "-").replace("~~", "")
