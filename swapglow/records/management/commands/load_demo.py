"""Load the demo, once."""

from typing import Any

from django.core.management.base import BaseCommand

from swapglow.records import demo


class Command(BaseCommand):
    """Make the demo's equipment where the bench is empty."""

    help = "Load the demo equipment where the bench is empty."

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        if demo.is_loaded():
            return
        count = demo.load()
        self.stdout.write(f"Demo loaded: {count} lamp positions.")
