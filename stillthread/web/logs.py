"""What is logged, as lines of JSON in files that take turns."""

from __future__ import annotations

import json
import logging
import pathlib
from datetime import UTC, datetime
from typing import Any

LARGEST_BYTES, FILES = 2_000_000, 5


class JsonLines(logging.Formatter):
    """A record as one line of JSON: when, how bad, from where, what, and the traceback where there is one."""

    def format(self, record: logging.LogRecord) -> str:
        """Return the line."""
        told = {
            "at": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "from": record.name,
            "what": record.getMessage(),
        }
        if record.exc_info:
            told["trace"] = self.formatException(record.exc_info)
        return json.dumps(told, ensure_ascii=False)


def log_file(folder: pathlib.Path) -> dict[str, Any]:
    """Return the handler that writes into a folder, made where it is missing, readable by its owner only."""
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    return {
        "class": "logging.handlers.RotatingFileHandler",
        "formatter": "lines",
        "filename": folder / "still.jsonl",
        "maxBytes": LARGEST_BYTES,
        "backupCount": FILES - 1,
        "encoding": "utf-8",
        "delay": True,
    }
