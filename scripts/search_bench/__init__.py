"""Virtual lakes on which the search is measured against fixed ladders; they differ from what the advisor believes on purpose."""
