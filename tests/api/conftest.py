"""What all tests of the API stand on."""

import pytest


@pytest.fixture(autouse=True)
def queue(monkeypatch):
    """A save only wakes the queue, as on the server: what is due is worked out by whoever calls for it."""
    from swapglow.records import summaries

    monkeypatch.setattr(summaries._working, "is_set", lambda: True)


@pytest.fixture(autouse=True)
def room(settings, tmp_path):
    """Photographs and backups of each test's own."""
    settings.VAR = tmp_path
    settings.PHOTOGRAPHS = tmp_path / "photographs"
    return tmp_path


@pytest.fixture
def other_databases(monkeypatch):
    """Let a test open a backup as a database of Django's: the test runner allows what it does not know of."""
    from django.db import connections

    monkeypatch.setattr(
        type(connections), "__contains__", lambda self, alias: alias == "default", raising=False
    )
