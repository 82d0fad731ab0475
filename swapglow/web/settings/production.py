"""Behind a TLS proxy: the key and the host come from the environment."""

import os

from swapglow.web.settings.base import *  # noqa: F403  # settings are one namespace

SECRET_KEY = os.environ["SWAPGLOW_SECRET_KEY"]
ALLOWED_HOSTS = [h for h in os.environ.get("SWAPGLOW_HOSTS", "").split(",") if h]
CSRF_TRUSTED_ORIGINS = [f"https://{h}" for h in ALLOWED_HOSTS]
SECURE_SSL_REDIRECT = True
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
SECURE_HSTS_SECONDS = 31_536_000
SECURE_HSTS_INCLUDE_SUBDOMAINS = True
SECURE_HSTS_PRELOAD = True
CSRF_COOKIE_SECURE = True
SESSION_COOKIE_SECURE = True
