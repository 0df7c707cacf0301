"""Choose."""
