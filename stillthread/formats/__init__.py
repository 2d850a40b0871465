"""Formats in and out: the plan document, profile files. No Django, no server."""
