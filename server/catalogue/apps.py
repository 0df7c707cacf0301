"""Catalogue."""

from typing import Any

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class CatalogueConfig(AppConfig):
    """Catalogue."""

    name = "catalogue"

    def ready(self) -> None:
        """Once the tables are up to date, so is what is read out of documents: no migration rests on today's rules."""
        from catalogue.actions import fill_traits  # models are there only once the apps are ready

        def after_migrating(**given: Any) -> None:
            fill_traits()

        post_migrate.connect(after_migrating, sender=self, weak=False, dispatch_uid="traits of boards")
