"""The workshop as an app."""

from django.apps import AppConfig


class WorkshopConfig(AppConfig):
    """No tables of its own yet: what is made here are boards and families of the catalogue."""

    name = "workshop"
