"""Hand over: what its page shows."""
