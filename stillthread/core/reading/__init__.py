"""What a reading of the water means: edges, hours, wind, guide, cautions, and what the hours bring."""
