"""Who may make an account, and sign-in names: one normal form, in which no two names look alike."""

from __future__ import annotations

import re
import unicodedata
from typing import Literal

from stillthread.core.errors import InputError, Problem

SignUp = Literal["open", "invited", "closed"]
ACCEPTED = "3 to 40 letters a to z, digits or . + - _"
ALLOWED = re.compile(r"[a-z0-9_.+-]{3,40}")


def normal(name: str) -> str:
    """Return a name as it is stored and compared: without case, wide letters as plain ones (Unicode's NFKC)."""
    return unicodedata.normalize("NFKC", name).casefold().strip()


def checked(name: str) -> str:
    """Return a new name in its normal form. Raises InputError for one with letters that could be taken for others."""
    found = normal(name)
    if not ALLOWED.fullmatch(found):
        raise InputError(Problem("bad_name", "name", "This name cannot be used.", ACCEPTED))
    return found
