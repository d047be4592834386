"""Paper tags as PDF: an A4 sheet of nine, or one after another on a 62 mm roll, in our type.

The scale reading that means "done" stands largest: it is what the hand at the hook looks for.
"""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from importlib.resources import files
from typing import TYPE_CHECKING, Literal

import segno

from zymon.words import name_of, on_paper, showing
from zymon.words.written import day, scale_weight

if TYPE_CHECKING:
    from fpdf import FPDF

Paper = Literal["a4", "roll62"]

FONTS = {
    "slab": ("zilla-slab-latin-500-normal.ttf", "zilla-slab-latin-700-normal.ttf"),
    "slab-more": ("zilla-slab-latin-ext-700-normal.ttf", "zilla-slab-latin-ext-700-normal.ttf"),
    "sans": ("source-sans-3-latin-400-normal.ttf", "source-sans-3-latin-600-normal.ttf"),
    "sans-more": ("source-sans-3-latin-ext-600-normal.ttf", "source-sans-3-latin-ext-600-normal.ttf"),
}
INK, QUIET, LINE = (38, 34, 30), (105, 98, 90), (170, 160, 148)

TAG_MM = (62.0, 88.0)
A4_COLUMNS, A4_ROWS = 3, 3


@dataclass(frozen=True)
class Tag:
    """What stands on a tag; weights in g, the target gross."""

    tag: str
    product: str
    batch: str
    made: date
    start_g: float | None
    target_g: float | None  # None: done by feel or days
    target_loss_percent: float | None
    basis: str
    url: str


def tags_pdf(tags: Sequence[Tag], paper: Paper, workshop: str) -> bytes:
    """The tags as a PDF, the same bytes for the same tags."""
    from fpdf import FPDF  # not at the start of Zymon: it takes half a second to read

    wide, high = TAG_MM
    on_roll = paper == "roll62"
    pdf = FPDF(unit="mm", format=(wide, high) if on_roll else "A4")
    pdf.set_creation_date(
        datetime.combine(max((t.made for t in tags), default=date(2000, 1, 1)), datetime.min.time(), UTC)
    )
    pdf.set_title(on_paper("tags", workshop=workshop))
    in_our_type(pdf)
    a_page = 1 if on_roll else A4_COLUMNS * A4_ROWS
    for i, tag in enumerate(tags):
        if i % a_page == 0:
            pdf.add_page()
        column, row = (0, 0) if on_roll else (i % a_page % A4_COLUMNS, i % a_page // A4_COLUMNS)
        left = column * wide + (0 if on_roll else (210 - A4_COLUMNS * wide) / 2)
        top = row * high + (0 if on_roll else (297 - A4_ROWS * high) / 2)
        _tag(pdf, tag, left, top, workshop, cut=not on_roll)
    return bytes(pdf.output())


def in_our_type(pdf: "FPDF") -> None:
    """Set a PDF without margins, in our fonts."""
    pdf.set_auto_page_break(False)
    pdf.set_margin(0)
    folder = files("zymon.formats") / "fonts"
    for family, (usual, bold) in FONTS.items():
        pdf.add_font(family, "", str(folder / usual))
        pdf.add_font(family, "B", str(folder / bold))
    pdf.set_fallback_fonts(["sans-more", "slab-more", "sans"], exact_match=False)
    pdf.set_text_shaping(True, features={"lnum": True, "tnum": True})  # a scale shows figures of one height


def _tag(pdf: "FPDF", tag: Tag, x: float, y: float, workshop: str, cut: bool) -> None:
    wide, high = TAG_MM
    if cut:
        _outline(pdf, x, y, wide, high)
    pdf.set_draw_color(*LINE)
    pdf.ellipse(x + wide / 2 - 2.5, y + 3.5, 5, 5)
    line_of_text(pdf, "sans", "B", 11, x, y + 10.5, wide, tag.product, "C")
    line_of_text(pdf, "slab", "B", 25, x, y + 16.5, wide, tag.tag, "C")
    made = on_paper("batch_made", batch=tag.batch, made=day(tag.made, showing()))
    line_of_text(pdf, "sans", "", 9, x, y + 28, wide, made, "C", QUIET)
    pdf.line(x + 6, y + 34, x + wide - 6, y + 34)
    done, shows = on_paper("when_firm"), on_paper("firm")
    if tag.target_g is not None:
        done, shows = on_paper("when_scale"), scale_weight(tag.target_g, showing())
    line_of_text(pdf, "sans", "", 9, x, y + 36, wide, done, "C", QUIET)
    line_of_text(pdf, "slab", "B", 40, x, y + 40.5, wide, shows, "C")
    pdf.line(x + 6, y + 59, x + wide - 6, y + 59)
    left = x + 6
    line_of_text(pdf, "sans", "", 9, left, y + 61.5, 30, on_paper("start"), "L", QUIET)
    start = on_paper("not_weighed") if tag.start_g is None else scale_weight(tag.start_g, showing())
    line_of_text(pdf, "slab", "B", 15 if tag.start_g is not None else 11, left, y + 65, 32, start, "L")
    if tag.target_loss_percent is not None:
        line_of_text(pdf, "sans", "", 9, left, y + 72.5, 30, on_paper("loss", percent=tag.target_loss_percent), "L")
        line_of_text(pdf, "sans", "", 7, left, y + 76.5, 32, name_of("basis_of_loss", tag.basis), "L", QUIET)
    line_of_text(pdf, "sans", "", 7, left, y + 80, 32, workshop, "L", QUIET)
    picture = io.BytesIO()
    segno.make(tag.url, error="m", micro=False).save(picture, kind="png", scale=8, border=0)
    picture.seek(0)
    pdf.image(picture, x + wide - 6 - 20, y + 62.5, 20, 20)


def _outline(pdf: "FPDF", x: float, y: float, wide: float, high: float) -> None:
    """The cutting line: a tag with its two upper corners off."""
    pdf.set_draw_color(*LINE)
    pdf.set_line_width(0.15)
    corner, edge = 6.0, 1.0
    left, right, top, bottom = x + edge, x + wide - edge, y + edge, y + high - edge
    pdf.polygon(
        [(left + corner, top), (right - corner, top), (right, top + corner), (right, bottom), (left, bottom),
         (left, top + corner)]
    )  # fmt: skip


def line_of_text(
    pdf: "FPDF", family: str, style: str, size: float, x: float, y: float, wide: float, text: str, align: str,
    colour: tuple[int, int, int] = INK,
) -> None:  # fmt: skip
    """One line of text in a box, made smaller until it fits."""
    pdf.set_text_color(*colour)
    while True:
        pdf.set_font(family, style, size)
        if pdf.get_string_width(text) <= wide - 4 or size <= 5:
            break
        size -= 0.5
    pdf.set_xy(x, y)
    pdf.cell(wide, size * 0.42, text, align=align)
