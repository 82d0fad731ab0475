"""A bench that is shared, and devices that come in by its second door over TLS, as a phone would."""

import http.client
import json
import re
import socket
import ssl
import uuid

import pytest

from tests.api.page import Bench

ADDRESS = "127.0.0.2"


class Phone:
    """A browser on another device: it keeps cookies, sends its page's token, and trusts what it was told to."""

    def __init__(self, port, *, plain=False):
        self.port, self.plain, self.cookies, self.host = port, plain, {}, f"{ADDRESS}:{port}"
        self.set_cookies = []

    def raw(self, method, path, body=b"", **headers):
        """Status, body and headers of one request; a header with None is left out."""
        kind = http.client.HTTPConnection if self.plain else http.client.HTTPSConnection
        more = {} if self.plain else {"context": ssl._create_unverified_context()}
        connection = kind(ADDRESS, self.port, timeout=20, **more)
        scheme = "http" if self.plain else "https"
        sent = {
            "Host": self.host,
            "Origin": f"{scheme}://{self.host}",
            "Content-Type": "application/json",
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
            **headers,
        }
        connection.request(method, path, body, {k: v for k, v in sent.items() if v is not None})
        answer = connection.getresponse()
        content = answer.read()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                self.set_cookies.append(value)
                key, kept = re.match(r"([^=]+)=([^;]*)", value).groups()
                self.cookies[key] = kept
        connection.close()
        return answer.status, content, dict(answer.getheaders())

    def open(self, path="/"):
        """Open a page; returns its status."""
        return self.raw("GET", path, Origin=None)[0]

    def __call__(self, method, path, body=None, **headers):
        text = b"" if body is None else json.dumps(body).encode()
        status, content, _ = self.raw(method, f"/api/{path}", text, **headers)
        return status, json.loads(content) if content else None

    def pair(self, offer, digits=None, name="Vice"):
        """Type the digits of an offer."""
        self.open("/pair")
        ticket = offer["url"].split("#")[1]
        return self(
            "POST", "pair", {"ticket": ticket, "digits": offer["digits"] if digits is None else digits, "name": name}
        )


@pytest.fixture(autouse=True)
def room(settings, tmp_path):
    """Certificate, photographs and backups of each test's own."""
    settings.VAR = tmp_path
    settings.PHOTOGRAPHS = tmp_path / "photographs"
    return tmp_path


@pytest.fixture
def port():
    with socket.socket() as found:
        found.bind((ADDRESS, 0))
        return found.getsockname()[1]


@pytest.fixture
def bench(monkeypatch, port, collected, transactional_db):
    """The bench itself, at which sharing is allowed and not begun."""
    from swapglow.devices import door, pairing, rates

    monkeypatch.setenv("SWAPGLOW_SHARE_ADDRESS", ADDRESS)
    monkeypatch.setenv("SWAPGLOW_SHARE_PORT", str(port))
    rates.forget()
    yield Bench()
    pairing.withdraw()
    door.shut_door()
    rates.forget()


@pytest.fixture
def stranger(bench, port):
    """A device that is not paired, before a bench that is shared."""
    assert bench("POST", "devices/share", {"on": True, "plain": False})[0] == 200
    return Phone(port)


@pytest.fixture
def phone(bench, stranger):
    """A paired device that works."""
    assert stranger.pair(bench("POST", "devices/offer", {"may_write": True})[1])[0] == 200
    return stranger


@pytest.fixture
def learner(bench, stranger):
    """A paired device that only looks."""
    assert stranger.pair(bench("POST", "devices/offer", {"may_write": False})[1])[0] == 200
    return stranger


@pytest.fixture
def new_key():
    return lambda: str(uuid.uuid4())
