"""Backups of the database while it is served, the way back from one, and the clearing of what nobody needs any more."""

from __future__ import annotations

import os
import pathlib
import sqlite3
from contextlib import closing
from datetime import datetime, timedelta

from axes.models import AccessAttempt, AccessFailureLog, AccessLog
from django.apps import apps
from django.conf import settings
from django.contrib.sessions.models import Session
from django.db import connection
from django.db.migrations.loader import MigrationLoader
from django.utils import timezone

from stillthread.accounts.models import Device, OneTimeCode
from stillthread.web.owned import Owned, remove_for_good

KEPT = 14  # backups of the folder, the newest
TOMBSTONES_FOR = timedelta(days=90)
SIGN_INS_FOR = timedelta(days=30)
PAGES_AT_ONCE = 500  # copied before others may write


def database() -> pathlib.Path:
    """Return the file of the database."""
    return pathlib.Path(str(settings.DATABASES["default"]["NAME"]))


def folder() -> pathlib.Path:
    """Return the folder backups go to unless told otherwise."""
    return pathlib.Path(settings.VAR) / "backups"


def _stamp(now: datetime) -> str:
    return f"{now:%Y%m%d-%H%M%S-%f}"


def _whole(path: pathlib.Path) -> None:
    """Raise ValueError unless a file is a sound database of ours."""
    try:
        with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)) as found:
            sound = found.execute("PRAGMA integrity_check").fetchone()[0]
            ours = {row[0] for row in found.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    except sqlite3.DatabaseError as error:
        raise ValueError(f"{path} is no database: {error}") from error
    if sound != "ok":
        raise ValueError(f"{path} is damaged: {sound[:200]}")
    if "outings_outing" not in ours:
        raise ValueError(f"{path} is no database of Still Thread")


def _applied(path: pathlib.Path) -> set[tuple[str, str]]:
    with closing(sqlite3.connect(path)) as found:
        return {(app, name) for app, name in found.execute("SELECT app, name FROM django_migrations")}


def _copy(source: pathlib.Path, target: pathlib.Path) -> None:
    with closing(sqlite3.connect(source, timeout=30)) as one, closing(sqlite3.connect(target, timeout=30)) as other:
        one.backup(other, pages=PAGES_AT_ONCE, sleep=0.01)


def back_up(path: pathlib.Path | None = None, now: datetime | None = None) -> pathlib.Path:
    """Copy the database to a file (by default a new one in the folder of backups, the oldest there going) and check it.

    Works while it is served (SQLite's online backup). Returns where it lies. Raises ValueError where the copy is not sound,
    and FileExistsError rather than write over a file.
    """
    own = path is None
    target = path or folder() / f"still-{_stamp(now or timezone.now())}.sqlite3"
    target.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    if target.exists():
        raise FileExistsError(f"{target} is there already")
    part = target.with_name(target.name + ".part")
    part.unlink(missing_ok=True)
    part.touch(mode=0o600)
    _copy(database(), part)
    with closing(sqlite3.connect(part)) as made:  # one file, with nothing beside it
        made.execute("PRAGMA journal_mode=DELETE")
    _whole(part)
    os.replace(part, target)
    if own:
        for old in sorted(folder().glob("still-*.sqlite3"))[:-KEPT]:
            old.unlink()
    return target


def restore(path: pathlib.Path, now: datetime | None = None) -> pathlib.Path:
    """Put a backup in place of the database, which is kept beside it; returns where the old one lies.

    Raises ValueError for a file that is missing, damaged, not ours, or made by a newer version than this.
    """
    if not path.is_file():
        raise ValueError(f"{path} is not there")
    _whole(path)
    known = set(MigrationLoader(None).disk_migrations)
    newer = {one for one in _applied(path) if one[0] in {app for app, _ in known}} - known
    if newer:
        app, name = sorted(newer)[0]
        raise ValueError(f"{path} was made by a newer version ({app} {name}). Remedy: upgrade first")
    old = back_up(database().with_name(f"still-before-{_stamp(now or timezone.now())}.sqlite3"))
    connection.close()
    _copy(path, database())
    return old


def tidy(now: datetime | None = None) -> dict[str, int]:
    """Remove for good sessions that are over, old sign-in records and codes, and tombstones; returns how many of each."""
    now = now or timezone.now()
    gone = {
        "sessions": Session.objects.filter(expire_date__lt=now).delete()[0],
        "codes": OneTimeCode.objects.filter(ends_at__lt=now).delete()[0],
        "sign-ins": sum(
            model.objects.filter(attempt_time__lt=now - SIGN_INS_FOR).delete()[0]
            for model in (AccessAttempt, AccessLog, AccessFailureLog)
        ),
        "devices": Device.objects.exclude(session_key__in=Session.objects.values("session_key")).delete()[0],
        "tombstones": 0,
    }
    for model in (model for model in apps.get_models() if issubclass(model, Owned)):
        old = model._default_manager.filter(deleted_at__lt=now - TOMBSTONES_FOR)
        gone["tombstones"] += sum(remove_for_good(row) for row in old)
    return gone
