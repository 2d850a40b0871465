"""The server for mail, as one address."""

from __future__ import annotations

from dataclasses import dataclass
from urllib.parse import unquote, urlsplit

from django.core.exceptions import ImproperlyConfigured

ACCEPTED = "smtp://[user:password@]host[:port], smtps:// for TLS from the first byte, smtp+plain:// for none"
PORTS = {"smtp": 587, "smtps": 465, "smtp+plain": 25}


@dataclass(frozen=True)
class MailServer:
    """Where mail is handed over, and how."""

    host: str
    port: int
    user: str
    password: str
    ssl: bool
    starttls: bool


def mail_settings(address: str) -> MailServer:
    """Return what an address of a server for mail says. Raises ImproperlyConfigured, with what is accepted."""
    try:
        parts = urlsplit(address)
        port = parts.port or PORTS[parts.scheme]
    except (ValueError, KeyError):
        raise ImproperlyConfigured(f"STILL_MAIL cannot be read; accepted: {ACCEPTED}") from None
    if not parts.hostname:
        raise ImproperlyConfigured(f"STILL_MAIL names no server; accepted: {ACCEPTED}")
    return MailServer(
        host=parts.hostname,
        port=port,
        user=unquote(parts.username or ""),
        password=unquote(parts.password or ""),
        ssl=parts.scheme == "smtps",
        starttls=parts.scheme == "smtp",
    )
