"""Flies: choosing them, teams on a leader, the box beside the day."""
