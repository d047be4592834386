"""The tables of the record as the data dictionary and the archive tell them."""

from sqlalchemy import Boolean, Column, Float, Integer, LargeBinary, Table
from sqlalchemy.orm import Mapper

from zymon.formats.dictionary import ColumnMeant, Type

from .models import Base

# columns that never leave the file
SECRETS = frozenset({"passphrase_hash", "pin_hash", "secret", "token_sha256"})
# browsers that are signed in, and trusted tablets, are this machine's; whoever takes the record elsewhere signs in anew
STAYS = frozenset({"sign_in", "tablet", "brought_in"})


def type_of(column: "Column[object]") -> Type:
    """What a column holds."""
    if isinstance(column.type, Boolean):
        return "yes or no"
    if isinstance(column.type, Integer):
        return "moment" if column.name.endswith("_s") else "whole"
    if isinstance(column.type, Float):
        return "decimal"
    return "file" if isinstance(column.type, LargeBinary) else "text"


def archived_tables() -> list[Table]:
    """The tables that an archive holds, each after those it points to."""
    return [table for table in Base.metadata.sorted_tables if table.name not in STAYS]


def archived_columns(table: Table) -> "list[Column[object]]":
    """The columns of a table that an archive holds."""
    return [column for column in table.columns if column.name not in SECRETS]


def _holds(mapper: "Mapper[Base]") -> str:
    return " ".join((mapper.class_.__doc__ or "").split())


def meant() -> list[tuple[str, str, list[ColumnMeant]]]:
    """Every table by name: what it holds, and its columns."""
    holds = {str(mapper.local_table): _holds(mapper) for mapper in Base.registry.mappers}
    return [(table.name, holds[table.name], [_meant(table, c) for c in table.columns]) for table in _by_name()]


def _by_name() -> list[Table]:
    return sorted(Base.metadata.tables.values(), key=lambda table: table.name)


def _meant(table: Table, column: "Column[object]") -> ColumnMeant:
    leads_to = next((str(key.target_fullname) for key in column.foreign_keys), None)
    return ColumnMeant(table.name, column.name, type_of(column), bool(column.nullable), column.primary_key, leads_to)
