"""An outing, its spells of effort with one set-up, and the events in them."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models
from django.utils import timezone

from stillthread.waters.models import Water
from stillthread.web.owned import Owned


class Outing(Owned):
    """A day or part of one on a water, with a frozen copy of its plan."""

    water = models.ForeignKey(Water, on_delete=models.RESTRICT, related_name="outings")
    plan_id = models.UUIDField(null=True, blank=True, default=None)
    plan_snapshot = models.JSONField(null=True, blank=True)
    started_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)
    note = models.TextField(blank=True, max_length=4000)

    class Meta:
        verbose_name = "outing"
        ordering = ["-started_at"]
        indexes = [models.Index(fields=["owner", "-started_at"]), models.Index(fields=["owner", "updated_at"])]

    def __str__(self) -> str:
        """Return water and day."""
        return f"{self.water} {self.started_at:%Y-%m-%d}"


class Spell(Owned):
    """A stretch of time with one set-up at one place, depth and pace: effort, whether or not anything took."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    outing = models.ForeignKey(Outing, on_delete=models.CASCADE, related_name="spells")
    place = models.CharField(max_length=80, blank=True)
    method = models.CharField(max_length=12)
    title = models.CharField(max_length=120)
    line_title = models.CharField(max_length=120, blank=True)
    depth_m = models.FloatField(null=True, blank=True)
    low_m = models.FloatField(null=True, blank=True)
    high_m = models.FloatField(null=True, blank=True)
    count_s = models.PositiveIntegerField(null=True, blank=True)
    pace = models.CharField(max_length=16)
    flies = models.JSONField(default=list)
    set_up_index = models.PositiveSmallIntegerField(null=True, blank=True)
    started_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        verbose_name = "spell"
        ordering = ["started_at"]
        indexes = [models.Index(fields=["owner", "updated_at"])]

    def __str__(self) -> str:
        """Return the title."""
        return self.title


class Event(Owned):
    """Something that happened in a spell, with the fly's depth as far as it is known."""

    spell = models.ForeignKey(Spell, on_delete=models.CASCADE, related_name="events")
    kind = models.CharField(max_length=10)
    phase = models.CharField(max_length=12, blank=True)
    occurred_at = models.DateTimeField()
    t_s = models.FloatField(null=True, blank=True)
    depth_m = models.FloatField(null=True, blank=True)
    low_m = models.FloatField(null=True, blank=True)
    high_m = models.FloatField(null=True, blank=True)
    fly = models.CharField(max_length=80, blank=True)
    species = models.CharField(max_length=10, blank=True)
    length_m = models.FloatField(null=True, blank=True)
    weight_kg = models.FloatField(null=True, blank=True)
    released = models.BooleanField(null=True, blank=True)
    note = models.CharField(max_length=400, blank=True)

    class Meta:
        verbose_name = "event"
        ordering = ["occurred_at"]
        indexes = [models.Index(fields=["owner", "updated_at"])]

    def __str__(self) -> str:
        """Return the kind."""
        return self.kind


class SeenNearby(Owned):
    """What was seen of somebody else fishing near: so many takes in so many minutes, depth and way where known."""

    outing = models.ForeignKey(Outing, on_delete=models.CASCADE, related_name="seen")
    seen_at = models.DateTimeField()
    minutes = models.FloatField()
    takes = models.PositiveSmallIntegerField()
    place = models.CharField(max_length=80, blank=True)
    depth_m = models.FloatField(null=True, blank=True)
    pace = models.CharField(max_length=16, blank=True)
    fly = models.CharField(max_length=80, blank=True)

    class Meta:
        verbose_name = "sighting of others"
        ordering = ["seen_at"]

    def __str__(self) -> str:
        """Return what was seen."""
        return f"{self.takes} in {self.minutes:g} min"


class Photo(Owned):
    """A photograph of an outing: what it shows, when, and at what depth where it has one. Its points lie in `Picture`."""

    outing = models.ForeignKey(Outing, on_delete=models.CASCADE, related_name="photos")
    shows = models.CharField(max_length=10)
    taken_at = models.DateTimeField()
    depth_m = models.FloatField(null=True, blank=True)
    note = models.CharField(max_length=400, blank=True)

    class Meta:
        verbose_name = "photo"
        ordering = ["taken_at"]

    def __str__(self) -> str:
        """Return what it shows."""
        return self.shows


