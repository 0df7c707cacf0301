"""Commands of van stock."""
