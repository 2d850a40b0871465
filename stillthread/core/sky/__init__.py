"""Sun, light, optics, wind and waves."""
