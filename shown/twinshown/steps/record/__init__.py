"""Record: what its page shows."""
