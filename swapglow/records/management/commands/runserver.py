"""Django's own server, for this machine only."""

from typing import Any

from django.contrib.staticfiles.management.commands.runserver import Command as Usual
from django.core.management.base import CommandError

_HERE = ("", "127.0.0.1", "localhost", "::1", "[::1]")


class Command(Usual):
    """Refuse to listen where another machine could answer."""

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        given = str(options.get("addrport") or "")
        host = given.rpartition(":")[0] if not given.isdigit() else ""
        if host not in _HERE or (options.get("use_ipv6") and host == ""):
            raise CommandError("Until there are accounts, Swap Glow listens on 127.0.0.1 only.")
        super().handle(*args, **options)
