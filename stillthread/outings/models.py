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
    """An outing as the log counts it: its day, what was read on it, effort and fish, and every word in it.

    Made again where anything it was counted from has changed since; `readings` are the UUIDs of those of its day,
    `plan` how its takes and its effort lay against its plan, `stamp` is the last change that is in it.
    """

    outing = models.OneToOneField(Outing, on_delete=models.CASCADE, primary_key=True, related_name="fact")
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="+")
    on = models.DateField()
    started_at = models.DateTimeField()
    surface_c = models.FloatField(null=True)
    wind_m_s = models.FloatField(null=True)
    wind = models.CharField(max_length=2, blank=True)
    hours = models.FloatField()
    takes = models.PositiveIntegerField()
    landed = models.PositiveIntegerField()
    plucks = models.PositiveIntegerField()
    methods = models.JSONField(default=list)
    text = models.TextField(blank=True)
    readings = models.TextField(blank=True)
    plan = models.JSONField(null=True)
    stamp = models.DateTimeField()

    class Meta:
        verbose_name = "counted outing"
        indexes = [models.Index(fields=["owner", "-started_at"])]

    def __str__(self) -> str:
        """Return the day and what came."""
        return f"{self.on}: {self.takes} in {self.hours:.1f} h"


class StretchFact(models.Model):
    """A stretch as the log counts it: effort [h], takes and fish, under everything it may be sorted by."""

    spell = models.OneToOneField(Spell, on_delete=models.CASCADE, primary_key=True, related_name="fact")
    fact = models.ForeignKey(OutingFact, on_delete=models.CASCADE, related_name="stretches")
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    water = models.ForeignKey(Water, on_delete=models.CASCADE, related_name="+")
    hours = models.FloatField()
    takes = models.PositiveIntegerField()
    landed = models.PositiveIntegerField()
    depth_m = models.FloatField(null=True)
    month = models.PositiveSmallIntegerField()
    hour = models.PositiveSmallIntegerField()
    surface = models.SmallIntegerField(null=True)
    at_fly = models.SmallIntegerField(null=True)
    sun = models.CharField(max_length=6, blank=True)
    light = models.CharField(max_length=6, blank=True)
    wind = models.CharField(max_length=2, blank=True)
    place = models.CharField(max_length=80, blank=True)
    method = models.CharField(max_length=12)
    line = models.CharField(max_length=120, blank=True)
    pace = models.CharField(max_length=16)

    class Meta:
        verbose_name = "counted stretch"

    def __str__(self) -> str:
        """Return effort and takes."""
        return f"{self.takes} in {self.hours:.1f} h"


class TagFact(models.Model):
    """What a stretch may have several of: its flies, what they stand for, their tones, and the phases of its takes.

    Of a team each fly has the whole effort; of a phase the effort is the whole stretch's.
    """

    stretch = models.ForeignKey(StretchFact, on_delete=models.CASCADE, related_name="tags")
    fact = models.ForeignKey(OutingFact, on_delete=models.CASCADE, related_name="tags")
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    tag = models.CharField(max_length=5)
    key = models.CharField(max_length=80)
    hours = models.FloatField()
    takes = models.PositiveIntegerField()
    landed = models.PositiveIntegerField()

    class Meta:
        verbose_name = "counted tag"
        indexes = [models.Index(fields=["owner", "tag", "key", "hours", "takes", "landed"])]

    def __str__(self) -> str:
        """Return the tag and its key."""
        return f"{self.tag} {self.key}"


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
