"""One bench, one machine, plain HTTP on the loopback address: what ``make demo`` runs."""

import secrets

from swapglow.web.settings.base import *  # noqa: F403  # settings are one namespace
from swapglow.web.settings.base import VAR

VAR.mkdir(parents=True, exist_ok=True)
_key_file = VAR / "secret_key"
if not _key_file.exists():
    _key_file.write_text(secrets.token_urlsafe(64), encoding="ascii")
    _key_file.chmod(0o600)
SECRET_KEY = _key_file.read_text(encoding="ascii")
