"""Record."""
