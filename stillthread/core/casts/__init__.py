"""Casts and floats through time: what is tied on, thrown, counted down, brought in; tracks, bands, tables, calibration."""
