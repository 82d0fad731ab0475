"""The devices as a Django app, with a database of its own."""

from django.apps import AppConfig


class Devices(AppConfig):
    """Paired devices and links."""

    name = "swapglow.devices"
    label = "devices"
    default_auto_field = "django.db.models.BigAutoField"
