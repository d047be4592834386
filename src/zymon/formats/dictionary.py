"""The data dictionary: every table and column of the record with type, unit and meaning, made from the models."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from zymon.words.columns import COLUMNS

Type = Literal["whole", "decimal", "text", "yes or no", "moment", "file"]
# by the ending of a column's name
UNITS: dict[str, str] = {
    "_g": "g", "_mm": "mm", "_cm": "cm", "_c": "°C", "_percent": "%", "_s": "ISO 8601, UTC", "_days": "days",
    "_fraction": "of 1", "_share": "of 1",
}  # fmt: skip
NAMED: dict[str, str] = {"ph": "pH", "days": "days", "grams": "g", "percent": "%"}


@dataclass(frozen=True)
class ColumnMeant:
    """A column as the dictionary tells it."""

    table: str
    name: str
    type: Type
    empty: bool  # whether it may be empty
    key: bool
    leads_to: str | None  # table.column it points to

    @property
    def unit(self) -> str:
        """Its unit, by its name; empty where it has none."""
        return NAMED.get(self.name) or next((u for end, u in UNITS.items() if self.name.endswith(end)), "")

    @property
    def meaning(self) -> str:
        """What it says. Raises KeyError for a column nobody explained."""
        return COLUMNS.get(f"{self.table}.{self.name}") or COLUMNS[self.name]


def dictionary_markdown(tables: Iterable[tuple[str, str, list[ColumnMeant]]]) -> str:
    """The dictionary as a page. Parameters: tables, each with its name, what it holds, and its columns."""
    parts = [
        "# Data dictionary\n",
        "Made from the models by `make types`; a test holds the two together. In the archive each table is a file of "
        "one JSON object a line, `tables/NAME.jsonl` (`tables/reading.csv` for the climate), with these columns as "
        "keys. Moments are ISO 8601 in UTC; what is empty is null. Hashes of passphrases, PINs and tokens never leave "
        "the workshop's file; pictures are files of their own.\n",
    ]
    for name, holds, columns in tables:
        parts.append(f"## {name}\n\n{holds}\n\n| column | type | unit | what it says |\n|---|---|---|---|")
        parts.extend(
            f"| `{c.name}`{' (key)' if c.key else ''} | {c.type}{', may be empty' if c.empty else ''} | {c.unit} "
            f"| {c.meaning}{f'; see `{c.leads_to}`' if c.leads_to else ''} |"
            for c in columns
        )
        parts.append("")
    return "\n".join(parts)
