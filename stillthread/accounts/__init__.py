"""Anglers and their settings."""
