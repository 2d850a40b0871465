"""A kept plan: the input it was made from and the answer, both frozen."""

from __future__ import annotations

from django.db import models

from stillthread.waters.models import Water
from stillthread.web.owned import Owned


class Plan(Owned):
    """A plan as it was when kept."""

    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="plans")
    when = models.DateTimeField()
    request = models.JSONField()
    answer = models.JSONField()

    class Meta:
        verbose_name = "plan"
        ordering = ["-when"]

    def __str__(self) -> str:
        """Return water and time."""
        return f"{self.water} {self.when:%Y-%m-%d %H:%M}"
