"""The rules and computations of Worthy Twin: no interface code, no clock, no disk."""

VERSION = "0.5.0"
"""Of the whole product; the changelog begins with it."""
