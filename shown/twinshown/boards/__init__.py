"""The boards of a job side by side."""
