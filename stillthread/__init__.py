"""Still Thread: where the trout feed in a lake, how to get a fly there, and what came of it."""

__version__ = "0.1.0"
