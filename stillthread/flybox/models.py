"""Lines, flies and kept rigs of an angler."""

from __future__ import annotations

from django.db import models

from stillthread.web.owned import Owned


class Line(Owned):
    """A fly line; the rate is the one on the box in inches per second."""

    name = models.CharField(max_length=80, blank=True)
    family = models.CharField(max_length=12)
    label_ips = models.FloatField(default=0)
    weight_class = models.PositiveSmallIntegerField(default=7)
    tip_length_m = models.FloatField(default=0)
    density_profile = models.CharField(max_length=12, default="level")
    measured_m_s = models.FloatField(null=True, blank=True)  # timed on a slack level piece; overrides the label

    class Meta:
        verbose_name = "line"
        ordering = ["family", "label_ips", "received_at"]

    def __str__(self) -> str:
        """Return family and rate."""
        return self.name or f"{self.family} {self.label_ips:g}"


class Fly(Owned):
    """A pattern in the box: what it stands for, sizes carried, tone, weight, how many."""

    name = models.CharField(max_length=80)
    prey = models.JSONField(default=list)
    hooks = models.JSONField(default=list)
    tone = models.CharField(max_length=8)
    weight = models.CharField(max_length=10)
    surface = models.BooleanField(default=False)
    stock = models.PositiveIntegerField(null=True, blank=True)
    family = models.CharField(max_length=16, blank=True)
    counts = models.JSONField(default=list)  # [{hook, colour, count}]
    build = models.JSONField(null=True, blank=True)
    recipe = models.JSONField(default=dict)

    class Meta:
        verbose_name = "fly"
        ordering = ["name", "id"]

    def __str__(self) -> str:
        """Return the name."""
        return self.name


class Rig(Owned):
    """A rig kept on the thread bench, as a simulate document."""

    name = models.CharField(max_length=80)
    document = models.JSONField()

    class Meta:
        verbose_name = "rig"
        ordering = ["name", "id"]

    def __str__(self) -> str:
        """Return the name."""
        return self.name
