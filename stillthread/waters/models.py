"""Waters, places, readings. Depths in metres below the surface."""

from __future__ import annotations

from django.db import models

from stillthread.web.owned import Owned


class Water(Owned):
    """A lake or reservoir of one angler, with the rules as that angler read them."""

    name = models.CharField(max_length=80)
    hemisphere = models.CharField(max_length=5, default="north")
    latitude_deg = models.FloatField(null=True, blank=True)
    longitude_deg = models.FloatField(null=True, blank=True)
    time_zone = models.CharField(max_length=64, default="UTC")
    max_depth_m = models.FloatField()
    species = models.JSONField(default=list)
    stocked_on = models.DateField(null=True, blank=True)
    rules = models.JSONField(default=dict)
    rules_read_on = models.DateField(null=True, blank=True)
    rules_source = models.CharField(max_length=200, blank=True)

    class Meta:
        verbose_name = "water"
        ordering = ["name", "id"]

    def __str__(self) -> str:
        """Return the name."""
        return self.name


class Place(Owned):
    """A place on a water."""

    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="places")
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=12)
    depth_min_m = models.FloatField(default=0)
    depth_max_m = models.FloatField()
    facing_deg = models.FloatField(null=True, blank=True)
    position = models.PositiveSmallIntegerField(default=0)

    class Meta:
        verbose_name = "place"
        ordering = ["position", "name"]

    def __str__(self) -> str:
        """Return the name."""
        return self.name


class Reading(Owned):
    """What was read at a water at one time: the reading and sightings documents as they were checked."""

    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="readings")
    place_name = models.CharField(max_length=80, blank=True)
    taken_at = models.DateTimeField()
    reading = models.JSONField(default=dict)
    sightings = models.JSONField(default=list)

    class Meta:
        verbose_name = "reading"
        ordering = ["-taken_at"]
        indexes = [models.Index(fields=["water", "-taken_at"])]

    def __str__(self) -> str:
        """Return water and time."""
        return f"{self.water} {self.taken_at:%Y-%m-%d %H:%M}"
