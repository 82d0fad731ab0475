"""Prepare and serve the whole app at one loopback address: ``python -m swapglow.web.serve``."""

import os

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
    try:
        server.run()
    except KeyboardInterrupt:
        server.close()


if __name__ == "__main__":
    main()
