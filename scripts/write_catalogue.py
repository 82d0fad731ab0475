"""Write the catalogue as the API serves it, for the front end's tests: they show the choices people get."""

import json
import os
import sys
from pathlib import Path

import django


def main(to: Path) -> None:
    """Write it.

    Args:
        to: the file.
    """
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "swapglow.web.settings.local")
    django.setup()
    from django.test import RequestFactory  # after the set-up

    from swapglow.api.catalogue import catalogue

    served = json.loads(catalogue(RequestFactory().get("/api/catalogue")).content)
    to.write_text(json.dumps(served, ensure_ascii=False, indent=1) + "\n")


if __name__ == "__main__":
    main(Path(sys.argv[1]))
