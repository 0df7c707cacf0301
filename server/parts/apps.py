"""The app of the parts desk."""

from django.apps import AppConfig


class PartsConfig(AppConfig):
    """What the parts desk says."""

    name = "parts"
