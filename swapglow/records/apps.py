"""The Django app that keeps the records."""

from django.apps import AppConfig


class RecordsConfig(AppConfig):
    """Equipment, rails, positions, readings, the drawer, and the journal behind undo."""

    name = "swapglow.records"
    default_auto_field = "django.db.models.BigAutoField"