class Picture(models.Model):
    """The picture of a photo, and a small one: apart, so that no list ever reads them. In the database, so that a backup,
    a restore and a deleted account take them along.
    """

    photo = models.OneToOneField(Photo, on_delete=models.CASCADE, primary_key=True, related_name="picture")
    jpeg = models.BinaryField()
    small = models.BinaryField()

    class Meta:
        verbose_name = "picture"

    def __str__(self) -> str:
        """Return its size."""
        return f"{len(self.jpeg)} bytes"


class Track(Owned):
    """The boat's track on an outing: seconds since 1970, longitude and latitude, point by point."""

    outing = models.OneToOneField(Outing, on_delete=models.CASCADE, related_name="track")
    points = models.JSONField(default=list)

    class Meta:
        verbose_name = "track"

    def __str__(self) -> str:
        """Return how many points it has."""
        return f"{len(self.points)} points"


class Together(models.Model):
    """An outing shared with one other angler by a code, until one of them ends it or its day is over.

    Each keeps an outing of their own; the two only see each other's stretches.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    outing = models.ForeignKey(Outing, on_delete=models.CASCADE, related_name="shared")
    code = models.CharField(max_length=6, unique=True)
    made_at = models.DateTimeField(default=timezone.now)
    ends_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True, blank=True)
    joined = models.ForeignKey(Outing, on_delete=models.CASCADE, null=True, blank=True, related_name="joined")
    joined_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        verbose_name = "shared outing"
        ordering = ["-made_at"]
        constraints = [
            models.UniqueConstraint(
                fields=["outing"], condition=models.Q(ended_at__isnull=True), name="one_open_share_an_outing"
            )
        ]

    def __str__(self) -> str:
        """Return the code."""
        return self.code


class OutingFact(models.Model):
    """An outing as the log counts it: its day, what was read on it, effort and fish.

    Made again where anything it was counted from has changed since; `stamp` is the last change that is in it.
    """

    outing = models.OneToOneField(Outing, on_delete=models.CASCADE, primary_key=True, related_name="fact")
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="+")
    on = models.DateField()
    month = models.PositiveSmallIntegerField(default=0)
    started_at = models.DateTimeField()
    surface_c = models.FloatField(null=True)
    wind_m_s = models.FloatField(null=True)
    wind = models.CharField(max_length=2, blank=True)
    hours = models.FloatField()
    takes = models.PositiveIntegerField()
    landed = models.PositiveIntegerField()
    plucks = models.PositiveIntegerField()
    methods = models.JSONField(default=list)
    stamp = models.DateTimeField()

    class Meta:
        verbose_name = "counted outing"
        indexes = [models.Index(fields=["owner", "-started_at"])]

    def __str__(self) -> str:
        """Return the day and what came."""
        return f"{self.on}: {self.takes} in {self.hours:.1f} h"


class OutingWords(models.Model):
    """What is looked for in an outing but not summed: every word noted, small; the UUIDs of its day's readings; how its takes
    and its effort lay against its plan.
    """

    fact = models.OneToOneField(OutingFact, on_delete=models.CASCADE, primary_key=True, related_name="words")
    text = models.TextField(blank=True)
    readings = models.TextField(blank=True)
    plan = models.JSONField(null=True)

    class Meta:
        verbose_name = "words of an outing"

    def __str__(self) -> str:
        """Return the first of them."""
        return self.text[:40]


class LogFact(models.Model):
    """What the log is sorted by: an outing's effort [h], takes and fish under one value of one thing noted.

    Of a team each fly has the whole effort, of a phase of the take the whole stretch's. A depth is told in centimetres, and as the step it lies in.
    """

    fact = models.ForeignKey(OutingFact, on_delete=models.CASCADE, related_name="sorted", db_index=False)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+", db_index=False)
    by = models.CharField(max_length=8)
    key = models.CharField(max_length=120)
    hours = models.FloatField()
    takes = models.PositiveIntegerField()
    landed = models.PositiveIntegerField()

    class Meta:
        verbose_name = "counted part"
        indexes = [
            # Sums are read from the index alone.
            models.Index(fields=["owner", "by", "key", "fact", "hours", "takes", "landed"], name="log_sums"),
            models.Index(fields=["fact"], name="log_of_outing"),
        ]

    def __str__(self) -> str:
        """Return what it is under."""
        return f"{self.by} {self.key}"


class Counted(models.Model):
    """How far an angler's log is counted: every change up to then, and what each fly stood for and each water was then."""

    owner = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, primary_key=True, related_name="+")
    at = models.DateTimeField()
    rules = models.PositiveSmallIntegerField()
    flies = models.JSONField(default=dict)
    waters = models.JSONField(default=dict)

    def __str__(self) -> str:
        """Return the instant."""
        return f"{self.at:%Y-%m-%d %H:%M}"
