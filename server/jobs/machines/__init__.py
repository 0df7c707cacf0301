"""Machines with their history."""
