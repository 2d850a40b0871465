"""The WSGI application, with the slow imports started in the background."""

from __future__ import annotations

import os
import threading

from django.core.wsgi import get_wsgi_application

WARM_AFTER_S = 2.0
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "stillthread.site.settings")
application = get_wsgi_application()


def _warm() -> None:
    """Import what the first plan would otherwise wait for."""
    import scipy.special  # noqa: F401

    from stillthread.core.casts.warm import warm

    warm()


# Not beside the first page: the two would share one interpreter.
warming = threading.Timer(WARM_AFTER_S, _warm)
warming.daemon = True
warming.start()
