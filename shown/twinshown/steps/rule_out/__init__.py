"""Rule out: what its page shows."""
