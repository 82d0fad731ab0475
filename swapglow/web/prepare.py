"""Bring database, static files and demo up to date before serving: ``python -m swapglow.web.prepare``."""

import os

import django
from django.core.management import call_command


def main() -> None:
    """Migrate, collect the built front end, load the demo where the bench is empty."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "swapglow.web.settings.local")
    django.setup()
    call_command("migrate", verbosity=0, interactive=False)
    call_command("collectstatic", verbosity=0, interactive=False, clear=True)
    call_command("load_demo")


if __name__ == "__main__":
    main()
