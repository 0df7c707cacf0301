"""Fit: what its page shows."""
