"""A set-up as it is offered: what stands in it, the one table of retrieves and paces, and what it is worth."""
