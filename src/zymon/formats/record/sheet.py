"""A printed record, page by page: its head and foot, paragraphs, tables that break between rows, the time line."""

from collections.abc import Sequence

from fpdf import FPDF

from zymon.words import on_paper, showing
from zymon.words.written import moment

from ..labels import INK, LINE, QUIET, in_our_type
from .contents import Record, Table
from .drawing import draw

LEFT, RIGHT, TOP, BOTTOM = 16.0, 194.0, 24.0, 280.0
SIZE, LEADING = 8.5, 4.0


class _Paper(FPDF):
    def __init__(self, of: Record) -> None:
        super().__init__(unit="mm", format="A4")
        self.record = of
        in_our_type(self)
        self.alias_nb_pages()
        self.set_title(f"{of.title}, {of.workshop}")
        self.set_creation_date(of.printed)

    def header(self) -> None:
        """The workshop, what it is, when it was printed."""
        self._text("slab", "B", 10, LEFT, 11, self.record.workshop)
        self._text("sans", "", 8.5, LEFT, 16, self.record.title, QUIET)
        printed = on_paper("printed", at=moment(self.record.printed, showing()))
        self._text("sans", "", 8.5, LEFT, 11, printed, QUIET, "R")
        self.set_draw_color(*LINE)
        self.set_line_width(0.2)
        self.line(LEFT, 21.5, RIGHT, 21.5)
        self.set_y(TOP)

    def footer(self) -> None:
        """The caution, and which page of how many."""
        self._text("sans", "", 7.5, LEFT, 286, self.record.caution, QUIET)
        self._text("sans", "B", 8, LEFT, 286, on_paper("page", page=self.page_no(), pages="{nb}"), INK, "R")

    def _text(
        self, family: str, style: str, size: float, x: float, y: float, text: str,
        colour: tuple[int, int, int] = INK, align: str = "L",
    ) -> None:  # fmt: skip
        self.set_font(family, style, size)
        self.set_text_color(*colour)
        self.set_xy(x, y)
        self.cell(RIGHT - LEFT, size * 0.45, text, align=align)

    def room(self, high: float) -> None:
        """A new page where so much [mm] does not fit any more."""
        if self.get_y() + high > BOTTOM:
            self.add_page()


def record_pdf(record: Record) -> bytes:
    """The record as a PDF. Parameters: record."""
    pdf = _Paper(record)
    pdf.add_page()
    pdf._text("slab", "B", 20, LEFT, pdf.get_y() + 1, record.title)
    pdf.set_y(pdf.get_y() + 11)
    for line in record.lines:
        _paragraph(pdf, line)
    if record.time_line is not None:
        pdf.set_y(pdf.get_y() + 2)
        pdf.room(100)
        pdf.set_y(draw(pdf, record.time_line, LEFT, pdf.get_y(), RIGHT - LEFT))
    for table in record.tables:
        _table(pdf, table)
    return bytes(pdf.output())


def _paragraph(pdf: _Paper, text: str) -> None:
    pdf.set_font("sans", "", 9.5)
    pdf.set_text_color(*INK)
    pdf.set_x(LEFT)
    pdf.multi_cell(RIGHT - LEFT, 4.6, text, align="L", new_x="LMARGIN", new_y="NEXT")


def _table(pdf: _Paper, table: Table) -> None:
    pdf.room(22)
    pdf._text("slab", "B", 12, LEFT, pdf.get_y() + 5, table.title)
    pdf.set_y(pdf.get_y() + 7)
    _heads(pdf, table)
    for row in table.rows:
        high = max(_lines(pdf, text, width) for text, width in zip(row, table.widths, strict=True)) * LEADING
        if pdf.get_y() + high > BOTTOM:
            pdf.add_page()
            _heads(pdf, table)
        _row(pdf, table, row, high)
    if table.note:
        pdf.set_font("sans", "", 7.5)
        pdf.set_text_color(*QUIET)
        pdf.set_x(LEFT)
        pdf.multi_cell(RIGHT - LEFT, 3.6, table.note, align="L", new_x="LMARGIN", new_y="NEXT")


def _heads(pdf: _Paper, table: Table) -> None:
    x, y = LEFT, pdf.get_y()
    for head, width in zip(table.heads, table.widths, strict=True):
        pdf._text("sans", "B", 7.5, x, y, head, QUIET)
        x += width
    pdf.set_draw_color(*LINE)
    pdf.line(LEFT, y + 4.2, RIGHT, y + 4.2)
    pdf.set_y(y + 5)


def _lines(pdf: _Paper, text: str, width: float) -> int:
    pdf.set_font("sans", "", SIZE)
    if pdf.get_string_width(text) <= width - 2:
        return 1
    found = pdf.multi_cell(width - 1.5, LEADING, text, align="L", dry_run=True, output="LINES")
    return max(len(found), 1) if isinstance(found, Sequence) else 1


def _row(pdf: _Paper, table: Table, row: tuple[str, ...], high: float) -> None:
    x, y = LEFT, pdf.get_y()
    pdf.set_font("sans", "", SIZE)
    pdf.set_text_color(*INK)
    for text, width in zip(row, table.widths, strict=True):
        pdf.set_xy(x, y)
        if pdf.get_string_width(text) <= width - 2:
            pdf.cell(width, LEADING, text)
        else:
            pdf.multi_cell(width - 1.5, LEADING, text, align="L")
        x += width
    pdf.set_y(y + high + 0.5)
