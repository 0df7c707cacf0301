"""The app of cross-references."""

from django.apps import AppConfig


class ReferencesConfig(AppConfig):
    """Statements about which board may stand in for which."""

    name = "references"
