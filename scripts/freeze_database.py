"""Write one angler's few rows of a database as SQL, for the tests that bring old databases up to today.

Run it over a database of the version that is about to be left behind, once its migrations or its documents change:

    .venv/bin/python scripts/freeze_database.py var/still.sqlite3 tests/data/databases/NAME.sql
"""

from __future__ import annotations

import pathlib
import sqlite3
import sys
import tempfile

# What is kept of each table, newest first where there is an order.
KEEP = (
    ("accounts_angler", "id", 1),
    ("waters_water", "received_at DESC", 1),
    ("waters_reading", "taken_at DESC", 2),
    ("outings_outing", "started_at DESC", 1),
    ("outings_spell", "started_at DESC", 6),
    ("outings_event", "occurred_at DESC", 8),
    ("plans_plan", "received_at DESC", 1),
    ("flybox_fly", "id", 5),
    ("flybox_line", "id", 3),
)
EMPTY = (
    "django_session",
    "auth_permission",
    "accounts_device",
    "accounts_onetimecode",
    "axes_accessattempt",
    "axes_accesslog",
)


def drop_orphans(db: sqlite3.Connection) -> None:
    """Remove what belongs to a row that is gone, and what belongs to that."""
    while orphans := db.execute("PRAGMA foreign_key_check").fetchall():
        for table, row, *_ in orphans:
            db.execute(f"DELETE FROM {table} WHERE rowid = ?", (row,))


def trim(db: sqlite3.Connection) -> None:
    """Leave one angler, who is nobody's demo, with the newest few rows."""
    tables = {name for (name,) in db.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    (user,) = db.execute("SELECT id FROM auth_user ORDER BY id LIMIT 1").fetchone()
    owned = [t for t in tables if any(c[1] == "owner_id" for c in db.execute(f"PRAGMA table_info({t})"))]
    for table in owned:
        db.execute(f"DELETE FROM {table} WHERE owner_id <> ?", (user,))
    for table in tables.intersection(EMPTY):
        db.execute(f"DELETE FROM {table}")
    for table, order, most in KEEP:
        db.execute(f"DELETE FROM {table} WHERE id NOT IN (SELECT id FROM {table} ORDER BY {order} LIMIT {most})")
        drop_orphans(db)
    db.execute("DELETE FROM auth_user WHERE id <> ?", (user,))
    drop_orphans(db)
    db.execute("UPDATE auth_user SET username = 'angler', password = '!'")
    db.execute("UPDATE accounts_angler SET is_demo = 0")
    if "accounts_demomark" in tables:
        db.execute("DELETE FROM accounts_demomark")


def main() -> None:
    """Read the database named first, write the SQL file named second."""
    source, target = map(pathlib.Path, sys.argv[1:3])
    with tempfile.TemporaryDirectory() as folder:
        copy = sqlite3.connect(pathlib.Path(folder) / "copy")
        with sqlite3.connect(source) as given:
            given.backup(copy)
        trim(copy)
        copy.commit()
        left = "\n".join(copy.iterdump()) + "\n"
        copy.close()
    target.write_text(left, "utf-8")


if __name__ == "__main__":
    main()
