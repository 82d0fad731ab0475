"""Open the app in the person's browser, where there is one and somebody who would see it."""

import os
import sys
import threading
import webbrowser


def open_browser(url: str) -> None:
    """Open an address, beside what goes on; does nothing from a script, or on a machine without a screen."""
    if somebody_is_there():
        threading.Thread(target=webbrowser.open, args=(url,), daemon=True).start()


def somebody_is_there() -> bool:
    """Whether the program was started by hand on a machine with a screen."""
    screen = sys.platform in ("win32", "darwin") or any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY"))
    return screen and sys.stdout.isatty()
