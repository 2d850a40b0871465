"""What the log says: rates with their doubt."""
