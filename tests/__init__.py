"""Tests. Nothing here asserts how long anything takes; speed lives in the bench."""

from hypothesis import HealthCheck, settings

settings.register_profile("still", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("still")
