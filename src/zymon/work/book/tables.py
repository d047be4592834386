"""A table of what is printed, its title and heads by their codes."""

from collections.abc import Mapping

from zymon.formats.record.contents import Table
from zymon.words import name_of


def table(title: str, columns: Mapping[str, float], rows: tuple[tuple[str, ...], ...]) -> Table:
    """A table. Parameters: title, by its code; columns, the code of each head with its width [mm]; rows."""
    heads = tuple(name_of("head", code) for code in columns)
    return Table(name_of("table", title), heads, tuple(columns.values()), rows)
