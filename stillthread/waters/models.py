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
    elevation_m = models.FloatField(null=True, blank=True)
    fetch_m = models.FloatField(null=True, blank=True)
    productivity = models.CharField(max_length=6, blank=True, default="")
    hypsography = models.JSONField(default=list)
    outline = models.JSONField(default=list)
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
    longitude_deg = models.FloatField(null=True, blank=True)
    latitude_deg = models.FloatField(null=True, blank=True)
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
    samples = models.JSONField(default=list)

    class Meta:
        verbose_name = "reading"
        ordering = ["-taken_at", "-updated_at"]  # of two of one instant the one that came last
        indexes = [models.Index(fields=["water", "-taken_at"]), models.Index(fields=["owner", "updated_at"])]

    def __str__(self) -> str:
        """Return water and time."""
        return f"{self.water} {self.taken_at:%Y-%m-%d %H:%M}"

    @property
    def own_profile(self) -> list[dict[str, float]]:
        """The temperatures read with it; none where they were carried over from an earlier reading."""
        return [] if self.reading.get("profile_at") else self.reading.get("profile") or []


class Sounding(Owned):
    """One depth of the bed below the water's datum, by hand or from a map: where, how, when."""

    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="soundings")
    place_name = models.CharField(max_length=80, blank=True)
    longitude_deg = models.FloatField(null=True, blank=True)
    latitude_deg = models.FloatField(null=True, blank=True)
    sounding_m = models.FloatField()
    method = models.CharField(max_length=16)
    taken_at = models.DateTimeField()

    class Meta:
        verbose_name = "sounding"
        ordering = ["-taken_at", "id"]
        indexes = [models.Index(fields=["water", "-taken_at"])]

    def __str__(self) -> str:
        """Return depth and water."""
        return f"{self.sounding_m:.1f} m on {self.water}"


class SoundingLine(Owned):
    """A line recorded from a boat's instruments: points [seconds, lon, lat, depth below the surface, temperature]."""

    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="lines")
    started_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)
    level_m = models.FloatField(default=0)
    points = models.JSONField(default=list)

    class Meta:
        verbose_name = "sounding line"
        ordering = ["-started_at"]

    def __str__(self) -> str:
        """Return water and time."""
        return f"{self.water} {self.started_at:%Y-%m-%d %H:%M}"


class Forecast(Owned):
    """The weather by hour as a service or a file gave it."""

    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="forecasts")
    fetched_at = models.DateTimeField()
    source = models.CharField(max_length=120)
    hours = models.JSONField(default=list)

    class Meta:
        verbose_name = "forecast"
        ordering = ["-fetched_at"]
        indexes = [models.Index(fields=["water", "-fetched_at"])]

    def __str__(self) -> str:
        """Return water and time."""
        return f"{self.water} {self.fetched_at:%Y-%m-%d %H:%M}"
