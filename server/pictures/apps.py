"""Pictures."""

from django.apps import AppConfig


class PicturesConfig(AppConfig):
    """Pictures."""

    name = "pictures"
