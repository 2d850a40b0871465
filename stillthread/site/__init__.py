"""Settings, addresses, and the one API object."""
