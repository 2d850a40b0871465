"""Everything of an angler in one file, out and in again."""
