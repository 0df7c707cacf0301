"""Carry over: what its page shows."""
