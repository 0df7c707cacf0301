"""Prove."""
