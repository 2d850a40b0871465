"""Paths of casts kept in a file of their own beside the database, bounded, and void once the thread's code changes."""

from __future__ import annotations

import json
import pathlib
import sqlite3
from functools import cache
from hashlib import sha256
from threading import Lock

import numpy as np

from stillthread.core import casts, tackle, thread
from stillthread.core.casts.track import TRACK_ARRAYS, CastResult, FlyTrack, Touch

TRIM_EVERY = 500
MOST_PATHS = 5000
SHELF_NAME = "exposures.sqlite3"
TABLE = "CREATE TABLE IF NOT EXISTS path (name TEXT PRIMARY KEY, made INTEGER NOT NULL, body BLOB NOT NULL)"
ORDER = "CREATE INDEX IF NOT EXISTS path_made ON path (made)"


@cache
def solver_version() -> str:
    """Return a fingerprint of the code every path depends on: a change there makes what is kept void."""
    found = sha256()
    for room in (casts, thread, tackle):
        for source in sorted(pathlib.Path(str(room.__file__)).parent.glob("*.py")):
            found.update(source.read_bytes())
    return found.hexdigest()[:16]


def pack(result: CastResult) -> bytes:
    """Return a path as bytes: the flies' tracks and the line's end in single precision, and the chain where it is kept.

    A line of JSON that tells names and lengths, then the numbers one after the other.
    """
    arrays = {f"{n}.{name}": getattr(fly, name) for n, fly in enumerate(result.flies) for name in TRACK_ARRAYS}
    arrays["line_end_m"] = result.line_end_m
    if result.float_pull_g is not None:
        arrays["float_pull_g"] = result.float_pull_g
    arrays["places"], arrays["places_t_s"] = result.places, result.places_t_s
    told = {
        "lengths": {name: values.size for name, values in arrays.items()},
        "flies": [fly.name for fly in result.flies],
        "nodes": result.places.shape[1],
        "bottom": vars(result.bottom) if result.bottom else None,
        "numbers": [result.countdown_s, result.fished_to_s, result.end_s],
        "film": list(result.film_retrieve_m),
        "notes": list(result.notes),
    }
    numbers = np.concatenate([values.ravel() for values in arrays.values()]).astype("<f4").tobytes()
    return json.dumps(told).encode() + b"\n" + numbers


def unpack(body: bytes) -> CastResult:
    """Return the path of `pack`. Raises ValueError or KeyError for bytes that are none."""
    head, _, numbers = body.partition(b"\n")
    told = json.loads(head)
    flat = np.frombuffer(numbers, dtype="<f4").astype(np.float64)
    ends = np.cumsum(list(told["lengths"].values()))
    if len(flat) != ends[-1]:
        raise ValueError("a path cut short")
    wide = dict(zip(told["lengths"], np.split(flat, ends[:-1]), strict=True))
    flies = tuple(
        FlyTrack(name, *(wide[f"{n}.{part}"] for part in TRACK_ARRAYS)) for n, name in enumerate(told["flies"])
    )
    counted, fished, end = told["numbers"]
    bottom = Touch(**told["bottom"]) if told["bottom"] else None
    pull = wide.get("float_pull_g")
    notes = tuple(told["notes"])
    return CastResult(
        flies=flies,
        bottom=bottom,
        places=wide["places"].reshape(len(wide["places_t_s"]), told["nodes"], 2),
        places_t_s=wide["places_t_s"],
        countdown_s=counted,
        fished_to_s=fished,
        end_s=end,
        film_retrieve_m=tuple(told["film"]),
        line_end_m=wide["line_end_m"],
        float_pull_g=pull,
        notes=notes,
    )


class FileShelf:
    """A shelf of paths in an SQLite file; a file that cannot be used costs time, never a plan."""

    def __init__(self, path: pathlib.Path, most: int = MOST_PATHS):
        """Keep up to `most` paths in the file at `path`, made when it is first needed."""
        self._path, self._most, self._put = path, most, 0
        self._lock = Lock()
        self._opened: sqlite3.Connection | None = None
        self._usable = True

    @property
    def _link(self) -> sqlite3.Connection | None:
        """The file, opened when it is first asked: a process started from this one opens its own."""
        with self._lock:
            if self._opened is None and self._usable:
                self._opened = self._make()
                self._usable = self._opened is not None
            return self._opened

    def _make(self) -> sqlite3.Connection | None:
        try:
            link = sqlite3.connect(self._path, timeout=2.0, isolation_level=None, check_same_thread=False)
            link.execute("PRAGMA journal_mode=WAL")
            link.execute("PRAGMA synchronous=OFF")  # a lost path is computed again
            link.execute(TABLE)
            link.execute(ORDER)
        except sqlite3.DatabaseError:
            return None
        return link

    def close(self) -> None:
        """Let go of the file."""
        with self._lock:
            if self._opened is not None:
                self._opened.close()
            self._opened, self._usable = None, False

    def _name(self, name: str) -> str:
        return f"{solver_version()}.{name}"

    def get(self, name: str) -> CastResult | None:
        """Return the path kept under a name, None where there is none or it cannot be read."""
        link = self._link
        if link is None:
            return None
        try:
            with self._lock:
                row = link.execute("SELECT body FROM path WHERE name = ?", (self._name(name),)).fetchone()
            return unpack(row[0]) if row else None
        except (sqlite3.DatabaseError, ValueError, KeyError):
            return None

    def put(self, name: str, result: CastResult) -> None:
        """Keep a path; every so often the oldest beyond the bound are thrown away."""
        link = self._link
        if link is None:
            return
        insert = "INSERT OR REPLACE INTO path SELECT ?, COALESCE(MAX(made), 0) + 1, ? FROM path"
        trim = "DELETE FROM path WHERE made <= (SELECT MAX(made) FROM path) - ?"
        body = pack(result)
        try:
            with self._lock:
                link.execute(insert, (self._name(name), body))
                self._put += 1
                if self._put % TRIM_EVERY == 0:
                    link.execute(trim, (self._most,))
        except sqlite3.DatabaseError:
            return
