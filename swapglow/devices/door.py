"""The second door: a server beside the bench's own, on this machine's private addresses, for paired devices only.

The bench's own server answers the loopback address and speaks no TLS; this one speaks it. What comes in here is marked
in the WSGI environment, where no header reaches, and is treated as a device's wherever it comes from.
"""

import logging
import os
import socket
import sys
import threading
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from cheroot.ssl.builtin import BuiltinSSLAdapter
from cheroot.wsgi import Server
from django.conf import settings
from django.core.wsgi import get_wsgi_application

from swapglow.devices import rates
from swapglow.devices.addresses import in_url, is_private, own_addresses
from swapglow.devices.certificate import Certificate, certificate
from swapglow.devices.models import Sharing

log = logging.getLogger("swapglow.devices")

# The mark of a request that came in by this door.
MARK = "swapglow.shared"
THREADS = 6
# A photograph or a bench's file; what a route takes of its own is less, and checked there.
LARGEST_BODY = 200 * 1024**2
# A phone that goes out of reach in mid-sentence lets go of its thread after so long, s.
SILENCE_S = 20
_STARTS_WITHIN_S = 10.0


class DoorError(Exception):
    """Why the bench cannot be shared, with a way out."""


class _Server(Server):
    """The server, which writes nothing to the screen."""

    def error_log(self, msg: str = "", level: int = logging.INFO, traceback: bool = False) -> None:
        """Note a fault. A phone that does not trust the certificate yet hangs up, which is none."""
        if traceback:
            log.error("a fault at the shared door", exc_info=True)


@dataclass
class _Open:
    servers: list[Server]
    hosts: tuple[str, ...]
    plain: bool
    certificate: Certificate | None
    addresses: list[str]
    threads: list[threading.Thread] = field(default_factory=list)


_lock = threading.Lock()
_open: _Open | None = None


def is_open() -> bool:
    """Whether other devices are answered."""
    return _open is not None


def hosts() -> tuple[str, ...]:
    """The values of the Host header that this door accepts: each address with the port."""
    return _open.hosts if _open else ()


def urls() -> list[str]:
    """The addresses of the bench for other devices, the likeliest first."""
    if _open is None:
        return []
    return [f"{'http' if _open.plain else 'https'}://{host}" for host in _open.hosts]


def fingerprint() -> str:
    """The certificate's fingerprint; "" while there is no TLS."""
    return _open.certificate.fingerprint if _open and _open.certificate else ""


def is_plain() -> bool:
    """Whether what goes through the door is not encrypted."""
    return _open is not None and _open.plain


def open_door(*, plain: bool = False) -> None:
    """Answer other devices. Does nothing where the door is open already in this way at the current addresses.

    Args:
        plain: without TLS: anybody on the same network can then read along.

    Raises:
        DoorError: there is no private address, or the port is taken.
    """
    global _open
    with _lock:
        if _open is not None and _open.plain == plain and _open.addresses == _addresses():
            return
        _shut()
        _open = _opened(plain)
        Sharing(pk=1, on=True, plain=plain).save()
        log.info("the shared door is open", extra={"plain": plain, "doors": len(_open.servers)})


def shut_door(*, keep: bool = False) -> None:
    """Answer this machine only.

    Args:
        keep: only until the next start, which opens it again.
    """
    with _lock:
        _shut()
        rates.forget()
        if not keep:
            Sharing(pk=1, on=False).save()


def _shut() -> None:
    global _open
    if _open is None:
        return
    for server in _open.servers:
        server.stop()
    for thread in _open.threads:
        thread.join(_STARTS_WITHIN_S)
    for host in _open.hosts:
        name = host.rsplit(":", 1)[0]
        if name in settings.ALLOWED_HOSTS:
            settings.ALLOWED_HOSTS.remove(name)
    _open = None


def _opened(plain: bool) -> _Open:
    addresses = _addresses()
    port = _port()
    made = None if plain else certificate(Path(settings.VAR), addresses)
    app = _marked(get_wsgi_application())
    servers: list[Server] = []
    try:
        for address in addresses:
            servers.append(_server(app, address, port, made))
    except OSError as problem:
        for server in servers:
            server.stop()
        raise DoorError(
            f"Port {port} cannot be used for phones: {problem.strerror or problem}. Choose another one with "
            f"SWAPGLOW_SHARE_PORT, such as {port + 10}, and start again."
        ) from None
    found = _Open(servers, tuple(f"{in_url(a)}:{port}" for a in addresses), plain, made, addresses)
    settings.ALLOWED_HOSTS.extend(in_url(a) for a in addresses)
    for server in servers:
        thread = threading.Thread(target=server.serve, name="shared-door", daemon=True)
        thread.start()
        found.threads.append(thread)
    return found


def _addresses() -> list[str]:
    named = os.environ.get("SWAPGLOW_SHARE_ADDRESS")
    if named and not is_private(named):
        raise DoorError(f"{named} is not an address of a private network. The bench is shared on those only.")
    found = [named] if named else own_addresses()
    if not found:
        raise DoorError(
            "This machine has no address on a private network. Connect it to the Wi-Fi that the phone is on, then "
            "try again."
        )
    return found


def _port() -> int:
    text = os.environ.get("SWAPGLOW_SHARE_PORT") or str(int(os.environ.get("SWAPGLOW_PORT") or 8417) + 1)
    if not (text.isascii() and text.isdigit() and 0 < int(text) < 65536):
        raise DoorError(f'SWAPGLOW_SHARE_PORT is "{text}"; a port is 1 to 65535, such as 8418.')
    return int(text)


def _server(app: Callable[..., Iterable[bytes]], address: str, port: int, made: Certificate | None) -> Server:
    _check_port(address, port)
    server = _Server(
        (address, port), app, numthreads=THREADS, server_name="bench", timeout=SILENCE_S, shutdown_timeout=2
    )
    server.max_request_body_size = LARGEST_BODY
    server.max_request_header_size = 64 * 1024
    if made is not None:
        server.ssl_adapter = BuiltinSSLAdapter(str(made.chain), str(made.key))
    server.prepare()
    return server


def _check_port(address: str, port: int) -> None:
    """Check that a port is free, before the server tries: a server that fails leaves its socket open.

    Raises:
        OSError: somebody has it, or it may not be used.
    """
    with socket.socket(socket.AF_INET6 if ":" in address else socket.AF_INET) as found:
        if sys.platform != "win32":
            found.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        found.bind((address, port))
        found.listen()


def _marked(app: Callable[..., Iterable[bytes]]) -> Callable[..., Iterable[bytes]]:
    def run(environ: dict[str, Any], start_response: Any) -> Iterable[bytes]:
        environ[MARK] = True
        return app(environ, start_response)

    return run
