"""What the Book finds by words: an index of every name, tag, lot and note, kept by triggers. Nothing is moved.

Revision 0019, after 0018.
"""

from alembic import op

revision = "0019"
down_revision = "0018"

# number of the source, its table, the columns that are read; a row of the index is 64 × the row's id + the number
SOURCES = (
    (1, "batch", ("code", "product")),
    (2, "piece", ("tag",)),
    (3, "made_piece", ("tag",)),
    (4, "salt_piece", ("tag",)),
    (5, "lot", ("code", "what")),
    (6, "recipe", ("name",)),
    (7, "place", ("name",)),
    (10, "piece_state", ("note",)),
    (11, "hang_event", ("note",)),
    (12, "batch_event", ("note",)),
    (13, "cut_face", ("note",)),
    (14, "pack", ("note",)),
    (15, "pack_event", ("to_whom", "note")),
    (16, "salt_event", ("note",)),
    (17, "meat_note", ("note",)),
    (18, "parasite_step", ("note",)),
    (19, "deviation_step", ("note",)),
    (20, "lab_result", ("note",)),
    (21, "piece_cut", ("note",)),
    (22, "hurdle_signature", ("reason",)),
    (23, "batch_cost", ("note",)),
)


def upgrade() -> None:
    op.execute(
        "CREATE VIRTUAL TABLE word_index USING fts5(text, tokenize=\"unicode61 remove_diacritics 2\", prefix='2 3')"
    )
    for number, table, columns in SOURCES:
        row = f"{{0}}.rowid * 64 + {number}"
        text = " || ' ' || ".join(f"coalesce({{0}}.{column}, '')" for column in columns)
        put = f"INSERT INTO word_index(rowid, text) SELECT {row.format('new')}, {text.format('new')}"
        drop = f"DELETE FROM word_index WHERE rowid = {row.format('old')}"
        some = f"trim({text}) <> ''"
        op.execute(
            f"INSERT INTO word_index(rowid, text) SELECT {row.format('t')}, {text.format('t')} FROM {table} t "
            f"WHERE {some.format('t')}"
        )
        op.execute(f"CREATE TRIGGER {table}_found AFTER INSERT ON {table} WHEN {some.format('new')} BEGIN {put}; END")
        op.execute(
            f"CREATE TRIGGER {table}_found_anew AFTER UPDATE OF {', '.join(columns)} ON {table} "
            f"BEGIN {drop}; {put} WHERE {some.format('new')}; END"
        )
        op.execute(f"CREATE TRIGGER {table}_found_no_more AFTER DELETE ON {table} BEGIN {drop}; END")
