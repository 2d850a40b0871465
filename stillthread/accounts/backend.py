"""Password sign-in, with the demo accounts shut wherever the demo is not running."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth.backends import ModelBackend
from django.http import HttpRequest

from stillthread.accounts.models import Angler


class AnglerBackend(ModelBackend):
    """Django's own backend, less the demo accounts outside the demo."""

    def authenticate(
        self, request: HttpRequest | None, username: str | None = None, password: str | None = None, **kwargs: Any
    ) -> Any:
        """Refuse a demo account unless this server runs the demo; asked at sign-in alone, a session is not asked again."""
        user = super().authenticate(request, username=username, password=password, **kwargs)
        if user is None or settings.DEMO or not Angler.objects.filter(user_id=user.pk, is_demo=True).exists():
            return user
        return None
