"""Hand over."""
