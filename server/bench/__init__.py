"""The bench: any two boards side by side."""
