"""Whether a database is a demo's: a mark in the database itself, so that neither is ever taken for the other."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.utils import timezone

from stillthread.accounts.models import DemoMark

REAL = "This database holds real accounts: the demo is neither loaded into it nor served from it."
ELSEWHERE = "Remedy: another folder, as in STILL_VAR=var-demo ./still demo"
INVENTED = "This database holds the demo's invented anglers, whose password is known: it is not served for real."
NOT_IT = "Remedy: another folder, as in STILL_VAR=/srv/stillthread ./still serve"
NO_TLS = (
    "STILL_HTTPS=1 says that a proxy speaks TLS. Remedy: name its address in STILL_PROXY, as in STILL_PROXY=127.0.0.1"
)


def is_demo_database() -> bool:
    """Whether the demo was loaded into this database."""
    return DemoMark.objects.exists()


def mark_as_demo() -> None:
    """Mark a new database as the demo's. Raises PermissionError where real accounts live in it."""
    if is_demo_database():
        return
    if User.objects.exists():
        raise PermissionError(f"{REAL} {ELSEWHERE}")
    DemoMark.objects.create(made_at=timezone.now())


def why_not_served(*, demo: bool, tls: bool, proxy: str) -> str:
    """Return why this database is not served so, with the remedy; nothing if it may be."""
    if demo and not is_demo_database():
        return f"{REAL if User.objects.exists() else 'The demo is not loaded.'} {ELSEWHERE}"
    if not demo and is_demo_database():
        return f"{INVENTED} {NOT_IT}"
    return NO_TLS if tls and not proxy else ""
