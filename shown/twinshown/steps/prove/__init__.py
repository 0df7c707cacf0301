"""Prove: what its page shows."""
