"""The search: its belief, its advice, and the document."""
