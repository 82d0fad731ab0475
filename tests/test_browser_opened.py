"""A browser is opened for a person at a screen, and for nobody else."""

import sys
import threading

import pytest

from swapglow.web import browser


@pytest.mark.parametrize(
    ("platform", "display", "terminal", "opened"),
    [
        ("linux", ":0", True, True),
        ("linux", "", True, False),
        ("linux", ":0", False, False),
        ("darwin", "", True, True),
        ("win32", "", True, True),
        ("win32", "", False, False),
    ],
)
def test_it_opens_where_somebody_sees_it(monkeypatch, platform, display, terminal, opened):
    seen = threading.Event()
    monkeypatch.setattr(sys, "platform", platform)
    monkeypatch.setattr(sys.stdout, "isatty", lambda: terminal, raising=False)
    monkeypatch.delenv("WAYLAND_DISPLAY", raising=False)
    monkeypatch.setenv("DISPLAY", display)
    monkeypatch.setattr(browser.webbrowser, "open", lambda url: seen.set())
    browser.open_browser("http://127.0.0.1:1/")
    assert seen.wait(2 if opened else 0.2) is opened
