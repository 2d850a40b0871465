"""An angler: the person behind a sign-in, with units, words and reach."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Angler(models.Model):
    """Settings of one user. Lengths in metres."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="angler")
    depth_unit = models.CharField(max_length=2, default="m")  # m, ft
    temperature_unit = models.CharField(max_length=1, default="c")  # c, f
    wind_unit = models.CharField(max_length=8, default="m_s")  # m_s, km_h, mph, kn, bft
    vocabulary = models.CharField(max_length=2, default="gb")  # gb, na
    rod_m = models.FloatField(default=2.9)
    net_m = models.FloatField(default=0.6)
    arm_m = models.FloatField(default=0.6)
    cast_m = models.FloatField(default=18.0)
    afloat = models.BooleanField(default=False)
    rods = models.PositiveSmallIntegerField(default=1)
    methods_left_out = models.JSONField(default=list, blank=True)
    schools = models.JSONField(default=dict, blank=True)
    costs = models.JSONField(default=dict, blank=True)  # minutes a change on the water takes
    owns = models.JSONField(default=dict, blank=True)  # floats, tippets, sinking leader
    learnt = models.JSONField(default=dict, blank=True)  # figures of the plan taken over from the own log
    is_demo = models.BooleanField(default=False)

    def __str__(self) -> str:
        """Return the sign-in name."""
        return str(self.user)


class DemoMark(models.Model):
    """Stands in a database that the demo was loaded into; demo accounts open only there."""

    made_at = models.DateTimeField()

    def __str__(self) -> str:
        """Return when it was made."""
        return f"demo since {self.made_at:%Y-%m-%d}"


class OneTimeCode(models.Model):
    """A code that sets a new password or lets somebody make an account, once."""

    kind = models.CharField(max_length=8)  # reset, invite
    user = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.CASCADE, related_name="+")
    code_hash = models.CharField(max_length=64)
    ends_at = models.DateTimeField()

    def __str__(self) -> str:
        """Return what it is for."""
        return self.kind


class Device(models.Model):
    """A device somebody is signed in with: its session, what it says it is, and since when."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="devices")
    session_key = models.CharField(max_length=40, unique=True)
    says = models.CharField(max_length=200, blank=True)
    signed_in_at = models.DateTimeField()

    def __str__(self) -> str:
        """Return what it says it is."""
        return self.says
