"""Settings every way of running shares. The app answers only the machine it runs on and needs no network."""

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

DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]"]
# Records first: its runserver stands before the usual one, which would listen anywhere.
INSTALLED_APPS = ["swapglow.records", "django.contrib.staticfiles", "ninja", "simple_history"]
MIDDLEWARE = [
    "swapglow.web.loopback.LoopbackOnly",
    "swapglow.web.watch.Watch",
    "swapglow.web.zone.BrowsersZone",
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
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": VAR / DATABASE,
        # A thread keeps its connection: to open one costs as much as what most requests ask of it.
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            # auto_vacuum first: it is laid down with the first page of a new database.
            # synchronous=FULL: a reading that was acknowledged survives a power cut.
            "init_command": (
                "PRAGMA auto_vacuum=INCREMENTAL;PRAGMA journal_mode=WAL;PRAGMA synchronous=FULL;"
                "PRAGMA foreign_keys=ON;"
            ),
        },
    }
}
LOG = VAR / "log" / "swapglow.log"
LOGGING: dict[str, Any] = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "json": {
            "()": "swapglow.web.log.WithoutWords",
            "format": "%(asctime)s %(levelname)s %(name)s %(message)s",
        }
    },
    "handlers": {
        "file": {
            "class": "logging.handlers.RotatingFileHandler", "filename": LOG, "maxBytes": 1_000_000,
            "backupCount": 5, "formatter": "json", "encoding": "utf-8", "delay": True,
        }
    },
    "loggers": {
        "swapglow": {"handlers": ["file"], "level": "INFO"},
        "django.request": {"handlers": ["file"], "level": "ERROR", "propagate": False},
        "waitress": {"handlers": ["file"], "level": "ERROR", "propagate": False},
    },
}  # fmt: skip

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
CSRF_FAILURE_VIEW = "swapglow.api.plain.not_our_page"
DATA_UPLOAD_MAX_MEMORY_SIZE = 256 * 1024
