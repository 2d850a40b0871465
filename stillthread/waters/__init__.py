"""Waters, their places and rules, and what was read there."""
