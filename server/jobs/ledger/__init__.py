"""The record: a chain of entries."""
