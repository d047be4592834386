"""Finding by words: the index of names, tags, lots and notes, and what each of its rows belongs to."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from sqlalchemy import select, text
from sqlalchemy.orm import Session

from .bench_models import Making
from .models import Batch, Piece, PieceState, Weighing

Kind = Literal["batch", "piece", "lot", "recipe", "place", "person", "note"]

MANY = 60  # rows looked at of those that fit best
# number of the source: kind, and a query for what it belongs to by the row's id: title, batch, piece, when, who, struck
OWN = "NULL AS at_s, NULL AS by, 0 AS struck"
ROWS: dict[int, tuple[Kind, str]] = {
    1: ("batch", "SELECT b.id, b.code AS title, b.product AS detail, b.id AS batch_id, NULL AS piece_id, "
                 "coalesce(m.made_s, min(b.created_s, coalesce((SELECT min(p.hung_s) FROM piece p "
                 "WHERE p.batch_id = b.id), b.created_s))) AS at_s, NULL AS by, 0 AS struck "
                 "FROM batch b LEFT JOIN making m ON m.batch_id = b.id"),
    2: ("piece", f"SELECT p.id, p.tag AS title, b.product AS detail, b.id AS batch_id, p.id AS piece_id, {OWN} "
                 f"FROM piece p JOIN batch b ON b.id = p.batch_id"),
    3: ("piece", f"SELECT p.id, p.tag AS title, b.product AS detail, b.id AS batch_id, p.piece_id, {OWN} "
                 f"FROM made_piece p JOIN batch b ON b.id = p.batch_id"),
    4: ("piece", f"SELECT p.id, p.tag AS title, b.product AS detail, b.id AS batch_id, NULL AS piece_id, {OWN} "
                 f"FROM salt_piece p JOIN batch b ON b.id = p.batch_id"),
    5: ("lot", f"SELECT id, code AS title, what AS detail, NULL AS batch_id, NULL AS piece_id, {OWN} FROM lot"),
    6: ("recipe", f"SELECT id, name AS title, '' AS detail, NULL AS batch_id, NULL AS piece_id, {OWN} FROM recipe"),
    7: ("place", f"SELECT id, name AS title, '' AS detail, NULL AS batch_id, NULL AS piece_id, {OWN} FROM place"),
}  # fmt: skip
_OF_PIECE = (
    "SELECT n.id, {note} AS title, p.tag AS detail, p.batch_id, p.id AS piece_id, n.{at} AS at_s, n.by, "
    "n.struck_s IS NOT NULL AS struck FROM {table} n JOIN piece p ON p.id = n.piece_id"
)
_OF_BATCH = (
    "SELECT n.id, {note} AS title, b.code AS detail, b.id AS batch_id, NULL AS piece_id, n.{at} AS at_s, n.by, "
    "{struck} AS struck FROM {table} n JOIN batch b ON b.id = n.batch_id"
)
STRUCK = "n.struck_s IS NOT NULL"
ROWS |= {
    10: ("note", _OF_PIECE.format(table="piece_state", note="n.note", at="from_s")),
    11: ("note", _OF_PIECE.format(table="hang_event", note="n.note", at="at_s")),
    12: ("note", _OF_BATCH.format(table="batch_event", note="n.note", at="at_s", struck=STRUCK)),
    13: ("note", _OF_PIECE.format(table="cut_face", note="n.note", at="at_s")),
    14: ("note", _OF_PIECE.format(table="pack", note="n.note", at="at_s")),
    15: ("note", "SELECT n.id, trim(n.to_whom || ' ' || n.note) AS title, p.tag AS detail, p.batch_id, "
                 "p.id AS piece_id, n.at_s, n.by, n.struck_s IS NOT NULL AS struck "
                 "FROM pack_event n JOIN pack k ON k.id = n.pack_id JOIN piece p ON p.id = k.piece_id"),
    16: ("note", "SELECT n.id, n.note AS title, s.tag AS detail, s.batch_id, NULL AS piece_id, n.at_s, n.by, "
                 "n.struck_s IS NOT NULL AS struck FROM salt_event n JOIN salt_piece s ON s.id = n.salt_piece_id"),
    17: ("note", _OF_BATCH.format(table="meat_note", note="n.note", at="at_s", struck=STRUCK)),
    18: ("note", _OF_BATCH.format(table="parasite_step", note="n.note", at="entered_s", struck=STRUCK)),
    19: ("note", _OF_BATCH.format(table="deviation_step", note="n.note", at="at_s", struck=STRUCK)),
    20: ("note", _OF_BATCH.format(table="lab_result", note="n.note", at="at_s", struck=STRUCK)),
    21: ("note", _OF_PIECE.format(table="piece_cut", note="n.note", at="at_s")),
    22: ("note", _OF_BATCH.format(table="hurdle_signature", note="n.reason", at="at_s", struck="0")),
    23: ("note", _OF_BATCH.format(table="batch_cost", note="n.note", at="at_s", struck=STRUCK)),
}  # fmt: skip


@dataclass(frozen=True)
class Hit:
    """Something that fits: what it is, whose it is; `row_id` of its own table."""

    kind: Kind
    row_id: int
    title: str
    detail: str
    batch_id: int | None
    piece_id: int | None
    at_s: int | None
    by: str | None
    struck: bool


def by_words(session: Session, words: str) -> list[Hit]:
    """What holds every one of the words, or begins with it, the best fit first."""
    plain = "".join(c if c.isprintable() and c != '"' else " " for c in words)
    wanted = " AND ".join(f'"{word}"*' for word in plain.split()[:8] if any(c.isalnum() for c in word))
    if not wanted:
        return []
    query = text("SELECT rowid FROM word_index WHERE word_index MATCH :wanted ORDER BY bm25(word_index) LIMIT :many")
    rows = [row[0] for row in session.execute(query, {"wanted": wanted, "many": MANY})]
    found: dict[int, Hit] = {}
    for number in {row % 64 for row in rows}:
        kind, select_rows = ROWS[number]
        ids = ",".join(str(row // 64) for row in rows if row % 64 == number)  # whole numbers of the index itself
        for one in session.execute(text(f"SELECT * FROM ({select_rows}) WHERE id IN ({ids})")).mappings():
            found[one["id"] * 64 + number] = Hit(
                kind, one["id"], one["title"], one["detail"], one["batch_id"], one["piece_id"], one["at_s"], one["by"],
                bool(one["struck"]),
            )  # fmt: skip
    return [found[row] for row in rows if row in found]


def people(session: Session, word: str) -> list[str]:
    """Everybody whose name begins with a word, of those who made, hung, weighed or moved something."""
    columns = (Piece.by, Making.by, PieceState.by, Weighing.by)
    names: set[str] = set()
    for column in columns:
        names |= set(session.scalars(select(column).where(column.ilike(f"{word}%")).distinct()))
    return sorted(names)


def batches_between(session: Session, low_s: int, high_s: int) -> Sequence[Batch]:
    """Batches that were made, hung or taken down within a span [s], the latest first."""
    hung = select(Piece.batch_id).where(Piece.hung_s.between(low_s, high_s))
    became = select(Piece.batch_id).join(PieceState).where(PieceState.from_s.between(low_s, high_s))
    made = select(Making.batch_id).where(Making.made_s.between(low_s, high_s))
    query = select(Batch).where(Batch.id.in_(hung.union(became, made)))
    return session.scalars(query.order_by(Batch.created_s.desc()).limit(MANY)).all()
