"""Make safe: what its page shows."""
