"""Codes that work once: to set a new password, or to make an account where that is by invitation."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta
from typing import Literal

from django.contrib.auth.models import User
from django.utils import timezone

from stillthread.accounts.models import OneTimeCode
from stillthread.core.errors import InputError, Problem

LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"  # none that is taken for another
LENGTH = 12
LASTS = {"reset": timedelta(hours=2), "invite": timedelta(days=14)}
Kind = Literal["reset", "invite"]


def _hash(code: str) -> str:
    return hashlib.sha256(plain(code).encode()).hexdigest()


def letters(count: int) -> str:
    """Return so many letters and digits by chance, none that is taken for another."""
    return "".join(secrets.choice(LETTERS) for _ in range(count))


def plain(code: str) -> str:
    """Return a code as it was made, however it was typed."""
    return "".join(c for c in code.upper() if c in LETTERS)


def make_code(kind: Kind, user: User | None = None) -> str:
    """Return a new code; only its hash is kept. An earlier code of the same account no longer works."""
    if user is not None:
        OneTimeCode.objects.filter(kind=kind, user=user).delete()
    code = letters(LENGTH)
    OneTimeCode.objects.create(kind=kind, user=user, code_hash=_hash(code), ends_at=timezone.now() + LASTS[kind])
    return "-".join(code[i : i + 4] for i in range(0, LENGTH, 4))


def use_code(kind: Kind, code: str, user: User | None = None) -> None:
    """Use a code up. Raises InputError for one that is unknown, used or over."""
    used, _ = OneTimeCode.objects.filter(
        kind=kind, user=user, code_hash=_hash(code), ends_at__gt=timezone.now()
    ).delete()
    if not used:
        raise InputError(Problem("bad_code", "code", "This code does not work, or no longer.", "a code not yet used"))
