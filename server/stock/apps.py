"""The app of van stock."""

from django.apps import AppConfig


class StockConfig(AppConfig):
    """Vans, machines served, shelves and plans."""

    name = "stock"
