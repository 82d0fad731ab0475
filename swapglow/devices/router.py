"""Devices have a database beside the records: bringing back a backup brings back no device that was taken away."""

from typing import Any

ALIAS = "devices"


class DevicesApart:
    """Send the devices' models to their own database, and nothing else there."""

    def db_for_read(self, model: type[Any], **hints: Any) -> str | None:
        """Where a model is read; None leaves that to the call."""
        return ALIAS if model._meta.app_label == ALIAS else None

    db_for_write = db_for_read

    def allow_migrate(self, db: str, app_label: str, **hints: Any) -> bool:
        """Whether a table belongs in a database. Copies of a backup have aliases of their own, and are records."""
        return (db == ALIAS) == (app_label == ALIAS)
