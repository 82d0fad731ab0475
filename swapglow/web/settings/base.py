"""Settings every way of running shares. The app needs no network, and answers whom ``web.doors`` lets in."""

import os
from pathlib import Path
from typing import Any

from swapglow.web.room import DATABASE, room

ROOT = Path(__file__).resolve().parents[3]
DEMO = os.environ.get("SWAPGLOW_DEMO") == "1"
VAR = room(demo=DEMO)
PHOTOGRAPHS = VAR / "photographs"
# In a checkout the front end is built beside the program; in an installed program it comes with it.
FRONT = Path(__file__).resolve().parents[1] / "front"
DIST = FRONT if FRONT.exists() else ROOT / "frontend" / "dist"
# What is new since the version that served these records before; filled at the start.
NEWS: list[str] = []
CHANGES = FRONT / "changes.md" if FRONT.exists() else ROOT / "CHANGELOG.md"

DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]"]
# Records first: its runserver stands before the usual one, which would listen anywhere.
INSTALLED_APPS = [
    "swapglow.records",
    "swapglow.devices.apps.Devices",
    "django.contrib.staticfiles",
    "ninja",
    "simple_history",
]
MIDDLEWARE = [
    "swapglow.web.doors.Doors",
    "swapglow.web.watch.Watch",
    "swapglow.web.zone.BrowsersZone",
    "swapglow.web.hand.Hand",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "swapglow.web.policy.ContentSecurityPolicy",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
ROOT_URLCONF = "swapglow.web.urls"
WSGI_APPLICATION = "swapglow.web.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [DIST],
        "OPTIONS": {"context_processors": ["swapglow.web.policy.nonce"]},
    }
]
DATABASES: dict[str, dict[str, Any]] = {
    name: {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": VAR / file,
        # A thread keeps its connection: to open one costs as much as what most requests ask of it.
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            # auto_vacuum first: it is laid down with the first page of a new database.
            # synchronous=FULL: a reading that was acknowledged survives a power cut.
            "init_command": (
                "PRAGMA auto_vacuum=INCREMENTAL;PRAGMA journal_mode=WAL;PRAGMA synchronous=FULL;PRAGMA foreign_keys=ON;"
            ),
        },
    }
    # Paired devices are apart: no backup holds them, and bringing one back changes none of them.
    for name, file in (("default", DATABASE), ("devices", "devices.sqlite3"))
}
DATABASE_ROUTERS = ["swapglow.devices.router.DevicesApart"]
LOG = VAR / "log" / "swapglow.log"
LOGGING: dict[str, Any] = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "json": {"()": "swapglow.web.log.WithoutWords", "format": "%(asctime)s %(levelname)s %(name)s %(message)s"}
    },
    "handlers": {
        "file": {
            "class": "logging.handlers.RotatingFileHandler",
            "filename": LOG,
            "maxBytes": 1_000_000,
            "backupCount": 5,
            "formatter": "json",
            "encoding": "utf-8",
            "delay": True,
        }
    },
    "loggers": {
        "swapglow": {"handlers": ["file"], "level": "INFO"},
        "django.request": {"handlers": ["file"], "level": "ERROR", "propagate": False},
        "waitress": {"handlers": ["file"], "level": "ERROR", "propagate": False},
    },
}

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"
USE_I18N = False

STATIC_URL = "/static/"
STATIC_ROOT = VAR / "static"
STATICFILES_DIRS = [DIST] if DIST.exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
# Vite names its assets by their content, so they may be kept for ever.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/static/assets/.*$"

FILE_UPLOAD_PERMISSIONS = 0o600
FILE_UPLOAD_DIRECTORY_PERMISSIONS = 0o700

X_FRAME_OPTIONS = "DENY"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
CSRF_COOKIE_SAMESITE = "Strict"
# What stands in place of these: the bench's own door is the loopback address, which has no TLS, so that neither a
# redirection to it nor a cookie that needs it can be set for all. The shared door speaks nothing but TLS, unless
# somebody chose otherwise, and every cookie that goes out by it is Secure (``web.doors``). Browsers take no HSTS from
# an address (RFC 6797, 8.1.1), and the bench has no name.
SILENCED_SYSTEM_CHECKS = ["security.W004", "security.W008", "security.W016"]
CSRF_FAILURE_VIEW = "swapglow.api.plain.not_our_page"
DATA_UPLOAD_MAX_MEMORY_SIZE = 256 * 1024
