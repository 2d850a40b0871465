"""Documents of rigs and casts: what is simulated, kept, calibrated and put into tables, and the answers."""
