"""Plans: making one, ranking what it offers, what to do next, what changed, what to mind."""
