"""Invented anglers, waters and a part-season of outings."""
