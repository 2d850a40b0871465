"""How often one address may try: sign-ups, and wrong passwords over whatever names.

The lock of one name from one address is the sign-in guard's (django-axes). A device that has signed in as somebody before is
never locked out of that name, so that nobody can lock its owner out.
"""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.cache import cache
from django.core.signing import BadSignature, Signer
from django.http import HttpRequest, HttpResponse

from stillthread.accounts.names import normal
from stillthread.web.errors import Refused

HOUR_S = 3600
KNOWN = "still_known"
KNOWN_FOR_S = 400 * 24 * HOUR_S  # the longest that browsers keep a cookie
MOST_NAMES_KNOWN = 5
_signer = Signer(salt="a device that has signed in")


def _key(what: str, request: HttpRequest) -> str:
    return f"{what}:{request.META.get('REMOTE_ADDR', '')}"


def _count(what: str, request: HttpRequest) -> int:
    key = _key(what, request)
    cache.add(key, 0, HOUR_S)
    try:
        return int(cache.incr(key))
    except ValueError:  # it ran out between the two
        return 1


def count_sign_up(request: HttpRequest) -> None:
    """Count a try to make an account or to use a code. Raises Refused (429) after too many in an hour."""
    _count_to(settings.MOST_SIGN_UPS, "sign-up", request)


def count_join(request: HttpRequest) -> None:
    """Count a try to join another's outing. Raises Refused (429) after too many in an hour."""
    _count_to(settings.MOST_WRONG_PAIRS, "join", request)


def _count_to(most: int, what: str, request: HttpRequest) -> None:
    if _count(what, request) > most:
        raise Refused(429, "throttled", "Too many tries from this address.", "", "Wait an hour and try again.")


def _wrong(request: HttpRequest, name: str) -> str:
    """What wrong pairs are counted under: a device that knows the name has a count of its own."""
    return f"wrong-{normal(name)}" if knows(request, name) else "wrong"


def count_wrong(request: HttpRequest, name: str) -> None:
    """Count a wrong pair of name and password."""
    _count(_wrong(request, name), request)


def check_wrong(request: HttpRequest, name: str) -> None:
    """Raise Refused (429) after too many wrong pairs, of whatever names, from this address or from a device that knows one."""
    if cache.get(_key(_wrong(request, name), request), 0) >= settings.MOST_WRONG_PAIRS:
        raise Refused(429, "throttled", "Too many wrong tries from this address.", "", "Wait an hour and try again.")


def _known(request: HttpRequest) -> list[str]:
    try:
        return _signer.unsign(request.COOKIES.get(KNOWN, "")).split("/")
    except BadSignature:
        return []


def knows(request: HttpRequest, name: str) -> bool:
    """Whether somebody has signed in by this name from this device before."""
    return normal(name) in _known(request)


def remember(request: HttpRequest, response: HttpResponse) -> None:
    """Let the device keep, signed, that this name has signed in from it."""
    name = request.user.get_username() if request.user.is_authenticated else ""
    before = _known(request)
    if not name or name in before:
        return
    names = [name, *before][:MOST_NAMES_KNOWN]
    response.set_cookie(
        KNOWN, _signer.sign("/".join(names)), KNOWN_FOR_S, httponly=True, samesite="Lax", secure=settings.SECURE
    )


def not_locked(request: HttpRequest, credentials: Any = None) -> bool:
    """Answer the sign-in guard: a device that knows the name is let try."""
    return knows(request, str((credentials or {}).get("username", "")))
