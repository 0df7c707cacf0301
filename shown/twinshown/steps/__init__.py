"""The nine steps, each with what its page shows."""
