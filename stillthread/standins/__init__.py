"""Simulated instruments and services: small separate processes on real sockets, speaking open formats. All is invented."""
