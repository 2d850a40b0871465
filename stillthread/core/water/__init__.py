"""The water: what was measured, and what it means before any fish is thought of."""
