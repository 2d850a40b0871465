"""Which question of a page is its newest: work on an older one of the same kind is waited for by nobody."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from threading import Lock

from django.http import HttpRequest

MOST_PAGES = 1000
HEADER = "X-Page"

_newest: OrderedDict[tuple[str, ...], int] = OrderedDict()
_lock = Lock()


def newest(request: HttpRequest) -> Callable[[], bool]:
    """Note a question and return a way to ask whether it is still the newest of its page.

    A page names itself and counts its questions in the header X-Page, as "name.7", so that two that overtake each other
    on the way are told apart; without the header the answer is always yes.
    """
    page, _, number = request.headers.get(HEADER, "")[:80].rpartition(".")
    if not page or not number.isdecimal():
        return lambda: True
    key, ticket = (str(request.user.pk), page, request.path), int(number)
    with _lock:
        _newest[key] = max(ticket, _newest.get(key, 0))
        _newest.move_to_end(key)
        while len(_newest) > MOST_PAGES:
            _newest.popitem(last=False)
    return lambda: _newest.get(key, ticket) <= ticket
