"""Commands of the workshop."""
