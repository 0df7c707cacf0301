"""The workshop as an app."""

from django.apps import AppConfig


class WorkshopConfig(AppConfig):
    """Drafts; what comes of them are boards and families of the catalogue."""

    name = "workshop"
