"""Catalogue."""

from django.apps import AppConfig


class CatalogueConfig(AppConfig):
    """Catalogue."""

    name = "catalogue"
