"""Simulated outside devices and services that ship with the product."""
