"""A process that has fetched the whole application and serves it in forks of itself: a server killed fifty times is back at once.

Each line it reads starts one more; it answers with the server's process id. What is served, and how, is the application's own.
"""

from __future__ import annotations

import importlib
import os
import signal
import sys


def main() -> None:
    """Fetch everything, then fork for each line until there are no more."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")
    serve = importlib.import_module("stillthread.site.serve")
    importlib.import_module("django").setup()
    importlib.import_module("stillthread.site.urls")
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # the dead are not waited for
    for _ in sys.stdin:
        child = os.fork()
        if child == 0:
            signal.signal(signal.SIGCHLD, signal.SIG_DFL)
            serve.main()
            os._exit(0)
        sys.stdout.write(f"{child}\n")
        sys.stdout.flush()


if __name__ == "__main__":
    main()
