"""A line between browser and server that can be slow, or cut, or answer nonsense."""

import contextlib
import socket
import threading
import time


class Line:
    """A TCP proxy on loopback; what passes is delayed by ``delay`` seconds, nothing passes while ``cut``."""

    def __init__(self, port):
        self._to = port
        self.delay = 0.0
        self.is_cut = False
        self._open = set()
        self._door = socket.create_server(("127.0.0.1", 0), backlog=64)
        self.url = f"http://127.0.0.1:{self._door.getsockname()[1]}"
        threading.Thread(target=self._serve, daemon=True).start()

    def cut(self):
        """As if the server had crashed, or the cable had been pulled."""
        self.is_cut = True
        for one in list(self._open):
            with contextlib.suppress(OSError):
                one.shutdown(socket.SHUT_RDWR)

    def mend(self):
        self.is_cut = False

    def close(self):
        self.cut()
        self._door.close()

    def _serve(self):
        while True:
            try:
                near, _ = self._door.accept()
            except OSError:
                return
            if self.is_cut:
                near.close()
                continue
            far = socket.create_connection(("127.0.0.1", self._to))
            self._open |= {near, far}
            threading.Thread(target=self._pass, args=(near, far, True), daemon=True).start()
            threading.Thread(target=self._pass, args=(far, near, False), daemon=True).start()

    def _pass(self, from_, to, slowed):
        with contextlib.suppress(OSError):
            while data := from_.recv(65536):
                if slowed and self.delay:
                    time.sleep(self.delay)
                if self.is_cut:
                    break
                to.sendall(data)
        for one in (from_, to):
            self._open.discard(one)
            with contextlib.suppress(OSError):
                one.shutdown(socket.SHUT_RDWR)
            one.close()
