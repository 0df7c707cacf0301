"""Carry over."""
