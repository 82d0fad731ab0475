"""Bring database, static files and demo up to date before serving."""

from django.conf import settings
from django.core.management import call_command


def prepare() -> None:
    """Migrate, collect the front end where it was built anew, load the demo where the bench is empty."""
    # Models may be imported only once Django is set up.
    from swapglow.records.photographs import sweep_out

    call_command("migrate", verbosity=0, interactive=False)
    built = settings.DIST / "index.html"
    collected = settings.STATIC_ROOT / "index.html"
    if not collected.exists() or collected.stat().st_mtime < built.stat().st_mtime:
        call_command("collectstatic", verbosity=0, interactive=False, clear=True)
    call_command("load_demo")
    sweep_out()
