"""Prepare and serve the whole app at one loopback address: ``python -m swapglow.web.serve``."""

import os
import threading

import django
from waitress import create_server

from swapglow.web.prepare import prepare

HOST = "127.0.0.1"


def main() -> None:
    """Serve until interrupted; SWAPGLOW_PORT chooses the port (8417)."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "swapglow.web.settings.local")
    django.setup()
    prepare()
    from swapglow.web.wsgi import application

    port = int(os.environ.get("SWAPGLOW_PORT", "8417"))
    server = create_server(application, host=HOST, port=port, threads=8, ident="")
    print(f"Swap Glow is at http://{HOST}:{port}/  (Ctrl+C stops it)", flush=True)
    threading.Thread(target=_warm, daemon=True).start()
    try:
        server.run()
    except KeyboardInterrupt:
        server.close()


def _warm() -> None:
    """Work out every lamp once, so that the bench stands at once when it is opened."""
    from django.db import close_old_connections

    from swapglow.records.reports import warm

    warm()
    close_old_connections()


if __name__ == "__main__":
    main()
