"""One bench, one machine, plain HTTP on the loopback address: what ``swapglow serve`` runs."""

import os
import secrets

from swapglow.web.settings.base import *  # noqa: F403  # settings are one namespace
from swapglow.web.settings.base import LOG, VAR

# Records and photographs are nobody else's: what is made from here on is for its owner only.
os.umask(0o077)
VAR.mkdir(parents=True, exist_ok=True)
LOG.parent.mkdir(exist_ok=True)
_key_file = VAR / "secret_key"
if not _key_file.exists() or not _key_file.read_text(encoding="ascii").strip():
    _key_file.write_text(secrets.token_urlsafe(64), encoding="ascii")
SECRET_KEY = _key_file.read_text(encoding="ascii")
