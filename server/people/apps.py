"""People."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    """People and depots."""

    name = "people"
