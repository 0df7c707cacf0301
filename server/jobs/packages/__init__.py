"""Whole jobs as files, from depot to depot."""
