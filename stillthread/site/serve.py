"""Serve the application: `python -m stillthread.site.serve`. One process, its threads never held by a slow sender.

The server reads a whole request, its body bounded, before a thread takes it up; who has not sent it all in time is cut off.
"""

from __future__ import annotations

import logging
import os
import signal
import sys
import threading
import time
from types import FrameType
from typing import Any

from waitress.channel import HTTPChannel
from waitress.server import TcpWSGIServer

log = logging.getLogger("stillthread")
THREADS = 8
FIRST_TIDY_S, DAY_S = 60.0, 24 * 3600.0
MOST_CONNECTIONS = 600
SENT_WITHIN_S = 20.0  # a request, headers and body, from its first byte
IDLE_S = 60  # a connection kept open between requests
TIDIED_EVERY_S = 2
MOST_BODY_BYTES = 4_000_000  # nothing larger is spooled; the application refuses sooner and says why
MOST_HEADER_BYTES = 32_000


class Channel(HTTPChannel):
    """A connection that knows since when it has been sending one request."""

    begun: float | None = None

    def received(self, data: bytes) -> bool:
        """Take in what came; the time runs from a request's first byte to its last."""
        if self.begun is None:
            self.begun = time.time()
        took = bool(super().received(data))
        if self.request is None:
            self.begun = None
        return took


class Server(TcpWSGIServer):
    """The server, which also closes connections that dribble."""

    channel_class = Channel

    def maintenance(self, now: float) -> None:
        """Close what has been idle, and what has not sent its request in time."""
        super().maintenance(now)
        for channel in self.active_channels.values():
            late = channel.begun is not None and now - channel.begun > SENT_WITHIN_S
            if late and not channel.requests:
                channel.will_close = True


def make_server(application: Any, host: str, port: int, proxy: str = "") -> Server:
    """Return a server that listens; the headers of a `proxy`, named by its address, are believed, nobody else's.

    Raises OSError where it cannot listen.
    """
    named: dict[str, Any] = {}
    if proxy:
        names = "x-forwarded-for x-forwarded-host x-forwarded-proto x-forwarded-port"
        named = {"trusted_proxy": proxy, "trusted_proxy_count": 1, "trusted_proxy_headers": names}
    return Server(
        application,
        host=host,
        port=port,
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=IDLE_S,
        cleanup_interval=TIDIED_EVERY_S,
        max_request_body_size=MOST_BODY_BYTES,
        max_request_header_size=MOST_HEADER_BYTES,
        asyncore_use_poll=True,
        clear_untrusted_proxy_headers=True,
        ident=None,
        **named,
    )


def _stop(number: int, frame: FrameType | None) -> None:
    raise SystemExit(0)


def _tidy_daily() -> None:
    """Clear out what nobody needs, a minute after the start and then once a day."""
    from django.db import connection  # noqa: PLC0415 - after the settings

    from stillthread.site.keeping import tidy  # noqa: PLC0415

    time.sleep(FIRST_TIDY_S)
    while True:
        try:
            tidy()
        except Exception:
            log.exception("tidying failed")
        connection.close()
        time.sleep(DAY_S)


def _port(told: str) -> int:
    """The port to listen at. Exits with what is accepted where it is none."""
    if not (told.isascii() and told.isdigit() and 0 < int(told) < 65536):
        sys.exit(f"still: STILL_PORT is '{told[:20]}'; accepted: a whole number from 1 to 65535")
    return int(told)


def main() -> None:
    """Check the database and the settings, say where it serves, and serve until told to stop."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")
    port = _port(os.environ.get("STILL_PORT", "8000"))
    if os.environ.get("STILL_DEMO") != "1":
        os.environ.setdefault("STILL_LOGS", "logs")
    from stillthread.site.wsgi import application  # noqa: PLC0415 - the settings are named first

    from django.conf import settings  # noqa: PLC0415  # isort: skip

    from stillthread.accounts.mark import why_not_served  # noqa: PLC0415

    fault = why_not_served(demo=settings.DEMO, tls=settings.SECURE, proxy=settings.PROXY)
    if fault:
        sys.exit(f"still: {fault}")
    try:
        server = make_server(application, settings.LISTEN, port, settings.PROXY)
    except OSError as error:
        sys.exit(f"still: cannot listen at {settings.LISTEN} port {port}: {error.strerror}. Remedy: STILL_PORT=8001")
    signal.signal(signal.SIGTERM, _stop)
    threading.Thread(target=_tidy_daily, daemon=True).start()
    where = f"http://{settings.LISTEN}:{port}/"
    only = " (this machine only; stop with Ctrl-C)" if settings.DEMO else ""
    sys.stderr.write(f"Still Thread is at {where}{only}\n")
    server.run()


if __name__ == "__main__":
    main()
