"""What every app's API shares: owned rows, and one shape for every error."""
