"""Recognise."""
