"""Password sign-in, with the demo accounts shut wherever the demo is not running."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.contrib.auth.backends import ModelBackend

from stillthread.accounts.models import Angler


class AnglerBackend(ModelBackend):
    """Django's own backend, less the demo accounts outside the demo."""

    def user_can_authenticate(self, user: Any) -> bool:
        """Refuse a demo account unless this server runs the demo."""
        if not super().user_can_authenticate(user):
            return False
        return settings.DEMO or not Angler.objects.filter(user=user, is_demo=True).exists()
