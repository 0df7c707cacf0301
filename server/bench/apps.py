"""Bench."""

from django.apps import AppConfig


class BenchConfig(AppConfig):
    """Bench."""

    name = "bench"
