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
