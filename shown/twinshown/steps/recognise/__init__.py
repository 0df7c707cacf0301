"""Recognise: what its page shows."""
