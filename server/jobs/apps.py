"""Jobs."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """Jobs."""

    name = "jobs"
