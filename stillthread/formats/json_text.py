"""JSON out of other people's files, bounded in size and in its numbers."""

from __future__ import annotations

import json
import math
from typing import Any

from stillthread.core.errors import InputError, Problem

LARGEST_BYTES = 2_000_000
MOST_DIGITS = 15  # of a whole number


def _no_constants(text: str) -> Any:
    raise ValueError(f"{text} is not a number")


def _whole(text: str) -> int:
    if len(text) > MOST_DIGITS:
        raise ValueError(f"a number of {len(text)} digits is none of a lake")
    return int(text)


def _finite(text: str) -> float:
    value = float(text)
    if not math.isfinite(value):
        raise ValueError(f"{text[:30]} is past all numbers")
    return value


def load_json(data: bytes | str, what: str) -> Any:
    """Return the JSON in `data`, of `what` (in words); NaN and infinities are refused.

    Raises InputError for a file too large, not text, or broken JSON, with line and column.
    """
    if len(data) > LARGEST_BYTES:
        raise InputError(
            Problem("too_large", "file", f"This file has {len(data) / 1e6:.0f} MB.", f"{what} of up to 2 MB")
        )
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
        return json.loads(text, parse_constant=_no_constants, parse_int=_whole, parse_float=_finite)
    except UnicodeDecodeError as error:
        raise InputError(Problem("not_text", "file", "This is not UTF-8 text.", what)) from error
    except json.JSONDecodeError as error:
        where = f"line {error.lineno}, column {error.colno}"
        message = f"This is not JSON: {error.msg.lower()}."
        raise InputError(Problem("not_json", where, message, what, hint="Is the file complete?")) from error
    except (ValueError, RecursionError) as error:
        raise InputError(Problem("not_json", "file", f"This is not JSON: {error}.", what)) from error
