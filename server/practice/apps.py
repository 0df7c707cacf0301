"""The app of practice."""

from django.apps import AppConfig


class PracticeConfig(AppConfig):
    """Tasks, attempts, skills and groups."""

    name = "practice"
