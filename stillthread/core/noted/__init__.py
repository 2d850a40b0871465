"""What is noted of a water and read at it, and what follows from it at once: light, oxygen, fetch."""
