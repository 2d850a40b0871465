"""Outings, spells and events: effort, takes, and what the log says of them."""
